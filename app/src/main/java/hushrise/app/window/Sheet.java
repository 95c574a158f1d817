package hushrise.app.window;

import static hushrise.app.words.Texts.text;

import hushrise.app.file.Questions;
import hushrise.app.widget.Takes;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Optional;
import javafx.application.Platform;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.Scene;
import javafx.scene.TraversalDirection;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBoxBase;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.layout.HBox;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;

/**
 * A question or a piece of work laid over the window. One is seen at a time: a question that comes
 * over another sheet gives it back as it was. Esc gives back what was typed into a field of it,
 * else closes it. Tab goes round in it: what lies behind it cannot be seen well enough to be
 * worked.
 */
public final class Sheet extends StackPane implements Questions {

  private static final double USUAL = 520;
  private static final double WIDE = 860;

  /** In a window lower than this, its parts lie closer together. */
  private static final double LOW = 660;

  private static final PseudoClass TIGHT = PseudoClass.getPseudoClass("tight");

  /** What is seen: its title and its question, its parts, the widest it may be. */
  private record Layer(String about, List<Node> parts, double width, Node focus) {}

  private final VBox box = new VBox(14);
  private final Deque<Layer> below = new ArrayDeque<>();
  private final List<Runnable> waiting = new ArrayList<>();
  private String about = "";
  private Node first = box;
  private boolean backwards;

  public Sheet() {
    setId("sheet");
    getStyleClass().add("sheet-veil");
    box.getStyleClass().add("sheet");
    box.setMaxSize(USUAL, VBox.USE_PREF_SIZE);
    getChildren().add(box);
    heightProperty()
        .addListener((p, was, now) -> box.pseudoClassStateChanged(TIGHT, now.doubleValue() < LOW));
    setVisible(false);
    addEventFilter(
        KeyEvent.KEY_PRESSED,
        e -> {
          backwards = e.getCode() == KeyCode.TAB && e.isShiftDown();
          if (e.getCode() == KeyCode.ESCAPE) {
            Node owner = getScene().getFocusOwner();
            if (owner instanceof ComboBoxBase<?> list && list.isShowing()) {
              list.hide();
            } else if (!Takes.forget(owner)) {
              close();
            }
            e.consume();
          }
        });
    sceneProperty()
        .flatMap(Scene::focusOwnerProperty)
        .subscribe(owner -> Platform.runLater(() -> keep(owner)));
  }

  /** Lets keys that have left the sheet come in again at its other end. */
  private void keep(Node owner) {
    boolean left = isVisible() && owner != null && !isWithin(owner);
    if (left && owner.equals(getScene().getFocusOwner())) {
      if (backwards) {
        last(box).ifPresent(Node::requestFocus);
      } else {
        first.requestFocusTraversal(TraversalDirection.NEXT);
      }
    }
  }

  private boolean isWithin(Node node) {
    Node at = node;
    while (at != null && !at.equals(this)) {
      at = at.getParent();
    }
    return at != null;
  }

  /** The last part that can have the keys. */
  private static Optional<Node> last(Parent within) {
    return within.getChildrenUnmodifiable().reversed().stream()
        .filter(n -> n.isVisible() && !n.isDisabled())
        .flatMap(
            n -> {
              Optional<Node> inner =
                  n instanceof Parent parent ? last(parent) : Optional.<Node>empty();
              return inner.or(() -> Optional.of(n).filter(Node::isFocusTraversable)).stream();
            })
        .findFirst();
  }

  /**
   * Shows a sheet.
   *
   * @param focus what has the focus first
   */
  void open(String title, Node focus, Node... content) {
    open(title, "", USUAL, focus, content);
  }

  /** Shows a sheet that needs more room than a question. */
  void openWide(String title, Node focus, Node... content) {
    open(title, "", WIDE, focus, content);
  }

  private void open(String title, String sentence, double width, Node focus, Node... content) {
    String opened = title + sentence;
    if (isVisible() && !about.equals(opened)) {
      Node owner = getScene().getFocusOwner();
      Node back = isWithin(owner) ? owner : box;
      below.push(new Layer(about, List.copyOf(box.getChildren()), box.getMaxWidth(), back));
    }
    Label heading = new Label(title);
    heading.getStyleClass().add("sheet-title");
    List<Node> parts = new ArrayList<>(List.of(content));
    parts.addFirst(heading);
    show(new Layer(opened, parts, width, focus));
  }

  private void show(Layer layer) {
    about = layer.about();
    first = layer.parts().getFirst();
    box.getChildren().setAll(layer.parts());
    box.setMaxWidth(layer.width());
    setVisible(true);
    if (layer.focus().getScene() == null) {
      box.requestFocus(); // what is typed meanwhile is not for what lies behind
      Platform.runLater(() -> focusWithin(layer.focus()));
    } else {
      layer.focus().requestFocus();
    }
  }

  /** What scrolls has a place once it has its looks; a key that is still down is not for it. */
  private void focusWithin(Node scrolled) {
    box.applyCss();
    scrolled.requestFocus();
  }

  public boolean isOpen() {
    return isVisible();
  }

  /** Closes the sheet that is seen; one that it was laid over is there again. */
  public void close() {
    if (!below.isEmpty()) {
      show(below.pop());
    } else if (isVisible()) {
      setVisible(false);
      box.getChildren().clear();
      List<Runnable> waited = List.copyOf(waiting);
      waiting.clear();
      waited.forEach(then -> Platform.runLater(() -> whenClosed(then)));
    }
  }

  @Override
  public void whenClosed(Runnable then) {
    if (isVisible()) {
      waiting.add(then);
    } else {
      then.run();
    }
  }

  @Override
  public void ask(String title, String sentence, String answer, Runnable then) {
    question(title, sentence, answer(answer, then));
  }

  /** Whether a question is seen, and nothing over it. */
  boolean asks(String title, String sentence) {
    return isVisible() && about.equals(title + sentence);
  }

  @Override
  public void ask(
      String title,
      String sentence,
      String firstAnswer,
      Runnable first,
      String secondAnswer,
      Runnable second) {
    question(title, sentence, answer(secondAnswer, second), answer(firstAnswer, first));
  }

  @Override
  public void tell(String title, String sentences) {
    Label words = new Label(sentences);
    words.setWrapText(true);
    Button close = answer(text("sheet.close"), () -> {});
    close.getStyleClass().add("accent");
    close.setDefaultButton(true);
    open(title, sentences, USUAL, close, words, buttons(close));
  }

  /** Asks with a way out and some answers, of which Enter gives the last. */
  private void question(String title, String sentence, Button... answers) {
    Label words = new Label(sentence);
    words.setWrapText(true);
    Button usual = answers[answers.length - 1];
    usual.getStyleClass().add("accent");
    usual.setDefaultButton(true);
    HBox row = buttons(answer(text("sheet.cancel"), () -> {}));
    row.getChildren().addAll(answers);
    open(title, sentence, USUAL, usual, words, row);
  }

  private Button answer(String words, Runnable then) {
    Button button = new Button(words);
    button.setMnemonicParsing(false);
    button.setOnAction(
        e -> {
          close();
          then.run();
        });
    return button;
  }

  /** Lets Enter on a list, which would keep it, and a double-click on a row press a button. */
  static void picks(ListView<?> list, Button button) {
    list.addEventHandler(
        KeyEvent.KEY_PRESSED,
        e -> {
          if (e.getCode() == KeyCode.ENTER) {
            button.fire();
            e.consume();
          }
        });
    list.setOnMouseClicked(
        e -> {
          boolean onRow = e.getTarget() instanceof Node node && isOnRow(node, list);
          if (e.getButton() == MouseButton.PRIMARY && e.getClickCount() == 2 && onRow) {
            button.fire();
          }
        });
  }

  private static boolean isOnRow(Node node, ListView<?> list) {
    Node at = node;
    while (at != null && !at.equals(list) && !(at instanceof ListCell<?>)) {
      at = at.getParent();
    }
    return at instanceof ListCell<?> cell && !cell.isEmpty();
  }

  static HBox buttons(Button... buttons) {
    HBox row = new HBox(8, buttons);
    row.setAlignment(Pos.CENTER_RIGHT);
    return row;
  }
}
