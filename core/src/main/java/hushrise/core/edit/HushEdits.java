package hushrise.core.edit;

import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.HushNumber;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.Rise;
import hushrise.core.project.level.Turn;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;

/** Edits of hushes and rises as objects: each is a function from project to project. */
public final class HushEdits {

  private HushEdits() {}

  /** Adds a hush, or puts it in the place of those under the same passage. */
  public static Project add(Project project, String trackId, Hush hush) {
    return project.withTrack(
        trackId,
        t -> {
          List<Hush> hushes =
              new ArrayList<>(
                  t.hushes().stream().filter(h -> !h.passage().equals(hush.passage())).toList());
          hushes.add(hush);
          hushes.sort(Comparator.comparingLong(Hush::startFrame));
          return t.withHushes(hushes);
        });
  }

  /** Changes a hush by hand: the numbers that come out different are marked as such. */
  public static Project change(Project project, String hushId, UnaryOperator<Hush> change) {
    return project.withEachTrack(t -> t.withHush(hushId, h -> byHand(h, change.apply(h))));
  }

  /** A changed hush with the numbers that differ marked as set by hand. */
  public static Hush byHand(Hush before, Hush after) {
    Hush marked = after;
    Turn was = before.turn();
    Turn is = after.turn();
    if (!before.passage().equals(after.passage())) {
      marked = marked.setByHand(HushNumber.PLACE);
    }
    if (before.depthDb() != after.depthDb()) {
      marked = marked.setByHand(HushNumber.DEPTH);
    }
    if (was.leadSeconds() != is.leadSeconds()) {
      marked = marked.setByHand(HushNumber.LEAD);
    }
    if (was.fallSeconds() != is.fallSeconds()) {
      marked = marked.setByHand(HushNumber.FALL);
    }
    if (was.tailSeconds() != is.tailSeconds()) {
      marked = marked.setByHand(HushNumber.TAIL);
    }
    if (was.recoverySeconds() != is.recoverySeconds()) {
      marked = marked.setByHand(HushNumber.RECOVERY);
    }
    return marked;
  }

  /** Gives a hush back to its track's rule: the next draft may set all its numbers. */
  public static Project forgetByHand(Project project, String hushId) {
    return project.withEachTrack(t -> t.withHush(hushId, h -> h.withByHand(Set.of())));
  }

  /** Changes the four times around a passage. */
  public static Project setTurn(Project project, String hushId, UnaryOperator<Turn> change) {
    return change(project, hushId, h -> h.withTurn(change.apply(h.turn())));
  }

  /** Puts a hush under another passage. */
  public static Project setPassage(Project project, String hushId, Span passage) {
    long start = Math.max(0, passage.startFrame());
    Span held = new Span(start, Math.max(start + 1, passage.endFrame()));
    return change(project, hushId, h -> h.withPassage(held));
  }

  /** To which hushes numbers are copied. */
  public enum Reach {
    NEXT,
    TRACK,
    PROJECT
  }

  /** Gives a hush's depth and times to the next one, to all of its track, or to all there are. */
  public static Project copyNumbers(Project project, String hushId, Reach reach) {
    Optional<Track> found =
        project.tracks().stream().filter(t -> t.hush(hushId).isPresent()).findFirst();
    if (found.isEmpty()) {
      return project;
    }
    Track track = found.get();
    Hush model = track.hush(hushId).orElseThrow();
    UnaryOperator<Hush> like =
        h -> byHand(h, h.withDepthDb(model.depthDb()).withTurn(model.turn()));
    return switch (reach) {
      case NEXT ->
          track.hushes().stream()
              .filter(h -> h.startFrame() > model.startFrame())
              .min(Comparator.comparingLong(Hush::startFrame))
              .map(next -> change(project, next.id(), like))
              .orElse(project);
      case TRACK ->
          project.withTrack(track.id(), t -> t.withHushes(t.hushes().stream().map(like).toList()));
      case PROJECT ->
          project.withEachTrack(
              t -> t.hushes().isEmpty() ? t : t.withHushes(t.hushes().stream().map(like).toList()));
    };
  }

  /** Gives the hushes that lie in a span one depth: that of the deepest. */
  public static Project equalDepth(Project project, String trackId, Span span) {
    Track track = project.track(trackId).orElseThrow();
    double deepest =
        track.hushes().stream()
            .filter(h -> h.passage().overlaps(span))
            .mapToDouble(Hush::depthDb)
            .min()
            .orElse(0);
    return project.withTrack(
        trackId,
        t ->
            t.withHushes(
                t.hushes().stream()
                    .map(h -> h.passage().overlaps(span) ? byHand(h, h.withDepthDb(deepest)) : h)
                    .toList()));
  }

  /** Joins a hush with the next one of its track: from the first's start to the second's end. */
  public static Project mergeWithNext(Project project, String trackId, String hushId) {
    Track track = project.track(trackId).orElseThrow();
    Hush first = track.hush(hushId).orElseThrow();
    Optional<Hush> next =
        track.hushes().stream()
            .filter(h -> h.startFrame() > first.startFrame())
            .min(Comparator.comparingLong(Hush::startFrame));
    if (next.isEmpty()) {
      return project;
    }
    Hush second = next.get();
    Turn turn =
        new Turn(
            first.turn().leadSeconds(),
            first.turn().fallSeconds(),
            second.turn().tailSeconds(),
            second.turn().recoverySeconds());
    Hush joined =
        new Hush(
            first.id(),
            first.startFrame(),
            Math.max(first.endFrame(), second.endFrame()),
            Math.min(first.depthDb(), second.depthDb()),
            turn,
            first.byHand());
    return project.withTrack(
        trackId, t -> t.withoutHush(second.id()).withHush(first.id(), h -> byHand(h, joined)));
  }

  /** Turns a hush, and those that overlap it, into plain keyframes that sound the same. */
  public static Project melt(Project project, String trackId, String hushId) {
    return project.withTrack(
        trackId, t -> t.hush(hushId).map(h -> Melt.hush(t, h, project.sampleRate())).orElse(t));
  }

  /** Turns a rise, and those that overlap it, into plain keyframes that sound the same. */
  public static Project meltRise(Project project, String trackId, String riseId) {
    return project.withTrack(
        trackId, t -> t.rise(riseId).map(r -> Melt.rise(t, r, project.sampleRate())).orElse(t));
  }

  public static Project addRise(Project project, String trackId, Rise rise) {
    return project.withTrack(
        trackId,
        t -> {
          List<Rise> rises = new ArrayList<>(t.rises());
          rises.add(rise);
          rises.sort(Comparator.comparingLong(Rise::startFrame));
          return t.withRises(rises);
        });
  }

  public static Project changeRise(Project project, String riseId, UnaryOperator<Rise> change) {
    return project.withEachTrack(t -> t.withRise(riseId, change));
  }

  /** Changes how high a rise goes, held within 0 and 12 dB. */
  public static Project setRiseHeight(Project project, String riseId, double db) {
    double held = Math.clamp(db, 0, Keyframe.MAX_DB);
    return changeRise(project, riseId, r -> r.withHeightDb(held));
  }

  public static Project setRiseSpan(Project project, String riseId, Span span) {
    long start = Math.max(0, span.startFrame());
    return changeRise(
        project, riseId, r -> r.withSpan(new Span(start, Math.max(start + 1, span.endFrame()))));
  }

  /** Moves a rise's beginning so that it reaches its height at a time; where it ends stays. */
  public static Project landRise(Project project, String riseId, long frame) {
    return changeRise(
        project,
        riseId,
        r -> {
          long up = Math.round(r.swellSeconds() * project.sampleRate());
          long start = Math.clamp(frame - up, 0, Math.max(0, r.endFrame() - 1));
          return r.withSpan(new Span(start, r.endFrame()))
              .withTurns((frame - start) / (double) project.sampleRate(), r.returnSeconds());
        });
  }

  public static Project removeRise(Project project, String riseId) {
    return project.withEachTrack(
        t ->
            t.rise(riseId).isEmpty()
                ? t
                : t.withRises(t.rises().stream().filter(r -> !r.id().equals(riseId)).toList()));
  }

  /** Keeps the present shaping of a track aside; another that was kept there gives way. */
  public static Project keepShaping(Project project, String trackId) {
    return project.withTrack(trackId, t -> t.withOther(Optional.of(t.shaping())));
  }

  /** Puts the shaping that was kept aside in place, and the present one aside. */
  public static Project swapShaping(Project project, String trackId) {
    return project.withTrack(
        trackId,
        t -> t.other().map(o -> t.withShaping(o).withOther(Optional.of(t.shaping()))).orElse(t));
  }

  /** The project without hushes and rises, to hear what they do. */
  public static Project withoutHushes(Project project) {
    return project.withEachTrack(t -> t.withHushes(List.of()).withRises(List.of()));
  }

  /** The project without level lines, to hear what they do. */
  public static Project withoutLines(Project project) {
    return project.withEachTrack(t -> t.withLine(hushrise.core.project.level.LevelLine.EMPTY));
  }
}
