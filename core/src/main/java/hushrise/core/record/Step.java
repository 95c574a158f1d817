package hushrise.core.record;

import java.util.Arrays;

/**
 * Keeps a take in step with the film. A block that lies where the take has got to is written as it
 * is. When it lies elsewhere, that is made good in quiet blocks only: too much is taken out of them
 * with a short crossfade, and silence stands for what is missing. Quiet is measured by the take
 * itself, so that a moment is found in a noisy room as well. Allocates nothing; not for two
 * threads.
 */
final class Step {

  /** What is further off than this is made good: under the 5 ms that a take may be off. */
  private static final double ALLOWED_SECONDS = 0.003;

  private static final double FADE_SECONDS = 0.001;

  /** Quiet is what is not much louder than the quietest of so many blocks, 2 s of them. */
  private static final int REMEMBERED = 200;

  /** The quietest twentieth: one block alone is too rare where music is heard in the room. */
  private static final int QUIETEST = 20;

  private static final float LOUDER = 1.5f;

  private final TakeSink writer;
  private final int allowed;
  private final int fade;
  private final float[] silence;
  private final float[] joined;
  private final float[] peaks = new float[REMEMBERED];
  private final float[] sorted = new float[REMEMBERED];
  private long heard;

  Step(TakeSink writer, int sampleRate) {
    this.writer = writer;
    allowed = (int) (ALLOWED_SECONDS * sampleRate);
    fade = (int) (FADE_SECONDS * sampleRate);
    silence = new float[sampleRate / 10];
    joined = new float[fade];
  }

  /**
   * Writes a block.
   *
   * @param ahead how many frames later than where the take has got to the block was spoken;
   *     negative when the film has stood still
   */
  void write(float[] block, int n, long ahead) {
    boolean quiet = isQuiet(block, n);
    if (Math.abs(ahead) <= allowed || !quiet || n <= 2 * fade) {
      writer.write(block, 0, n);
    } else if (ahead > 0) {
      writer.write(silence, 0, (int) Math.min(ahead, silence.length));
      writer.write(block, 0, n);
    } else {
      leaveOut(block, n, (int) Math.min(-ahead, n - fade));
    }
  }

  /** Writes a block without its first frames, whose beginning fades into what follows. */
  private void leaveOut(float[] block, int n, int frames) {
    int over = Math.min(fade, n - frames);
    for (int i = 0; i < over; i++) {
      float part = (i + 1f) / (over + 1);
      joined[i] = block[i] * (1 - part) + block[frames + i] * part;
    }
    writer.write(joined, 0, over);
    writer.write(block, frames + over, n - frames - over);
  }

  /** Remembers how loud the block is; gives whether it is quiet among the last ones. */
  private boolean isQuiet(float[] block, int n) {
    float peak = 0;
    for (int i = 0; i < n; i++) {
      peak = Math.max(peak, Math.abs(block[i]));
    }
    peaks[(int) (heard++ % REMEMBERED)] = peak;
    int known = (int) Math.min(heard, REMEMBERED);
    System.arraycopy(peaks, 0, sorted, 0, known);
    Arrays.sort(sorted, 0, known);
    return peak <= LOUDER * sorted[known / QUIETEST];
  }
}
