package hushrise.app.panel;

import static hushrise.app.look.Texts.text;

import hushrise.app.Commands;
import hushrise.app.Session;
import hushrise.core.project.Project;
import hushrise.core.time.Timecode;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.LongConsumer;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.util.StringConverter;

/** Numbers that can be typed, in pairs of label and field. */
final class Form extends GridPane {

  private final Session session;
  private Optional<Commands> commands = Optional.empty();
  private final int pairs;
  private int row;
  private int pair;

  Form(Session session) {
    this(session, 2);
  }

  /** A form with a number of pairs of label and field to a row. */
  Form(Session session, int pairs) {
    this.session = session;
    this.pairs = pairs;
    setHgap(8);
    setVgap(5);
  }

  /** Gives the buttons that {@link #command} makes what they do. */
  void setCommands(Commands all) {
    commands = Optional.of(all);
  }

  /** A button for a command, whose tooltip names its key. */
  Button command(String id, String words) {
    Button button =
        button(
            "detail-" + id.replace('.', '-'),
            words,
            () -> commands.ifPresent(c -> c.named(id).action().run()));
    commands
        .map(c -> c.named(id))
        .ifPresent(
            c ->
                button.setTooltip(
                    new Tooltip(
                        c.keyWords().isEmpty()
                            ? c.words()
                            : c.words() + " (" + c.keyWords() + ")")));
    return button;
  }

  void clear() {
    getChildren().clear();
    row = 0;
    pair = 0;
  }

  /** An edit that takes a level. */
  interface LevelEdit {
    Project apply(Project project, double db);
  }

  void add(String label, Node field) {
    Label name = new Label(label);
    name.getStyleClass().add("faint");
    name.setMinWidth(pairs > 2 ? 60 : 64);
    name.setLabelFor(field);
    add(name, pair * 2, row);
    add(field, pair * 2 + 1, row);
    pair++;
    if (pair == pairs) {
      endRow();
    }
  }

  private void endRow() {
    pair = 0;
    row++;
  }

  /** A row of its own. */
  void wide(Node node) {
    if (pair > 0) {
      endRow();
    }
    add(node, 0, row, 2 * pairs, 1);
    row++;
  }

  void words(String sentence) {
    Label label = new Label(sentence);
    label.setWrapText(true);
    label.getStyleClass().add("faint");
    wide(label);
  }

  void fact(String label, String value) {
    Label words = new Label(value);
    words.getStyleClass().add("number");
    add(label, words);
  }

  LevelField level(String id, String label, double db, String edit, LevelEdit change) {
    LevelField field =
        new LevelField(label, typed -> session.commit(edit, p -> change.apply(p, typed)));
    field.setId(id);
    field.show(db);
    add(label, field);
    return field;
  }

  /** A place on the timeline, shown as timecode. */
  void time(String id, String label, long frame, LongConsumer edit) {
    Project p = session.project();
    frames(id, label, Timecode.format(frame, p.pictureRate(), p.sampleRate()), edit);
  }

  /** A length, shown in seconds. */
  void length(String id, String label, long frames, LongConsumer edit) {
    frames(id, label, Timecode.seconds(frames, session.project().sampleRate()), edit);
  }

  private void frames(String id, String label, String shown, LongConsumer edit) {
    TextField field = new TextField(shown);
    field.setId(id);
    field.getStyleClass().add("time-field");
    field.setAccessibleText(label);
    field.setTooltip(new Tooltip(text("field.time.tip")));
    field.setOnAction(
        e -> {
          Project project = session.project();
          OptionalLong typed =
              Timecode.parse(field.getText(), project.pictureRate(), project.sampleRate());
          field.getStyleClass().remove("wrong");
          if (typed.isPresent()) {
            edit.accept(typed.getAsLong());
          } else {
            field.setText(shown);
            field.getStyleClass().add("wrong");
            field.setTooltip(new Tooltip(text("field.time.wrong")));
            field.setAccessibleHelp(text("field.time.wrong"));
          }
        });
    add(label, field);
  }

  /** A number that is neither a level nor a time. */
  void number(String id, String label, String shown, Consumer<String> edit) {
    TextField field = new TextField(shown);
    field.setId(id);
    field.getStyleClass().add("time-field");
    field.setAccessibleText(label);
    field.setOnAction(e -> edit.accept(field.getText()));
    add(label, field);
  }

  /** A name. */
  void name(String id, String label, String shown, Consumer<String> edit) {
    TextField field = new TextField(shown);
    field.setId(id);
    field.setAccessibleText(label);
    field.setOnAction(e -> edit.accept(field.getText()));
    add(label, field);
  }

  <T> ComboBox<T> choice(
      String id,
      String label,
      List<T> values,
      T value,
      Function<T, String> words,
      Consumer<T> edit) {
    ComboBox<T> box = new ComboBox<>();
    box.getItems().setAll(values);
    box.setValue(value);
    box.setId(id);
    box.setAccessibleText(label);
    box.setConverter(
        new StringConverter<>() {
          @Override
          public String toString(T item) {
            return item == null ? "" : words.apply(item);
          }

          @Override
          public T fromString(String typed) {
            return value;
          }
        });
    box.setOnAction(e -> edit.accept(box.getValue()));
    add(label, box);
    return box;
  }

  static Button button(String id, String words, Runnable action) {
    Button button = new Button(words);
    button.setId(id);
    button.getStyleClass().add("small");
    button.setOnAction(e -> action.run());
    return button;
  }

  /** Buttons in a row of their own. */
  void buttons(Button... buttons) {
    FlowPane flow = new FlowPane(6, 4, buttons);
    wide(flow);
  }
}
