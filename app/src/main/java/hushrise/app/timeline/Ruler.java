package hushrise.app.timeline;

import static hushrise.app.words.Texts.text;

import hushrise.app.session.Selection;
import hushrise.core.edit.MarkerEdits;
import hushrise.core.edit.Snap;
import hushrise.core.project.Marker;
import hushrise.core.project.Project;
import hushrise.core.time.Timecode;
import hushrise.core.time.TimecodeTicks;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.function.LongConsumer;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Region;
import javafx.scene.text.Font;

/** The ruler in timecode. Pressing and dragging on it moves the playhead, or a marker's flag. */
final class Ruler extends Region {

  /** What a label needs with some air, and without. */
  private static final double LABEL_WIDTH = 88;

  private static final double TEXT_WIDTH = 80;
  private static final double FLAG_HEIGHT = 13;

  /** Of a flag that has no room: what is beneath it is to be read. */
  private static final double STROKE_HEIGHT = 5;

  private static final Font FLAG_FONT = Font.font("Atkinson Hyperlegible Next", 10);
  private static final Font FONT = Font.font("Atkinson Hyperlegible Mono ExtraLight Medium", 11);

  private final Viewport view;
  private final LongConsumer scrub;
  private final Canvas canvas = new Canvas();
  private Optional<Marker> dragged = Optional.empty();
  private double pressedX;

  /** How far right of its marker a flag is held. */
  private double gripX;

  private boolean pulled;

  /**
   * @param scrub lets a place be heard for a moment
   */
  Ruler(Viewport view, LongConsumer scrub) {
    this.view = view;
    this.scrub = scrub;
    setId("ruler");
    getStyleClass().add("ruler");
    setAccessibleText(text("ruler.accessible"));
    getChildren().add(canvas);
    setOnMousePressed(this::press);
    setOnMouseDragged(this::pull);
    setOnMouseReleased(e -> release());
    setOnMouseMoved(
        e ->
            view.hint(
                markerAt(e.getX(), e.getY())
                    .map(m -> text("hint.marker", m.name()))
                    .orElse(text("hint.ruler"))));
  }

  private Optional<Marker> markerAt(double x, double y) {
    return y > FLAG_HEIGHT ? Optional.empty() : flags().at(x);
  }

  private MarkerFlags flags() {
    return new MarkerFlags(
        view.session().shown().markers(),
        view.axis(),
        canvas.getWidth(),
        view.session().selection() instanceof Selection.OfMarker m
            ? Optional.of(m.markerId())
            : Optional.empty());
  }

  private void press(MouseEvent e) {
    pulled = false;
    pressedX = e.getX();
    dragged = markerAt(e.getX(), e.getY());
    if (dragged.isPresent()) {
      gripX = e.getX() - view.axis().xOf(dragged.get().frame());
      view.session().select(new Selection.OfMarker(dragged.get().id()));
    } else {
      view.session().seek(view.axis().frameAt(e.getX()));
    }
  }

  private void pull(MouseEvent e) {
    if (dragged.isEmpty()) {
      view.session().seek(view.axis().frameAt(e.getX()));
      scrub.accept(view.session().playhead());
    } else if (pulled ? view.session().isDragging() : Math.abs(e.getX() - pressedX) > Drag.SLACK) {
      pulled = true;
      pull(dragged.get(), e);
    }
  }

  private void pull(Marker marker, MouseEvent e) {
    long frame = view.axis().frameAt(e.getX() - gripX);
    Snap snap =
        Snap.of(
            view.session().present().withMarkers(List.of()),
            Set.of(),
            view.session().playhead(),
            view.cuts().frames());
    boolean snaps = view.session().habits().snapsProperty().get() && !e.isShortcutDown();
    OptionalLong place = snaps ? snap.nearest(frame, view.snapReach()) : OptionalLong.empty();
    view.snapLineProperty().set(place);
    long to = place.orElse(frame);
    view.session().drag(text("edit.moveMarker"), p -> MarkerEdits.move(p, marker.id(), to));
  }

  private void release() {
    view.snapLineProperty().set(OptionalLong.empty());
    dragged = Optional.empty();
    view.session().endDrag();
  }

  /** Gives a marker that is dragged back; false when none is. */
  boolean cancelDrag() {
    boolean drags = pulled && view.session().isDragging();
    if (drags) {
      view.snapLineProperty().set(OptionalLong.empty());
      view.session().cancelDrag();
    }
    return drags;
  }

  @Override
  protected void layoutChildren() {
    canvas.setWidth(getWidth());
    canvas.setHeight(getHeight());
    redraw();
  }

  void redraw() {
    GraphicsContext g = canvas.getGraphicsContext2D();
    double width = canvas.getWidth();
    double height = canvas.getHeight();
    g.clearRect(0, 0, width, height);
    Project project = view.session().shown();
    TimecodeTicks ticks =
        TimecodeTicks.atLeast(
            LABEL_WIDTH * view.axis().framesPerPixel(),
            project.pictureRate(),
            project.sampleRate());
    long first = ticks.tickAt(view.axis().frameAt(0));
    long end = view.axis().frameAt(width);
    g.setFont(FONT);
    for (long i = first, at = ticks.frameOf(i); at <= end; i++) {
      long next = ticks.frameOf(i + 1);
      double x = Math.round(view.axis().xOf(at));
      g.setFill(view.palette().faintInk());
      g.fillRect(x, height - 8, 1, 8);
      if (x + TEXT_WIDTH <= width) { // cut off it would be another time
        g.fillText(
            Timecode.format(at, project.pictureRate(), project.sampleRate()), x + 4.5, height - 8);
      }
      g.setFill(view.palette().edge());
      for (int minor = 1; minor < 5; minor++) {
        double between = view.axis().xOf(at + (next - at) * minor / 5.0);
        g.fillRect(Math.round(between), height - 4, 1, 4);
      }
      at = next;
    }
    flags().drawn().forEach(flag -> draw(g, flag));
  }

  private void draw(GraphicsContext g, MarkerFlags.Flag flag) {
    double x = flag.x();
    double right = x + flag.width();
    g.setFill(flag.selected() ? view.palette().accent() : view.palette().picture());
    if (flag.isStroke()) {
      g.fillRect(x, 0, 1.5, STROKE_HEIGHT);
      return;
    }
    g.fillPolygon(
        new double[] {x, right, right - 4, right, x},
        new double[] {0, 0, FLAG_HEIGHT / 2, FLAG_HEIGHT, FLAG_HEIGHT},
        5);
    g.fillRect(x, 0, 1.5, canvas.getHeight());
    g.setFill(flag.selected() ? view.palette().onAccent() : view.palette().surface());
    g.setFont(FLAG_FONT);
    g.fillText(flag.words(), x + 4, FLAG_HEIGHT - 3);
  }
}
