package hushrise.core.play;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.Mockito.inOrder;
import static org.mockito.Mockito.mock;

import hushrise.core.mix.Mixer;
import hushrise.core.mix.Projects;
import hushrise.core.project.Project;
import hushrise.core.sound.AudioOutput;
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
      written.set(0);
    }

    @Override
    public void close() {}
  }

  private Player player;

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
    player = new Player(recorder);
    player.play(Mixer.of(project, sounds), 100_000, 150_000);
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
    player = new Player(recorder);
    player.play(Mixer.of(project, sounds), 100_000, 150_000);
    await(recorder.reached);
    player.replace(Mixer.of(project.withMasterDb(-20), sounds));
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
    player = new Player(recorder);
    player.play(Mixer.of(project, sounds), 100_000, 400_000);
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
    player = new Player(output);
    player.close();
    InOrder order = inOrder(output);
    order.verify(output).close();
    order.verifyNoMoreInteractions();
  }
}
