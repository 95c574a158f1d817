package hushrise.app.timeline;

import static hushrise.app.words.Texts.text;

import hushrise.app.play.Meters;
import hushrise.app.session.Selection;
import hushrise.app.widget.Fader;
import hushrise.app.widget.Focus;
import hushrise.app.widget.LevelField;
import hushrise.app.widget.PanSlider;
import hushrise.app.widget.TypedField;
import hushrise.core.edit.LevelEdits;
import hushrise.core.edit.TrackEdits;
import hushrise.core.project.level.LevelText;
import hushrise.core.project.timeline.Track;
import java.util.Locale;
import java.util.Optional;
import java.util.function.BiFunction;
import java.util.function.DoubleConsumer;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.Cursor;
import javafx.scene.Node;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/**
 * A track's strip of the mixer, at the left of its lane: name, mute, solo and ride, a fader with
 * its meter, the level as a number, pan. A double-click on the name changes it; the lower edge
 * drags the row's height, the right one the width of all heads. A narrow or low head keeps the
 * fader and the meter and lets the rest go.
 */
final class TrackHead extends VBox {

  /** Heads under this height are set tighter. */
  private static final double LOW = 84;

  /** Heads under this width carry no more than name, fader and level. */
  private static final double NARROW = 150;

  private static final double EDGE = 5;

  private static final PseudoClass CHOSEN = PseudoClass.getPseudoClass("chosen");

  private final Viewport view;
  private final Desk desk;
  private final DoubleConsumer pulled;
  private final String trackId;
  private final HBox nameRow = new HBox();
  private final Label name = new Label();
  private final LevelField level;
  private final ToggleButton mute = new ToggleButton(text("head.mute"));
  private final ToggleButton solo = new ToggleButton(text("head.solo"));
  private final ToggleButton ride = new ToggleButton(text("head.ride"));
  private final PanSlider pan;
  private final Fader fader;
  private final ContextMenu menu = new ContextMenu();
  private Optional<Boolean> low = Optional.empty();
  private double pressedAt = Double.NaN;
  private double pressedHeight;
  private int draggedHeight;
  private double pressedWidth = Double.NaN;

  /**
   * @param pulled makes the row as high as its lower edge is pulled
   */
  TrackHead(Viewport view, Desk desk, Track track, DoubleConsumer pulled) {
    this.view = view;
    this.desk = desk;
    this.pulled = pulled;
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
    fader = new Fader(text("head.fader", track.name()), view.paletteProperty());
    fader.setId("fader-" + kind);
    pan =
        new PanSlider(
            text("head.pan", track.name()),
            to -> view.session().drag(text("edit.pan"), p -> TrackEdits.setPan(p, trackId, to)),
            to -> view.session().commit(text("edit.pan"), p -> TrackEdits.setPan(p, trackId, to)),
            view.session()::endDrag);
    nameRow.setSpacing(3);
    nameRow.setAlignment(Pos.CENTER_LEFT);
    name.setMinWidth(20);
    name.setMaxWidth(Double.MAX_VALUE);
    HBox.setHgrow(name, Priority.ALWAYS);
    getChildren().add(nameRow);
    if (track.kind().sounds()) {
      addStrip(kind, track.name());
    }
    takeMouse();
    update(track);
  }

  private void addStrip(String kind, String trackName) {
    ride.setId("ride-" + kind);
    ride.getStyleClass().addAll("head-toggle", "ride");
    ride.setAccessibleText(text("head.ride.tip", trackName));
    ride.setTooltip(new Tooltip(text("head.ride.tip", trackName)));
    ride.setOnAction(e -> desk.riders().toggle(trackId));
    nameRow.getChildren().addAll(mute, solo, ride);
    for (ToggleButton button : new ToggleButton[] {mute, solo, ride}) {
      button.setMinWidth(USE_PREF_SIZE);
      showWhileWide(button);
    }
    setUpFader();
    pan.setId("pan-" + kind);
    showWhileWide(pan);
  }

  /** Makes the head as high as this; low ones have level and fader in one row, and no pan. */
  void setRowHeight(double height) {
    setMinHeight(height);
    setPrefHeight(height);
    setMaxHeight(height);
    boolean isLow = height < LOW;
    if (low.filter(l -> l == isLow).isEmpty()) {
      low = Optional.of(isLow);
      arrange(isLow);
    }
  }

  private void arrange(boolean isLow) {
    getStyleClass().removeAll("low");
    if (isLow) {
      getStyleClass().add("low");
    }
    if (!track().kind().sounds()) {
      return;
    }
    fader.setPrefHeight(isLow ? 16 : 30);
    fader.setMaxHeight(isLow ? 18 : USE_COMPUTED_SIZE);
    HBox row = isLow ? new HBox(4, fader, level) : new HBox(8, level, pan);
    HBox.setHgrow(isLow ? fader : pan, Priority.ALWAYS);
    row.setAlignment(Pos.CENTER_LEFT);
    if (isLow) {
      getChildren().setAll(nameRow, row);
      showWhileWide(level);
    } else {
      getChildren().setAll(nameRow, fader, row);
      level.visibleProperty().unbind();
      level.setVisible(true);
    }
  }

  private void showWhileWide(Node node) {
    node.visibleProperty().bind(view.headWidthProperty().greaterThanOrEqualTo(NARROW));
    node.managedProperty().bind(node.visibleProperty());
  }

  private void setUpFader() {
    fader.setMeter(desk.meters().track(trackId));
    fader.onMove(this::moveFader, this::releaseFader);
    fader.onType(this::typeLevel);
    fader.onTurn(by -> desk.riders().nudge(trackId, by));
    fader.onOver(
        frame -> {
          view.session().seek(frame);
          view.messages().say(text("meter.over", track().name()));
        });
    fader.setOnMouseEntered(
        e -> view.hint(text("hint.fader", track().name(), hotWords(desk.meters().track(trackId)))));
  }

  private static String hotWords(Meters.Meter meter) {
    return Double.isFinite(meter.highestDb())
        ? text("meter.highest", LevelText.format(Math.round(meter.highestDb() * 10) / 10.0))
        : text("meter.silent");
  }

  private void moveFader(double db) {
    if (desk.riders().isRiding(trackId)) {
      desk.riders().hold(trackId, db);
      fader.show(db);
    } else {
      view.session().drag(text("edit.trackLevel"), p -> LevelEdits.setTrackLevel(p, trackId, db));
    }
  }

  private void releaseFader() {
    if (desk.riders().isRiding(trackId)) {
      desk.riders().letGo(trackId);
    } else {
      view.session().endDrag();
    }
  }

  private void typeLevel() {
    if (level.isVisible()) {
      level.begin(false);
    } else {
      view.setHeadWidth(NARROW);
      level.begin(false);
    }
  }

  /** Gives a drag of the fader, the pan or an edge back; false when there is none. */
  boolean cancelDrag() {
    if (!Double.isNaN(pressedWidth)) {
      view.setHeadWidth(pressedWidth);
      pressedWidth = Double.NaN;
      return true;
    }
    if (draggedHeight > 0) {
      pressedAt = Double.NaN;
      draggedHeight = 0;
      pulled.accept(pressedHeight);
      return true;
    }
    if (pan.isHeld()) {
      pan.cancel();
    } else if (fader.isHeld() && !desk.riders().isRiding(trackId)) {
      fader.cancel();
    } else {
      return false;
    }
    view.session().cancelDrag();
    return true;
  }

  /** Shows where meters stand now, and where a hand has the level. */
  void metersMoved() {
    if (fader.isManaged()) {
      showLevel(track());
      fader.draw();
    }
  }

  private void showLevel(Track track) {
    boolean riding = desk.riders().isRiding(trackId);
    fader.setRiding(riding);
    if (riding) {
      if (!fader.isHeld()) {
        fader.show(desk.riders().of(trackId).orElseThrow().heardDb());
      }
    } else {
      fader.show(track.levelDb());
    }
  }

  private void takeMouse() {
    setOnMouseMoved(
        e -> setCursor(onSide(e) ? Cursor.H_RESIZE : onEdge(e) ? Cursor.V_RESIZE : Cursor.DEFAULT));
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

  private boolean onSide(MouseEvent e) {
    return e.getX() > getWidth() - EDGE;
  }

  private void press(MouseEvent e) {
    menu.hide();
    if (e.getButton() == MouseButton.PRIMARY && onSide(e)) {
      pressedWidth = view.headWidth();
      return;
    }
    view.session().select(new Selection.OfTrack(trackId));
    if (e.getButton() == MouseButton.PRIMARY && onEdge(e)) {
      pressedAt = e.getSceneY();
      pressedHeight = getHeight();
    } else if (e.getClickCount() == 2) {
      rename();
      e.consume(); // what the rows lie in would take the keys
    }
  }

  private void pull(MouseEvent e) {
    if (!Double.isNaN(pressedWidth)) {
      view.setHeadWidth(e.getX());
    } else if (!Double.isNaN(pressedAt)) {
      int pixels = (int) Math.max(1, pressedHeight + e.getSceneY() - pressedAt);
      pulled.accept(Math.clamp(pixels, 30, 400));
      draggedHeight = pixels;
    }
  }

  private void release() {
    pressedWidth = Double.NaN;
    if (!Double.isNaN(pressedAt)) {
      pressedAt = Double.NaN;
      if (draggedHeight > 0) {
        int pixels = draggedHeight;
        draggedHeight = 0;
        view.session().commit(text("edit.rowHeight"), p -> TrackEdits.resize(p, trackId, pixels));
      }
    }
  }

  /** Puts a field in the name's place, until it is left; Esc leaves the name as it was. */
  private void rename() {
    TypedField field = new TypedField();
    field.setId("track-name-field");
    field.getStyleClass().add("name-field");
    field.setAccessibleText(text("head.rename"));
    field.show(track().name());
    field.onTyped(
        typed ->
            view.session()
                .commit(text("edit.renameTrack"), p -> TrackEdits.rename(p, trackId, typed)));
    Focus.whenLeft(field, () -> nameRow.getChildren().set(0, name));
    nameRow.getChildren().set(0, field);
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
    pseudoClassStateChanged(
        CHOSEN, view.session().selection().equals(new Selection.OfTrack(trackId)));
    name.setText(track.name());
    level.show(track.levelDb());
    mute.setSelected(track.muted());
    solo.setSelected(track.soloed());
    if (track.kind().sounds()) {
      boolean armed = desk.riders().armed().contains(trackId);
      ride.setSelected(armed);
      fader.setTurns(armed);
      fader.setHotDb(view.session().habits().hotDbProperty().get());
      showLevel(track);
      pan.show(track.pan());
    }
  }
}
