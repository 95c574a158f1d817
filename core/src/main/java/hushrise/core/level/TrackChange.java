package hushrise.core.level;

import hushrise.core.project.level.Hush;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.Rise;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** Over which stretch of time two versions of a track may sound different. */
public final class TrackChange {

  private static final Span ALL = new Span(0, Long.MAX_VALUE);

  private final int sampleRate;
  private long from = Long.MAX_VALUE;
  private long to = Long.MIN_VALUE;

  private TrackChange(int sampleRate) {
    this.sampleRate = sampleRate;
  }

  /**
   * The stretch that holds all differences; empty when there are none. Names, rows, rules and mutes
   * do not count.
   */
  public static Optional<Span> between(Track a, Track b, int sampleRate) {
    if (a.levelDb() != b.levelDb() || a.pan() != b.pan()) {
      return Optional.of(ALL);
    }
    TrackChange change = new TrackChange(sampleRate);
    if (!a.clips().equals(b.clips())) {
      change.clips(a.clips(), b.clips());
    }
    if (!a.line().equals(b.line())) {
      change.keyframes(a.line().keyframes(), b.line().keyframes());
    }
    different(a.hushes(), b.hushes()).forEach(change::hush);
    different(a.rises(), b.rises()).forEach(change::rise);
    return change.from < change.to
        ? Optional.of(new Span(Math.max(0, change.from), Math.max(0, change.to)))
        : Optional.empty();
  }

  private void add(long start, long end) {
    from = Math.min(from, start);
    to = Math.max(to, end);
  }

  /** A clip that differs may also change its neighbours\u2019 crossfades, which lie within it. */
  private void clips(List<Clip> a, List<Clip> b) {
    different(a, b).forEach(c -> add(c.startFrame(), c.endFrame()));
  }

  /** What is in one list and not in the other; both ends that they share are left out at once. */
  private static <T> List<T> different(List<T> a, List<T> b) {
    int same = sameAtStart(a, b);
    int tail = sameAtEnd(a, b, same);
    List<T> ofA = a.subList(same, a.size() - tail);
    List<T> ofB = b.subList(same, b.size() - tail);
    Set<T> inA = new HashSet<>(ofA);
    Set<T> inB = new HashSet<>(ofB);
    List<T> result = new ArrayList<>(ofA);
    result.removeIf(inB::contains);
    ofB.stream().filter(x -> !inA.contains(x)).forEach(result::add);
    return result;
  }

  private static <T> int sameAtStart(List<T> a, List<T> b) {
    int shorter = Math.min(a.size(), b.size());
    int same = 0;
    while (same < shorter && a.get(same).equals(b.get(same))) {
      same++;
    }
    return same;
  }

  private static <T> int sameAtEnd(List<T> a, List<T> b, int afterFirst) {
    int shorter = Math.min(a.size(), b.size());
    int tail = 0;
    while (tail < shorter - afterFirst
        && a.get(a.size() - 1 - tail).equals(b.get(b.size() - 1 - tail))) {
      tail++;
    }
    return tail;
  }

  /** From the last keyframe that both begin with to the first that both end with. */
  private void keyframes(List<Keyframe> a, List<Keyframe> b) {
    int same = sameAtStart(a, b);
    int tail = sameAtEnd(a, b, same);
    long start = same == 0 ? 0 : a.get(same - 1).frame();
    long end = tail == 0 ? Long.MAX_VALUE : a.get(a.size() - tail).frame() + 1;
    add(start, end);
  }

  private void hush(Hush hush) {
    Hush.Knots k = hush.knots(sampleRate);
    add(k.start(), k.end());
  }

  private void rise(Rise rise) {
    add(rise.startFrame(), rise.endFrame());
  }
}
