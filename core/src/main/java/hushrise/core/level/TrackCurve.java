package hushrise.core.level;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import hushrise.core.Decibels;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelLine;
import hushrise.core.project.level.Rise;
import hushrise.core.project.timeline.Track;
import java.util.Arrays;

/**
 * A track's level over time, made ready for rendering: track level, line, rises and hushes summed
 * in dB. Immutable; any number of threads may read it.
 *
 * <p>All places where the sum can bend are sorted once into knots. Within an interval between two
 * knots the same line segment, hushes and rises are in force, so a reader that walks forward
 * through time does no searching: it carries the interval's index along. Of several hushes over a
 * place the deepest counts, of several rises the highest.
 */
public final class TrackCurve {

  /**
   * Curves in use, by the track itself: a window that draws, measures and plays one version of a
   * track makes its curve once.
   */
  private static final Cache<Track, TrackCurve> MADE =
      Caffeine.newBuilder().weakKeys().maximumSize(1_000).executor(Runnable::run).build();

  private final int sampleRate;
  private final double trackDb;
  private final boolean off;
  private final LevelLine line;
  private final long[] knots;
  private final Hush.Knots[][] hushesIn;
  private final Hush.Knots[][] risesIn;

  /** Made when first asked for: a lane draws a few minutes of hours. Any thread may make one. */
  private final Interval[] intervals;

  private TrackCurve(Track track, int sampleRate) {
    this.sampleRate = sampleRate;
    trackDb = track.levelDb();
    off = trackDb <= Decibels.OFF_DB;
    line = track.line();
    Hush.Knots[] hushes =
        track.hushes().stream().map(h -> h.knots(sampleRate)).toArray(Hush.Knots[]::new);
    Hush.Knots[] rises =
        track.rises().stream().map((Rise r) -> r.knots(sampleRate)).toArray(Hush.Knots[]::new);
    knots = knotsOf(line, hushes, rises);
    hushesIn = Reach.of(knots, hushes);
    risesIn = Reach.of(knots, rises);
    intervals = new Interval[knots.length + 1];
  }

  /** Makes everything now, for a reader that may not wait for it later. */
  public TrackCurve whole() {
    for (int i = 0; i < intervals.length; i++) {
      interval(i);
    }
    return this;
  }

  private Interval interval(int index) {
    Interval known = intervals[index];
    if (known == null) {
      long first = index > 0 ? knots[index - 1] : knots.length == 0 ? 0 : knots[0] - 1;
      boolean outer = index == 0 || index == knots.length;
      int next = line.indexAfter(first);
      known = new Interval(line, next, first, outer, hushesIn[index], risesIn[index]);
      intervals[index] = known;
    }
    return known;
  }

  /** A track's curve; the same one each time for the very same track, while it is in use. */
  public static TrackCurve of(Track track, int sampleRate) {
    TrackCurve made = MADE.getIfPresent(track);
    if (made == null || made.sampleRate != sampleRate) {
      // Made outside the cache's locks: who draws does not wait for one that measures unseen.
      made = new TrackCurve(track, sampleRate);
      MADE.put(track, made);
    }
    return made;
  }

  /** All places where something bends, in order, each once. */
  private static long[] knotsOf(LevelLine line, Hush.Knots[] hushes, Hush.Knots[] rises) {
    long[] all = new long[line.keyframes().size() + 4 * (hushes.length + rises.length)];
    int count = 0;
    for (Keyframe keyframe : line.keyframes()) {
      all[count++] = keyframe.frame();
    }
    count = add(hushes, all, count);
    count = add(rises, all, count);
    Arrays.sort(all);
    int distinct = 0;
    for (int i = 0; i < count; i++) {
      if (i == 0 || all[i] != all[i - 1]) {
        all[distinct++] = all[i];
      }
    }
    return Arrays.copyOf(all, distinct);
  }

  private static int add(Hush.Knots[] spans, long[] to, int from) {
    int count = from;
    for (Hush.Knots k : spans) {
      to[count++] = k.start();
      to[count++] = k.floorStart();
      to[count++] = k.floorEnd();
      to[count++] = k.end();
    }
    return count;
  }

  /**
   * The interval that holds a time, from a guess near it.
   *
   * @param interval a guess, such as the last answer; any value from 0 to the count of knots
   */
  public int seek(long frame, int interval) {
    int found = interval;
    while (found < knots.length && knots[found] <= frame) {
      found++;
    }
    if (found > 0 && knots[found - 1] > frame) {
      int at = Arrays.binarySearch(knots, 0, found, frame);
      found = at >= 0 ? at + 1 : -at - 1;
    }
    return found;
  }

  /** The level at a time as a sum in dB; minus infinity where the track or the line is off. */
  public double levelDbAt(long frame) {
    int at = Arrays.binarySearch(knots, frame);
    return levelDbAt(frame, at >= 0 ? at + 1 : -at - 1);
  }

  /**
   * As {@link #levelDbAt(long)}, for places that follow one another.
   *
   * @param interval from {@link #seek}
   */
  public double levelDbAt(long frame, int interval) {
    return off ? Double.NEGATIVE_INFINITY : trackDb + interval(interval).levelDbAt(frame);
  }

  /**
   * Fills {@code factors} with the amplitude factors at {@code firstFrame}, {@code firstFrame +
   * step} and so on.
   *
   * @param interval where the last call ended, or 0
   * @return the interval reached, for the next call
   */
  public int fillFactors(long firstFrame, int step, int count, float[] factors, int interval) {
    int at = seek(firstFrame, interval);
    int done = 0;
    while (done < count) {
      long frame = firstFrame + (long) done * step;
      at = seek(frame, at);
      float factor = (float) Decibels.toFactor(levelDbAt(frame, at));
      factors[done++] = factor;
      if (interval(at).isSteady()) {
        long until = at == knots.length ? Long.MAX_VALUE : knots[at];
        while (done < count && firstFrame + (long) done * step < until) {
          factors[done++] = factor;
        }
      }
    }
    return at;
  }
}
