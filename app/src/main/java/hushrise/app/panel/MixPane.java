package hushrise.app.panel;

import static hushrise.app.words.Texts.figure;
import static hushrise.app.words.Texts.text;

import hushrise.app.listen.FilmMeasure;
import hushrise.app.listen.Hearing;
import hushrise.app.look.Palette;
import hushrise.app.play.Meters;
import hushrise.app.play.Transport;
import hushrise.app.session.Session;
import hushrise.app.widget.Fader;
import hushrise.app.widget.LevelField;
import hushrise.core.edit.LevelEdits;
import hushrise.core.loudness.FilmLoudness;
import hushrise.core.play.Ears;
import java.util.Optional;
import javafx.beans.property.ObjectProperty;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/**
 * The whole mix: its fader and meter, its loudness now and over the film, how far the voice stands
 * above the rest, and the history of all that.
 */
public final class MixPane extends VBox {

  private final Session session;
  private final Transport transport;
  private final Meters meters;
  private final FilmMeasure measure;
  private final Hearing hearing;
  private final Fader fader;
  private final LevelField master;
  private final Label ears = new Label();
  private final Label[] figures = new Label[6];
  private final LoudnessHistory history;
  private long shownUnderRuns;

  public MixPane(
      Session session,
      Transport transport,
      Meters meters,
      FilmMeasure measure,
      Hearing hearing,
      ObjectProperty<Palette> palette) {
    super(4);
    this.session = session;
    this.transport = transport;
    this.meters = meters;
    this.measure = measure;
    this.hearing = hearing;
    setId("meters");
    getStyleClass().addAll("pane", "mix-pane");
    setAccessibleText(text("meters.accessible"));
    Label title = new Label(text("meters.title"));
    title.getStyleClass().add("pane-title");
    title.setMinWidth(Region.USE_PREF_SIZE);
    ears.setId("ears");
    ears.getStyleClass().add("faint");
    ears.setMinWidth(0);
    master =
        new LevelField(
            text("meters.master"),
            db -> session.commit(text("edit.master"), p -> LevelEdits.setMaster(p, db)));
    master.setId("level-master");
    fader = new Fader(text("meters.master"), palette);
    setUpFader();
    history = new LoudnessHistory(session, measure, hearing, palette);
    VBox.setVgrow(history, Priority.ALWAYS);
    Region space = new Region();
    HBox.setHgrow(space, Priority.ALWAYS);
    HBox first = new HBox(6, title, ears, space, master);
    first.setAlignment(Pos.CENTER_LEFT);
    getChildren().addAll(first, fader, numbers(), history);
    session.shownProperty().addListener((p, was, now) -> showLevel());
    session.habits().hotDbProperty().subscribe(db -> fader.setHotDb(db.doubleValue()));
    session.playheadProperty().addListener((p, was, now) -> showNow());
    measure.nowProperty().addListener((p, was, now) -> showAll());
    measure.measuringProperty().addListener((p, was, now) -> showAll());
    hearing.nowProperty().addListener((p, was, now) -> showNow());
    transport.loudspeaker().earsProperty().subscribe(this::showEars);
    meters.follow(
        () -> {
          fader.draw();
          showNow();
        });
    showLevel();
    showAll();
  }

  private void setUpFader() {
    fader.setId("fader-master");
    fader.setMinHeight(30);
    fader.setMeter(meters.mix());
    fader.onMove(
        db -> session.drag(text("edit.master"), p -> LevelEdits.setMaster(p, db)),
        session::endDrag);
    fader.onType(() -> master.begin(false));
    fader.onOver(session::seek);
  }

  /** Gives a drag of the mix's level back; false when there is none. */
  public boolean cancelDrag() {
    boolean drags = fader.isHeld() && session.isDragging();
    if (drags) {
      fader.cancel();
      session.cancelDrag();
    }
    return drags;
  }

  private GridPane numbers() {
    GridPane grid = new GridPane(6, 1);
    String[] keys = {"momentary", "film", "shortTerm", "range", "separation", "truePeak"};
    for (int i = 0; i < keys.length; i++) {
      Label name = new Label(text("mix." + keys[i]));
      name.getStyleClass().add("faint");
      name.setMinWidth(Region.USE_PREF_SIZE);
      name.setTooltip(new Tooltip(text("mix." + keys[i] + ".tip")));
      figures[i] = new Label();
      figures[i].setId("mix-" + keys[i]);
      figures[i].getStyleClass().add("number");
      figures[i].setMinWidth(Region.USE_PREF_SIZE);
      grid.add(name, 2 * (i % 2), i / 2);
      grid.add(figures[i], 2 * (i % 2) + 1, i / 2);
    }
    grid.getStyleClass().add("mix-numbers");
    return grid;
  }

  private void showLevel() {
    double db = session.shown().masterDb();
    master.show(db);
    fader.show(db);
  }

  /** How the mix is listened to, unless it is as it is; and when the output has run dry. */
  private void showEars(Ears how) {
    String through = text("ears." + how.through());
    long dry = transport.player().underRuns();
    String words =
        how.equals(Ears.PLAIN)
            ? ""
            : how.levelDb() == 0
                ? through
                : text("ears.level", through, figure("%.0f", how.levelDb()));
    ears.setText(dry == 0 ? words : text("mix.underRuns", words, dry).strip());
    ears.setTooltip(dry == 0 ? null : new Tooltip(text("mix.underRuns.tip", dry)));
  }

  /** What is heard now: live while playing, else what was measured at the playhead. */
  private void showNow() {
    boolean plays = transport.playingProperty().get();
    Optional<FilmLoudness> film = measure.nowProperty().get();
    int hop = (int) (session.playhead() * 10 / session.shown().sampleRate());
    double momentary = Double.NaN;
    double shortTerm = Double.NaN;
    double separation = Double.NaN;
    if (plays) {
      momentary = meters.momentaryLufs();
      shortTerm = meters.shortTermLufs();
      separation = meters.separationLu();
    } else if (film.isPresent()) {
      momentary = film.get().momentaryLufs(hop);
      shortTerm = film.get().shortTermLufs(hop);
      separation = hearing.now().map(n -> (double) n.separation().at(hop)).orElse(Double.NaN);
    }
    figures[0].setText(number(momentary, ""));
    figures[2].setText(number(shortTerm, ""));
    figures[4].setText(
        separation == Double.POSITIVE_INFINITY ? text("passages.alone") : number(separation, "LU"));
    if (transport.player().underRuns() != shownUnderRuns) {
      shownUnderRuns = transport.player().underRuns();
      showEars(transport.loudspeaker().earsProperty().get());
    }
    history.movePlayhead();
  }

  private void showAll() {
    Optional<FilmLoudness> film = measure.nowProperty().get();
    // What is being measured anew is grey, not gone.
    for (int i = 1; i < figures.length; i += 2) {
      figures[i].setOpacity(measure.measuringProperty().get() ? 0.5 : 1);
    }
    figures[1].setText(number(film.map(FilmLoudness::integratedLufs).orElse(Double.NaN), "LUFS"));
    figures[3].setText(number(film.map(FilmLoudness::loudnessRangeLu).orElse(Double.NaN), "LU"));
    figures[5].setText(number(film.map(FilmLoudness::truePeakDbtp).orElse(Double.NaN), "dBTP"));
    showNow();
    history.redraw();
  }

  private static String number(double value, String unit) {
    return Double.isFinite(value) ? figure("%.1f " + unit, value).strip() : "\u2013";
  }
}
