package hushrise.core.separation;

import hushrise.core.loudness.GatedLoudness;
import java.util.Arrays;

/**
 * K-weighted energy in steps of 10 ms. Immutable; a changed version shares with the one before all
 * that stayed the same, so that listening along while something is dragged costs little memory, and
 * all silence is one: hundreds of tracks that each sound for a moment take little.
 */
public final class EnergySteps implements GatedLoudness.Energy {

  private static final int CHUNK_BITS = 11;
  private static final int CHUNK = 1 << CHUNK_BITS;
  private static final float[] SILENCE = new float[CHUNK];

  private final float[][] chunks;
  private final int count;

  private EnergySteps(float[][] chunks, int count) {
    this.chunks = chunks;
    this.count = count;
  }

  /** A number of steps without energy. */
  public static EnergySteps silent(int count) {
    float[][] chunks = new float[Math.ceilDiv(count, CHUNK)][];
    Arrays.fill(chunks, SILENCE);
    return new EnergySteps(chunks, count);
  }

  /** Steps with the energies given. */
  public static EnergySteps of(float... energies) {
    Change change = silent(energies.length).change(0, energies.length);
    for (int i = 0; i < energies.length; i++) {
      change.add(i, energies[i]);
    }
    return change.done();
  }

  public int count() {
    return count;
  }

  /** The energy of a step from 0 to one less than their count. */
  @Override
  public double at(int step) {
    return chunks[step >> CHUNK_BITS][step & CHUNK - 1];
  }

  /** The mean energy of steps {@code from} (inclusive) to {@code to}; 0 when there are none. */
  double mean(int from, int to) {
    double sum = 0;
    for (int i = from; i < to; i++) {
      sum += at(i);
    }
    return sum / Math.max(1, to - from);
  }

  /** Begins a version whose steps {@code from} (inclusive) to {@code to} are filled anew. */
  Change change(int from, int to) {
    return new Change(this, from, to);
  }

  /** Whether these are the very same steps, or have the same energies. */
  boolean hasSameEnergies(EnergySteps other) {
    return count == other.count && Arrays.deepEquals(chunks, other.chunks);
  }

  /** A version under way; used by one thread. */
  static final class Change {

    private final float[][] chunks;
    private final int count;
    private final int from;
    private final int to;

    private Change(EnergySteps was, int from, int to) {
      this.chunks = was.chunks.clone();
      this.count = was.count;
      this.from = from;
      this.to = to;
      for (int c = from >> CHUNK_BITS; c << CHUNK_BITS < to; c++) {
        int start = c << CHUNK_BITS;
        if (from <= start && to >= Math.min(start + CHUNK, count)) {
          chunks[c] = SILENCE;
        } else if (chunks[c] != SILENCE) {
          chunks[c] = chunks[c].clone();
          Arrays.fill(chunks[c], Math.max(0, from - start), Math.min(CHUNK, to - start), 0);
        }
      }
    }

    int from() {
      return from;
    }

    int to() {
      return to;
    }

    /** Adds to a step within the change. */
    void add(int step, double energy) {
      if (energy != 0) {
        sounding(step >> CHUNK_BITS)[step & CHUNK - 1] += (float) energy;
      }
    }

    /** Adds all that other steps have within the change; they are as many as these. */
    void add(EnergySteps other) {
      for (int c = from >> CHUNK_BITS; c << CHUNK_BITS < to; c++) {
        if (other.chunks[c] != SILENCE) {
          int start = c << CHUNK_BITS;
          float[] sum = sounding(c);
          for (int i = Math.max(0, from - start); i < Math.min(CHUNK, to - start); i++) {
            sum[i] += other.chunks[c][i];
          }
        }
      }
    }

    /** A chunk that has energy, or will have; silence takes no memory. */
    private float[] sounding(int chunk) {
      if (chunks[chunk] == SILENCE) {
        chunks[chunk] = new float[CHUNK];
      }
      return chunks[chunk];
    }

    EnergySteps done() {
      return new EnergySteps(chunks, count);
    }
  }
}
