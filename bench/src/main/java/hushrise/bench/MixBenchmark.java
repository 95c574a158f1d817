package hushrise.bench;

import hushrise.core.mix.Mixer;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelLine;
import hushrise.core.project.level.SegmentShape;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Fade;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.SampleSource;
import hushrise.core.time.Span;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/**
 * One minute of three stereo tracks with lines, hushes and fades, in memory, on one core. 60 s
 * divided by the score is the real-time factor.
 */
@State(Scope.Thread)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 3, time = 1)
@Measurement(iterations = 5, time = 1)
@Fork(1)
public class MixBenchmark {

  private static final int RATE = 48_000;
  private static final int SECONDS = 60;
  private static final int BLOCK = 4096;

  @Param({"5", "5000"})
  private int keyframes;

  private Mixer mixer;
  private final float[] left = new float[BLOCK];
  private final float[] right = new float[BLOCK];

  /** Makes the project. */
  @Setup
  public void makeProject() {
    float[][] sound = new float[2][SECONDS * RATE];
    Random random = new Random(1);
    for (float[] channel : sound) {
      for (int i = 0; i < channel.length; i++) {
        channel[i] = random.nextFloat() - 0.5f;
      }
    }
    SampleSource source = SampleSource.of(sound);
    Project project = Project.empty("bench");
    List<Track> tracks = new ArrayList<>();
    for (int t = 0; t < 3; t++) {
      Media media =
          new Media(
              "m" + t,
              Path.of("m"),
              MediaKind.MUSIC,
              source.lengthFrames(),
              true,
              Optional.empty(),
              "");
      project = project.withMedia(media);
      Clip clip =
          Clip.whole(media, 0)
              .withFadeIn(Fade.ofLength(2 * RATE))
              .withFadeOut(Fade.ofLength(4 * RATE));
      tracks.add(
          Track.of(TrackKind.MUSIC, "t" + t, List.of(clip))
              .withLine(line(random))
              .withHushes(hushes()));
    }
    mixer = Mixer.of(project.withTracks(tracks), (media, rate) -> source);
  }

  /** The keyframes, most of them on one level, as a line that somebody shaped in places has. */
  private LevelLine line(Random random) {
    List<Keyframe> all = new ArrayList<>();
    long step = (long) SECONDS * RATE / keyframes;
    for (int i = 0; i < keyframes; i++) {
      double db = i % 5 == 4 ? -3 - random.nextInt(3) : 0;
      all.add(new Keyframe(i * step, keyframes > 100 ? 0 : db, SegmentShape.SMOOTH));
    }
    return LevelLine.of(all);
  }

  private static List<Hush> hushes() {
    List<Hush> all = new ArrayList<>();
    for (int s = 5; s + 8 < SECONDS; s += 15) {
      all.add(Hush.over(new Span((long) s * RATE, (s + 7L) * RATE), -11));
    }
    return all;
  }

  /** Renders the minute. */
  @Benchmark
  public float mixOneMinute() {
    for (long at = 0; at < (long) SECONDS * RATE; at += BLOCK) {
      mixer.render(at, BLOCK, left, right);
    }
    return left[0];
  }
}
