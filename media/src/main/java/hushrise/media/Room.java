package hushrise.media;

/**
 * What sounds in the room of the stand-ins: the silent output's loudspeaker, which the rehearsal
 * microphone hears faintly. Kept for a few seconds, by the time at which it sounds.
 */
final class Room {

  private static final int SECONDS = 4;

  private final int sampleRate;
  private final long epoch = System.nanoTime();
  private final float[] ring;
  private final long[] stamps;

  Room(int sampleRate) {
    this.sampleRate = sampleRate;
    ring = new float[SECONDS * sampleRate];
    stamps = new long[ring.length];
  }

  private long indexAt(long nanos) {
    return Math.round((nanos - epoch) / 1e9 * sampleRate);
  }

  /** Takes frames, the first of which sounds at a time. */
  synchronized void sound(long nanos, float[] left, float[] right, int frames) {
    long first = indexAt(nanos);
    for (int i = 0; i < frames; i++) {
      int at = (int) Math.floorMod(first + i, (long) ring.length);
      ring[at] = (left[i] + right[i]) / 2;
      stamps[at] = first + i;
    }
  }

  /** Adds what sounded from a time on, at a factor. */
  synchronized void hear(long nanos, float factor, float[] samples, int count) {
    long first = indexAt(nanos);
    for (int i = 0; i < count; i++) {
      int at = (int) Math.floorMod(first + i, (long) ring.length);
      samples[i] += stamps[at] == first + i ? factor * ring[at] : 0;
    }
  }
}
