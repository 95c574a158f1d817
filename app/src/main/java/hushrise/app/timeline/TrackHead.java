package hushrise.app.timeline;

import static hushrise.app.look.Texts.text;

import hushrise.app.Selection;
import hushrise.app.panel.LevelField;
import hushrise.core.edit.LevelEdits;
import hushrise.core.project.Track;
import java.util.Locale;
import java.util.function.BiFunction;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** A track's name, level, mute and solo, at the left of its lane. */
final class TrackHead extends VBox {

  /** Heads under this height are set tighter. */
  private static final double LOW = 70;

  private final Viewport view;
  private final String trackId;
  private final Label name = new Label();
  private final LevelField level;
  private final ToggleButton mute = new ToggleButton(text("head.mute"));
  private final ToggleButton solo = new ToggleButton(text("head.solo"));

  TrackHead(Viewport view, Track track, double height) {
    this.view = view;
    this.trackId = track.id();
    String kind = track.kind().name().toLowerCase(Locale.ROOT);
    getStyleClass().addAll("track-head", "kind-" + kind);
    name.getStyleClass().add("track-name");
    setOnMousePressed(e -> view.session().select(new Selection.OfTrack(trackId)));
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
    getChildren().add(name);
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
    update(track);
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
