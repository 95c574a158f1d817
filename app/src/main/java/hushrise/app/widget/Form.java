package hushrise.app.widget;

import static hushrise.app.words.Texts.text;

import hushrise.app.command.CommandId;
import hushrise.app.command.Commands;
import hushrise.app.session.Session;
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
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;

/**
 * Numbers that can be typed, in pairs of label and field. Filled again with the same fields it
 * keeps them and shows their new values, so that numbers can be shown while something is dragged.
 */
public final class Form extends GridPane {

  /** What a step changes a length by, in seconds; with Shift by the fine one. */
  public static final double STEP_SECONDS = 0.1;

  public static final double FINE = 0.01;

  private final Session session;
  private Optional<Commands> commands = Optional.empty();
  private final Map<CommandId, Button> commandButtons = new HashMap<>();
  private int pairs;
  private int row;
  private int pair;
  private int filled;
  private boolean alone;

  public Form(Session session) {
    this(session, 2);
  }

  /** A form with a number of pairs of label and field to a row. */
  public Form(Session session, int pairs) {
    this.session = session;
    this.pairs = pairs;
    setHgap(8);
    setVgap(5);
  }

  /**
   * Sets how many pairs of label and field stand in a row; it has to be filled anew then.
   *
   * @return whether that is another number than before
   */
  public boolean setPairs(int number) {
    boolean other = pairs != number;
    pairs = number;
    return other;
  }

  /** How many pairs of label and field stand in a row. */
  public int pairs() {
    return pairs;
  }

  /** Gives the buttons that {@link #command} makes what they do. */
  public void setCommands(Commands all) {
    commands = Optional.of(all);
    commandButtons.clear();
  }

  /** The button for a command, whose tooltip names its key. */
  public Button command(CommandId id, String words) {
    Button button = commandButtons.computeIfAbsent(id, this::commandButton);
    button.setText(words);
    return button;
  }

  private Button commandButton(CommandId id) {
    Button button =
        button(
            "detail-" + id.key().replace('.', '-'), "", () -> commands.ifPresent(c -> c.run(id)));
    button.setTooltip(new Tooltip(id.tip()));
    return button;
  }

  /** Begins to fill the form, with fields of its own for what is shown now. */
  public void clear() {
    getChildren().clear();
    refill();
  }

  /** Begins to fill the form again for the same thing; {@link #end} ends it. */
  public void refill() {
    row = 0;
    pair = 0;
    filled = 0;
  }

  /** Takes away what was there before and has not been filled again. */
  public void end() {
    getChildren().remove(filled, getChildren().size());
  }

  /** An edit that takes a level. */
  public interface LevelEdit {
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
    boolean wide = alone;
    alone = false;
    if (wide && pair > 0) {
      endRow();
    }
    Label name = cell("name", pair * 2, 1, Label.class, this::name);
    name.setText(words);
    N field = cell(id, pair * 2 + 1, wide ? 2 * pairs - 1 : 1, type, make);
    name.setLabelFor(field);
    pair++;
    if (wide || pair == pairs) {
      endRow();
    }
    return field;
  }

  /** Lets the next pair stand in a row of its own, for what needs the room. */
  public Form alone() {
    alone = true;
    return this;
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
  public void wide(Node node) {
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

  public void words(String sentence) {
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

  public void fact(String label, String value) {
    pair(
            "fact",
            label,
            Label.class,
            () -> {
              Label words = new Label();
              words.getStyleClass().add("number");
              words.setMinWidth(USE_PREF_SIZE);
              return words;
            })
        .setText(value);
  }

  public LevelField level(String id, String label, double db, String edit, LevelEdit change) {
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
  public TypedField typed(String id, String label, String shown, Consumer<String> taken) {
    TypedField field = pair(id, label, TypedField.class, () -> withId(new TypedField(), id));
    field.setAccessibleText(label);
    field.setShownAnew();
    field.show(shown);
    field.onTyped(taken);
    return field;
  }

  /** A place on the timeline, shown as timecode. */
  public void time(String id, String label, long frame, LongConsumer edit) {
    TimeField field = pair(id, label, TimeField.class, () -> withId(new TimeField(), id));
    field.setAccessibleText(label);
    field.setTip(text("field.time.tip"));
    field.setRate(() -> session.shown().pictureRate(), () -> session.shown().sampleRate());
    field.onTime(edit);
    field.show(frame);
  }

  /** A length, shown in seconds. */
  public void length(String id, String label, long frames, LongConsumer edit) {
    Project project = session.shown();
    String shown = Timecode.seconds(frames, project.sampleRate());
    TypedField field = number(id, label, shown, words -> {});
    field.setTip(text("field.length.tip"));
    field.onStep(
        (direction, fine) ->
            edit.accept(
                Math.max(0, frames + project.frames(direction * (fine ? FINE : STEP_SECONDS)))));
    field.onTyped(
        words -> {
          OptionalLong typed = Timecode.parse(words, project.pictureRate(), project.sampleRate());
          if (typed.isPresent()) {
            edit.accept(typed.getAsLong());
          } else {
            field.refuse(shown, text("field.time.wrong"));
          }
        });
  }

  /** The level that is shown first; empty when none is. */
  public Optional<LevelField> firstLevel() {
    return getChildren().stream()
        .filter(LevelField.class::isInstance)
        .map(LevelField.class::cast)
        .findFirst();
  }

  /** A number that is neither a level nor a time. */
  public TypedField number(String id, String label, String shown, Consumer<String> edit) {
    TypedField field = typed(id, label, shown, edit);
    if (!field.getStyleClass().contains("time-field")) {
      field.getStyleClass().add("time-field");
      Takes.selectByPress(field);
    }
    return field;
  }

  public <T> Choice<T> choice(
      String id,
      String label,
      List<T> values,
      T value,
      Function<T, String> words,
      Consumer<T> edit) {
    @SuppressWarnings("unchecked")
    Choice<T> box = pair(id, label, Choice.class, () -> new Choice<>(id, words));
    box.setOnAction(null);
    box.setAccessibleText(label);
    if (!box.getItems().equals(values)) {
      box.getItems().setAll(values);
      box.setWords(words);
    }
    box.setValue(value);
    box.setOnAction(e -> edit.accept(box.getValue()));
    return box;
  }

  public static Button button(String id, String words, Runnable action) {
    Button button = new Button(words);
    button.setMnemonicParsing(false);
    button.setId(id);
    button.getStyleClass().add("small");
    button.setOnAction(e -> action.run());
    return button;
  }

  /** Buttons in a row of their own. */
  public void buttons(Button... buttons) {
    String ids = Arrays.stream(buttons).map(Button::getId).collect(Collectors.joining(" "));
    FlowPane flow = wide(ids, FlowPane.class, () -> new FlowPane(6, 4, buttons));
    for (int i = 0; i < buttons.length; i++) {
      Button there = (Button) flow.getChildren().get(i);
      there.setText(buttons[i].getText());
      there.setOnAction(buttons[i].getOnAction());
    }
  }
}
