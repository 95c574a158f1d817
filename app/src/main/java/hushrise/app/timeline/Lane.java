package hushrise.app.timeline;

import static hushrise.app.words.Texts.text;

import hushrise.app.session.Selection;
import hushrise.core.level.TrackCurve;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.timeline.Track;
import hushrise.core.ride.Pass;
import hushrise.core.time.Span;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.function.Predicate;
import javafx.scene.AccessibleRole;
import javafx.scene.Node;
import javafx.scene.canvas.Canvas;
import javafx.scene.control.ContextMenu;
import javafx.scene.input.ContextMenuEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Region;
import javafx.scene.shape.Rectangle;

/**
 * One track over time: its waveforms or stills below, and a canvas above for everything that can be
 * taken hold of. What lies below is drawn again only when time, size, colours or the track change;
 * pointing and selecting touch the canvas alone.
 */
final class Lane extends Region {

  private final Viewport view;
  private final String trackId;
  private final Ground ground;
  private final LaneHand hand;
  private final Predicate<Node> inView;
  private final Canvas canvas = new Canvas();
  private final RideTrail trail = new RideTrail();
  private final Rectangle take = new Rectangle();
  private final ContextMenu menu = new ContextMenu();
  private Track drawnTrack;
  private List<Media> drawnShelf = List.of();
  private TrackCurve curve;
  private boolean stale;
  private boolean complete = true;
  private Target lit = Target.nothing();
  private boolean pointed;
  private double pointerX;
  private double pointerY;

  /**
   * @param inView whether a node can be seen; what cannot is drawn when it comes into view
   */
  Lane(Viewport view, Track track, Ground ground, BoxSelect box, Predicate<Node> inView) {
    this.inView = inView;
    this.view = view;
    this.trackId = track.id();
    this.ground = ground;
    this.hand = new LaneHand(view, this, box);
    setId("lane-" + track.kind().name().toLowerCase(Locale.ROOT));
    getStyleClass().add("lane");
    setAccessibleRole(AccessibleRole.NODE);
    setAccessibleText(text("lane.accessible", track.name()));
    take.getStyleClass().add("take-underway");
    take.setManaged(false);
    take.setMouseTransparent(true);
    take.setVisible(false);
    getChildren().addAll(ground.node(), canvas, trail, take);
    setOnMouseMoved(this::point);
    setOnMouseExited(e -> leave());
    setOnMousePressed(this::press);
    setOnMouseDragged(this::pull);
    setOnMouseReleased(hand::release);
    setOnContextMenuRequested(this::showMenu);
  }

  String trackId() {
    return trackId;
  }

  private Track track() {
    return view.session().shown().track(trackId).orElseThrow();
  }

  LaneGeometry geometry() {
    return new LaneGeometry(
        track(), view.axis(), new LevelScale(getHeight()), view.session().shown().sampleRate());
  }

  @Override
  protected void layoutChildren() {
    if (canvas.getWidth() != Math.floor(getWidth())
        || canvas.getHeight() != Math.floor(getHeight())) {
      redraw();
    }
  }

  /** Shows where a hand on the fader has been. */
  void showRide(Optional<Pass> pass) {
    trail.show(pass, view.axis(), Math.floor(getWidth()), Math.floor(getHeight()));
  }

  /** Shows how far a take has come that is being spoken from a frame on; empty: none is. */
  void showTake(OptionalLong from) {
    take.setVisible(from.isPresent());
    if (from.isPresent()) {
      double left = Math.clamp(view.axis().xOf(from.getAsLong()), 0, getWidth());
      double right = Math.clamp(view.axis().xOf(view.session().playhead()), left, getWidth());
      take.setX(left);
      take.setY(2);
      take.setWidth(right - left);
      take.setHeight(Math.max(0, getHeight() - 4));
    }
  }

  /** Draws again if the track is another than the one drawn. */
  void projectChanged(Project project) {
    Optional<Track> now = project.track(trackId);
    if (now.isPresent() && !now.get().equals(drawnTrack)) {
      redraw();
    } else if (!project.shelf().equals(drawnShelf)) {
      repaint();
    }
  }

  /** Draws what was left undone while nobody could see it. */
  void catchUp() {
    if (stale && inView.test(this)) {
      redraw();
    }
  }

  /** Gives back the memory of what was drawn when it can no longer be seen. */
  void letGo() {
    if (canvas.getWidth() > 0 && !inView.test(this)) {
      canvas.setWidth(0);
      ground.letGo();
      stale = true;
    }
  }

  /** Draws again what lacked waveforms or stills, some of which have come. */
  void complete() {
    if (!complete) {
      redraw();
    }
  }

  /** Draws everything again. */
  void redraw() {
    int width = (int) getWidth();
    int height = (int) getHeight();
    Optional<Track> found = view.session().shown().track(trackId);
    if (width < 1 || height < 1 || found.isEmpty()) {
      return;
    }
    stale = !inView.test(this);
    if (stale) {
      return;
    }
    canvas.setWidth(width);
    canvas.setHeight(height);
    if (!found.get().equals(drawnTrack)) {
      drawnTrack = found.get();
      curve = TrackCurve.of(drawnTrack, view.session().shown().sampleRate());
    }
    complete = ground.draw(drawnTrack, curve, width, height);
    pointAnew();
    paint();
  }

  /** Draws the canvas again: selection, what is lit, a drag's sign. */
  void repaint() {
    boolean unseen = !inView.test(this);
    stale |= unseen;
    if (!unseen && drawnTrack != null && canvas.getWidth() >= 1) {
      paint();
    }
  }

  private void paint() {
    if (view.session().shown().track(trackId).isEmpty()) {
      return;
    }
    drawnShelf = view.session().shown().shelf();
    LanePainter painter =
        new LanePainter(
            canvas.getGraphicsContext2D(),
            view.palette(),
            geometry(),
            view.session().shown(),
            view.missingProperty().get());
    painter.paint(view.session().selection(), lit);
    new SectionMarks(canvas.getGraphicsContext2D(), view, geometry()).paint();
    if (view.session().draft().isPresent()) {
      view.session().present().track(trackId).ifPresent(painter::before);
    }
    if (!hand.sign().isEmpty()) {
      painter.sign(hand.sign(), pointerX, pointerY);
    }
  }

  private void point(MouseEvent e) {
    pointed = true;
    pointerX = e.getX();
    pointerY = e.getY();
    lightUp(targetAt(e.getX(), e.getY()));
    view.hint(Hints.of(lit, track(), view.session().shown()));
  }

  private void leave() {
    pointed = false;
    lightUp(Target.nothing());
  }

  /** Something else may lie under the pointer now; what is held stays what it is. */
  private void pointAnew() {
    if (pointed && !hand.drags()) {
      lit = targetAt(pointerX, pointerY);
      setCursor(Cursors.of(lit));
    }
  }

  /** The selected stretch of time, if it lies on this track. */
  private Optional<Span> span() {
    return view.session().selection() instanceof Selection.OfSpan s && s.trackId().equals(trackId)
        ? Optional.of(s.span())
        : Optional.empty();
  }

  /** What lies at a place of the lane. */
  Target targetAt(double x, double y) {
    if (span().isPresent()) {
      double fromStart = Math.abs(x - view.axis().xOf(span().get().startFrame()));
      double fromEnd = Math.abs(x - view.axis().xOf(span().get().endFrame()));
      if (Math.min(fromStart, fromEnd) <= LaneAim.EDGE) {
        return new Target.OnSpanEdge(fromStart < fromEnd);
      }
    }
    return new LaneAim(geometry(), view.session().selection()).at(x, y, view.session().shown());
  }

  private void lightUp(Target target) {
    if (!target.equals(lit)) {
      lit = target;
      setCursor(Cursors.of(target));
      repaint();
    }
  }

  private void press(MouseEvent e) {
    requestFocus();
    menu.hide();
    hand.press(e);
  }

  private void pull(MouseEvent e) {
    pointerX = e.getX();
    pointerY = e.getY();
    hand.pull(e);
  }

  private void showMenu(ContextMenuEvent e) {
    Target target = targetAt(e.getX(), e.getY());
    menu.getItems().setAll(LaneMenu.items(target, track(), view));
    if (!menu.getItems().isEmpty()) {
      menu.show(this, e.getScreenX(), e.getScreenY());
    }
    e.consume();
  }

  /** Gives a drag back; false when none is under way. */
  boolean cancelDrag() {
    return hand.giveBack();
  }
}
