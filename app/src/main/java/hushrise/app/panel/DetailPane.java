package hushrise.app.panel;

import static hushrise.app.words.Texts.text;

import hushrise.app.command.Commands;
import hushrise.app.job.Throttle;
import hushrise.app.listen.Hearing;
import hushrise.app.play.Riders;
import hushrise.app.session.Selection;
import hushrise.app.session.Session;
import hushrise.app.widget.Form;
import hushrise.app.widget.LevelField;
import hushrise.core.project.Project;
import java.util.Optional;
import javafx.collections.SetChangeListener;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** The selected thing as numbers that can be typed. */
public final class DetailPane extends VBox {

  /** While something is dragged its numbers are shown this often. */
  private static final long REBUILD_MILLIS = 250;

  /** In a narrower one each number has a row of its own. */
  private static final double ROOM_FOR_TWO = 340;

  private final Session session;
  private final Label title = new Label();
  private final Form form;
  private final ClipDetail clips;
  private final LevelDetail levels;
  private final ShapeDetail shapes;
  private final PassageDetail passages;
  private Selection shown = Selection.nothing();

  public DetailPane(Session session, Hearing hearing, Riders riders) {
    super(6);
    this.session = session;
    form = new Form(session);
    clips = new ClipDetail(session, form);
    levels = new LevelDetail(session, riders, form);
    shapes = new ShapeDetail(session, form);
    passages = new PassageDetail(session, hearing, form);
    setId("detail");
    getStyleClass().add("pane");
    title.getStyleClass().add("pane-title");
    ScrollPane scroll = new ScrollPane(form);
    scroll.setFitToWidth(true);
    scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
    scroll.setFocusTraversable(false);
    VBox.setVgrow(scroll, Priority.ALWAYS);
    getChildren().addAll(title, scroll);
    Throttle throttle = new Throttle(REBUILD_MILLIS, this::rebuild);
    session
        .shownProperty()
        .addListener(
            (p, was, now) -> {
              if (session.isShowingOther()) {
                throttle.ask();
              } else {
                rebuild();
              }
            });
    session
        .selectionProperty()
        .addListener(
            (p, was, now) -> {
              if (session.isShowingOther()) {
                throttle.ask();
              } else {
                rebuild();
              }
            });
    session.playheadProperty().addListener((p, was, now) -> levels.showSum());
    hearing
        .nowProperty()
        .addListener(
            (p, was, now) -> {
              if (session.selection() instanceof Selection.OfPassage) {
                throttle.ask();
              }
            });
    riders.armed().addListener((SetChangeListener<String>) c -> rebuild());
    riders.ruleProperty().addListener((p, was, now) -> rebuild());
    widthProperty().addListener((p, was, now) -> arrange(now.doubleValue()));
    rebuild();
  }

  private void arrange(double width) {
    if (form.setPairs(width < ROOM_FOR_TWO ? 1 : 2)) {
      shown = Selection.nothing();
      form.clear();
      rebuild();
    }
  }

  /** Gives its buttons their commands. */
  public void setCommands(Commands commands) {
    clips.setCommands(commands);
    form.setCommands(commands);
    rebuild();
  }

  private void rebuild() {
    boolean same = session.draggingProperty().get() || session.selection().equals(shown);
    shown = session.selection();
    if (same) {
      form.refill();
    } else {
      form.clear();
    }
    Project project = session.shown();
    String words =
        switch (session.selection()) {
          case Selection.Nothing n -> nothing();
          case Selection.OfTrack t -> project.track(t.trackId()).map(levels::track).orElse("");
          case Selection.OfClip c ->
              c.all().size() > 1
                  ? clips.several(c)
                  : project.clip(c.clipId()).map(clip -> clips.one(project, clip)).orElse("");
          case Selection.OfSeam s ->
              project.clip(s.clipId()).map(clip -> clips.seam(project, clip, s)).orElse("");
          case Selection.OfKeyframe k ->
              project
                  .track(k.trackId())
                  .map(
                      t ->
                          k.all().size() > 1
                              ? levels.keyframes(t, k)
                              : levels.keyframe(t, k.frame()))
                  .orElse("");
          case Selection.OfSpan s ->
              project.track(s.trackId()).map(t -> shapes.span(t, s.span())).orElse("");
          case Selection.OfRise r ->
              project
                  .track(r.trackId())
                  .flatMap(t -> t.rise(r.riseId()).map(rise -> shapes.rise(t, rise)))
                  .orElse("");
          case Selection.OfHush h ->
              project
                  .track(h.trackId())
                  .flatMap(t -> t.hush(h.hushId()).map(hush -> shapes.hush(t, hush)))
                  .orElse("");
          case Selection.OfPassage q -> passages.passage(project, q);
          case Selection.OfMarker m -> levels.marker(project, m.markerId());
        };
    form.end();
    title.setText(words);
  }

  /** Begins to type the level of what is selected; false when it has none. */
  public boolean typeLevel(boolean empty) {
    Optional<LevelField> field = form.firstLevel();
    field.ifPresent(f -> f.begin(empty));
    return field.isPresent();
  }

  /**
   * While a stretch of time is selected, a digit, a minus or the b of "by" begins to type its
   * level.
   */
  public boolean beginsTyping(KeyEvent e) {
    boolean plain = !e.isShortcutDown() && !e.isAltDown() && !e.isShiftDown();
    boolean digit = e.getCode().isDigitKey();
    boolean begins =
        plain
            && session.selection() instanceof Selection.OfSpan
            && session.draft().isEmpty()
            && (digit
                || e.getCode() == KeyCode.MINUS
                || e.getCode() == KeyCode.SUBTRACT
                || e.getCode() == KeyCode.B);
    if (begins && typeLevel(true)) {
      e.consume();
      return true;
    }
    return false;
  }

  private String nothing() {
    form.words(text("detail.nothing.help"));
    return text("detail.nothing");
  }
}
