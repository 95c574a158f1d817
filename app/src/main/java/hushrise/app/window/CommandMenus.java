package hushrise.app.window;

import hushrise.app.command.CommandId;
import hushrise.app.command.Commands;
import java.util.Arrays;
import java.util.Locale;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuBar;
import javafx.scene.control.MenuItem;

/** The menu bar, made from the table of commands; the system's own where it has one. */
final class CommandMenus {

  private CommandMenus() {}

  static MenuBar of(Commands commands) {
    MenuBar bar = new MenuBar();
    bar.setId("menus");
    bar.setUseSystemMenuBar(true);
    bar.setFocusTraversable(false);
    for (CommandId.Menu part : CommandId.Menu.values()) {
      if (part != CommandId.Menu.NONE) {
        bar.getMenus().add(menu(part, commands));
      }
    }
    return bar;
  }

  private static Menu menu(CommandId.Menu part, Commands commands) {
    Menu menu = new Menu(part.words());
    menu.setId("menu-bar-" + part.name().toLowerCase(Locale.ROOT));
    Arrays.stream(CommandId.values())
        .filter(id -> id.menu() == part)
        .forEach(
            id -> {
              MenuItem item = commands.item(id);
              item.setUserData(id);
              menu.getItems().add(item);
            });
    menu.setOnShowing(
        e ->
            menu.getItems()
                .forEach(i -> i.setDisable(!commands.isPossible((CommandId) i.getUserData()))));
    return menu;
  }
}
