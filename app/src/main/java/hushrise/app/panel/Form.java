package hushrise.app.panel;

import static hushrise.app.look.Texts.text;

import hushrise.app.Commands;
import hushrise.app.Session;
import hushrise.core.project.Project;
import hushrise.core.time.Timecode;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.LongConsumer;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.util.StringConverter;

/**
 * Numbers that can be typed, in pairs of label and field. Filled again with the same fields it
 * keeps them and shows their new values, so that numbers can be shown while something is dragged.
 */
final class Form extends GridPane {

  private final Session session;
  private Optional<Commands> commands = Optional.empty();
  private final Map<String, Button> commandButtons = new HashMap<>();
  private final int pairs;
  private int row;
  private int pair;
  private int filled;

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
    commandButtons.clear();
  }

  /** The button for a command, whose tooltip names its key. */
  Button command(String id, String words) {
    Button button = commandButtons.computeIfAbsent(id, this::commandButton);
    button.setText(words);
    return button;
  }

  private Button commandButton(String id) {
    Button button =
        button(
            "detail-" + id.replace('.', '-'),
            "",
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

  /** Begins to fill the form, with fields of its own for what is shown now. */
  void clear() {
    getChildren().clear();
    refill();
  }

  /** Begins to fill the form again for the same thing; {@link #end} ends it. */
  void refill() {
    row = 0;
    pair = 0;
    filled = 0;
  }

  /** Takes away what was there before and has not been filled again. */
  void end() {
    getChildren().remove(filled, getChildren().size());
  }

  /** An edit that takes a level. */
  interface LevelEdit {
    Project apply(Project project, double db);
  }

  /**
   * The next cell: what is there already, if it was made for the same, else something new in place
   * of all that came from there on.
   */
  private <N extends Node> N cell(
      String key, int column, int span, Class<N> type, Supplier<N> make) {
    String place = key + "@" + column + "," + row;
    if (filled < getChildren().size()) {
      Node there = getChildren().get(filled);
      if (type.isInstance(there) && place.equals(there.getUserData())) {
        filled++;
        return type.cast(there);
      }
      getChildren().remove(filled, getChildren().size());
    }
    N made = make.get();
    made.setUserData(place);
    add(made, column, row, span, 1);
    filled++;
    return made;
  }

  private <N extends Node> N pair(String id, String words, Class<N> type, Supplier<N> make) {
    Label name = cell("name", pair * 2, 1, Label.class, this::name);
    name.setText(words);
    N field = cell(id, pair * 2 + 1, 1, type, make);
    name.setLabelFor(field);
    pair++;
    if (pair == pairs) {
      endRow();
    }
    return field;
  }

  private Label name() {
    Label name = new Label();
    name.getStyleClass().add("faint");
    name.setMinWidth(pairs > 2 ? 60 : 64);
    return name;
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
    boolean there = filled < getChildren().size() && getChildren().get(filled).equals(node);
    if (there) {
      filled++;
    } else {
      getChildren().remove(filled, getChildren().size());
      add(node, 0, row, 2 * pairs, 1);
      filled++;
    }
    row++;
  }

  private <N extends Node> N wide(String key, Class<N> type, Supplier<N> make) {
    if (pair > 0) {
      endRow();
    }
    N node = cell(key, 0, 2 * pairs, type, make);
    row++;
    return node;
  }

  void words(String sentence) {
    wide(
            "words",
            Label.class,
            () -> {
              Label label = new Label();
              label.setWrapText(true);
              label.getStyleClass().add("faint");
              return label;
            })
        .setText(sentence);
  }

  void fact(String label, String value) {
    pair(
            "fact",
            label,
            Label.class,
            () -> {
              Label words = new Label();
              words.getStyleClass().add("number");
              return words;
            })
        .setText(value);
  }

  LevelField level(String id, String label, double db, String edit, LevelEdit change) {
    LevelField field =
        pair(id, label, LevelField.class, () -> withId(new LevelField(label, typed -> {}), id));
    field.onTaken(typed -> session.commit(edit, p -> change.apply(p, typed)));
    field.show(db);
    return field;
  }

  private static <N extends Node> N withId(N node, String id) {
    node.setId(id);
    return node;
  }

  /** A field that takes a text. */
  TypedField typed(String id, String label, String shown, Consumer<String> taken) {
    TypedField field = pair(id, label, TypedField.class, () -> withId(new TypedField(), id));
    field.setAccessibleText(label);
    field.show(shown);
    field.onTyped(taken);
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
    TypedField field = number(id, label, shown, words -> {});
    field.setTip(text("field.time.tip"));
    field.onTyped(
        words -> {
          Project project = session.project();
          OptionalLong typed = Timecode.parse(words, project.pictureRate(), project.sampleRate());
          if (typed.isPresent()) {
            edit.accept(typed.getAsLong());
          } else {
            field.refuse(shown, text("field.time.wrong"));
          }
        });
  }

  /** A number that is neither a level nor a time. */
  TypedField number(String id, String label, String shown, Consumer<String> edit) {
    TypedField field = typed(id, label, shown, edit);
    if (!field.getStyleClass().contains("time-field")) {
      field.getStyleClass().add("time-field");
    }
    return field;
  }

  <T> ComboBox<T> choice(
      String id,
      String label,
      List<T> values,
      T value,
      Function<T, String> words,
      Consumer<T> edit) {
    @SuppressWarnings("unchecked")
    ComboBox<T> box = pair(id, label, ComboBox.class, () -> withId(new ComboBox<T>(), id));
    box.setOnAction(null);
    box.setAccessibleText(label);
    if (!box.getItems().equals(values)) {
      box.getItems().setAll(values);
      box.setConverter(
          new StringConverter<>() {
            @Override
            public String toString(T item) {
              return item == null ? "" : words.apply(item);
            }

            @Override
            public T fromString(String typed) {
              return box.getValue();
            }
          });
    }
    box.setValue(value);
    box.setOnAction(e -> edit.accept(box.getValue()));
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
    String ids = Arrays.stream(buttons).map(Button::getId).collect(Collectors.joining(" "));
    FlowPane flow = wide(ids, FlowPane.class, () -> new FlowPane(6, 4, buttons));
    for (int i = 0; i < buttons.length; i++) {
      Button there = (Button) flow.getChildren().get(i);
      there.setText(buttons[i].getText());
      there.setOnAction(buttons[i].getOnAction());
    }
  }
}
