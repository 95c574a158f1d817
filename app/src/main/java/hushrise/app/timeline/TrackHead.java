package hushrise.app.timeline;

import static hushrise.app.words.Texts.text;

import hushrise.app.session.Selection;
import hushrise.app.widget.Focus;
import hushrise.app.widget.LevelField;
import hushrise.core.edit.LevelEdits;
import hushrise.core.edit.TrackEdits;
import hushrise.core.project.Project;
import hushrise.core.project.timeline.Track;
import java.util.Locale;
import java.util.function.BiFunction;
import javafx.geometry.Pos;
import javafx.scene.Cursor;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/**
 * A track's name, level, mute and solo, at the left of its lane. A double-click on the name changes
 * it; the lower edge drags the row's height.
 */
final class TrackHead extends VBox {

  /** Heads under this height are set tighter. */
  private static final double LOW = 70;

  private static final double EDGE = 5;

  private final Viewport view;
  private final String trackId;
  private final HBox nameRow = new HBox();
  private final Label name = new Label();
  private final LevelField level;
  private final ToggleButton mute = new ToggleButton(text("head.mute"));
  private final ToggleButton solo = new ToggleButton(text("head.solo"));
  private final ContextMenu menu = new ContextMenu();
  private double pressedAt = Double.NaN;
  private double pressedHeight;
  private int draggedHeight;

  TrackHead(Viewport view, Track track, double height) {
    this.view = view;
    this.trackId = track.id();
    String kind = track.kind().name().toLowerCase(Locale.ROOT);
    getStyleClass().addAll("track-head", "kind-" + kind);
    name.getStyleClass().add("track-name");
    nameRow.getChildren().add(name);
    level =
        new LevelField(
            text("head.level", track.name()),
            db ->
                view.session()
                    .commit(
                        text("edit.trackLevel"), p -> LevelEdits.setTrackLevel(p, trackId, db)));
    level.setId("level-" + kind);
    toggle(
        mute,
        "mute-" + kind,
        text("head.mute.tip", track.name()),
        text("edit.mute"),
        Track::withMuted);
    toggle(
        solo,
        "solo-" + kind,
        text("head.solo.tip", track.name()),
        text("edit.solo"),
        Track::withSoloed);
    Region space = new Region();
    HBox.setHgrow(space, Priority.ALWAYS);
    getChildren().add(nameRow);
    if (track.kind().sounds()) {
      HBox row = new HBox(4, level, space, mute, solo);
      row.setAlignment(Pos.CENTER_LEFT);
      getChildren().add(row);
    }
    if (height < LOW) {
      getStyleClass().add("low");
    }
    setMinHeight(height);
    setPrefHeight(height);
    setMaxHeight(height);
    takeMouse();
    update(track);
  }

  private void takeMouse() {
    setOnMouseMoved(e -> setCursor(onEdge(e) ? Cursor.V_RESIZE : Cursor.DEFAULT));
    setOnMousePressed(this::press);
    setOnMouseDragged(this::pull);
    setOnMouseReleased(e -> release());
    setOnContextMenuRequested(
        e -> {
          view.session().select(new Selection.OfTrack(trackId));
          menu.getItems().setAll(TrackMenu.items(track(), view, this::rename));
          menu.show(this, e.getScreenX(), e.getScreenY());
          e.consume();
        });
  }

  private Track track() {
    return view.session().shown().track(trackId).orElseThrow();
  }

  private boolean onEdge(MouseEvent e) {
    return e.getY() > getHeight() - EDGE;
  }

  private void press(MouseEvent e) {
    menu.hide();
    view.session().select(new Selection.OfTrack(trackId));
    if (e.getButton() == MouseButton.PRIMARY && onEdge(e)) {
      pressedAt = e.getSceneY();
      pressedHeight = getHeight();
    } else if (e.getClickCount() == 2) {
      rename();
    }
  }

  private void pull(MouseEvent e) {
    if (!Double.isNaN(pressedAt)) {
      int pixels = (int) Math.max(1, pressedHeight + e.getSceneY() - pressedAt);
      double height = Math.clamp(pixels, 30, 400);
      setMinHeight(height);
      setMaxHeight(height);
      draggedHeight = pixels;
    }
  }

  private void release() {
    if (!Double.isNaN(pressedAt)) {
      pressedAt = Double.NaN;
      if (draggedHeight > 0) {
        int pixels = draggedHeight;
        draggedHeight = 0;
        view.session().commit(text("edit.rowHeight"), p -> TrackEdits.resize(p, trackId, pixels));
      }
    }
  }

  /** Puts a field in the name's place. */
  private void rename() {
    TextField field = new TextField(track().name());
    field.setId("track-name-field");
    field.getStyleClass().add("name-field");
    field.setAccessibleText(text("head.rename"));
    Runnable done =
        () -> {
          if (nameRow.getChildren().contains(field)) {
            nameRow.getChildren().setAll(name);
          }
        };
    field.setOnAction(
        e -> {
          String typed = field.getText();
          done.run();
          view.session()
              .commit(
                  text("edit.renameTrack"), (Project p) -> TrackEdits.rename(p, trackId, typed));
        });
    field.setOnKeyPressed(
        e -> {
          if (e.getCode() == KeyCode.ESCAPE) {
            done.run();
            e.consume();
          }
        });
    field
        .focusedProperty()
        .addListener(
            (p, was, now) -> {
              if (!now) {
                done.run();
              }
            });
    nameRow.getChildren().setAll(field);
    Focus.ask(field);
    field.selectAll();
  }

  private void toggle(
      ToggleButton button,
      String id,
      String tip,
      String edit,
      BiFunction<Track, Boolean, Track> change) {
    button.setId(id);
    button.getStyleClass().add("head-toggle");
    button.setAccessibleText(tip);
    button.setTooltip(new Tooltip(tip));
    button.setOnAction(
        e -> {
          boolean on = button.isSelected();
          view.session().commit(edit, p -> p.withTrack(trackId, t -> change.apply(t, on)));
        });
  }

  /** Shows a track as it is now. */
  void update(Track track) {
    name.setText(track.name());
    level.show(track.levelDb());
    mute.setSelected(track.muted());
    solo.setSelected(track.soloed());
  }
}
