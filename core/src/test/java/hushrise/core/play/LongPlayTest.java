package hushrise.core.play;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.management.ThreadMXBean;
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
import hushrise.core.project.timeline.Track;
import hushrise.core.ride.Hand;
import hushrise.core.ride.Hands;
import hushrise.core.ride.Pass;
import hushrise.core.ride.RideRule;
import hushrise.core.sound.AudioOutput;
import hushrise.core.sound.SampleSource;
import hushrise.core.sound.SoundLibrary;
import hushrise.core.time.Span;
import java.lang.management.ManagementFactory;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.Test;

/** Half an hour of playing a long film, hurried, with everything that happens meanwhile. */
class LongPlayTest {

  private static final int RATE = 48_000;
  private static final long LENGTH = 7_200L * RATE;
  private static final long PLAYED = 1_800L * RATE;
  private static final long STRETCH = 20L * RATE;

  /**
   * How many half hours may be played until one of them allocates nothing. What the program
   * allocates it allocates each time the same things happen. The JVM does so once in a while: the
   * thread that asks for a method to be compiled by C2 makes the texts of that method's class, 50
   * to 200 bytes, and when that is lies with the compiler's queue. (With C1 alone it never
   * happens.)
   */
  private static final int HALF_HOURS = 3;

  /** A clock that has no patience: whatever is written has sounded. */
  private static final class Hurried implements AudioOutput {
    private final AtomicLong all = new AtomicLong();
    private volatile long written;

    @Override
    public String name() {
      return "hurried";
    }

    @Override
    public void write(float[] left, float[] right, int frames) {
      written = written + frames;
      all.addAndGet(frames);
    }

    @Override
    public long framesSounded() {
      return written;
    }

    @Override
    public void flush() {
      written = 0;
    }

    @Override
    public void close() {}
  }

  private static final float[] SAW = new float[1 << 16];

  static {
    for (int i = 0; i < SAW.length; i++) {
      SAW[i] = i % 213 / 2130f;
    }
  }

  /** Sound without end that costs nothing to read. */
  private static final SoundLibrary TONES =
      (media, rate) ->
          new SampleSource() {
            @Override
            public int channels() {
              return 2;
            }

            @Override
            public long lengthFrames() {
              return media.lengthFrames();
            }

            @Override
            public void read(long start, int frames, float[] left, float[] right, int offset) {
              int from = (int) Math.floorMod(start, (long) SAW.length / 2);
              System.arraycopy(SAW, from, left, offset, frames);
              System.arraycopy(SAW, from, right, offset, frames);
            }
          };

  private static Project film(Random random) {
    Media song =
        new Media("m", Path.of("m.wav"), MediaKind.MUSIC, LENGTH, true, Optional.empty(), "");
    List<Track> tracks = new ArrayList<>();
    for (int t = 0; t < 12; t++) {
      List<Clip> clips = new ArrayList<>();
      for (long at = t * 7_001L; at < LENGTH - 700L * RATE; at += 600L * RATE + t) {
        clips.add(Clip.whole(song, at).withLengthFrames(500L * RATE));
      }
      List<Keyframe> line = new ArrayList<>();
      List<Hush> hushes = new ArrayList<>();
      for (int i = 0; i < 416; i++) {
        line.add(
            new Keyframe(
                i * 17L * RATE + random.nextInt(RATE), -random.nextInt(12), SegmentShape.SMOOTH));
      }
      for (int i = 0; i < 100; i++) {
        hushes.add(Hush.over(Span.ofLength(i * 70L * RATE + random.nextInt(RATE), 3L * RATE), -9));
      }
      tracks.add(
          Track.of(t < 2 ? TrackKind.VOICE : TrackKind.MUSIC, "t" + t, clips)
              .withLevelDb(-20)
              .withLine(LevelLine.of(line))
              .withHushes(hushes));
    }
    return Project.empty("long").withMedia(song).withTracks(tracks);
  }

  @Test
  void theRenderingThreadAllocatesNothingThroughSeeksEditsAndRides() {
    Random random = new Random(11);
    Project project = film(random);
    List<Throwable> failures = new ArrayList<>();
    Hurried output = new Hurried();
    Hand hand = RideRule.DEFAULT.hand(RATE);
    Hands hands =
        id -> id.equals(project.tracks().get(3).id()) ? Optional.of(hand) : Optional.empty();
    Pass pass = new Pass();
    try (Player player =
        new Player(
            RATE,
            output,
            Hurried::new,
            new Player.Listener() {
              @Override
              public void failed(Throwable why) {
                failures.add(why);
              }

              @Override
              public void outputLost(String lost, String now) {
                failures.add(new AssertionError(lost));
              }
            })) {
      BlockLog.Reader meter = player.log().reader();
      player.play(Mixer.of(project, TONES, t -> true, hands), 0, Range.once(0, LENGTH));
      // What is done for the first time is linked by the JVM, which allocates a little itself.
      for (int i = 1; i <= 60; i++) {
        untilPlayed(output, i * 10L * RATE);
        happen(i % 4, player, project, hands, hand, random);
      }
      List<String> allocated = List.of("not played yet");
      for (int i = 0; i < HALF_HOURS && !allocated.isEmpty(); i++) {
        allocated = halfHour(player, output, project, hands, hand, pass, meter);
      }
      assertThat(failures).isEmpty();
      assertThat(allocated).as("what the rendering thread allocated").isEmpty();
      assertThat(pass.isEmpty()).isFalse();
    }
  }

  /** Half an hour in which the same things happen each time; gives what was allocated, when. */
  private static List<String> halfHour(
      Player player,
      Hurried output,
      Project project,
      Hands hands,
      Hand hand,
      Pass pass,
      BlockLog.Reader meter) {
    Random random = new Random(12);
    List<String> allocated = new ArrayList<>();
    long start = output.all.get();
    long known = allocatedBytes(player);
    for (int done = 1; done <= PLAYED / STRETCH; done++) {
      int what = random.nextInt(4);
      happen(what, player, project, hands, hand, random);
      while (output.all.get() < start + done * STRETCH) {
        player.takeSounded(meter, block -> assertThat(block.count()).isPositive());
        hand.takeInto(pass);
        Thread.yield();
      }
      long now = allocatedBytes(player);
      if (now > known) {
        allocated.add((now - known) + " bytes in the 20 s after a thing of kind " + what);
        known = now;
      }
    }
    return allocated;
  }

  private static long allocatedBytes(Player player) {
    ThreadMXBean threads = (ThreadMXBean) ManagementFactory.getThreadMXBean();
    return threads.getThreadAllocatedBytes(player.thread().threadId());
  }

  /** A seek, a loop, an edit, or a hand on a fader. */
  private static void happen(
      int what, Player player, Project project, Hands hands, Hand hand, Random random) {
    long at = random.nextLong(LENGTH / 2);
    switch (what) {
      case 0 -> player.play(Mixer.of(project, TONES, t -> true, hands), at, Range.once(0, LENGTH));
      case 1 ->
          player.play(
              Mixer.of(project, TONES, t -> true, hands), at, new Range(at, at + 5L * RATE, true));
      case 2 ->
          player.replace(
              Mixer.of(project.withMasterDb(-random.nextInt(6)), TONES, t -> true, hands),
              Range.once(0, LENGTH));
      default -> {
        hand.hold(-random.nextInt(30));
        player.setEars(new Ears(-random.nextInt(9), Ears.Through.values()[random.nextInt(3)]));
      }
    }
  }

  private static void untilPlayed(Hurried output, long frames) {
    while (output.all.get() < frames) {
      Thread.onSpinWait();
    }
  }
}
