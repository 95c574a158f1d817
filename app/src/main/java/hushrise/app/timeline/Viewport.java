package hushrise.app.timeline;

import hushrise.app.command.Commands;
import hushrise.app.command.TimeView;
import hushrise.app.job.Messages;
import hushrise.app.listen.Hearing;
import hushrise.app.listen.PictureCuts;
import hushrise.app.look.Palette;
import hushrise.app.session.Session;
import hushrise.core.fit.Sections.Section;
import hushrise.core.fit.Song;
import hushrise.core.project.media.Media;
import hushrise.core.time.Span;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalLong;
import java.util.Set;
import javafx.beans.property.DoubleProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.SimpleDoubleProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;

/**
 * What the parts of the timeline share: the session, the stretch of time in view, and the colours.
 */
public final class Viewport implements TimeView {

  private static final double SNAP_PIXELS = 8;

  /** How long an unknown song is not asked for again, as asking looks at its file. */
  private static final long ASK_AGAIN_NANOS = 1_000_000_000;

  private static final double HEAD_WIDTH = 200;
  private static final double NARROWEST_HEAD = 92;
  private static final double WIDEST_HEAD = 380;

  private final Session session;
  private final Messages messages;
  private final ObjectProperty<Palette> palette;
  private final ObjectProperty<TimeAxis> axis = new SimpleObjectProperty<>(new TimeAxis(0, 1000));
  private final StringProperty hint = new SimpleStringProperty("");
  private final ObjectProperty<OptionalLong> snapLine =
      new SimpleObjectProperty<>(OptionalLong.empty());
  private final DoubleProperty headWidth = new SimpleDoubleProperty(HEAD_WIDTH);
  private final PictureCuts cuts;
  private final Map<Media, List<Section>> sections = new HashMap<>();
  private long lastAsked = System.nanoTime() - ASK_AGAIN_NANOS;
  private final Hearing hearing;
  private final ReadOnlyObjectProperty<Set<Path>> missing;
  private Commands commands;
  private double width = 1;
  private boolean fitted = true;
  private boolean dragging;

  public Viewport(
      Session session,
      Messages messages,
      PictureCuts cuts,
      Hearing hearing,
      ReadOnlyObjectProperty<Set<Path>> missing,
      ObjectProperty<Palette> palette) {
    this.missing = missing;
    this.cuts = cuts;
    this.hearing = hearing;
    this.session = session;
    this.messages = messages;
    this.palette = palette;
  }

  Session session() {
    return session;
  }

  /** How far the voice stands out, and what there is to remark on. */
  Hearing hearing() {
    return hearing;
  }

  /** The files of the project that are not where they were. */
  ReadOnlyObjectProperty<Set<Path>> missingProperty() {
    return missing;
  }

  Messages messages() {
    return messages;
  }

  /** How wide the heads of the tracks are, in pixels. */
  public DoubleProperty headWidthProperty() {
    return headWidth;
  }

  double headWidth() {
    return headWidth.get();
  }

  public void setHeadWidth(double pixels) {
    headWidth.set(Math.clamp(pixels, NARROWEST_HEAD, WIDEST_HEAD));
  }

  /** Makes the heads narrow, or as wide as usual again. */
  public void narrowHeads() {
    headWidth.set(headWidth() > NARROWEST_HEAD ? NARROWEST_HEAD : HEAD_WIDTH);
  }

  ObjectProperty<Palette> paletteProperty() {
    return palette;
  }

  Palette palette() {
    return palette.get();
  }

  public ObjectProperty<TimeAxis> axisProperty() {
    return axis;
  }

  public TimeAxis axis() {
    return axis.get();
  }

  /** What the pointer is over and what a drag would do. */
  public StringProperty hintProperty() {
    return hint;
  }

  void hint(String text) {
    hint.set(text);
  }

  public double width() {
    return width;
  }

  void setWidth(double pixels) {
    width = Math.max(1, pixels);
    lengthChanged();
  }

  /** The sections of a song, as far as they are known. */
  List<Section> sections(Media media) {
    List<Section> known = sections.get(media);
    long now = System.nanoTime();
    if (known == null && now - lastAsked < ASK_AGAIN_NANOS) {
      return List.of();
    }
    if (known == null) {
      lastAsked = now;
      known = session.songs().song(media).map(Song::sections).orElse(List.of());
      if (!known.isEmpty()) {
        sections.put(media, known);
      }
    }
    return known;
  }

  /** The picture's cuts. */
  public PictureCuts cuts() {
    return cuts;
  }

  /** Gives the timeline's menus their commands. */
  public void setCommands(Commands all) {
    commands = all;
  }

  Commands commands() {
    return commands;
  }

  /** The place that draws what is being dragged; empty while nothing does. */
  ObjectProperty<OptionalLong> snapLineProperty() {
    return snapLine;
  }

  /** How near a dragged thing has to come to a place to be drawn to it, in frames. */
  long snapReach() {
    return Math.round(SNAP_PIXELS * axis().framesPerPixel());
  }

  /** Shows a stretch of time, with a margin. */
  @Override
  public void show(Span span) {
    fitted = false;
    double margin = Math.max(1, span.lengthFrames() * 0.08);
    double scale = Math.max(0.25, (span.lengthFrames() + 2 * margin) / width);
    axis.set(
        new TimeAxis(span.startFrame() - margin, scale)
            .scrolled(0, session.shown().lengthFrames(), width));
  }

  /** Shows the whole film. */
  @Override
  public void fit() {
    fitted = true;
    axis.set(TimeAxis.fitting(Math.max(session.shown().lengthFrames(), 48_000), width));
  }

  /** Follows the film's length where the whole film is shown. */
  void lengthChanged() {
    if (fitted && !dragging) {
      fit();
    }
  }

  /** While something is dragged the time axis stays. */
  void setDragging(boolean is) {
    dragging = is;
    lengthChanged();
  }

  /** Zooms around a place. */
  public void zoom(double factor, double x) {
    fitted = false;
    axis.set(axis().zoomed(factor, x, session.shown().lengthFrames(), width));
  }

  /** Zooms around the playhead, where that is in view, else around the middle. */
  @Override
  public void zoomAtPlayhead(double factor) {
    double x = axis().xOf(session.playhead());
    zoom(factor, x >= 0 && x <= width ? x : width / 2);
  }

  public void scroll(double pixels) {
    axis.set(axis().scrolled(Math.rint(pixels), session.shown().lengthFrames(), width));
  }

  /** Puts a frame into the middle. */
  void centre(long frame) {
    scroll(axis().xOf(frame) - width / 2);
  }

  /** Brings a frame into view. */
  @Override
  public void reveal(long frame) {
    axis.set(axis().showing(frame, session.shown().lengthFrames(), width));
  }
}
