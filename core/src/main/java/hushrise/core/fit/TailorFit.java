package hushrise.core.fit;

import hushrise.core.Problem;
import hushrise.core.project.timeline.Fit;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;

/**
 * Brings a song to a length by jumping inside it, so that its own beginning and ending are kept.
 *
 * <p>Dynamic programming over (stretches played, place in the song): the cheapest way to have
 * played {@code t} stretches and to stand at edge {@code e}. Playing on costs nothing, a jump costs
 * what it changes in sound and a little for being one; after a jump at least {@link #PLAY_ON}
 * stretches are played. Of the ways that end at the song's end near the wanted length the cheapest
 * that is not too long is taken. What is missing to the wanted length, less than a beat, is a pause
 * before the first note; without a beat the last jump takes it up. Cost: wanted stretches × song's
 * stretches × {@link #CHOICES}.
 */
final class TailorFit {

  private static final int PLAY_ON = 4;
  private static final int CHOICES = 24;
  private static final double COST_OF_JUMPING = 0.2;
  private static final double COST_OF_PAUSE = 0.15;
  private static final long MOST_STATES = 40_000_000;

  private final Song song;
  private final SongAnalysis analysis;
  private final Jumps jumps;
  private final String name;
  private final int n;
  private final int[][] choices;
  private final float[][] costs;

  private TailorFit(Song song, Fit fit, String name) {
    this.song = song;
    this.analysis = song.analysis();
    this.jumps = new Jumps(song, fit);
    this.name = name;
    this.n = analysis.stretches();
    this.choices = new int[n + 1][];
    this.costs = new float[n + 1][];
    for (int from = 0; from <= n; from++) {
      choose(from);
    }
  }

  /**
   * The song at a length.
   *
   * @param name what a person knows it as
   * @throws Problem when it cannot be brought to that length
   */
  static Arrangement arrange(Song song, Fit fit, long lengthFrames, String name) {
    return new TailorFit(song, fit, name).arrange(lengthFrames);
  }

  private void choose(int from) {
    int last = Math.min(jumps.outroEdge(), n - PLAY_ON);
    boolean leaves = from >= PLAY_ON && from >= jumps.introEdge() && from <= jumps.outroEdge();
    int[] targets =
        !leaves
            ? new int[0]
            : IntStream.rangeClosed(Math.max(1, jumps.introEdge()), last)
                .filter(to -> Math.abs(to - from) >= PLAY_ON)
                .filter(to -> Double.isFinite(jumps.cost(from, to)))
                .boxed()
                .sorted(Comparator.comparingDouble(to -> jumps.cost(from, to)))
                .limit(CHOICES)
                .mapToInt(Integer::intValue)
                .toArray();
    choices[from] = targets;
    costs[from] = new float[targets.length];
    for (int i = 0; i < targets.length; i++) {
      costs[from][i] = (float) Math.max(0.01, COST_OF_JUMPING + jumps.cost(from, targets[i]));
    }
  }

  private Arrangement arrange(long lengthFrames) {
    double usual = analysis.usualStretch();
    long own = analysis.soundEnd() - analysis.soundStart();
    double wanted = n * (lengthFrames / (double) own);
    int first = Math.max(1, (int) Math.floor(wanted * 0.96 - 4));
    int last = (int) Math.ceil(wanted * 1.04 + 4);
    if ((long) (last + 1) * (n + 1) > MOST_STATES) {
      throw new Problem(
          "%s is too long to be tailored to %.0f s: choose loop or trim."
              .formatted(name, lengthFrames / (double) analysis.sampleRate()));
    }
    Table table = new Table(last);
    Way best = null;
    List<Way> ways = new ArrayList<>();
    for (int t = first; t <= last; t++) {
      if (table.cost[t][n] < Float.POSITIVE_INFINITY) {
        ways.add(new Way(table.cost[t][n], table.jumpsTo(t)));
      }
    }
    ways.sort(Comparator.comparingDouble(w -> w.rank(lengthFrames, usual)));
    for (Way way : ways) {
      if (way.lands(lengthFrames - way.alignedLength(), usual)) {
        best = way;
        break;
      }
    }
    if (best == null) {
      throw impossible(lengthFrames);
    }
    return best.arrangement(lengthFrames);
  }

  private Problem impossible(long lengthFrames) {
    double rate = analysis.sampleRate();
    return new Problem(
        "%s (%.1f s) cannot be tailored to %.1f s with its own beginning and ending: %s; choose trim or loop, protect less of it, or give rejected seams back."
            .formatted(
                name,
                (analysis.soundEnd() - analysis.soundStart()) / rate,
                lengthFrames / rate,
                lengthFrames < analysis.soundEnd() - analysis.soundStart()
                    ? "too little would be left between them"
                    : "it has no places that lead back"));
  }

  /** A way through the song. */
  private final class Way {
    private final float cost;
    private final List<int[]> pairs;

    Way(float cost, List<int[]> pairs) {
      this.cost = cost;
      this.pairs = pairs;
    }

    /** Whether what is missing can be a pause, or be taken up by the last jump. */
    boolean lands(long missing, double usual) {
      long least = takesUp() ? -Math.round(usual) : 0;
      return missing >= least && missing <= Math.round(1.05 * usual);
    }

    /** Whether the last jump can lead anywhere, as there is no beat to keep. */
    private boolean takesUp() {
      return !analysis.hasBeat() && !pairs.isEmpty();
    }

    /** Its cost with that of its pause; ways that are too long or much too short come last. */
    double rank(long lengthFrames, double usual) {
      double missing = (lengthFrames - roughLength()) / usual;
      double least = takesUp() ? -1 : 0;
      double misfit = missing < least ? -100 * missing : missing > 1.05 ? 100 * missing : 0;
      double pause = takesUp() ? 0 : COST_OF_PAUSE * Math.clamp(missing, 0, 1);
      return cost + pause + misfit;
    }

    private long roughLength() {
      long length = analysis.soundEnd() - analysis.soundStart();
      for (int[] pair : pairs) {
        length += analysis.edges()[pair[0]] - analysis.edges()[pair[1]];
      }
      return length;
    }

    private List<Splice> splices() {
      return pairs.stream().map(p -> song.splice(p[0], p[1])).toList();
    }

    long alignedLength() {
      return Arrangement.lengthOf(analysis.soundStart(), analysis.soundEnd(), splices());
    }

    Arrangement arrangement(long lengthFrames) {
      List<Splice> splices = new ArrayList<>(splices());
      long missing = lengthFrames - alignedLength();
      if (takesUp()) {
        splices.add(splices.removeLast().backBy(missing));
        missing = 0;
      }
      return new Arrangement(
          analysis.soundStart(),
          lengthFrames - missing,
          missing,
          Arrangement.seamsOf(analysis.soundStart(), splices));
    }
  }

  /** The cheapest costs of having played t stretches and standing at an edge. */
  private final class Table {
    private final float[][] cost;
    private final short[][] cameFrom;

    Table(int last) {
      cost = new float[last + 1][n + 1];
      cameFrom = new short[last + 1][n + 1];
      for (float[] row : cost) {
        Arrays.fill(row, Float.POSITIVE_INFINITY);
      }
      cost[0][0] = 0;
      for (int t = 0; t <= last; t++) {
        for (int e = 0; e <= n; e++) {
          if (cost[t][e] < Float.POSITIVE_INFINITY) {
            leave(t, e, last);
          }
        }
      }
    }

    private void leave(int t, int e, int last) {
      if (t < last && e < n && cost[t][e] < cost[t + 1][e + 1]) {
        cost[t + 1][e + 1] = cost[t][e];
        cameFrom[t + 1][e + 1] = -1;
      }
      if (t + PLAY_ON > last) {
        return;
      }
      float[] arrival = cost[t + PLAY_ON];
      for (int i = 0; i < choices[e].length; i++) {
        int to = choices[e][i] + PLAY_ON;
        float total = cost[t][e] + costs[e][i];
        if (total < arrival[to]) {
          arrival[to] = total;
          cameFrom[t + PLAY_ON][to] = (short) e;
        }
      }
    }

    /** The jumps of the cheapest way that reaches the song's end after t stretches, in order. */
    List<int[]> jumpsTo(int t) {
      List<int[]> found = new ArrayList<>();
      int at = t;
      int e = n;
      while (at > 0) {
        int from = cameFrom[at][e];
        if (from < 0) {
          at--;
          e--;
        } else {
          found.add(new int[] {from, e - PLAY_ON});
          at -= PLAY_ON;
          e = from;
        }
      }
      return found.reversed();
    }
  }
}
