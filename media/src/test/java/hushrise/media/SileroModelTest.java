package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.offset;

import hushrise.core.Problem;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import java.nio.file.Path;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

class SileroModelTest extends MediaTestCase {

  private static final int SENTENCES = 100;

  private SampleSource speech;

  /** A sentence, spoken over and over for some minutes. */
  @BeforeEach
  void speak() {
    SampleSource sentence = open(Path.of("src/test/resources/speech/awb-1.flac"));
    int length = (int) sentence.lengthFrames();
    float[] samples = new float[SENTENCES * length];
    for (int i = 0; i < SENTENCES; i++) {
      System.arraycopy(read(sentence, 0, length), 0, samples, i * length, length);
    }
    speech = SampleSource.of(samples);
  }

  @Test
  void oneThreadAndTwoHearExactlyTheSame() {
    float[] byOne = new SileroModel(1).probabilities(speech, RATE, Progress.NONE);
    float[] byTwo = new SileroModel(2).probabilities(speech, RATE, Progress.NONE);
    assertThat(byTwo).isEqualTo(byOne);
    assertThat(byTwo).contains(new float[] {0.9f}, offset(0.1f));
  }

  /** Speech of which is known who reads it, and how much. */
  private final class Counted implements SampleSource {

    private final AtomicLong read = new AtomicLong();
    private final Set<Thread> readers = ConcurrentHashMap.newKeySet();

    @Override
    public int channels() {
      return speech.channels();
    }

    @Override
    public long lengthFrames() {
      return speech.lengthFrames();
    }

    @Override
    public void read(long startFrame, int frames, float[] left, float[] right, int offset) {
      readers.add(Thread.currentThread());
      read.addAndGet(frames);
      speech.read(startFrame, frames, left, right, offset);
    }
  }

  @Test
  void aCancelEndsBothThreads() throws InterruptedException {
    Counted counted = new Counted();
    SileroModel two = new SileroModel(2);
    assertThatThrownBy(
            () ->
                two.probabilities(
                    counted,
                    RATE,
                    part -> {
                      if (counted.readers.size() == 2) {
                        throw new CancellationException();
                      }
                    }))
        .isInstanceOf(CancellationException.class);
    assertThat(counted.readers).hasSize(2);
    for (Thread reader : counted.readers) {
      if (!reader.equals(Thread.currentThread())) {
        reader.join();
      }
    }
    assertThat(counted.read.get()).isLessThan(speech.lengthFrames() / 2);
  }

  @Test
  void aDamagedModelIsSaidSo() {
    assertThatThrownBy(() -> new SileroModel(new byte[1000], 1))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("damaged");
  }
}
