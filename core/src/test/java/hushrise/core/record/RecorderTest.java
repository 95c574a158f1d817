package hushrise.core.record;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import hushrise.core.Problem;
import hushrise.core.sound.AudioInput;
import hushrise.core.sound.InputLost;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.SynchronousQueue;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A take from the microphone to the file. */
class RecorderTest {

  private static final int RATE = 48_000;
  private static final int BLOCK = 480;

  /** What each sample is. */
  private interface Says {
    float of(long index);
  }

  /** An input that gives what a test hands it; each sample tells its own number. */
  private static final class Handed implements AudioInput {
    private final SynchronousQueue<Boolean> blocks = new SynchronousQueue<>();
    private final SynchronousQueue<Boolean> done = new SynchronousQueue<>();
    private long given;
    private boolean first = true;
    private Says says = RecorderTest::numbered;

    @Override
    public String name() {
      return "handed";
    }

    @Override
    public int read(float[] samples) {
      try {
        if (!first) {
          done.put(true);
        }
        first = false;
        if (!blocks.take()) {
          throw new InputLost("The cable is out.", null);
        }
      } catch (InterruptedException e) {
        throw new InputLost("Interrupted", e);
      }
      for (int i = 0; i < BLOCK; i++) {
        samples[i] = says.of(given + i);
      }
      given += BLOCK;
      return BLOCK;
    }

    /** Gives a block and waits until it was heard. */
    void give() {
      try {
        assertThat(blocks.offer(true, 10, TimeUnit.SECONDS)).isTrue();
        assertThat(done.poll(10, TimeUnit.SECONDS)).isTrue();
      } catch (InterruptedException e) {
        throw new AssertionError(e);
      }
    }

    void pull() {
      try {
        assertThat(blocks.offer(false, 10, TimeUnit.SECONDS)).isTrue();
      } catch (InterruptedException e) {
        throw new AssertionError(e);
      }
    }

    @Override
    public void close() {
      blocks.offer(false);
    }
  }

  /** A value by which a sample is known again. */
  private static float numbered(long index) {
    return (index % 100_000) / 131_072f;
  }

  @TempDir Path folder;
  private final Handed input = new Handed();
  private final List<String> said = new CopyOnWriteArrayList<>();
  private final Recorder recorder =
      new Recorder(
          input,
          RATE,
          new Recorder.Listener() {
            @Override
            public void inputLost(String sentence) {
              said.add(sentence);
            }

            @Override
            public void failed(String sentence) {
              said.add(sentence);
            }
          });

  @AfterEach
  void close() {
    recorder.close();
  }

  private static float[] samplesOf(Path wav) throws IOException {
    ByteBuffer bytes = ByteBuffer.wrap(Files.readAllBytes(wav)).order(ByteOrder.LITTLE_ENDIAN);
    assertThat(bytes.getInt(40)).as("what the header says").isEqualTo(bytes.capacity() - 44);
    float[] samples = new float[(bytes.capacity() - 44) / 3];
    for (int i = 0; i < samples.length; i++) {
      int at = 44 + 3 * i;
      int value = bytes.get(at + 2) << 16 | (bytes.getShort(at) & 0xFFFF);
      samples[i] = value / 8_388_607f;
    }
    return samples;
  }

  private static int indexOf(float sample) {
    return Math.round(sample * 131_072f);
  }

  @Test
  void aTakeBeginsWithTheSampleThatWasSpokenAtItsFirstFrame() throws IOException {
    Path file = folder.resolve("new folder").resolve("take.wav");
    AtomicLong sounding = new AtomicLong(-1);
    long latency = 6_576;
    Random late = new Random(3);
    long startFrame = 777_001;
    for (int i = 0; i < 20; i++) {
      input.give();
    }
    recorder.begin(new TakeWriter(file, RATE), startFrame, sounding::get, latency);
    for (int i = 0; i < 30; i++) {
      input.give(); // the count-in
    }
    // The film runs from here on; threads look a little late, sometimes very.
    long begun = 50L * BLOCK;
    for (int i = 0; i < 200; i++) {
      long arrived = begun + (i + 1L) * BLOCK;
      long jitter = late.nextInt(10) == 0 ? late.nextInt(2_000) : late.nextInt(40);
      sounding.set(startFrame + arrived - begun + jitter);
      input.give();
    }
    recorder.end().orElseThrow().close();
    float[] samples = samplesOf(file);
    assertThat((long) indexOf(samples[0]))
        .as("what arrived a latency after the first frame sounded")
        .isCloseTo(begun + latency, within(60L));
    for (int i = 1; i < samples.length; i++) {
      assertThat(indexOf(samples[i])).isEqualTo((indexOf(samples[i - 1]) + 1) % 100_000);
    }
    assertThat(samples.length).isCloseTo(200 * BLOCK - (int) latency, within(60));
  }

  @Test
  void aTakeThatRestedGoesOnWhereItRested() {
    TakeSink.Kept kept = new TakeSink.Kept(10 * RATE);
    AtomicLong sounding = new AtomicLong(-1);
    recorder.begin(kept, 0, sounding::get, 0);
    for (int i = 0; i < 100; i++) {
      sounding.set((i + 1L) * BLOCK);
      input.give();
    }
    recorder.rest();
    long rested = recorder.frames();
    for (int i = 0; i < 77; i++) {
      input.give();
    }
    recorder.goOn();
    long from = 177L * BLOCK;
    for (int i = 0; i < 100; i++) {
      // The film goes on a little before the place where the take rested.
      sounding.set(rested - 3_000 + (i + 1L) * BLOCK);
      input.give();
    }
    recorder.end();
    float[] samples = kept.samples();
    assertThat(rested).isCloseTo(100L * BLOCK, within(2L * BLOCK));
    assertThat(indexOf(samples[(int) rested - 1])).isEqualTo(rested - 1);
    assertThat((long) indexOf(samples[(int) rested])).isEqualTo(from + 3_000);
  }

  /** Somebody says a word in a quiet room, again and again; each sample of it tells its number. */
  private static float spoken(long index) {
    long within = index % WORD_EVERY;
    return within < WORD ? (within + 1) / 10_000f : 1e-5f;
  }

  private static final int WORD_EVERY = 40_000;
  private static final int WORD = 9_000;

  /** Where the words begin, and whether each is whole. */
  private static List<Integer> words(float[] samples) {
    List<Integer> begins = new ArrayList<>();
    for (int i = 0; i + WORD < samples.length; i++) {
      if (Math.abs(samples[i] - 1 / 10_000f) < 1e-6f) {
        begins.add(i);
        for (int j = 0; j < WORD; j++) {
          assertThat(samples[i + j]).isEqualTo((j + 1) / 10_000f);
        }
      }
    }
    return begins;
  }

  @Test
  void whereTheFilmStoodStillOrRanAheadTheTakeIsInStepAgainAfterTheNextPause() {
    for (int jump : new int[] {4_000, 700, 20_000, -300, -9_000, 1, -1}) {
      TakeSink.Kept kept = new TakeSink.Kept(20 * RATE);
      AtomicLong sounding = new AtomicLong();
      input.says = RecorderTest::spoken;
      input.given = 0;
      Random late = new Random(jump);
      recorder.begin(kept, 0, sounding::get, 0);
      // In the middle of the third word the film stands still, or runs ahead.
      long jumps = 2L * WORD_EVERY + 4_000;
      for (int i = 0; i < 900; i++) {
        long now = (i + 1L) * BLOCK;
        sounding.set(now - (now > jumps ? jump : 0) + late.nextInt(40));
        input.give();
      }
      recorder.end();
      List<Integer> words = words(kept.samples());
      assertThat(words).as("film stands still for %d", jump).hasSizeGreaterThanOrEqualTo(9);
      for (int w = 0; w < words.size(); w++) {
        int spokenAt = w * WORD_EVERY;
        int lies = w <= 2 ? spokenAt : spokenAt - jump;
        assertThat(words.get(w))
            .as("word %d, film stands still for %d", w, jump)
            .isCloseTo(lies, within(RATE / 200));
      }
    }
  }

  @Test
  void aMicrophoneThatIsPulledOutKeepsWhatWasSpoken() throws IOException {
    Path file = folder.resolve("take.wav");
    AtomicLong sounding = new AtomicLong();
    recorder.begin(new TakeWriter(file, RATE), 0, sounding::get, 0);
    for (int i = 0; i < 150; i++) {
      sounding.set((i + 1L) * BLOCK);
      input.give();
    }
    // As a power cut would leave it: nobody has ended the take.
    assertThat(samplesOf(copyOf(file)).length).isGreaterThan(150 * BLOCK - RATE);
    input.pull();
    long end = System.nanoTime() + 10_000_000_000L;
    while (said.isEmpty() && System.nanoTime() < end) {
      Thread.onSpinWait();
    }
    assertThat(said).containsExactly("The cable is out.");
    recorder.end().orElseThrow().close();
    assertThat(samplesOf(file)).hasSize(150 * BLOCK);
  }

  /** A copy as long as its header says, as the rest may not have reached the disk. */
  private Path copyOf(Path file) throws IOException {
    byte[] bytes = Files.readAllBytes(file);
    int length = 44 + ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN).getInt(40);
    return Files.write(folder.resolve("copy.wav"), java.util.Arrays.copyOf(bytes, length));
  }

  @Test
  void aFullDiskEndsTheTakeWithWords() {
    TakeSink full =
        new TakeSink() {
          private long frames;

          @Override
          public void write(float[] samples, int offset, int count) {
            frames += count;
            if (frames > 20_000) {
              throw new Problem("The disk is full: make room.");
            }
          }

          @Override
          public long frames() {
            return frames;
          }

          @Override
          public void close() {}
        };
    AtomicLong sounding = new AtomicLong();
    recorder.begin(full, 0, sounding::get, 0);
    for (int i = 0; i < 80; i++) {
      sounding.set((i + 1L) * BLOCK);
      input.give();
    }
    assertThat(said).containsExactly("The disk is full: make room.");
    assertThat(recorder.end()).isEmpty();
  }

  @Test
  void aFolderThatCannotBeMadeAndAFileThatIsThereAreRefused() throws IOException {
    Path file = Files.writeString(folder.resolve("here.wav"), "an older take");
    assertThatThrownBy(() -> new TakeWriter(file, RATE)).isInstanceOf(Problem.class);
    assertThat(file).hasContent("an older take");
    assertThatThrownBy(() -> new TakeWriter(file.resolve("in.wav"), RATE))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("choose another one");
  }

  @Test
  void aTakeOfNothingLeavesNoFile() {
    Path file = folder.resolve("take.wav");
    new TakeWriter(file, RATE).close();
    assertThat(file).doesNotExist();
  }

  @Test
  void theDelayOfAToneIsFoundToTheSampleFarUnderTheNoise() {
    float[] tone = LatencyCheck.tone(RATE);
    Random random = new Random(5);
    for (int delay : new int[] {0, 1, 333, 6_576, 40_000}) {
      float[] recorded = new float[tone.length + RATE];
      for (int i = 0; i < recorded.length; i++) {
        recorded[i] = 1e-3f * (random.nextFloat() * 2 - 1);
      }
      for (int i = 0; i < tone.length && delay + i < recorded.length; i++) {
        recorded[delay + i] -= 1e-3f * tone[i];
      }
      assertThat(LatencyCheck.frames(recorded, RATE)).isEqualTo(delay);
    }
  }

  @Test
  void aToneThatIsNotThereIsNotFound() {
    float[] noise = new float[2 * RATE];
    Random random = new Random(6);
    for (int i = 0; i < noise.length; i++) {
      noise[i] = random.nextFloat() - 0.5f;
    }
    assertThatThrownBy(() -> LatencyCheck.frames(noise, RATE))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("not heard");
  }

  private static InputCheck.Verdict verdict(double speech, double noise) {
    InputCheck check = new InputCheck(RATE);
    Random random = new Random(9);
    List<float[]> blocks = new ArrayList<>();
    for (int b = 0; b < 305; b++) {
      float[] block = new float[BLOCK];
      boolean speaks = b % 50 < 35;
      for (int i = 0; i < BLOCK; i++) {
        double voice = speaks ? speech * Math.sin(i * 0.09) : 0;
        block[i] = (float) (voice + noise * (random.nextDouble() * 2 - 1));
      }
      blocks.add(block);
    }
    blocks.forEach(b -> check.add(b, BLOCK));
    assertThat(check.isDone()).isTrue();
    return check.result().verdict();
  }

  @Test
  void whoeverSpeaksWithoutAPauseIsNotCalledNoisy() {
    InputCheck check = new InputCheck(RATE);
    Random random = new Random(9);
    float[] block = new float[BLOCK];
    for (int b = 0; b < 305; b++) {
      // Loud and soft sounds follow one another; for 50 ms in a second there is none.
      double voice = b % 100 >= 95 ? 0 : b % 10 < 6 ? 0.2 : 0.004;
      for (int i = 0; i < BLOCK; i++) {
        block[i] = (float) (voice * Math.sin(i * 0.09) + 2e-4 * (random.nextDouble() * 2 - 1));
      }
      check.add(block, BLOCK);
    }
    assertThat(check.result().verdict()).isEqualTo(InputCheck.Verdict.GOOD);
    assertThat(check.result().speechLufs() - check.result().noiseLufs()).isGreaterThan(45);
  }

  @Test
  void aCheckSaysWhatIsWrongWithTheInput() {
    assertThat(verdict(0.2, 0.0005)).isEqualTo(InputCheck.Verdict.GOOD);
    assertThat(verdict(0.95, 0.0005)).isEqualTo(InputCheck.Verdict.TOO_HOT);
    assertThat(verdict(0.004, 0.00001)).isEqualTo(InputCheck.Verdict.TOO_QUIET);
    assertThat(verdict(0.1, 0.02)).isEqualTo(InputCheck.Verdict.TOO_NOISY);
    assertThat(verdict(0, 0.00001)).isEqualTo(InputCheck.Verdict.SILENT);
  }
}
