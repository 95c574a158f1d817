package hushrise.app.panel;

import static hushrise.app.look.Texts.text;

import hushrise.app.Background;
import hushrise.app.Session;
import hushrise.app.timeline.Stills;
import hushrise.core.project.Clip;
import hushrise.core.project.Media;
import hushrise.core.project.MediaKind;
import hushrise.core.project.Project;
import hushrise.core.project.TrackKind;
import hushrise.core.time.FrameRate;
import hushrise.media.PictureReader;
import java.util.Optional;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import javafx.scene.image.ImageView;
import javafx.scene.layout.StackPane;

/**
 * The picture at the playhead. While one is decoded the newest wish waits; older ones are dropped.
 */
public final class PicturePane extends StackPane {

  private static final int MAX_WIDTH = 640;
  private static final int MAX_HEIGHT = 360;

  private final Session session;
  private final Background background;
  private final ImageView view = new ImageView();
  private final ExecutorService worker =
      Executors.newSingleThreadExecutor(
          Thread.ofPlatform().daemon().name("hushrise-picture").factory());
  private Optional<PictureReader> reader = Optional.empty();
  private String readerOf = "";
  private boolean busy;
  private boolean again;
  private double shownSeconds = -1;

  public PicturePane(Session session, Background background) {
    this.session = session;
    this.background = background;
    setId("picture");
    getStyleClass().add("picture-pane");
    setAccessibleText(text("picture.accessible"));
    view.setPreserveRatio(true);
    view.setSmooth(true);
    view.fitWidthProperty().bind(widthProperty());
    view.fitHeightProperty().bind(heightProperty());
    view.setManaged(false);
    getChildren().add(view);
    session.playheadProperty().addListener((p, was, now) -> wish());
    session.projectProperty().addListener((p, was, now) -> wish());
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
    Project project = session.project();
    Optional<Clip> clip = shownClip(project);
    Optional<Media> film = clip.flatMap(c -> project.media(c.mediaId()));
    if (film.isEmpty()) {
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
    if (seconds == shownSeconds && film.get().id().equals(readerOf)) {
      return;
    }
    busy = true;
    Media media = film.get();
    background.run(
        worker,
        () -> reader(media).at(seconds),
        picture -> {
          picture.ifPresent(p -> view.setImage(Stills.imageOf(p)));
          shownSeconds = seconds;
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

  private PictureReader reader(Media film) {
    if (!film.id().equals(readerOf)) {
      reader.ifPresent(PictureReader::close);
      readerOf = "";
      reader =
          Optional.of(
              new PictureReader(
                  film.file(),
                  film.pictureRate().orElse(FrameRate.DEFAULT),
                  MAX_WIDTH,
                  MAX_HEIGHT));
      readerOf = film.id();
    }
    return reader.orElseThrow();
  }
}
