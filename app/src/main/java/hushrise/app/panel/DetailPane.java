package hushrise.app.panel;

import static hushrise.app.look.Texts.text;

import hushrise.app.Selection;
import hushrise.app.Session;
import hushrise.core.edit.LevelEdits;
import hushrise.core.project.Clip;
import hushrise.core.project.Hush;
import hushrise.core.project.Keyframe;
import hushrise.core.project.Project;
import hushrise.core.project.SegmentShape;
import hushrise.core.project.Track;
import hushrise.core.time.Timecode;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalLong;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.VBox;
import javafx.util.StringConverter;

/** The selected thing as numbers that can be typed. */
public final class DetailPane extends VBox {

  private final Session session;
  private final Label title = new Label();
  private final GridPane grid = new GridPane();
  private int row;

  public DetailPane(Session session) {
    super(10);
    this.session = session;
    setId("detail");
    getStyleClass().add("pane");
    title.getStyleClass().add("pane-title");
    grid.setHgap(12);
    grid.setVgap(7);
    getChildren().addAll(title, grid);
    session.projectProperty().addListener((p, was, now) -> rebuild());
    session.selectionProperty().addListener((p, was, now) -> rebuild());
    rebuild();
  }

  private void rebuild() {
    String focused = focusedField();
    grid.getChildren().clear();
    row = 0;
    Project project = session.project();
    switch (session.selection()) {
      case Selection.Nothing n -> nothing();
      case Selection.OfTrack t -> project.track(t.trackId()).ifPresent(this::track);
      case Selection.OfClip c -> clip(project, c);
      case Selection.OfKeyframe k -> keyframe(project, k);
      case Selection.OfHush h -> hush(project, h);
    }
    if (!focused.isEmpty()) {
      Optional.ofNullable(grid.lookup("#" + focused)).ifPresent(Node::requestFocus);
    }
  }

  /** The id of the field that has the focus, to give it back after rebuilding. */
  private String focusedField() {
    return getScene() != null
            && getScene().getFocusOwner() instanceof TextField f
            && grid.equals(f.getParent())
            && f.getId() != null
        ? f.getId()
        : "";
  }

  private void nothing() {
    title.setText(text("detail.nothing"));
    words(text("detail.nothing.help"));
  }

  private void words(String sentence) {
    Label label = new Label(sentence);
    label.setWrapText(true);
    label.getStyleClass().add("faint");
    grid.add(label, 0, row++, 2, 1);
  }

  private void add(String label, Node field) {
    Label name = new Label(label);
    name.getStyleClass().add("faint");
    name.setMinWidth(96);
    name.setLabelFor(field);
    grid.addRow(row++, name, field);
  }

  private LevelField level(String id, String label, double db, String edit, LevelEdit change) {
    LevelField field =
        new LevelField(label, typed -> session.commit(edit, p -> change.apply(p, typed)));
    field.setId(id);
    field.show(db);
    add(label, field);
    return field;
  }

  private interface LevelEdit {
    Project apply(Project project, double db);
  }

  private void fact(String label, String value) {
    Label words = new Label(value);
    words.getStyleClass().add("number");
    add(label, words);
  }

  private void track(Track track) {
    title.setText(track.name());
    level(
        "detail-level",
        text("detail.level"),
        track.levelDb(),
        text("edit.trackLevel"),
        (p, db) -> LevelEdits.setTrackLevel(p, track.id(), db));
    fact(text("detail.keyframes"), String.valueOf(track.line().keyframes().size()));
    fact(text("detail.hushes"), String.valueOf(track.hushes().size()));
    words(text("detail.track.help"));
  }

  private void clip(Project project, Selection.OfClip selected) {
    Optional<Clip> found =
        project
            .track(selected.trackId())
            .flatMap(
                t -> t.clips().stream().filter(c -> c.id().equals(selected.clipId())).findFirst());
    if (found.isEmpty()) {
      return;
    }
    Clip clip = found.get();
    title.setText(project.media(clip.mediaId()).map(m -> m.title()).orElse(""));
    level(
        "detail-gain",
        text("detail.gain"),
        clip.gainDb(),
        text("edit.clipGain"),
        (p, db) -> p.withEachTrack(t -> t.withClip(clip.id(), c -> c.withGainDb(db))));
    length(
        "detail-fade-in",
        text("detail.fadeIn"),
        clip.fadeIn().lengthFrames(),
        frames ->
            session.commit(text("edit.fadeIn"), p -> LevelEdits.setFadeIn(p, clip.id(), frames)));
    length(
        "detail-fade-out",
        text("detail.fadeOut"),
        clip.fadeOut().lengthFrames(),
        frames ->
            session.commit(text("edit.fadeOut"), p -> LevelEdits.setFadeOut(p, clip.id(), frames)));
    fact(
        text("detail.start"),
        Timecode.format(clip.startFrame(), project.pictureRate(), project.sampleRate()));
    fact(text("detail.length"), Timecode.seconds(clip.lengthFrames(), project.sampleRate()));
  }

  private interface FramesEdit {
    void apply(long frames);
  }

  private void length(String id, String label, long frames, FramesEdit edit) {
    Project project = session.project();
    time(id, label, Timecode.seconds(frames, project.sampleRate()), edit);
  }

  private void time(String id, String label, String shown, FramesEdit edit) {
    TextField field = new TextField(shown);
    field.setId(id);
    field.getStyleClass().add("time-field");
    field.setAccessibleText(label);
    field.setOnAction(
        e -> {
          Project project = session.project();
          OptionalLong typed =
              Timecode.parse(field.getText(), project.pictureRate(), project.sampleRate());
          if (typed.isPresent()) {
            field.getStyleClass().remove("wrong");
            edit.apply(typed.getAsLong());
          } else {
            field.setText(shown);
            field.getStyleClass().add("wrong");
            field.setAccessibleHelp(text("field.time.wrong"));
          }
        });
    add(label, field);
  }

  private void keyframe(Project project, Selection.OfKeyframe selected) {
    Track track = project.track(selected.trackId()).orElseThrow();
    Optional<Keyframe> found = track.line().at(selected.frame());
    if (found.isEmpty()) {
      return;
    }
    Keyframe keyframe = found.get();
    int index = track.line().indexAfter(keyframe.frame()) - 1;
    title.setText(text("detail.keyframe", track.name()));
    level(
        "detail-keyframe",
        text("detail.level"),
        keyframe.levelDb(),
        text("edit.moveKeyframe"),
        (p, db) -> LevelEdits.moveKeyframe(p, track.id(), index, keyframe.frame(), db));
    time(
        "detail-time",
        text("detail.time"),
        Timecode.format(keyframe.frame(), project.pictureRate(), project.sampleRate()),
        frame -> moveTo(track.id(), index, frame, keyframe));
    add(text("detail.shape"), shapes(track, keyframe));
    Button remove = new Button(text("detail.remove"));
    remove.setOnAction(
        e ->
            session.commit(
                text("edit.removeKeyframe"),
                p -> LevelEdits.removeKeyframe(p, track.id(), keyframe.frame())));
    add("", remove);
  }

  private void moveTo(String trackId, int index, long frame, Keyframe keyframe) {
    session.commit(
        text("edit.moveKeyframe"),
        p -> LevelEdits.moveKeyframe(p, trackId, index, frame, keyframe.levelDb()));
    long reached =
        session.project().track(trackId).orElseThrow().line().keyframes().get(index).frame();
    session.select(new Selection.OfKeyframe(trackId, reached));
  }

  private ComboBox<SegmentShape> shapes(Track track, Keyframe keyframe) {
    ComboBox<SegmentShape> box = new ComboBox<>();
    box.getItems().setAll(SegmentShape.values());
    box.setValue(keyframe.shape());
    box.setId("detail-shape");
    box.setAccessibleText(text("detail.shape"));
    box.setConverter(
        new StringConverter<>() {
          @Override
          public String toString(SegmentShape shape) {
            return text("shape." + shape.name().toLowerCase(Locale.ROOT));
          }

          @Override
          public SegmentShape fromString(String words) {
            return keyframe.shape();
          }
        });
    box.setOnAction(
        e ->
            session.commit(
                text("edit.shape"),
                p -> LevelEdits.shapeSegment(p, track.id(), keyframe.frame(), box.getValue())));
    return box;
  }

  private void hush(Project project, Selection.OfHush selected) {
    Track track = project.track(selected.trackId()).orElseThrow();
    Optional<Hush> found =
        track.hushes().stream().filter(h -> h.id().equals(selected.hushId())).findFirst();
    if (found.isEmpty()) {
      return;
    }
    Hush hush = found.get();
    title.setText(text("detail.hush", track.name()));
    level(
            "detail-depth",
            text("detail.depth"),
            hush.depthDb(),
            text("edit.hushDepth"),
            (p, db) -> LevelEdits.setHushDepth(p, hush.id(), db))
        .atMost(0);
    fact(
        text("detail.passage"),
        Timecode.format(hush.startFrame(), project.pictureRate(), project.sampleRate())
            + " \u2013 "
            + Timecode.format(hush.endFrame(), project.pictureRate(), project.sampleRate()));
    fact(text("detail.fall"), "%.2f s".formatted(hush.turn().fallSeconds()));
    fact(text("detail.recovery"), "%.2f s".formatted(hush.turn().recoverySeconds()));
    Button remove = new Button(text("detail.removeHush"));
    remove.setOnAction(
        e -> session.commit(text("edit.removeHush"), p -> LevelEdits.removeHush(p, hush.id())));
    remove.setAlignment(Pos.CENTER_LEFT);
    add("", remove);
  }
}
