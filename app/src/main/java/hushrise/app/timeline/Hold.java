package hushrise.app.timeline;

import hushrise.app.session.Selection;
import hushrise.app.session.Session;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import java.util.Optional;
import java.util.Set;
import javafx.scene.input.MouseEvent;

/**
 * What a press in a lane takes hold of: what it selects, and what it drags.
 *
 * @param target what lies under the pointer
 */
record Hold(Target target, Viewport view, LaneGeometry geometry, MouseEvent press) {

  private Track track() {
    return geometry.track();
  }

  private Session session() {
    return view.session();
  }

  /** A drag of a passage, of a level, or of what hushes and rises are made of. */
  Optional<Drag> level() {
    if (target instanceof Target.OnPassage p) {
      return Optional.of(new PassageDrag(p, session().present(), geometry, press.getX()));
    }
    if (isShape()) {
      return Optional.of(new ShapeDrag(target, session(), geometry, press.getX(), press.getY()));
    }
    return LevelDrag.of(
        target, session().present(), geometry, session().selection(), press.getX(), press.getY());
  }

  /** Also where the selected stretch of time is pulled by the line within it. */
  private boolean isShape() {
    boolean inSpan =
        target instanceof Target.OnStretch
            && session().selection() instanceof Selection.OfSpan s
            && s.trackId().equals(track().id())
            && s.span().contains(view.axis().frameAt(press.getX()));
    return inSpan || target instanceof Target.OnShape || target instanceof Target.OnSpanEdge;
  }

  /** A drag of clips: all that are selected, when the one that is pressed is among them. */
  Optional<Drag> clip() {
    return switch (target) {
      case Target.OnClip c ->
          drag(press.isAltDown() ? ClipDrag.Way.SLIP : ClipDrag.Way.MOVE, c.clipId());
      case Target.OnClipStart c -> drag(ClipDrag.Way.TRIM_START, c.clipId());
      case Target.OnClipEnd c -> drag(ClipDrag.Way.TRIM_END, c.clipId());
      default -> Optional.empty();
    };
  }

  private Optional<Drag> drag(ClipDrag.Way way, String clipId) {
    Clip clip = track().clip(clipId).orElseThrow();
    Set<String> chosen = session().selection().clipIds();
    return Optional.of(new ClipDrag(way, view, track(), clip, chosen, press.getX(), press.getY()));
  }

  /** Selects it, unless it is one of several clips that are selected and may be about to move. */
  void select() {
    selection().ifPresent(session()::select);
  }

  private Optional<Selection> selection() {
    String trackId = track().id();
    return switch (target) {
      case Target.OnShape s ->
          Optional.of(
              s.part().isOfHush()
                  ? new Selection.OfHush(trackId, s.id())
                  : new Selection.OfRise(trackId, s.id()));
      case Target.OnSpanEdge s -> Optional.empty();
      case Target.OnPassage p ->
          Optional.of(
              new Selection.OfPassage(
                  trackId,
                  p.clipId(),
                  track().clip(p.clipId()).orElseThrow().mediaId(),
                  p.index()));
      case Target.OnClip c -> ofClip(c.clipId());
      case Target.OnClipStart c -> ofClip(c.clipId());
      case Target.OnClipEnd c -> ofClip(c.clipId());
      case Target.OnSeam s -> Optional.of(new Selection.OfSeam(trackId, s.clipId(), s.index()));
      case Target.OnFloor f -> Optional.of(new Selection.OfHush(trackId, f.hushId()));
      case Target.OnKeyframe k ->
          Optional.of(
              new Selection.OfKeyframe(trackId, track().line().keyframes().get(k.index()).frame()));
      default -> Optional.of(new Selection.OfTrack(trackId));
    };
  }

  private Optional<Selection> ofClip(String clipId) {
    boolean among = session().selection() instanceof Selection.OfClip c && c.has(clipId);
    return among ? Optional.empty() : Optional.of(new Selection.OfClip(track().id(), clipId));
  }
}
