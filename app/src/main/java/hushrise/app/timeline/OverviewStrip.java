package hushrise.app.timeline;

import static hushrise.app.words.Texts.text;

import hushrise.app.look.Density;
import hushrise.app.look.Pixels;
import hushrise.app.widget.PeaksCache;
import hushrise.core.Decibels;
import hushrise.core.level.TrackCurve;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.Peaks;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import javafx.beans.value.ObservableValue;
import javafx.scene.image.ImageView;
import javafx.scene.layout.Region;
import javafx.scene.paint.Color;
import javafx.scene.shape.Rectangle;

/**
 * The whole film in one strip: where somebody speaks above, how high the music stands below. The
 * framed part is what the timeline shows; dragging it travels.
 */
public final class OverviewStrip extends Region {

  private static final double LOWEST_DB = -48;

  /** How wide a column of music is. */
  private static final int PITCH = 2;

  /** How strong the second half of a column is. */
  private static final double SECOND_HALF = 0.4;

  /** How thick the frame of what is in view is, and how narrow it may become. */
  private static final double LINE = 1.5;

  private static final double LEAST_FRAME = 4;

  private static final int SPEECH_TOP = 5;
  private static final int SPEECH_HEIGHT = 7;

  /** How high the columns of a track stand, and for which version of it. */
  private record Columns(Track track, TimeAxis axis, double[] heights) {}

  private final Viewport view;
  private final PeaksCache peaks;
  private final ImageView shown = new ImageView();
  private final ObservableValue<Double> density = Density.of(this);
  private final Rectangle before = new Rectangle();
  private final Rectangle after = new Rectangle();
  private final Rectangle[] frame = {
    new Rectangle(), new Rectangle(), new Rectangle(), new Rectangle()
  };
  private final Rectangle playhead = new Rectangle(2, 0);
  private final float[] column = new float[3];
  private final Map<String, Columns> known = new HashMap<>();
  private Optional<Pixels> drawn = Optional.empty();

  OverviewStrip(Viewport view, PeaksCache peaks) {
    this.view = view;
    this.peaks = peaks;
    setId("overview");
    setAccessibleText(text("overview.accessible"));
    getChildren().addAll(shown, before, after);
    getChildren().addAll(frame);
    getChildren().add(playhead);
    getChildren().forEach(c -> c.setManaged(false));
    setOnMousePressed(e -> travel(e.getX()));
    setOnMouseDragged(e -> travel(e.getX()));
    setOnMouseMoved(e -> view.hint(text("hint.overview")));
  }

  private TimeAxis whole() {
    return TimeAxis.fitting(Math.max(1, view.session().shown().lengthFrames()), getWidth());
  }

  private void travel(double x) {
    view.centre(whole().frameAt(x));
  }

  @Override
  protected void layoutChildren() {
    redraw();
  }

  void redraw() {
    int width = (int) getWidth();
    int height = (int) getHeight();
    if (width < 1 || height < 1) {
      return;
    }
    double dense = density.getValue();
    if (drawn.filter(p -> p.fits(width, height, dense)).isEmpty()) {
      drawn = Optional.of(new Pixels(width, height, dense));
      drawn.get().showIn(shown);
    }
    draw(drawn.get());
    moveMarks();
  }

  private void draw(Pixels pixels) {
    pixels.setGround(view.palette().sunken());
    pixels.clear();
    Project project = view.session().shown();
    TimeAxis axis = whole();
    known.keySet().removeIf(id -> project.track(id).isEmpty());
    project.tracksOf(TrackKind.MUSIC).forEach(t -> music(pixels, project, t, axis));
    int voice = Pixels.premultiplied(view.palette().voice(), 1);
    project
        .tracksOf(TrackKind.VOICE)
        .flatMap(t -> t.clips().stream())
        .forEach(c -> speech(pixels, c, axis, voice));
    pixels.publish();
  }

  private static void speech(Pixels pixels, Clip clip, TimeAxis axis, int argb) {
    double dense = pixels.density();
    int from = (int) Math.round(dense * axis.xOf(clip.startFrame()));
    int to = (int) Math.round(dense * axis.xOf(clip.endFrame()));
    int top = (int) Math.round(dense * SPEECH_TOP);
    int bottom = (int) Math.round(dense * (SPEECH_TOP + SPEECH_HEIGHT));
    pixels.block(from, top, Math.max(from + 2 * pixels.thin(), to), bottom, argb);
  }

  private void music(Pixels pixels, Project project, Track track, TimeAxis axis) {
    Columns columns = known.get(track.id());
    if (columns == null || !columns.track().equals(track) || !columns.axis().equals(axis)) {
      columns = new Columns(track, axis, new double[(int) getWidth() / PITCH + 1]);
      if (fill(project, columns)) {
        known.put(track.id(), columns);
      }
    }
    Color color = view.palette().music();
    int first = Pixels.premultiplied(color, 1);
    int second = Pixels.premultiplied(color, SECOND_HALF);
    double dense = pixels.density();
    double foot = pixels.height() - dense * 2;
    double tallest = pixels.height() - dense * 16;
    for (int i = 0; i < columns.heights().length; i++) {
      double top = foot - columns.heights()[i] * tallest;
      int middle = (int) Math.round(dense * (i * PITCH + 1));
      int end = (int) Math.min(pixels.width(), Math.round(dense * (i + 1) * PITCH));
      for (int x = (int) Math.round(dense * i * PITCH); x < end && top < foot; x++) {
        pixels.run(x, top, foot, x < middle ? first : second);
      }
    }
  }

  /** Fills in how high a track stands, 0 to 1; gives whether all its waveforms were there. */
  private boolean fill(Project project, Columns columns) {
    TrackCurve curve = TrackCurve.of(columns.track(), project.sampleRate());
    boolean all = true;
    for (Clip clip : columns.track().clips()) {
      Media media = project.media(clip.mediaId()).orElseThrow();
      Optional<Peaks> found = peaks.get(media);
      all &= found.isPresent();
      found.ifPresent(p -> fill(clip, p, curve, columns));
    }
    return all;
  }

  private void fill(Clip clip, Peaks found, TrackCurve curve, Columns columns) {
    TimeAxis axis = columns.axis();
    double half = axis.framesPerPixel() * PITCH / 2;
    int from = (int) Math.max(0, Math.ceil(axis.xOf(clip.startFrame()) / PITCH));
    int to = columns.heights().length;
    for (int i = from; i < to && i * PITCH < axis.xOf(clip.endFrame()); i++) {
      long frame =
          Math.clamp(axis.frameAt(i * PITCH + 1.0), clip.startFrame(), clip.endFrame() - 1);
      double media = clip.mediaFrameAt(frame - clip.startFrame());
      found.over(media - half, media + half, column);
      double db =
          Decibels.ofFactor(column[2] * clip.fadeFactorAt(frame))
              + clip.gainDb()
              + curve.levelDbAt(frame);
      columns.heights()[i] =
          Math.max(columns.heights()[i], Math.clamp((db - LOWEST_DB) / -LOWEST_DB, 0, 1));
    }
  }

  /** Moves the frame of what is in view and the playhead. */
  void moveMarks() {
    double width = getWidth();
    double height = getHeight();
    TimeAxis axis = whole();
    double from = axis.xOf(view.axis().startFrame());
    double to = axis.xOf(view.axis().startFrame() + view.width() * view.axis().framesPerPixel());
    Color veil = view.palette().background().deriveColor(0, 1, 1, 0.6);
    double left = Math.round(Math.max(0, Math.min(from, width)));
    double right = Math.round(Math.max(left + LEAST_FRAME, Math.min(to, width)));
    place(before, 0, 0, left, height, veil);
    place(after, right, 0, width, height, veil);
    Color ink = view.palette().ink();
    place(frame[0], left, 0, right, LINE, ink);
    place(frame[1], left, height - LINE, right, height, ink);
    place(frame[2], left, 0, left + LINE, height, ink);
    place(frame[3], right - LINE, 0, right, height, ink);
    double x = Math.round(axis.xOf(view.session().playhead()));
    place(playhead, x - 1, 0, x + 1, height, view.palette().accent());
  }

  private static void place(
      Rectangle part, double left, double top, double right, double bottom, Color fill) {
    part.setX(left);
    part.setY(top);
    part.setWidth(Math.max(0, right - left));
    part.setHeight(Math.max(0, bottom - top));
    part.setFill(fill);
  }
}
