package hushrise.app.timeline;

import static hushrise.app.look.Texts.text;

import hushrise.app.Selection;
import hushrise.core.edit.LevelEdits;
import hushrise.core.level.TrackCurve;
import hushrise.core.project.Clip;
import hushrise.core.project.Media;
import hushrise.core.project.Project;
import hushrise.core.project.Track;
import hushrise.core.sound.Peaks;
import java.util.Optional;
import javafx.scene.AccessibleRole;
import javafx.scene.Cursor;
import javafx.scene.canvas.Canvas;
import javafx.scene.image.ImageView;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Region;

/**
 * One sounding track over time: its waveforms as pixels below, and a canvas above for everything
 * that can be taken hold of. The pixels are drawn again only when time, size, colours or the track
 * change; pointing and selecting touch the canvas alone.
 */
final class Lane extends Region {

  private final Viewport view;
  private final String trackId;
  private final PeaksShelf peaks;
  private final ImageView waveView = new ImageView();
  private final Canvas canvas = new Canvas();
  private Optional<WaveformImage> wave = Optional.empty();
  private Track drawnTrack;
  private Target lit = Target.nothing();
  private Optional<Drag> drag = Optional.empty();
  private double pointerX;
  private double pointerY;

  Lane(Viewport view, Track track, PeaksShelf peaks) {
    this.view = view;
    this.trackId = track.id();
    this.peaks = peaks;
    setId("lane-" + track.kind().name().toLowerCase(java.util.Locale.ROOT));
    getStyleClass().add("lane");
    setAccessibleRole(AccessibleRole.NODE);
    setAccessibleText(text("lane.accessible", track.name()));
    getChildren().addAll(waveView, canvas);
    setOnMouseMoved(this::point);
    setOnMouseExited(e -> lightUp(Target.nothing()));
    setOnMousePressed(this::press);
    setOnMouseDragged(this::pull);
    setOnMouseReleased(e -> release());
  }

  String trackId() {
    return trackId;
  }

  private Track track() {
    return view.session().project().track(trackId).orElseThrow();
  }

  private LaneGeometry geometry() {
    return new LaneGeometry(
        track(), view.axis(), new LevelScale(getHeight()), view.session().project().sampleRate());
  }

  @Override
  protected void layoutChildren() {
    double width = Math.floor(getWidth());
    double height = Math.floor(getHeight());
    if (canvas.getWidth() != width || canvas.getHeight() != height) {
      canvas.setWidth(width);
      canvas.setHeight(height);
      redraw();
    }
  }

  /** Draws again if the track is another than the one drawn. */
  void projectChanged(Project project) {
    project.track(trackId).filter(t -> !t.equals(drawnTrack)).ifPresent(t -> redraw());
  }

  /** Draws everything again. */
  void redraw() {
    int width = (int) canvas.getWidth();
    int height = (int) canvas.getHeight();
    Optional<Track> found = view.session().project().track(trackId);
    if (width < 1 || height < 1 || found.isEmpty()) {
      return;
    }
    Track track = found.get();
    drawnTrack = track;
    if (wave.isEmpty() || !wave.get().hasSize(width, height)) {
      wave = Optional.of(new WaveformImage(width, height));
      waveView.setImage(wave.get().image());
    }
    TrackCurve curve = TrackCurve.of(track, view.session().project().sampleRate());
    WaveformImage image = wave.get();
    image.clear();
    for (Clip clip : track.clips()) {
      peaksOf(clip)
          .ifPresent(
              p ->
                  image.draw(
                      clip, p, curve, view.axis(), LanePainter.colorOf(track, view.palette())));
    }
    image.publish();
    paint(curve);
  }

  private Optional<Peaks> peaksOf(Clip clip) {
    Media media = view.session().project().media(clip.mediaId()).orElseThrow();
    return peaks.get(media, this::redraw);
  }

  /** Draws the canvas again: selection, what is lit, a drag's sign. */
  void repaint() {
    if (drawnTrack != null && canvas.getWidth() >= 1) {
      paint(TrackCurve.of(drawnTrack, view.session().project().sampleRate()));
    }
  }

  private void paint(TrackCurve curve) {
    LanePainter painter =
        new LanePainter(
            canvas.getGraphicsContext2D(),
            view.palette(),
            geometry(),
            view.session().project(),
            curve);
    painter.paint(view.session().selection(), lit);
    drag.filter(d -> !d.sign().isEmpty())
        .ifPresent(d -> painter.sign(d.sign(), pointerX, pointerY));
  }

  private void point(MouseEvent e) {
    lightUp(geometry().targetAt(e.getX(), e.getY()));
    view.hint(LanePainter.describe(lit, track()));
  }

  private void lightUp(Target target) {
    if (!target.equals(lit)) {
      lit = target;
      setCursor(
          switch (target) {
            case Target.Nothing n -> Cursor.DEFAULT;
            case Target.OnClip c -> Cursor.DEFAULT;
            case Target.OnKeyframe k -> Cursor.HAND;
            case Target.OnStretch s -> Cursor.V_RESIZE;
            case Target.OnFloor f -> Cursor.V_RESIZE;
            case Target.OnFadeIn f -> Cursor.H_RESIZE;
            case Target.OnFadeOut f -> Cursor.H_RESIZE;
          });
      repaint();
    }
  }

  private void press(MouseEvent e) {
    requestFocus();
    if (e.getButton() != MouseButton.PRIMARY) {
      return;
    }
    LaneGeometry geometry = geometry();
    Target target = geometry.targetAt(e.getX(), e.getY());
    boolean onKeyframe = target instanceof Target.OnKeyframe;
    if (!onKeyframe && (e.isShortcutDown() || e.getClickCount() == 2)) {
      addKeyframe(geometry.axis().frameAt(e.getX()));
      return;
    }
    drag = Drag.of(target, view.session().present(), geometry, e.getX(), e.getY());
    view.session()
        .select(
            drag.map(Drag::selection)
                .orElse(
                    target instanceof Target.OnClip c
                        ? new Selection.OfClip(trackId, c.clipId())
                        : new Selection.OfTrack(trackId)));
  }

  private void addKeyframe(long frame) {
    long held = Math.max(0, frame);
    view.session().commit(text("edit.addKeyframe"), p -> LevelEdits.addKeyframe(p, trackId, held));
    view.session().select(new Selection.OfKeyframe(trackId, held));
  }

  private void pull(MouseEvent e) {
    pointerX = e.getX();
    pointerY = e.getY();
    drag.ifPresent(
        d -> {
          Project shown = d.at(e.getX(), e.getY());
          view.session().preview(shown);
          view.session().select(d.selection());
          repaint();
        });
  }

  private void release() {
    Optional<Drag> ended = drag;
    drag = Optional.empty();
    ended
        .filter(Drag::hasMoved)
        .ifPresent(
            d -> {
              Project result = view.session().project();
              view.session().commit(d.name(), p -> result);
              view.session().select(d.selection());
            });
    repaint();
  }

  /** Gives a drag back; false when none is under way. */
  boolean cancelDrag() {
    if (drag.isEmpty()) {
      return false;
    }
    drag = Optional.empty();
    view.session().dropPreview();
    repaint();
    return true;
  }
}
