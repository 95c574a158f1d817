package hushrise.app.panel;

import static hushrise.app.words.Texts.text;

import hushrise.app.job.Jobs;
import hushrise.app.look.Density;
import hushrise.app.session.Session;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.media.PictureReader;
import java.nio.IntBuffer;
import java.nio.file.Path;
import java.util.Optional;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import javafx.beans.value.ObservableValue;
import javafx.scene.control.Label;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.image.PixelBuffer;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;
import javafx.scene.layout.StackPane;

/**
 * The picture at the playhead. While one is decoded the newest wish waits; older ones are dropped.
 * Two canvases take turns: one is shown while the next picture is put onto the other, so that
 * playing leaves nothing behind to be collected.
 */
public final class PicturePane extends StackPane {

  /** How wide the box is that pictures are made for: in a small pane, and in a large one. */
  private static final int SMALL_BOX = 640;

  private static final int LARGE_BOX = 1280;

  /** A pane this many pixels of the screen wide still takes small pictures. */
  private static final double STILL_SMALL = 768;

  private final Session session;
  private final Jobs jobs;
  private final ImageView view = new ImageView();
  private final Label none = new Label();
  private final ExecutorService worker =
      Executors.newSingleThreadExecutor(
          Thread.ofPlatform().daemon().name("hushrise-picture").factory());
  private final ObservableValue<Double> density = Density.of(this);
  private Optional<Film> reader = Optional.empty();
  private Optional<Source> readerOf = Optional.empty();
  private Optional<Source> shownOf = Optional.empty();
  private boolean busy;
  private boolean again;
  private double shownSeconds = -1;

  /** A film, and how wide the box is that its pictures are made for. */
  private record Source(Path file, int box) {}

  /** A picture's pixels with the image that shows them. */
  private static final class Sheet {
    private final PixelBuffer<IntBuffer> buffer;
    private final WritableImage image;

    Sheet(int width, int height) {
      buffer =
          new PixelBuffer<>(
              width,
              height,
              IntBuffer.allocate(width * height),
              PixelFormat.getIntArgbPreInstance());
      image = new WritableImage(buffer);
    }

    /** Tells the window that the pixels have changed; on its thread. */
    Image changed() {
      buffer.updateBuffer(b -> null);
      return image;
    }
  }

  /** An open film; used by the worker alone. */
  private static final class Film implements AutoCloseable {
    private final PictureReader reader;
    private Sheet shown;
    private Sheet next;

    Film(Source source) {
      reader = new PictureReader(source.file(), source.box(), source.box() * 9 / 16);
      shown = new Sheet(reader.width(), reader.height());
      next = new Sheet(reader.width(), reader.height());
    }

    /** The sheet with the picture at a time. */
    Sheet at(double seconds) {
      if (reader.changedAt(seconds, next.buffer.getBuffer())) {
        Sheet before = shown;
        shown = next;
        next = before;
      }
      return shown;
    }

    @Override
    public void close() {
      reader.close();
    }
  }

  public PicturePane(Session session, Jobs jobs) {
    this.session = session;
    this.jobs = jobs;
    setId("picture");
    getStyleClass().add("picture-pane");
    setAccessibleText(text("picture.accessible"));
    view.setPreserveRatio(true);
    view.setSmooth(true);
    view.fitWidthProperty().bind(widthProperty());
    view.fitHeightProperty().bind(heightProperty());
    view.setManaged(false);
    none.setId("picture-none");
    none.getStyleClass().add("picture-none");
    none.setWrapText(true);
    getChildren().addAll(view, none);
    session.playheadProperty().addListener((p, was, now) -> wish());
    widthProperty().addListener((p, was, now) -> wish());
    density.addListener((p, was, now) -> wish());
    session.shownProperty().addListener((p, was, now) -> projectChanged(now));
    projectChanged(session.shown());
  }

  private void projectChanged(Project now) {
    none.setText(text(now.pictureEndFrame().isEmpty() ? "picture.none" : "picture.gap"));
    wish();
  }

  @Override
  protected void layoutChildren() {
    super.layoutChildren();
    double w = view.getLayoutBounds().getWidth();
    double h = view.getLayoutBounds().getHeight();
    view.relocate((getWidth() - w) / 2, (getHeight() - h) / 2);
  }

  /** The clip whose picture is shown at the playhead; at the film's very end the last one. */
  private Optional<Clip> shownClip(Project project) {
    long at = Math.min(session.playhead(), project.pictureEndFrame().orElse(1) - 1);
    return project
        .tracksOf(TrackKind.PICTURE)
        .flatMap(t -> t.clipsInTime().reversed().stream())
        .filter(c -> c.span().contains(at))
        .findFirst();
  }

  private void wish() {
    Project project = session.shown();
    Optional<Clip> clip = shownClip(project);
    Optional<Media> film = clip.flatMap(c -> project.media(c.mediaId()));
    none.setVisible(film.isEmpty());
    if (film.isEmpty()) {
      again = busy;
      view.setImage(null);
      shownSeconds = -1;
      return;
    }
    if (busy) {
      again = true;
      return;
    }
    long into = session.playhead() - clip.get().startFrame();
    double seconds =
        film.get().kind() == MediaKind.STILL
            ? 0
            : project.seconds(clip.get().mediaFrameAt(Math.max(0, into)));
    boolean small = getWidth() * density.getValue() <= STILL_SMALL;
    Source source = new Source(film.get().file(), small ? SMALL_BOX : LARGE_BOX);
    if (seconds == shownSeconds && shownOf.filter(source::equals).isPresent()) {
      return;
    }
    busy = true;
    jobs.run(
        worker,
        () -> reader(source).at(seconds),
        sheet -> {
          if (view.getImage() != sheet.image) {
            view.setImage(sheet.changed());
          }
          shownSeconds = seconds;
          shownOf = Optional.of(source);
          requestLayout();
          next();
        },
        this::next);
  }

  private void next() {
    busy = false;
    if (again) {
      again = false;
      wish();
    }
  }

  /** The reader of a film; on the worker alone, which closes the one before. */
  private Film reader(Source source) {
    if (readerOf.filter(source::equals).isEmpty()) {
      closeReader();
      reader = Optional.of(new Film(source));
      readerOf = Optional.of(source);
    }
    return reader.orElseThrow();
  }

  private void closeReader() {
    reader.ifPresent(Film::close);
    reader = Optional.empty();
    readerOf = Optional.empty();
  }

  /** Forgets a film, as its file has changed. */
  public void forget(Path film) {
    shownOf = shownOf.filter(s -> !s.file().equals(film));
    worker.execute(
        () -> {
          if (readerOf.filter(s -> s.file().equals(film)).isPresent()) {
            closeReader();
          }
        });
    wish();
  }

  /** Lets go of its film. */
  public void close() {
    worker.execute(this::closeReader);
    worker.shutdown();
  }
}
