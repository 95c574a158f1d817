package hushrise.app.window;

import hushrise.app.command.CommandId;
import hushrise.app.command.Commands;
import hushrise.app.widget.Focus;
import hushrise.app.widget.Takes;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.BooleanSupplier;
import java.util.function.Predicate;
import javafx.application.Platform;
import javafx.collections.MapChangeListener;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.ComboBoxBase;
import javafx.scene.control.ListView;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextInputControl;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyCombination;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;

/**
 * Where keys go. They work on the timeline unless somebody has put them elsewhere: no field takes
 * them by itself, and any press of the mouse that is not into a field or a list gives them back.
 *
 * <p>While somebody types into a field, only commands with Ctrl (or Cmd) act, and not those that
 * the field itself knows. A key that is held repeats only what goes step by step.
 */
final class Keys {

  private static final List<KeyCode> OF_FIELDS =
      List.of(KeyCode.A, KeyCode.C, KeyCode.V, KeyCode.X, KeyCode.Z);

  private final Scene scene;
  private final Commands commands;
  private final Node home;
  private final BooleanSupplier blocked;
  private final BooleanSupplier listHasKeys;
  private final Predicate<KeyEvent> beginsTyping;
  private final Set<KeyCode> down = EnumSet.noneOf(KeyCode.class);
  private boolean asked;

  /**
   * @param home the timeline
   * @param blocked whether a sheet has the keys
   * @param listHasKeys whether a list has the keys that are pressed without Ctrl
   * @param beginsTyping whether a key begins to type a level, which then happens
   */
  Keys(
      Scene scene,
      Commands commands,
      Node home,
      BooleanSupplier blocked,
      BooleanSupplier listHasKeys,
      Predicate<KeyEvent> beginsTyping) {
    this.scene = scene;
    this.commands = commands;
    this.home = home;
    this.blocked = blocked;
    this.listHasKeys = listHasKeys;
    this.beginsTyping = beginsTyping;
  }

  void attach() {
    scene.addEventFilter(KeyEvent.KEY_PRESSED, this::pressed);
    scene.addEventFilter(KeyEvent.KEY_RELEASED, e -> down.remove(e.getCode()));
    Focus.whenLost(scene, down::clear);
    scene.addEventFilter(MouseEvent.MOUSE_PRESSED, this::mousePressed);
    scene.addEventFilter(MouseEvent.MOUSE_RELEASED, e -> Platform.runLater(this::giveBack));
    scene.addEventFilter(ComboBoxBase.ON_HIDDEN, e -> Platform.runLater(this::leaveList));
    scene.focusOwnerProperty().addListener((p, was, now) -> focusMoved(now));
    scene
        .getAccelerators()
        .addListener(
            (MapChangeListener<KeyCombination, Runnable>) c -> Platform.runLater(this::actOnce));
    actOnce();
  }

  /** Keys of menu items are shown there, but act here alone. */
  private void actOnce() {
    for (CommandId id : CommandId.values()) {
      id.keys().stream()
          .filter(k -> !isPlainEnterOrEscape(k))
          .forEach(scene.getAccelerators()::remove);
    }
  }

  private static boolean isPlainEnterOrEscape(KeyCombination keys) {
    return keys.equals(CommandId.TYPE_LEVEL.keys().getFirst())
        || keys.equals(CommandId.ESCAPE.keys().getFirst());
  }

  private void pressed(KeyEvent e) {
    boolean repeats = !down.add(e.getCode());
    if (e.isConsumed()) {
      return;
    }
    if (e.getCode() == KeyCode.TAB) {
      asked = true;
      Platform.runLater(() -> asked = false);
    }
    if (blocked.getAsBoolean()) {
      return;
    }
    Node owner = scene.getFocusOwner();
    boolean typing = owner instanceof TextInputControl;
    if (!typing && !listHasKeys.getAsBoolean() && beginsTyping.test(e)) {
      return;
    }
    Optional<CommandId> found = commands.of(e);
    boolean free =
        typing
            ? e.isShortcutDown() && !OF_FIELDS.contains(e.getCode())
            : e.isShortcutDown() || !(listHasKeys.getAsBoolean() || isOfControl(owner, e));
    if (found.isPresent() && free) {
      Takes.ask(owner); // as what is saved, or heard, is what one sees
      if (!repeats || found.get().isStep()) {
        commands.run(found.get());
      }
      e.consume();
    } else if (typing && ends(owner, e.getCode())) {
      Platform.runLater(() -> leave(owner));
    }
  }

  /** In a text of many lines, Enter begins another one. */
  private static boolean ends(Node field, KeyCode key) {
    return key == KeyCode.ESCAPE || key == KeyCode.ENTER && !(field instanceof TextArea);
  }

  /**
   * After Enter or Esc in a field the keys are the timeline's, unless they went elsewhere or what
   * was typed is to be typed again.
   */
  private void leave(Node field) {
    boolean again = field instanceof Takes takes && takes.isRefused();
    if (field.equals(scene.getFocusOwner()) && !again && !blocked.getAsBoolean()) {
      home.requestFocus();
    }
  }

  /** Keys that a focused control needs itself: Space presses a button, arrows go through a list. */
  private static boolean isOfControl(Node owner, KeyEvent e) {
    return switch (owner) {
      case ToggleButton b when b.getToggleGroup() != null ->
          switch (e.getCode()) {
            case SPACE, ENTER, LEFT, RIGHT -> true;
            default -> false;
          };
      case ButtonBase b -> e.getCode() == KeyCode.SPACE || e.getCode() == KeyCode.ENTER;
      case ComboBoxBase<?> c ->
          switch (e.getCode()) {
            case SPACE, ENTER, UP, DOWN, ESCAPE -> true;
            default -> false;
          };
      case null, default -> false;
    };
  }

  private void mousePressed(MouseEvent e) {
    asked = isWithinTaker(e.getTarget());
  }

  private static boolean isWithinTaker(Object target) {
    for (Node n = target instanceof Node node ? node : null; n != null; n = n.getParent()) {
      if (n instanceof TextInputControl || n instanceof ListView || n instanceof ComboBoxBase) {
        return true;
      }
    }
    return false;
  }

  private void giveBack() {
    boolean here = asked && isWithinTaker(scene.getFocusOwner());
    asked = false;
    if (!here && !blocked.getAsBoolean()) {
      home.requestFocus();
    }
  }

  /** After a choice from a list the keys are the timeline's. */
  private void leaveList() {
    if (scene.getFocusOwner() instanceof ComboBoxBase && !blocked.getAsBoolean()) {
      home.requestFocus();
    }
  }

  /** A field that took the focus by itself, as what had it before has gone, gives it back. */
  private void focusMoved(Node now) {
    if (now != null && Focus.isAsked(now)) {
      asked = true; // as by a double-click, whose release must not take them away again
    }
    boolean takes = now instanceof TextInputControl && !asked && !Focus.isAsked(now);
    if (takes && !blocked.getAsBoolean()) {
      Platform.runLater(
          () -> {
            if (now.equals(scene.getFocusOwner()) && !blocked.getAsBoolean()) {
              home.requestFocus();
            }
          });
    }
  }
}
