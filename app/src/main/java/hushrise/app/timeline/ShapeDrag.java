package hushrise.app.timeline;

import static hushrise.app.look.Texts.text;

import hushrise.app.Selection;
import hushrise.app.Session;
import hushrise.core.edit.HushEdits;
import hushrise.core.edit.KeyframeEdits;
import hushrise.core.project.Hush;
import hushrise.core.project.LevelText;
import hushrise.core.project.Project;
import hushrise.core.project.Rise;
import hushrise.core.project.Track;
import hushrise.core.project.Turn;
import hushrise.core.time.Span;
import hushrise.core.time.Timecode;
import java.util.Optional;

/**
 * A drag of a part of a hush or a rise, of the line within the selected stretch of time, or of an
 * edge of that stretch, which scales the keyframes in it.
 */
final class ShapeDrag implements Drag {

  private static final double SLACK = 3;

  private final Target target;
  private final Session session;
  private final LaneGeometry geometry;
  private final Project before;
  private final double pressX;
  private final double pressY;
  private final Optional<Span> pressed;
  private boolean moved;
  private String sign = "";
  private Selection selection;

  ShapeDrag(Target target, Session session, LaneGeometry geometry, double x, double y) {
    this.target = target;
    this.session = session;
    this.geometry = geometry;
    this.before = session.present();
    this.pressX = x;
    this.pressY = y;
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
  public Project at(Pull pull) {
    moved |= Math.max(Math.abs(pull.x() - pressX), Math.abs(pull.y() - pressY)) > SLACK;
    if (!moved) {
      return before;
    }
    long by = Math.round((pull.x() - pressX) * geometry.axis().framesPerPixel());
    return switch (target) {
      case Target.OnShape s -> s.part().isOfHush() ? hush(s, by) : rise(s, by, pull.y());
      case Target.OnSpanEdge e -> spanEdge(e.start(), by);
      default -> raiseSpan(pull.y());
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

  private Project hush(Target.OnShape s, long by) {
    Hush hush = track().hush(s.id()).orElseThrow();
    Turn turn = hush.turn();
    Span passage = hush.passage();
    Project result =
        switch (s.part()) {
          case HUSH_FALL ->
              HushEdits.setTurn(
                  before, s.id(), t -> t.withFall(hundredths(turn.fallSeconds() - seconds(by))));
          case HUSH_RECOVERY ->
              HushEdits.setTurn(
                  before,
                  s.id(),
                  t -> t.withRecovery(hundredths(turn.recoverySeconds() + seconds(by))));
          case HUSH_START ->
              HushEdits.setPassage(
                  before,
                  s.id(),
                  new Span(
                      Math.min(passage.startFrame() + by, passage.endFrame() - 1),
                      passage.endFrame()));
          default ->
              HushEdits.setPassage(
                  before,
                  s.id(),
                  new Span(
                      passage.startFrame(),
                      Math.max(passage.endFrame() + by, passage.startFrame() + 1)));
        };
    Hush now = result.track(track().id()).flatMap(t -> t.hush(s.id())).orElseThrow();
    sign =
        switch (s.part()) {
          case HUSH_FALL -> text("sign.fall", "%.2f".formatted(now.turn().fallSeconds()));
          case HUSH_RECOVERY ->
              text("sign.recovery", "%.2f".formatted(now.turn().recoverySeconds()));
          case HUSH_START -> time(now.startFrame());
          default -> time(now.endFrame());
        };
    return result;
  }

  private String time(long frame) {
    return Timecode.format(frame, before.pictureRate(), before.sampleRate());
  }

  private Project rise(Target.OnShape s, long by, double y) {
    Rise rise = track().rise(s.id()).orElseThrow();
    Span span = rise.span();
    if (s.part() == Target.Part.RISE_TOP) {
      double startY = geometry.topY(rise, rise.knots(before.sampleRate()));
      double db =
          rise.heightDb()
              + geometry.scale().dbAt(startY + y - pressY)
              - geometry.scale().dbAt(startY);
      double height = Math.max(0, Math.round(db * 10) / 10.0);
      sign = LevelText.format(height);
      return HushEdits.setRiseHeight(before, s.id(), height);
    }
    Project result =
        switch (s.part()) {
          case RISE_START ->
              HushEdits.setRiseSpan(
                  before,
                  s.id(),
                  new Span(Math.min(span.startFrame() + by, span.endFrame() - 1), span.endFrame()));
          case RISE_END ->
              HushEdits.setRiseSpan(
                  before,
                  s.id(),
                  new Span(
                      span.startFrame(), Math.max(span.endFrame() + by, span.startFrame() + 1)));
          case RISE_SWELL ->
              HushEdits.changeRise(
                  before,
                  s.id(),
                  r ->
                      r.withTurns(
                          hundredths(rise.swellSeconds() + seconds(by)), rise.returnSeconds()));
          default ->
              HushEdits.changeRise(
                  before,
                  s.id(),
                  r ->
                      r.withTurns(
                          rise.swellSeconds(), hundredths(rise.returnSeconds() - seconds(by))));
        };
    Rise now = result.track(track().id()).flatMap(t -> t.rise(s.id())).orElseThrow();
    sign =
        switch (s.part()) {
          case RISE_START -> time(now.startFrame());
          case RISE_END -> time(now.endFrame());
          case RISE_SWELL -> text("sign.swell", "%.2f".formatted(now.swellSeconds()));
          default -> text("sign.return", "%.2f".formatted(now.returnSeconds()));
        };
    return result;
  }

  private Project raiseSpan(double y) {
    Span span = pressed.orElseThrow();
    double byDb =
        Math.round((geometry.scale().dbAt(y) - geometry.scale().dbAt(pressY)) * 10) / 10.0;
    sign = (byDb > 0 ? "+" : "") + "%.1f dB".formatted(byDb).replace('-', '\u2212');
    return KeyframeEdits.raiseSpan(before, track().id(), span, session.lastTurn(), byDb);
  }

  private Project spanEdge(boolean start, long by) {
    Span span = pressed.orElseThrow();
    Span now =
        start
            ? new Span(Math.clamp(span.startFrame() + by, 0, span.endFrame() - 1), span.endFrame())
            : new Span(span.startFrame(), Math.max(span.endFrame() + by, span.startFrame() + 1));
    selection = new Selection.OfSpan(track().id(), now);
    sign = "%.2f s".formatted(seconds(now.lengthFrames()));
    return KeyframeEdits.scale(before, track().id(), span, now);
  }

  @Override
  public String sign() {
    return sign;
  }

  @Override
  public Selection selection() {
    return selection;
  }

  @Override
  public boolean hasMoved() {
    return moved;
  }

  @Override
  public String name() {
    return switch (target) {
      case Target.OnShape s -> text(s.part().isOfHush() ? "edit.hushNumbers" : "edit.rise");
      case Target.OnSpanEdge e -> text("edit.scaleKeyframes");
      default -> text("edit.raiseSpan");
    };
  }
}
