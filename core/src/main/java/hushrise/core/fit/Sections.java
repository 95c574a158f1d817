package hushrise.core.fit;

import java.util.ArrayList;
import java.util.List;

/**
 * The sections of a song: where what is heard changes for long, and which of them are like one
 * another. Edges lie where a checkerboard moved along the diagonal of the self-similarity of
 * harmony and timbre finds most (J. Foote, "Automatic Audio Segmentation Using a Measure of Audio
 * Novelty", 2000); sections are alike where most of one echoes in the other.
 */
public final class Sections {

  /**
   * One section.
   *
   * @param startFrame the media frame with which it begins
   * @param endFrame the media frame after its last one
   * @param kind 0 for the first section and all that are like it, 1 for the next kind, and so on
   */
  public record Section(long startFrame, long endFrame, int kind) {

    /** A letter for its kind. */
    public String letter() {
      return String.valueOf((char) ('A' + Math.min(kind, 25)));
    }
  }

  private static final double REACH_SECONDS = 8;
  private static final double SHORTEST_SECONDS = 7;
  private static final double LEAST_NOVELTY = 0.35;

  /** Sections are alike when their means are nearer than this part of what is usual. */
  private static final double ALIKE = 0.7;

  private final SongAnalysis song;
  private final int reach;
  private final int apart;

  private Sections(SongAnalysis song) {
    this.song = song;
    double stretch = song.usualStretch() / (double) song.sampleRate();
    reach = Math.max(4, (int) (REACH_SECONDS / stretch));
    apart = Math.max(4, (int) (SHORTEST_SECONDS / stretch));
  }

  /** The sections of a song in order of time; a single one where nothing sets any apart. */
  public static List<Section> of(SongAnalysis song) {
    return new Sections(song).find();
  }

  private List<Section> find() {
    int n = song.stretches();
    double[] novelty = new double[n + 1];
    double most = 0;
    for (int i = apart; i <= n - apart; i++) {
      novelty[i] = novelty(i);
      most = Math.max(most, novelty[i]);
    }
    List<Integer> edges = new ArrayList<>(List.of(0));
    for (int i = apart; i <= n - apart; i++) {
      if (novelty[i] >= LEAST_NOVELTY * most && isPeak(novelty, i) && most > 0) {
        edges.add(onBar(i));
      }
    }
    edges.add(n);
    return named(edges);
  }

  /** The bar line next to an edge, when one is. */
  private int onBar(int edge) {
    for (int by = 0; by <= song.beatsPerBar() / 2; by++) {
      if (song.isBarLine(edge + by)) {
        return edge + by;
      }
      if (song.isBarLine(edge - by)) {
        return edge - by;
      }
    }
    return edge;
  }

  private boolean isPeak(double[] novelty, int at) {
    for (int i = Math.max(0, at - apart); i <= Math.min(novelty.length - 1, at + apart); i++) {
      if (novelty[i] > novelty[at] || novelty[i] == novelty[at] && i < at) {
        return false;
      }
    }
    return true;
  }

  /** How much more the stretches before and after an edge are like their own side. */
  private double novelty(int edge) {
    int half = Math.min(reach, Math.min(edge, song.stretches() - edge));
    double within = 0;
    double across = 0;
    for (int a = -half; a < half; a++) {
      for (int b = -half; b < half; b++) {
        double d = distance(edge + a, edge + b);
        if (a < 0 == b < 0) {
          within += d;
        } else {
          across += d;
        }
      }
    }
    return Math.max(0, across - within) / (2.0 * half * half);
  }

  private double distance(int a, int b) {
    double dot = 0;
    for (int p = 0; p < Spectrogram.PITCHES; p++) {
      dot += song.chroma()[a][p] * song.chroma()[b][p];
    }
    double timbre = 0;
    for (int k = 0; k < song.timbre()[a].length; k++) {
      timbre += Math.abs(song.timbre()[a][k] - song.timbre()[b][k]);
    }
    return 1 - dot + timbre / song.timbre()[a].length / 2;
  }

  private List<Section> named(List<Integer> edges) {
    List<Section> sections = new ArrayList<>();
    int kinds = 0;
    for (int i = 0; i + 1 < edges.size(); i++) {
      int kind = -1;
      double nearest = ALIKE;
      for (int j = 0; j < i; j++) {
        double d = apart(edges.get(j), edges.get(j + 1), edges.get(i), edges.get(i + 1));
        if (d < nearest) {
          nearest = d;
          kind = sections.get(j).kind();
        }
      }
      sections.add(
          new Section(
              song.edges()[edges.get(i)],
              song.edges()[edges.get(i + 1)],
              kind < 0 ? kinds++ : kind));
    }
    return List.copyOf(sections);
  }

  /**
   * How far two sections are apart, played side by side from the shift at which they are nearest,
   * seen from how far stretches of the song usually are.
   */
  private double apart(int a, int aEnd, int b, int bEnd) {
    int length = Math.min(aEnd - a, bEnd - b);
    double nearest = Double.POSITIVE_INFINITY;
    for (int shift = 0; shift <= Math.max(aEnd - a, bEnd - b) - length; shift++) {
      int fromA = aEnd - a > length ? a + shift : a;
      int fromB = bEnd - b > length ? b + shift : b;
      double sum = 0;
      for (int i = 0; i < length; i++) {
        sum += distance(fromA + i, fromB + i);
      }
      nearest = Math.min(nearest, sum / length);
    }
    return nearest / Math.max(1e-9, usual());
  }

  private double usual() {
    int n = song.stretches();
    double sum = 0;
    int count = 0;
    for (int i = 0; i < n; i += 3) {
      sum += distance(i, (i + n / 2) % n);
      count++;
    }
    return sum / count;
  }
}
