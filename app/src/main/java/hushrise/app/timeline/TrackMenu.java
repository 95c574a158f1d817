package hushrise.app.timeline;

import static hushrise.app.words.Texts.text;

import hushrise.app.command.CommandId;
import hushrise.core.edit.TrackEdits;
import hushrise.core.project.Project;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Track;
import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;

/** The menu of a track's head. */
final class TrackMenu {

  private TrackMenu() {}

  static List<MenuItem> items(Track track, Viewport view, Runnable rename) {
    List<MenuItem> items = new ArrayList<>();
    Menu add = new Menu(text("track.add"));
    for (TrackKind kind : TrackKind.values()) {
      String name = text("track.kind." + kind.name());
      add.getItems()
          .add(
              item(
                  "add-" + kind,
                  name,
                  view,
                  text("edit.addTrack"),
                  p -> TrackEdits.add(p, kind, name)));
    }
    items.add(add);
    MenuItem name = Menus.item(text("track.rename"));
    name.setOnAction(e -> rename.run());
    items.add(name);
    items.add(
        item(
            "track-up",
            text("track.up"),
            view,
            text("edit.reorder"),
            p -> TrackEdits.reorder(p, track.id(), -1)));
    items.add(
        item(
            "track-down",
            text("track.down"),
            view,
            text("edit.reorder"),
            p -> TrackEdits.reorder(p, track.id(), 1)));
    items.add(
        item(
            "track-usual",
            text("track.usualHeight"),
            view,
            text("edit.rowHeight"),
            p -> TrackEdits.resize(p, track.id(), 0)));
    items.add(new SeparatorMenuItem());
    if (track.kind() == TrackKind.CAMERA) {
      items.add(
          item(
              "track-speaks",
              text(track.speaks() ? "track.speaksNot" : "track.speaks"),
              view,
              text("edit.speaks"),
              p -> p.withTrack(track.id(), t -> t.withSpeaks(!t.speaks()))));
    }
    items.add(view.commands().item(CommandId.VOICES_EVEN));
    items.add(view.commands().item(CommandId.CAMERA_SILENCE));
    MenuItem remove =
        new MenuItem(
            track.clips().isEmpty()
                ? text("track.remove")
                : text("track.removeClips", track.clips().size()));
    remove.setId("menu-track-remove");
    remove.setOnAction(e -> view.commands().run(CommandId.DELETE));
    items.add(remove);
    return items;
  }

  private static MenuItem item(
      String id, String words, Viewport view, String edit, UnaryOperator<Project> change) {
    MenuItem item = Menus.item(words);
    item.setId("menu-" + id);
    item.setOnAction(e -> view.session().commit(edit, change));
    return item;
  }
}
