package hushrise.core.record;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.ChildProgram;
import java.io.BufferedReader;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A recording that is killed leaves a valid take of all but its last half second. */
class KilledTakeTest {

  private static final int HEADER = 44;
  private static final int BYTES = 3;

  /** How often; more with {@code -Dkills=200}. */
  private static final int KILLS = Integer.getInteger("kills", 8);

  @TempDir private Path folder;

  @Test
  void allButTheLastHalfSecondIsThereWheneverItIsKilled() throws Exception {
    Random random = new Random(7);
    for (int kill = 0; kill < KILLS; kill++) {
      Path file = folder.resolve("take-" + kill + ".wav");
      long spoken = spokenWhenKilled(file, random.nextInt(300));
      ByteBuffer take = ByteBuffer.wrap(Files.readAllBytes(file)).order(ByteOrder.LITTLE_ENDIAN);
      int bytes = take.getInt(HEADER - 4);
      assertThat(take.getInt(4)).as("the length in its head").isEqualTo(HEADER - 8 + bytes);
      assertThat(take.capacity()).isGreaterThanOrEqualTo(HEADER + bytes);
      long frames = bytes / BYTES;
      assertThat(frames).as("kill %d", kill).isGreaterThanOrEqualTo(spoken - KilledTake.RATE / 2);
      for (int i = 0; i < frames; i++) {
        int at = HEADER + i * BYTES;
        int sample = take.get(at) & 255 | (take.get(at + 1) & 255) << 8 | take.get(at + 2) << 16;
        if (sample != KilledTake.sampleAt(i)) {
          assertThat(sample).as("frame %d", i).isEqualTo(KilledTake.sampleAt(i));
        }
      }
    }
  }

  /** Starts a recording, kills it, and tells how much it said it had taken. */
  private static long spokenWhenKilled(Path file, int afterMillis) throws Exception {
    Process recording = ChildProgram.start(KilledTake.class, file.toString());
    Thread killer =
        Thread.ofPlatform()
            .unstarted(
                () -> {
                  try {
                    Thread.sleep(afterMillis);
                  } catch (InterruptedException e) {
                    Thread.currentThread().interrupt();
                  }
                  recording.destroyForcibly();
                });
    long spoken = 0;
    try (BufferedReader said = recording.inputReader()) {
      String first = said.readLine(); // from here on it records
      assertThat(first).as("it records").isNotNull();
      killer.start();
      for (String line = first; line != null; line = ChildProgram.next(said)) {
        spoken = line.isEmpty() ? spoken : Math.max(spoken, Long.parseLong(line));
      }
    }
    killer.join();
    recording.waitFor();
    return spoken;
  }
}
