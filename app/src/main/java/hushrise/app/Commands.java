package hushrise.app;

import java.util.List;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import javafx.scene.Scene;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.ComboBoxBase;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;

/**
 * All commands, by key and by name. While somebody types into a field, only those with Ctrl (or
 * Cmd) act, and not the ones that the field itself knows.
 */
public final class Commands {

  private static final List<KeyCode> OF_FIELDS =
      List.of(KeyCode.A, KeyCode.C, KeyCode.V, KeyCode.X, KeyCode.Z);

  private final List<Command> all;

  Commands(List<Command> all) {
    this.all = List.copyOf(all);
  }

  public List<Command> all() {
    return all;
  }

  /** The command of a name. */
  public Command named(String id) {
    return all.stream().filter(c -> c.id().equals(id)).findFirst().orElseThrow();
  }

  /** A menu item for a command. */
  public MenuItem item(String id) {
    Command command = named(id);
    MenuItem item = new MenuItem(command.words());
    item.setId("menu-" + id);
    command.keys().ifPresent(item::setAccelerator);
    item.setOnAction(e -> command.action().run());
    return item;
  }

  /**
   * Lets the scene's keys act.
   *
   * @param blocked whether a sheet has the keys
   * @param leaveField what Enter in a field does
   * @param keysTaken whether something else has the keys that are pressed without Ctrl
   */
  void attach(
      Scene scene, BooleanSupplier blocked, Runnable leaveField, BooleanSupplier keysTaken) {
    scene.addEventFilter(
        KeyEvent.KEY_PRESSED,
        e -> {
          if (blocked.getAsBoolean()) {
            return;
          }
          boolean typing = scene.getFocusOwner() instanceof TextInputControl;
          Optional<Command> found =
              all.stream().filter(c -> c.keys().filter(k -> k.match(e)).isPresent()).findFirst();
          boolean free =
              typing
                  ? e.isShortcutDown() && !OF_FIELDS.contains(e.getCode())
                  : e.isShortcutDown() || !(keysTaken.getAsBoolean() || isOfControl(scene, e));
          if (found.isPresent() && free) {
            found.get().action().run();
            e.consume();
          } else if (typing && e.getCode() == KeyCode.ENTER) {
            leaveField.run();
          }
        });
  }

  /** Keys that a focused control needs itself: Space presses a button, arrows go through a list. */
  private static boolean isOfControl(Scene scene, KeyEvent e) {
    return switch (scene.getFocusOwner()) {
      case ButtonBase b -> e.getCode() == KeyCode.SPACE || e.getCode() == KeyCode.ENTER;
      case ComboBoxBase<?> c ->
          switch (e.getCode()) {
            case SPACE, ENTER, UP, DOWN, ESCAPE -> true;
            default -> false;
          };
      case null, default -> false;
    };
  }
}
