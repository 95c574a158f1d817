package hushrise.app.panel;

import static hushrise.app.look.Texts.text;

import hushrise.app.Commands;
import hushrise.app.Hearing;
import hushrise.app.Selection;
import hushrise.app.Session;
import hushrise.app.Settling;
import hushrise.core.project.Project;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** The selected thing as numbers that can be typed. */
public final class DetailPane extends VBox {

  /** While something is dragged its numbers are shown this often. */
  private static final long REBUILD_MILLIS = 250;

  private final Session session;
  private final Label title = new Label();
  private final Form form;
  private final ClipDetail clips;
  private final LevelDetail levels;
  private final ShapeDetail shapes;
  private final PassageDetail passages;
  private Selection shown = Selection.nothing();

  public DetailPane(Session session, Hearing hearing) {
    super(6);
    this.session = session;
    form = new Form(session);
    clips = new ClipDetail(session, form);
    levels = new LevelDetail(session, form);
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
    Settling settling = new Settling(REBUILD_MILLIS, this::rebuild);
    session
        .projectProperty()
        .addListener(
            (p, was, now) -> {
              if (session.isPreviewing()) {
                settling.ask();
              } else {
                rebuild();
              }
            });
    session
        .selectionProperty()
        .addListener(
            (p, was, now) -> {
              if (session.isPreviewing()) {
                settling.ask();
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
                settling.ask();
              }
            });
    rebuild();
  }

  /** Gives its buttons their commands. */
  public void setCommands(Commands commands) {
    clips.setCommands(commands);
    form.setCommands(commands);
    rebuild();
  }

  private void rebuild() {
    boolean same = session.isPreviewing() || session.selection().equals(shown);
    shown = session.selection();
    String focused = focusedField();
    if (same) {
      form.refill();
    } else {
      form.clear();
    }
    Project project = session.project();
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
    if (!focused.isEmpty() && !focusedField().equals(focused)) {
      Optional.ofNullable(form.lookup("#" + focused)).ifPresent(Node::requestFocus);
    }
  }

  /** The id of the field that has the focus, to give it back after rebuilding. */
  private String focusedField() {
    return getScene() != null
            && getScene().getFocusOwner() instanceof TextField f
            && form.equals(f.getParent())
            && f.getId() != null
        ? f.getId()
        : "";
  }

  private String nothing() {
    form.words(text("detail.nothing.help"));
    return text("detail.nothing");
  }
}
