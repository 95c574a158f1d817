package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.edit.Placement;
import hushrise.core.fit.Songs;
import hushrise.core.mix.Mixer;
import hushrise.core.play.Player;
import hushrise.core.play.Range;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.sound.AudioOutput;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import hushrise.core.time.Span;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;

/** What was played is what is exported, to the bit. */
class PlayedIsExportedTest extends MediaTestCase {

  /** Sounds everything at once and keeps it. */
  private static final class Kept implements AudioOutput {
    private final float[] left = new float[6 * RATE];
    private final float[] right = new float[6 * RATE];
    private final AtomicInteger count = new AtomicInteger();

    @Override
    public String name() {
      return "kept";
    }

    @Override
    public void write(float[] l, float[] r, int frames) {
      System.arraycopy(l, 0, left, count.get(), frames);
      System.arraycopy(r, 0, right, count.get(), frames);
      count.addAndGet(frames);
    }

    @Override
    public long framesSounded() {
      return count.get();
    }

    @Override
    public void flush() {}

    @Override
    public void close() {}
  }

  @Test
  void aFilmThatIsPlayedThroughIsTheExportedMix() {
    Path song = folder.resolve("song.wav");
    float[] tone = sine(233, 0.4, 5 * RATE);
    float[] other = sine(311, 0.3, 5 * RATE);
    try (FileMixWriter writer = FileMixWriter.ofSound(song, OutputFormat.WAV_16, RATE)) {
      writer.write(tone, other, tone.length);
      writer.finish();
    }
    Project project =
        Placement.add(
            Project.empty("p").withMasterDb(-1.3),
            store.take(song, MediaKind.MUSIC, Progress.NONE),
            0,
            Songs.NONE);
    Project shaped =
        project.withTrack(
            project.firstTrack(TrackKind.MUSIC).orElseThrow().id(),
            t -> t.withHushes(List.of(Hush.over(new Span(70_001, 120_007), -11.3))));
    Path out = folder.resolve("mix.wav");
    Exporter.export(shaped, store, out, OutputFormat.WAV_32_FLOAT, Progress.NONE);
    Kept kept = new Kept();
    Player.Listener nobody =
        new Player.Listener() {
          @Override
          public void failed(Throwable why) {
            throw new AssertionError(why);
          }

          @Override
          public void outputLost(String lost, String now) {
            throw new AssertionError(lost);
          }
        };
    int length = (int) shaped.lengthFrames();
    try (Player player = new Player(RATE, kept, Kept::new, nobody)) {
      player.play(Mixer.of(shaped, store), 0, Range.once(0, length));
      while (player.isPlaying()) {
        Thread.onSpinWait();
      }
    }
    assertThat(kept.count.get()).isEqualTo(length);
    SampleSource exported = open(out);
    float[] left = new float[length];
    float[] right = new float[length];
    exported.read(0, length, left, right, 0);
    assertThat(Arrays.mismatch(Arrays.copyOf(kept.left, length), left)).isEqualTo(-1);
    assertThat(Arrays.mismatch(Arrays.copyOf(kept.right, length), right)).isEqualTo(-1);
  }
}
