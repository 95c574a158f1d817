package hushrise.core.record;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import hushrise.core.Problem;
import hushrise.core.sound.Progress;
import java.util.Random;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CountDownLatch;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;

/** Takes on their way to disks that are slow, full or never ready. */
@Timeout(60)
class QueuedTakeTest {

  private static final int RATE = 48_000;

  /** A disk that does nothing before it is let, and is full from a number of samples on. */
  private static final class Disk implements TakeSink {
    private final CountDownLatch ready = new CountDownLatch(1);
    private final CountDownLatch closed = new CountDownLatch(1);
    private final Kept kept = new Kept(100 * RATE);
    private int writes;
    private final long full;

    Disk(long full) {
      this.full = full;
    }

    @Override
    public void write(float[] samples, int offset, int count) {
      try {
        ready.await();
      } catch (InterruptedException e) {
        throw new IllegalStateException(e);
      }
      if (kept.frames() + count > full) {
        throw new Problem("The disk is full: make room.");
      }
      kept.write(samples, offset, count);
      writes++;
    }

    @Override
    public long frames() {
      return kept.frames();
    }

    @Override
    public void close() {
      closed.countDown();
    }
  }

  private final float[] spoken = new float[50 * RATE];

  /** Speaks until all has been said, a little at a time. */
  private void speak(QueuedTake take) {
    Random random = new Random(4);
    for (int i = 0; i < spoken.length; i++) {
      spoken[i] = random.nextFloat();
    }
    for (int at = 0; at < spoken.length; ) {
      int count = Math.min(1 + random.nextInt(2_000), spoken.length - at);
      take.write(spoken, at, count);
      at += count;
    }
  }

  @Test
  void nobodyWaitsForASlowDiskAndNothingIsLost() {
    Disk disk = new Disk(Long.MAX_VALUE);
    QueuedTake take = new QueuedTake(disk, RATE);
    speak(take);
    assertThat(take.frames()).isEqualTo(spoken.length);
    assertThat(disk.frames()).isZero();
    disk.ready.countDown();
    take.close();
    assertThat(disk.closed.getCount()).isZero();
    assertThat(disk.kept.samples()).isEqualTo(spoken);
  }

  @Test
  void aDiskThatNeedsLongForEveryWriteIsGivenMuchInEach() {
    Disk disk = new Disk(Long.MAX_VALUE);
    QueuedTake take = new QueuedTake(disk, RATE);
    speak(take);
    disk.ready.countDown();
    take.close();
    assertThat(disk.kept.samples()).isEqualTo(spoken);
    assertThat(disk.writes).as("writes for 50 seconds").isLessThan(15);
  }

  @Test
  void moreThanAMinuteOfWordsGoesRoundInTheSameMemory() {
    Disk disk = new Disk(Long.MAX_VALUE);
    disk.ready.countDown();
    QueuedTake take = new QueuedTake(disk, RATE);
    speak(take);
    while (disk.frames() < spoken.length) {
      Thread.onSpinWait();
    }
    take.write(spoken, 0, 40 * RATE);
    take.close();
    float[] samples = disk.kept.samples();
    assertThat(samples).hasSize(90 * RATE).startsWith(spoken);
    assertThat(java.util.Arrays.copyOfRange(samples, 50 * RATE, 90 * RATE))
        .isEqualTo(java.util.Arrays.copyOf(spoken, 40 * RATE));
  }

  @Test
  void aFullDiskIsSaidOnceAndWhatItTookStays() {
    Disk disk = new Disk(3L * RATE);
    disk.ready.countDown();
    QueuedTake take = new QueuedTake(disk, RATE);
    assertThatThrownBy(
            () -> {
              while (true) {
                take.write(spoken, 0, RATE / 10);
                Thread.sleep(1);
              }
            })
        .isInstanceOf(Problem.class)
        .hasMessage("The disk is full: make room.");
    assertThatCode(take::close).doesNotThrowAnyException();
    assertThat(disk.frames()).isBetween(2L * RATE, 3L * RATE);
    assertThat(disk.closed.getCount()).isZero();
  }

  @Test
  void aDiskThatIsFullAtTheVeryEndIsSaidThen() {
    Disk disk = new Disk(RATE);
    QueuedTake take = new QueuedTake(disk, RATE);
    take.write(spoken, 0, 2 * RATE);
    disk.ready.countDown();
    assertThatThrownBy(take::close).hasMessage("The disk is full: make room.");
  }

  @Test
  void aDiskThatIsNeverReadyEndsTheTakeAfterAMinute() {
    Disk disk = new Disk(Long.MAX_VALUE);
    QueuedTake take = new QueuedTake(disk, RATE);
    speak(take);
    take.write(spoken, 0, 10 * RATE);
    assertThatThrownBy(() -> take.write(spoken, 0, 1))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("has not kept up");
    disk.ready.countDown();
    take.close();
    assertThat(disk.frames()).as("what was spoken so far").isEqualTo(60L * RATE);
  }

  @Test
  void whoeverWaitsMayGiveUpAndTheRestIsStillWritten() throws InterruptedException {
    Disk disk = new Disk(Long.MAX_VALUE);
    QueuedTake take = new QueuedTake(disk, RATE);
    speak(take);
    Progress impatient =
        fraction -> {
          throw new CancellationException();
        };
    assertThatThrownBy(() -> take.finish(impatient)).isInstanceOf(CancellationException.class);
    disk.ready.countDown();
    disk.closed.await();
    assertThat(disk.kept.samples()).isEqualTo(spoken);
  }
}
