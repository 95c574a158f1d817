package hushrise.app.timeline;

import static hushrise.app.words.Texts.text;

import hushrise.app.command.CommandId;
import hushrise.app.listen.Hearing;
import hushrise.app.session.Selection;
import hushrise.core.edit.ClipEdits;
import hushrise.core.loudness.ClipPeaks.HotSpot;
import hushrise.core.project.level.LevelText;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javafx.geometry.Side;
import javafx.scene.AccessibleRole;
import javafx.scene.Cursor;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.layout.Pane;
import javafx.scene.shape.Polygon;

/**
 * Marks over a lane where its sound is hot after all levels: an open notch, a full one where it
 * passes full scale. A press says by how much, and offers to lower it.
 */
final class HotMarks extends Pane {

  /** Marks closer than this to one another are one. */
  private static final double CLOSEST = 14;

  /** So many are shown at most. */
  private static final int MOST = 60;

  private final Viewport view;
  private final String trackId;
  private final ContextMenu menu = new ContextMenu();
  private List<Placed> placed = List.of();
  private Map<HotSpot, Polygon> marks = Map.of();

  /** A mark and where it stands. */
  private record Placed(HotSpot spot, double x) {}

  HotMarks(Viewport view, String trackId) {
    this.view = view;
    this.trackId = trackId;
    setPickOnBounds(false);
    widthProperty().addListener((p, was, now) -> place());
  }

  /**
   * Puts the marks where they belong now. Those that stay are left alone: one that went away under
   * the pointer would take its press along.
   */
  void place() {
    List<HotSpot> spots =
        view.hearing().now().map(Hearing.Now::hotSpots).map(m -> m.get(trackId)).orElse(List.of());
    List<Placed> shown = new ArrayList<>();
    double last = Double.NEGATIVE_INFINITY;
    for (HotSpot spot : spots == null ? List.<HotSpot>of() : spots) {
      double x = xOf(spot);
      if (x < 0 || x > getWidth() || shown.size() >= MOST) {
        continue;
      }
      if (x - last >= CLOSEST) {
        shown.add(new Placed(spot, x));
        last = x;
      } else if (spot.peakDb() > shown.getLast().spot().peakDb()) {
        shown.set(shown.size() - 1, new Placed(spot, x));
      }
    }
    if (!shown.equals(placed)) {
      placed = shown;
      Map<HotSpot, Polygon> standing = new LinkedHashMap<>();
      for (Placed at : shown) {
        Polygon mark = marks.containsKey(at.spot()) ? marks.get(at.spot()) : mark(at);
        mark.setLayoutX(Math.round(at.x()));
        standing.put(at.spot(), mark);
      }
      marks = standing;
      getChildren().retainAll(standing.values());
      standing.values().stream()
          .filter(m -> !getChildren().contains(m))
          .forEach(getChildren()::add);
    }
  }

  /** Beside a clip's edge, where its fade is taken hold of, a mark makes room. */
  private double xOf(HotSpot spot) {
    double x = view.axis().xOf(spot.peakFrame());
    return view.session()
        .shown()
        .clip(spot.clipId())
        .map(
            c -> {
              double from = view.axis().xOf(c.startFrame()) + CLOSEST;
              double to = view.axis().xOf(c.endFrame()) - CLOSEST;
              return from < to ? Math.clamp(x, from, to) : x;
            })
        .orElse(x);
  }

  private Polygon mark(Placed at) {
    HotSpot spot = at.spot();
    Polygon mark = new Polygon(-5, 0, 5, 0, 0, 8);
    mark.setLayoutY(1);
    mark.getStyleClass().addAll("hot-mark", spot.peakDb() > 0 ? "over" : "hot");
    mark.setCursor(Cursor.HAND);
    mark.setAccessibleRole(AccessibleRole.BUTTON);
    mark.setAccessibleText(words(spot));
    mark.setOnMouseEntered(e -> view.hint(words(spot)));
    mark.setOnMousePressed(
        e -> {
          view.session().select(new Selection.OfClip(trackId, spot.clipId()));
          menu.getItems().setAll(items(spot));
          menu.show(mark, Side.BOTTOM, 0, 2);
          e.consume();
        });
    return mark;
  }

  private double overDb(HotSpot spot) {
    return spot.peakDb() - view.session().habits().hotDbProperty().get();
  }

  private static String db(double value) {
    return LevelText.format(Math.round(value * 10) / 10.0);
  }

  private String words(HotSpot spot) {
    return text("hot.words", db(spot.peakDb()), db(overDb(spot)));
  }

  private List<MenuItem> items(HotSpot spot) {
    MenuItem said = Menus.item(words(spot));
    said.setDisable(true);
    MenuItem go = Menus.item(text("hot.go"));
    go.setId("menu-hot-go");
    go.setOnAction(e -> view.session().seek(spot.peakFrame()));
    // A little more than it is over, so that nothing of it is left.
    double by = Math.ceil(overDb(spot) * 10) / 10 + 0.1;
    MenuItem lower = Menus.item(text("hot.lower", db(by)));
    lower.setId("menu-hot-lower");
    lower.setOnAction(
        e ->
            view.session()
                .commit(
                    text("edit.lower"),
                    p ->
                        ClipEdits.setGain(
                            p,
                            Set.of(spot.clipId()),
                            p.clip(spot.clipId()).orElseThrow().gainDb() - by)));
    return List.of(
        said, new SeparatorMenuItem(), go, lower, view.commands().item(CommandId.SAFE_LEVEL));
  }
}
