package hushrise.core.edit;

import hushrise.core.Problem;
import hushrise.core.project.Project;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelLine;
import hushrise.core.project.level.Turn;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.function.UnaryOperator;

/**
 * Edits of several keyframes of a track's line at once: each is a function from project to project.
 * Keyframes that are not chosen never move and are never passed.
 */
public final class KeyframeEdits {

  private KeyframeEdits() {}

  /** How far chosen keyframes can move before they meet one that is not chosen. */
  private static long heldBy(LevelLine line, Set<Long> chosen, long byFrames) {
    List<Keyframe> all = line.keyframes();
    long least = Long.MIN_VALUE / 4;
    long most = Long.MAX_VALUE / 4;
    for (int i = 0; i < all.size(); i++) {
      long frame = all.get(i).frame();
      if (chosen.contains(frame)) {
        least = Math.max(least, -frame);
        if (i > 0 && !chosen.contains(all.get(i - 1).frame())) {
          least = Math.max(least, all.get(i - 1).frame() + 1 - frame);
        }
        if (i + 1 < all.size() && !chosen.contains(all.get(i + 1).frame())) {
          most = Math.min(most, all.get(i + 1).frame() - 1 - frame);
        }
      }
    }
    return Math.clamp(byFrames, least, Math.max(least, most));
  }

  /**
   * What became of a move.
   *
   * @param project with the keyframes moved
   * @param frames where the chosen ones are now
   * @param byFrames how far they came
   */
  public record Moved(Project project, Set<Long> frames, long byFrames) {}

  /** Moves chosen keyframes together in time and level; they stop at their neighbours. */
  public static Moved move(
      Project project, String trackId, Set<Long> chosen, long byFrames, double byDb) {
    LevelLine line = project.track(trackId).orElseThrow().line();
    long by = heldBy(line, chosen, byFrames);
    List<Keyframe> moved = new ArrayList<>();
    Set<Long> frames = new java.util.TreeSet<>();
    for (Keyframe k : line.keyframes()) {
      if (chosen.contains(k.frame())) {
        moved.add(k.withFrame(k.frame() + by).withLevelDb(k.levelDb() + byDb));
        frames.add(k.frame() + by);
      } else {
        moved.add(k);
      }
    }
    LevelLine changed = LevelLine.of(moved);
    return new Moved(project.withTrack(trackId, t -> t.withLine(changed)), frames, by);
  }

  /** Sets the level of chosen keyframes. */
  public static Project setLevel(Project project, String trackId, Set<Long> chosen, double db) {
    return project.withTrack(
        trackId,
        t -> t.withLine(t.line().mapped(k -> chosen.contains(k.frame()) ? k.withLevelDb(db) : k)));
  }

  /**
   * Stretches or squeezes the keyframes of a span into another span, held between the neighbours
   * that lie outside.
   */
  public static Project scale(Project project, String trackId, Span from, Span to) {
    LevelLine line = project.track(trackId).orElseThrow().line();
    List<Keyframe> inside = line.within(from.startFrame(), from.endFrame());
    if (inside.isEmpty() || from.lengthFrames() == 0) {
      return project;
    }
    int first = line.indexAfter(inside.getFirst().frame() - 1);
    int after = line.indexAfter(inside.getLast().frame());
    long least = first == 0 ? 0 : line.keyframes().get(first - 1).frame() + 1;
    long most =
        after == line.keyframes().size()
            ? Long.MAX_VALUE / 4
            : line.keyframes().get(after).frame() - 1;
    double factor = to.lengthFrames() / (double) from.lengthFrames();
    List<Keyframe> scaled = new ArrayList<>(line.keyframes().subList(0, first));
    long last = least - 1;
    for (int i = 0; i < inside.size(); i++) {
      Keyframe k = inside.get(i);
      long wanted = to.startFrame() + Math.round((k.frame() - from.startFrame()) * factor);
      long room = most - (inside.size() - 1 - i);
      long frame = Math.clamp(wanted, Math.min(last + 1, room), room);
      scaled.add(k.withFrame(frame));
      last = frame;
    }
    scaled.addAll(line.keyframes().subList(after, line.keyframes().size()));
    LevelLine changed = LevelLine.of(scaled);
    return project.withTrack(trackId, t -> t.withLine(changed));
  }

  public static Project remove(Project project, String trackId, Set<Long> chosen) {
    return project.withTrack(trackId, t -> t.withLine(t.line().without(chosen::contains)));
  }

  /** Removes all keyframes of a track, or those over a span. */
  public static Project removeAll(Project project, String trackId, Span over) {
    return project.withTrack(trackId, t -> t.withLine(t.line().without(over::contains)));
  }

  /**
   * Places copies of keyframes so that the first lies at a time; others at the same instants give
   * way.
   *
   * @param copied in order of time, at their old places
   * @throws Problem when they would reach past the film's end
   */
  public static Project paste(
      Project project, String trackId, List<Keyframe> copied, long atFrame) {
    if (copied.isEmpty()) {
      return project;
    }
    long by = atFrame - copied.getFirst().frame();
    long end = project.lengthFrames();
    if (copied.getLast().frame() + by > end) {
      throw new Problem(
          "The copied keyframes last %.1f s, and from here to the film's end are only %.1f s: move the playhead earlier."
              .formatted(
                  project.seconds(copied.getLast().frame() - copied.getFirst().frame()),
                  project.seconds(end - atFrame)));
    }
    return project.withTrack(trackId, t -> t.withLine(Travel.with(t.line(), copied, by)));
  }

  /**
   * Moves the line within a span up or down as one: four keyframes appear around it, unless they
   * are there already.
   *
   * @param turn how long the line takes down before and up after the span
   * @param byDb how far
   */
  public static Project raiseSpan(
      Project project, String trackId, Span span, Turn turn, double byDb) {
    return changeSpan(project, trackId, span, turn, k -> k.withLevelDb(k.levelDb() + byDb));
  }

  /**
   * Brings the line within a span to a level: four keyframes appear around it, unless they are
   * there already.
   *
   * @param turn how long the line takes down before and up after the span
   * @param db the level
   */
  public static Project setSpan(Project project, String trackId, Span span, Turn turn, double db) {
    return changeSpan(project, trackId, span, turn, k -> k.withLevelDb(db));
  }

  /** The level of a track's line in the middle of a span, in dB. */
  public static double levelOver(Track track, Span span) {
    return track.line().levelDbAt(span.startFrame() + span.lengthFrames() / 2);
  }

  private static Project changeSpan(
      Project project, String trackId, Span span, Turn turn, UnaryOperator<Keyframe> change) {
    long fall = Math.max(1, project.frames(turn.fallSeconds()));
    long recovery = Math.max(1, project.frames(turn.recoverySeconds()));
    LevelLine line =
        project
            .track(trackId)
            .orElseThrow()
            .line()
            .withPointAt(Math.max(0, span.startFrame() - fall))
            .withPointAt(span.startFrame())
            .withPointAt(span.endFrame())
            .withPointAt(span.endFrame() + recovery);
    LevelLine changed =
        line.mapped(
            k ->
                k.frame() >= span.startFrame() && k.frame() <= span.endFrame()
                    ? change.apply(k)
                    : k);
    return project.withTrack(trackId, t -> t.withLine(changed));
  }
}
