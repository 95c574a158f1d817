package hushrise.app.panel;

import static hushrise.app.words.Texts.text;

import hushrise.app.listen.ItemFacts;
import hushrise.app.look.Palette;
import hushrise.app.play.Transport;
import hushrise.app.session.Session;
import hushrise.app.widget.Form;
import hushrise.app.widget.PeaksCache;
import hushrise.app.widget.TypedField;
import hushrise.core.edit.ShelfEdits;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.Peaks;
import hushrise.core.time.Span;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.Consumer;
import javafx.animation.Animation;
import javafx.animation.PauseTransition;
import javafx.beans.property.ObjectProperty;
import javafx.scene.Node;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.util.Duration;

/**
 * Tries an item of the Shelf out without touching the timeline: press in its waveform to hear from
 * there, mark the part that is worth placing, say what it is and whom to credit.
 */
public final class ItemPlayer extends VBox {

  private static final double HEIGHT = 56;

  /** An item that is passed sooner, on the way to another, is not worth decoding. */
  private static final Duration STAY = Duration.millis(150);

  private static final double USUAL_LUFS = -20;
  private static final double MOST_GAIN_DB = 12;

  private final Session session;
  private final Transport transport;
  private final PeaksCache peaks;
  private final ItemFacts facts;
  private final ObjectProperty<Palette> palette;
  private final Canvas canvas = new Canvas(260, HEIGHT);
  private final Label part = new Label();
  private final Form form;
  private TypedField credit = creditField();
  private final Button play;
  private final Button place;
  private final HBox buttons;
  private final PauseTransition stay = new PauseTransition(STAY);
  private Optional<String> shown = Optional.empty();
  private long position;
  private boolean own;

  /**
   * @param placing places an item
   */
  public ItemPlayer(
      Session session,
      Transport transport,
      PeaksCache peaks,
      ItemFacts facts,
      ObjectProperty<Palette> palette,
      Consumer<Media> placing) {
    super(6);
    this.session = session;
    this.transport = transport;
    this.peaks = peaks;
    this.facts = facts;
    this.palette = palette;
    form = new Form(session);
    setId("item-player");
    canvas.setAccessibleText(text("player.accessible"));
    canvas.setOnMousePressed(e -> press(e.getX()));
    canvas.setOnMouseDragged(this::pull);
    play = Form.button("item-play", text("player.play"), this::toggle);
    Button in = Form.button("item-in", text("player.in"), () -> mark(true));
    Button out = Form.button("item-out", text("player.out"), () -> mark(false));
    place = Form.button("item-place", text("player.place"), () -> media().ifPresent(placing));
    place.getStyleClass().add("accent");
    part.getStyleClass().add("faint");
    HBox space = new HBox();
    HBox.setHgrow(space, Priority.ALWAYS);
    buttons = new HBox(6, play, in, out, space, place);
    transport.auditioningProperty().addListener((p, was, now) -> auditioning(now));
    transport
        .auditionFrameProperty()
        .addListener(
            (p, was, now) -> {
              if (own) {
                position = now.longValue();
                draw();
              }
            });
    session.shownProperty().addListener((p, was, now) -> projectChanged(was, now));
    palette.addListener((p, was, now) -> draw());
    peaks.arrivedProperty().addListener((p, was, now) -> draw());
    stay.setOnFinished(e -> stayed());
    widthProperty()
        .addListener(
            (p, was, now) -> {
              canvas.setWidth(Math.max(40, now.doubleValue()));
              draw();
            });
  }

  private Optional<Media> media() {
    return shown.flatMap(id -> session.shown().media(id));
  }

  private void projectChanged(Project was, Project now) {
    if (!was.shelf().equals(now.shelf())) {
      show(media());
    }
  }

  private boolean hasStayed() {
    return stay.getStatus() == Animation.Status.STOPPED;
  }

  private void stayed() {
    media().ifPresent(facts::loudnessOf);
    draw();
  }

  /** Shows an item, or none. */
  void show(Optional<Media> item) {
    boolean same = item.map(Media::id).equals(shown);
    shown = item.map(Media::id);
    if (!same) {
      position = item.map(m -> m.usefulPart().startFrame()).orElse(0L);
      if (own) {
        transport.stop();
      }
      credit = creditField();
      form.clear();
      stay.playFromStart();
    }
    if (item.isEmpty()) {
      getChildren().clear();
      return;
    }
    Media media = item.get();
    form.refill();
    form.choice(
        "item-kind",
        text("player.kind"),
        List.of(MediaKind.values()),
        media.kind(),
        k -> text("kind." + k.name()),
        k -> session.commit(text("edit.kind"), p -> ShelfEdits.setKind(p, media.id(), k)));
    form.end();
    credit.show(media.credit().line(""));
    credit.setEditable(media.credit().isOnlyNote());
    credit.onTyped(
        words ->
            session.commit(text("edit.credit"), p -> ShelfEdits.setCredit(p, media.id(), words)));
    List<Node> parts =
        media.hasSound()
            ? List.of(canvas, part, buttons, form, credit)
            : List.of(buttons, form, credit);
    if (!getChildren().equals(parts)) { // what has the keys keeps them
      getChildren().setAll(parts);
    }
    play.setDisable(!media.hasSound());
    draw();
  }

  private static TypedField creditField() {
    TypedField field = new TypedField();
    field.setId("item-credit");
    field.setPromptText(text("player.creditPrompt"));
    field.setAccessibleText(text("player.credit"));
    return field;
  }

  private void auditioning(boolean now) {
    if (!now) {
      own = false;
    }
    play.setText(text(now && own ? "player.stop" : "player.play"));
  }

  /** Plays from where it is, or stops. */
  void toggle() {
    if (own) {
      transport.stop();
    } else {
      media().filter(Media::hasSound).ifPresent(m -> playFrom(m, position));
    }
  }

  private void playFrom(Media media, long from) {
    Span useful = media.usefulPart();
    long begin = from >= useful.endFrame() ? useful.startFrame() : from;
    long end = begin < useful.endFrame() ? useful.endFrame() : media.lengthFrames();
    Clip clip = Clip.whole(media, 0).withGainDb(gainDb(media));
    Project alone =
        Project.empty("")
            .withMedia(media)
            .withTracks(List.of(Track.of(media.kind().trackKind(), "", List.of(clip))));
    Project heard =
        media.kind().isSeen()
            ? alone.withTracks(List.of(Track.of(TrackKind.CAMERA, "", List.of(clip))))
            : alone;
    transport.audition(heard, t -> true, begin, end);
    own = true;
    auditioning(true);
  }

  /** Brings the item to about the loudness at which the mix plays. */
  private double gainDb(Media media) {
    OptionalDouble lufs = facts.loudnessOf(media);
    return lufs.isEmpty() || !Double.isFinite(lufs.getAsDouble())
        ? 0
        : Math.min(MOST_GAIN_DB, USUAL_LUFS - lufs.getAsDouble());
  }

  private void press(double x) {
    media()
        .ifPresent(
            m -> {
              position = frameAt(m, x);
              if (own) {
                playFrom(m, position);
              }
              draw();
            });
  }

  private void pull(MouseEvent e) {
    media()
        .ifPresent(
            m -> {
              position = frameAt(m, e.getX());
              draw();
            });
  }

  private long frameAt(Media media, double x) {
    double part = Math.clamp(x / canvas.getWidth(), 0, 1);
    return Math.clamp(Math.round(part * media.lengthFrames()), 0, media.lengthFrames() - 1);
  }

  /** Goes some seconds on or back. */
  void step(int seconds) {
    media()
        .ifPresent(
            m -> {
              position =
                  Math.clamp(
                      position + (long) seconds * Project.DEFAULT_SAMPLE_RATE,
                      0,
                      m.lengthFrames() - 1);
              if (own) {
                playFrom(m, position);
              }
              draw();
            });
  }

  /** Marks where the useful part begins, or ends. */
  void mark(boolean in) {
    media()
        .ifPresent(
            m -> {
              Span was = m.usefulPart();
              long start = in ? position : Math.min(was.startFrame(), position - 1);
              long end = in ? Math.max(was.endFrame(), position + 1) : position;
              long held = Math.max(0, start);
              session.commit(
                  text("edit.useful"),
                  p -> ShelfEdits.setUseful(p, m.id(), new Span(held, Math.max(held + 1, end))));
            });
  }

  private void draw() {
    GraphicsContext g = canvas.getGraphicsContext2D();
    double width = canvas.getWidth();
    g.setFill(palette.get().sunken());
    g.fillRect(0, 0, width, HEIGHT);
    Optional<Media> item = media().filter(Media::hasSound);
    if (item.isEmpty()) {
      return;
    }
    Media media = item.get();
    Optional<Peaks> found = hasStayed() ? peaks.get(media) : peaks.known(media);
    g.setFill(
        switch (media.kind()) {
          case VOICE -> palette.get().voice();
          case MUSIC -> palette.get().music();
          case EFFECT -> palette.get().effects();
          case PICTURE, STILL -> palette.get().camera();
        });
    float[] column = new float[3];
    double perPixel = media.lengthFrames() / width;
    found.ifPresent(
        p -> {
          for (double x = 0; x < width; x += 2) {
            p.over(x * perPixel, (x + 2) * perPixel, column);
            double peak = Math.max(-column[0], column[1]);
            double h = Math.max(1, peak * (HEIGHT - 6));
            g.fillRect(x, (HEIGHT - h) / 2, 1.4, h);
          }
        });
    Span useful = media.usefulPart();
    g.setFill(palette.get().background().deriveColor(0, 1, 1, 0.72));
    g.fillRect(0, 0, useful.startFrame() / perPixel, HEIGHT);
    double end = useful.endFrame() / perPixel;
    g.fillRect(end, 0, width - end, HEIGHT);
    g.setStroke(palette.get().accent());
    g.setLineWidth(1.5);
    double x = position / perPixel;
    g.strokeLine(x, 0, x, HEIGHT);
    part.setText(
        text(
            "player.part",
            "%.1f".formatted(session.shown().seconds(position)),
            "%.1f".formatted(session.shown().seconds(useful.lengthFrames()))));
  }
}
