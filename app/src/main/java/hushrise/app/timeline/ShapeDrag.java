package hushrise.app.timeline;

import static hushrise.app.words.Texts.text;

import hushrise.app.session.Selection;
import hushrise.app.session.Session;
import hushrise.core.edit.HushEdits;
import hushrise.core.edit.KeyframeEdits;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.LevelText;
import hushrise.core.project.level.Rise;
import hushrise.core.project.level.Turn;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import hushrise.core.time.Timecode;
import java.util.Optional;

/**
 * A drag of a part of a hush or a rise, of the line within the selected stretch of time, or of an
 * edge of that stretch, which scales the keyframes in it.
 */
final class ShapeDrag extends Drag {

  private final Target target;
  private final Session session;
  private final LaneGeometry geometry;
  private final Project before;
  private final Optional<Span> pressed;
  private Selection selection;

  ShapeDrag(Target target, Session session, LaneGeometry geometry, double x, double y) {
    super(x, y);
    this.target = target;
    this.session = session;
    this.geometry = geometry;
    this.before = session.present();
    pressed =
        session.selection() instanceof Selection.OfSpan s
            ? Optional.of(s.span())
            : Optional.empty();
    String track = geometry.track().id();
    selection =
        target instanceof Target.OnShape s
            ? s.part().isOfHush()
                ? new Selection.OfHush(track, s.id())
                : new Selection.OfRise(track, s.id())
            : session.selection();
  }

  @Override
  Project apply(Project base) {
    long by = byFrames(geometry.axis());
    return switch (target) {
      case Target.OnShape s ->
          s.part().isOfHush() ? hush(base, s, by) : rise(base, s, by, pull().y());
      case Target.OnSpanEdge e -> spanEdge(base, e.start(), by);
      default -> raiseSpan(base, pull().y());
    };
  }

  private Track track() {
    return geometry.track();
  }

  private double seconds(long frames) {
    return before.seconds(frames);
  }

  private static double hundredths(double seconds) {
    return Math.round(seconds * 100) / 100.0;
  }

  private Project hush(Project base, Target.OnShape s, long by) {
    Hush hush = track().hush(s.id()).orElseThrow();
    Turn turn = hush.turn();
    Span passage = hush.passage();
    Project result =
        switch (s.part()) {
          case HUSH_FALL ->
              HushEdits.setTurn(
                  base, s.id(), t -> t.withFall(hundredths(turn.fallSeconds() - seconds(by))));
          case HUSH_RECOVERY ->
              HushEdits.setTurn(
                  base,
                  s.id(),
                  t -> t.withRecovery(hundredths(turn.recoverySeconds() + seconds(by))));
          case HUSH_START ->
              HushEdits.setPassage(
                  base,
                  s.id(),
                  new Span(
                      Math.min(passage.startFrame() + by, passage.endFrame() - 1),
                      passage.endFrame()));
          default ->
              HushEdits.setPassage(
                  base,
                  s.id(),
                  new Span(
                      passage.startFrame(),
                      Math.max(passage.endFrame() + by, passage.startFrame() + 1)));
        };
    Hush now = result.track(track().id()).flatMap(t -> t.hush(s.id())).orElseThrow();
    setSign(
        switch (s.part()) {
          case HUSH_FALL -> text("sign.fall", "%.2f".formatted(now.turn().fallSeconds()));
          case HUSH_RECOVERY ->
              text("sign.recovery", "%.2f".formatted(now.turn().recoverySeconds()));
          case HUSH_START -> time(now.startFrame());
          default -> time(now.endFrame());
        });
    return result;
  }

  private String time(long frame) {
    return Timecode.format(frame, before.pictureRate(), before.sampleRate());
  }

  private Project rise(Project base, Target.OnShape s, long by, double y) {
    Rise rise = track().rise(s.id()).orElseThrow();
    Span span = rise.span();
    if (s.part() == Target.Part.RISE_TOP) {
      double startY = geometry.topY(rise, rise.knots(before.sampleRate()));
      double db =
          rise.heightDb()
              + geometry.scale().dbAt(startY + y - pressY())
              - geometry.scale().dbAt(startY);
      double height = Math.max(0, tenths(db));
      setSign(LevelText.format(height));
      return HushEdits.setRiseHeight(base, s.id(), height);
    }
    Project result =
        switch (s.part()) {
          case RISE_START ->
              HushEdits.setRiseSpan(
                  base,
                  s.id(),
                  new Span(Math.min(span.startFrame() + by, span.endFrame() - 1), span.endFrame()));
          case RISE_END ->
              HushEdits.setRiseSpan(
                  base,
                  s.id(),
                  new Span(
                      span.startFrame(), Math.max(span.endFrame() + by, span.startFrame() + 1)));
          case RISE_SWELL ->
              HushEdits.changeRise(
                  base,
                  s.id(),
                  r ->
                      r.withTurns(
                          hundredths(rise.swellSeconds() + seconds(by)), rise.returnSeconds()));
          default ->
              HushEdits.changeRise(
                  base,
                  s.id(),
                  r ->
                      r.withTurns(
                          rise.swellSeconds(), hundredths(rise.returnSeconds() - seconds(by))));
        };
    Rise now = result.track(track().id()).flatMap(t -> t.rise(s.id())).orElseThrow();
    setSign(
        switch (s.part()) {
          case RISE_START -> time(now.startFrame());
          case RISE_END -> time(now.endFrame());
          case RISE_SWELL -> text("sign.swell", "%.2f".formatted(now.swellSeconds()));
          default -> text("sign.return", "%.2f".formatted(now.returnSeconds()));
        });
    return result;
  }

  private Project raiseSpan(Project base, double y) {
    Span span = pressed.orElseThrow();
    double byDb = tenths(geometry.scale().dbAt(y) - geometry.scale().dbAt(pressY()));
    setSignOfChange(byDb);
    return KeyframeEdits.raiseSpan(base, track().id(), span, session.habits().lastTurn(), byDb);
  }

  private Project spanEdge(Project base, boolean start, long by) {
    Span span = pressed.orElseThrow();
    Span now =
        start
            ? new Span(Math.clamp(span.startFrame() + by, 0, span.endFrame() - 1), span.endFrame())
            : new Span(span.startFrame(), Math.max(span.endFrame() + by, span.startFrame() + 1));
    selection = new Selection.OfSpan(track().id(), now);
    setSign("%.2f s".formatted(seconds(now.lengthFrames())));
    return KeyframeEdits.scale(base, track().id(), span, now);
  }

  @Override
  Selection selection() {
    return selection;
  }

  @Override
  String name() {
    return switch (target) {
      case Target.OnShape s -> text(s.part().isOfHush() ? "edit.hushNumbers" : "edit.rise");
      case Target.OnSpanEdge e -> text("edit.scaleKeyframes");
      default -> text("edit.raiseSpan");
    };
  }
}
