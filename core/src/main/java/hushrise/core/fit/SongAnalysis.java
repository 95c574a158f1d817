package hushrise.core.fit;

import hushrise.core.time.Span;
import java.util.Arrays;

/**
 * What is known of a song: where it sounds, its beats, and how each stretch between two beats
 * sounds. Where no beat was found, the stretches are a quarter of a second long.
 *
 * @param sampleRate of all frames in it
 * @param lengthFrames the song's length
 * @param edges where stretches begin, in frames, and, last, where the song's sound ends: one more
 *     than there are stretches
 * @param beatSeconds the time between two beats; 0 where no beat was found
 * @param beatsPerBar 3 or 4
 * @param firstBar the first edge that begins a bar
 * @param chroma for each stretch the strength of the twelve pitch classes, of length 1
 * @param timbre for each stretch twelve cepstral coefficients of the band levels, in units of their
 *     standard deviation over the song
 * @param rhythm for each stretch the onset strength in its four quarters
 * @param levelDb for each stretch its RMS level in dB
 * @param echoes where the song is like itself
 */
@SuppressWarnings("ArrayRecordComponent") // handed on, never compared
public record SongAnalysis(
    int sampleRate,
    long lengthFrames,
    long[] edges,
    double beatSeconds,
    int beatsPerBar,
    int firstBar,
    float[][] chroma,
    float[][] timbre,
    float[][] rhythm,
    float[] levelDb,
    Echoes echoes) {

  /** The stretches between edges. */
  public int stretches() {
    return edges.length - 1;
  }

  public boolean hasBeat() {
    return beatSeconds > 0;
  }

  /** Beats in a minute; 0 where no beat was found. */
  public double tempoBpm() {
    return hasBeat() ? 60 / beatSeconds : 0;
  }

  /** What is known of a part of the song; at least two stretches of it, where it has as many. */
  SongAnalysis within(Span part) {
    int last = stretches();
    int from = Math.clamp(edgeNear(part.startFrame()), 0, Math.max(0, last - 2));
    int to = Math.clamp(edgeNear(part.endFrame()), Math.min(from + 2, last), last);
    return new SongAnalysis(
        sampleRate,
        lengthFrames,
        Arrays.copyOfRange(edges, from, to + 1),
        beatSeconds,
        beatsPerBar,
        Math.floorMod(firstBar - from, Math.max(1, beatsPerBar)),
        Arrays.copyOfRange(chroma, from, to),
        Arrays.copyOfRange(timbre, from, to),
        Arrays.copyOfRange(rhythm, from, to),
        Arrays.copyOfRange(levelDb, from, to),
        echoes);
  }

  /** The first frame that sounds. */
  public long soundStart() {
    return edges[0];
  }

  /** The frame after the last one that sounds. */
  public long soundEnd() {
    return edges[edges.length - 1];
  }

  /** A time in frames. */
  long frames(double seconds) {
    return Math.round(seconds * sampleRate);
  }

  /** The usual distance between edges in frames. */
  public long usualStretch() {
    return hasBeat() ? Math.round(beatSeconds * sampleRate) : sampleRate / 4;
  }

  /** The edge nearest to a frame. */
  public int edgeNear(long frame) {
    int at = Arrays.binarySearch(edges, frame);
    if (at >= 0) {
      return at;
    }
    int after = Math.min(-at - 1, edges.length - 1);
    return after > 0 && frame - edges[after - 1] < edges[after] - frame ? after - 1 : after;
  }

  public boolean isBarLine(int edge) {
    return hasBeat() && Math.floorMod(edge - firstBar, beatsPerBar) == 0;
  }
}
