package hushrise.core.play;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.Mockito.inOrder;
import static org.mockito.Mockito.mock;

import hushrise.core.mix.Mixer;
import hushrise.core.mix.Projects;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.AudioOutput;
import hushrise.core.sound.SampleSource;
import hushrise.core.sound.SoundLibrary;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.mockito.InOrder;

class PlayerTest {

  /** An output that sounds everything at once and keeps it. */
  private static final class Recorder implements AudioOutput {
    private final float[] left = new float[600_000];
    private final AtomicLong written = new AtomicLong();
    private volatile long most;
    private final CountDownLatch gate;
    private final int gateAt;
    private final CountDownLatch reached = new CountDownLatch(1);

    Recorder(int gateAt, CountDownLatch gate) {
      this.gateAt = gateAt;
      this.gate = gate;
    }

    @Override
    public String name() {
      return "recorder";
    }

    @Override
    public void write(float[] l, float[] r, int frames) {
      int at = (int) written.get();
      System.arraycopy(l, 0, left, at, frames);
      written.addAndGet(frames);
      if (at <= gateAt && gateAt < at + frames) {
        reached.countDown();
        await(gate);
      }
    }

    @Override
    public long framesSounded() {
      return written.get();
    }

    @Override
    public void flush() {
      most = Math.max(most, written.getAndSet(0));
    }

    @Override
    public void close() {}
  }

  private Player player;
  private final List<Throwable> failures = new CopyOnWriteArrayList<>();

  private final List<String> lost = new CopyOnWriteArrayList<>();

  private Player playerOf(AudioOutput output) {
    return new Player(
        48_000,
        output,
        () -> new Recorder(-1, new CountDownLatch(0)),
        new Player.Listener() {
          @Override
          public void failed(Throwable why) {
            failures.add(why);
          }

          @Override
          public void outputLost(String name, String now) {
            lost.add(name + " > " + now);
          }
        });
  }

  @AfterEach
  void close() {
    player.close();
  }

  private static void await(CountDownLatch latch) {
    try {
      assertThat(latch.await(20, TimeUnit.SECONDS)).isTrue();
    } catch (InterruptedException e) {
      throw new AssertionError(e);
    }
  }

  private static void waitUntilStopped(Player player) {
    long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(20);
    while (player.isPlaying()) {
      assertThat(System.nanoTime()).isLessThan(end);
      Thread.onSpinWait();
    }
  }

  @Test
  void playsExactlyWhatTheMixerRendersAndStopsAtTheEnd() {
    Projects.Sounds sounds = new Projects.Sounds();
    Project project = Projects.rich(sounds);
    Recorder recorder = new Recorder(-1, new CountDownLatch(0));
    player = playerOf(recorder);
    player.play(Mixer.of(project, sounds), 100_000, Range.once(100_000, 150_000));
    waitUntilStopped(player);
    assertThat(java.util.Arrays.copyOf(recorder.left, 50_000))
        .containsExactly(Projects.left(project, sounds, 100_000, 50_000));
    assertThat(player.positionFrame()).isEqualTo(150_000);
  }

  @Test
  void anEditWhilePlayingIsHeardFromTheNextBlockOn() {
    Projects.Sounds sounds = new Projects.Sounds();
    Project project = Projects.rich(sounds);
    CountDownLatch gate = new CountDownLatch(1);
    Recorder recorder = new Recorder(20_000, gate);
    player = playerOf(recorder);
    player.play(Mixer.of(project, sounds), 100_000, Range.once(100_000, 150_000));
    await(recorder.reached);
    player.replace(Mixer.of(project.withMasterDb(-20), sounds), Range.once(0, 150_000));
    gate.countDown();
    waitUntilStopped(player);
    assertThat(recorder.left[49_000])
        .isEqualTo(Projects.left(project.withMasterDb(-20), sounds, 149_000, 1)[0]);
    assertThat(recorder.left[10_000]).isEqualTo(Projects.left(project, sounds, 110_000, 1)[0]);
  }

  @Test
  void stoppingKeepsThePlace() {
    Projects.Sounds sounds = new Projects.Sounds();
    Project project = Projects.rich(sounds);
    CountDownLatch gate = new CountDownLatch(1);
    Recorder recorder = new Recorder(5_000, gate);
    player = playerOf(recorder);
    player.play(Mixer.of(project, sounds), 100_000, Range.once(100_000, 400_000));
    await(recorder.reached);
    Thread stopper = Thread.ofPlatform().start(() -> player.stop());
    gate.countDown();
    assertThat(joined(stopper)).isTrue();
    assertThat(player.isPlaying()).isFalse();
    assertThat(player.positionFrame()).isGreaterThanOrEqualTo(105_000).isLessThan(400_000);
  }

  private static boolean joined(Thread thread) {
    try {
      return thread.join(java.time.Duration.ofSeconds(20));
    } catch (InterruptedException e) {
      return false;
    }
  }

  @Test
  void closingThePlayerClosesItsOutputLast() {
    AudioOutput output = mock(AudioOutput.class);
    player = playerOf(output);
    player.close();
    InOrder order = inOrder(output);
    order.verify(output).close();
    order.verifyNoMoreInteractions();
  }

  /** A library whose file is cut short by another program: reading it fails in the machine. */
  private static final class Failing implements SoundLibrary {
    @Override
    public SampleSource samples(Media media, int sampleRate) {
      return new SampleSource() {
        @Override
        public int channels() {
          return 1;
        }

        @Override
        public long lengthFrames() {
          return 1_000_000;
        }

        @Override
        public void read(long start, int frames, float[] left, float[] right, int offset) {
          throw new InternalError("a fault occurred in an unsafe memory access operation");
        }
      };
    }
  }

  @Test
  void aFailureWhileRenderingIsToldAndThePlayerPlaysOnAfterwards() {
    Projects.Sounds sounds = new Projects.Sounds();
    Project project = Projects.rich(sounds);
    Recorder recorder = new Recorder(-1, new CountDownLatch(0));
    player = playerOf(recorder);
    player.play(Mixer.of(project, new Failing()), 100_000, Range.once(100_000, 150_000));
    waitUntilStopped(player);
    assertThat(failures).singleElement().isInstanceOf(InternalError.class);
    player.stop();
    player.play(Mixer.of(project, sounds), 100_000, Range.once(100_000, 101_000));
    waitUntilStopped(player);
    assertThat(java.util.Arrays.copyOf(recorder.left, 1_000))
        .containsExactly(Projects.left(project, sounds, 100_000, 1_000));
  }

  @Test
  void neitherStoppingNorPlayingAnewWaitsForADeviceThatHangs() {
    Projects.Sounds sounds = new Projects.Sounds();
    Project project = Projects.rich(sounds);
    CountDownLatch gate = new CountDownLatch(1);
    Recorder recorder = new Recorder(0, gate);
    player = playerOf(recorder);
    player.play(Mixer.of(project, sounds), 100_000, Range.once(100_000, 400_000));
    await(recorder.reached);
    player.stop();
    assertThat(player.isPlaying()).isFalse();
    player.play(Mixer.of(project, sounds), 200_000, Range.once(200_000, 201_000));
    assertThat(player.positionFrame()).isEqualTo(200_000);
    gate.countDown();
    waitUntilStopped(player);
    assertThat(recorder.left[0]).isEqualTo(Projects.left(project, sounds, 200_000, 1)[0]);
  }

  @Test
  void aFilmThatGrewIsPlayedToItsNewEnd() {
    Projects.Sounds sounds = new Projects.Sounds();
    Project project = Projects.rich(sounds);
    CountDownLatch gate = new CountDownLatch(1);
    Recorder recorder = new Recorder(600, gate);
    player = playerOf(recorder);
    player.play(Mixer.of(project, sounds), 100_000, Range.once(100_000, 102_000));
    await(recorder.reached);
    player.replace(Mixer.of(project, sounds), Range.once(0, 110_000));
    gate.countDown();
    waitUntilStopped(player);
    assertThat(player.positionFrame()).isEqualTo(110_000);
  }

  @Test
  void noBlockIsMissedByAMeterThatLooksSeldom() {
    Projects.Sounds sounds = new Projects.Sounds();
    float[] click = new float[60_000];
    click[1_000] = 0.75f;
    Media media = sounds.add("click", MediaKind.EFFECT, click);
    Project project =
        Project.empty("p")
            .withMedia(media)
            .withTracks(List.of(Track.of(TrackKind.EFFECTS, "e", List.of(Clip.whole(media, 0)))));
    CountDownLatch gate = new CountDownLatch(1);
    Recorder recorder = new Recorder(30_000, gate);
    player = playerOf(recorder);
    BlockLog.Reader reader = player.log().reader();
    player.play(Mixer.of(project, sounds), 0, Range.once(0, 60_000));
    await(recorder.reached);
    float[] highest = new float[1];
    player.takeSounded(
        reader,
        block -> highest[0] = Math.max(highest[0], Math.max(block.peak(0, 0), block.peak(-1, 1))));
    assertThat(highest[0]).isEqualTo(0.75f);
    highest[0] = 0;
    player.takeSounded(reader, block -> highest[0] = Math.max(highest[0], block.peak(-1, 0)));
    assertThat(highest[0]).isZero();
    assertThat(reader.missed()).isZero();
    gate.countDown();
  }

  @Test
  void aLoopGoesOnWhereItBeginsUntilItIsChanged() {
    Projects.Sounds sounds = new Projects.Sounds();
    Project project = Projects.rich(sounds);
    CountDownLatch gate = new CountDownLatch(1);
    Recorder recorder = new Recorder(100_000, gate);
    player = playerOf(recorder);
    player.play(Mixer.of(project, sounds), 110_000, new Range(100_000, 130_000, true));
    await(recorder.reached);
    // 20 000 frames to the end, then twice 30 000, then some 20 000 of the third time.
    assertThat(player.positionFrame()).isBetween(119_000L, 122_000L);
    float[] once = Projects.left(project, sounds, 100_000, 30_000);
    assertThat(java.util.Arrays.copyOfRange(recorder.left, 21_000, 49_000))
        .containsExactly(java.util.Arrays.copyOfRange(once, 1_000, 29_000));
    assertThat(recorder.left[20_000]).as("comes in softly").isZero();
    player.replace(Mixer.of(project, sounds), Range.once(100_000, 140_000));
    gate.countDown();
    waitUntilStopped(player);
    assertThat(player.positionFrame()).isEqualTo(140_000);
  }

  /** An output whose device is pulled out after some frames. */
  private static final class Pulled implements AudioOutput {
    private final int after;
    private long written;

    Pulled(int after) {
      this.after = after;
    }

    @Override
    public String name() {
      return "pulled";
    }

    @Override
    public void write(float[] left, float[] right, int frames) {
      if (written + frames > after) {
        throw new hushrise.core.sound.OutputLost("gone", null);
      }
      written += frames;
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

  @Test
  void anOutputThatIsLostIsReplacedAndTheFilmGoesOnWhereItWas() {
    Projects.Sounds sounds = new Projects.Sounds();
    Project project = Projects.rich(sounds);
    player = playerOf(new Pulled(30_000));
    player.play(Mixer.of(project, sounds), 100_000, Range.once(100_000, 150_000));
    waitUntilStopped(player);
    assertThat(lost).containsExactly("pulled > recorder");
    assertThat(failures).isEmpty();
    assertThat(player.outputName()).isEqualTo("recorder");
    assertThat(player.positionFrame()).isEqualTo(150_000);
  }

  @Test
  void anotherOutputGoesOnFromWhereTheFilmIs() {
    Projects.Sounds sounds = new Projects.Sounds();
    Project project = Projects.rich(sounds);
    CountDownLatch gate = new CountDownLatch(1);
    Recorder first = new Recorder(20_000, gate);
    Recorder second = new Recorder(-1, new CountDownLatch(0));
    player = playerOf(first);
    player.play(Mixer.of(project, sounds), 100_000, Range.once(100_000, 150_000));
    await(first.reached);
    player.setOutput(second);
    gate.countDown();
    waitUntilStopped(player);
    long from = 150_000 - second.most;
    assertThat(from).isBetween(119_000L, 122_000L);
    assertThat(second.left[0]).isEqualTo(Projects.left(project, sounds, from, 1)[0]);
  }
}
