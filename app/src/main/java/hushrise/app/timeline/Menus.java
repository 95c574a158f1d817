package hushrise.app.timeline;

import javafx.scene.control.MenuItem;

/** Menu items whose words stand as they are: an underscore in a name is an underscore. */
final class Menus {

  private Menus() {}

  static MenuItem item(String words) {
    MenuItem item = new MenuItem(words);
    item.setMnemonicParsing(false);
    return item;
  }
}
