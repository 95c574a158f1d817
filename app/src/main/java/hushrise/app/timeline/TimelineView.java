package hushrise.app.timeline;

import static hushrise.app.words.Texts.text;

import hushrise.app.job.Throttle;
import hushrise.app.look.Density;
import hushrise.app.play.TransportState;
import hushrise.app.widget.PeaksCache;
import hushrise.app.widget.Stills;
import hushrise.core.project.Project;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Track;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.stream.Stream;
import javafx.application.Platform;
import javafx.beans.value.ObservableValue;
import javafx.collections.SetChangeListener;
import javafx.geometry.Bounds;
import javafx.geometry.Insets;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Polygon;
import javafx.scene.shape.Rectangle;

/**
 * The timeline: overview, ruler, and a row of head and lane for each track, with the playhead over
 * all lanes. Rows share the height by weight, music getting the most.
 */
public final class TimelineView extends BorderPane {

  private static final double RULER_HEIGHT = 26;
  private static final double OVERVIEW_HEIGHT = 46;
  private static final long OVERVIEW_MILLIS = 150;
  private static final double ZOOM_STEP = 1.25;

  /** So many lanes stay as they were drawn; each takes some 700 KB. */
  private static final int MOST_DRAWN = 50;

  private final Viewport view;
  private final Desk desk;
  private OptionalLong takeFrom = OptionalLong.empty();
  private final PeaksCache peaks;
  private final Stills stills;
  private final ObservableValue<Double> density = Density.of(this);
  private final OverviewStrip overview;
  private final Throttle overviewThrottle;
  private final Ruler ruler;
  private final VBox rows = new VBox(3);
  private final ScrollPane scroll = new ScrollPane(rows);
  private final Pane overlay = new Pane();
  private final Rectangle playhead = new Rectangle(2, 0);
  private final Polygon cap = new Polygon(-6, 0, 6, 0, 0, 8);
  private final Node empty;
  private final List<TrackRow> trackRows = new ArrayList<>();
  private final SnapLine snapLine;
  private final BoxSelect box;
  private final SeparationStrip separation;
  private List<String> shownTracks = List.of();
  private List<Integer> shownHeights = List.of();
  private double sharedHeight;

  /** Whether a button is held on something here, which is not to move under the hand. */
  private boolean held;

  private boolean hasArrived;

  /**
   * @param empty what is shown while there are no tracks
   */
  public TimelineView(Viewport view, Desk desk, PeaksCache peaks, Stills stills, Node empty) {
    this.view = view;
    this.desk = desk;
    this.peaks = peaks;
    this.stills = stills;
    this.empty = empty;
    overview = new OverviewStrip(view, peaks);
    overviewThrottle = new Throttle(OVERVIEW_MILLIS, overview::redraw);
    ruler = new Ruler(view, desk.transport()::scrub);
    separation = new SeparationStrip(view);
    setId("timeline");
    setAccessibleText(text("timeline.name"));
    setFocusTraversable(true);
    getStyleClass().add("timeline");
    playhead.getStyleClass().add("playhead");
    cap.getStyleClass().add("playhead-cap");
    overlay.setMouseTransparent(true);
    snapLine = new SnapLine(view, overlay);
    box = new BoxSelect(view, () -> lanes().toList());
    overlay.getChildren().addAll(snapLine, playhead, cap, box.shape());
    setTop(top());
    scroll.setFitToWidth(true);
    scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
    scroll.getStyleClass().add("rows");
    scroll.setFocusTraversable(false);
    StackPane centre = new StackPane(scroll, overlay, empty);
    centre.setMinHeight(0);
    setCenter(centre);
    addEventFilter(ScrollEvent.SCROLL, this::scroll);
    addEventFilter(MouseEvent.MOUSE_PRESSED, e -> held = true);
    addEventFilter(
        MouseEvent.MOUSE_RELEASED,
        e -> {
          held = false;
          requestLayout();
        });
    watch();
  }

  private VBox top() {
    overview.setPrefHeight(OVERVIEW_HEIGHT);
    overview.setMinHeight(OVERVIEW_HEIGHT);
    ruler.setPrefHeight(RULER_HEIGHT);
    ruler.setMinHeight(RULER_HEIGHT);
    return new VBox(beside(text("overview.head"), overview), beside("", ruler));
  }

  private HBox beside(String words, Region content) {
    Label label = new Label(words);
    label.getStyleClass().add("faint");
    label.setPadding(new Insets(0, 8, 0, 12));
    label.minWidthProperty().bind(view.headWidthProperty());
    label.maxWidthProperty().bind(view.headWidthProperty());
    label.setMaxHeight(Double.MAX_VALUE);
    HBox.setHgrow(content, Priority.ALWAYS);
    return new HBox(label, content);
  }

  private void watch() {
    scroll.vvalueProperty().addListener((p, was, now) -> rowsMoved());
    scroll.viewportBoundsProperty().addListener((p, was, now) -> rowsMoved());
    // Keeping a picture of all rows would only cost time: they change more often than they scroll.
    scroll.skinProperty().addListener((p, was, now) -> scroll.lookup(".viewport").setCache(false));
    view.session().shownProperty().addListener((p, was, now) -> projectChanged(was, now));
    // A draft that is taken shows what was shown before, but no longer how it was.
    view.missingProperty().addListener((p, was, now) -> lanes().forEach(Lane::redraw));
    view.session().draftProperty().addListener((p, was, now) -> lanes().forEach(Lane::repaint));
    view.session()
        .selectionProperty()
        .addListener(
            (p, was, now) -> {
              lanes().forEach(Lane::repaint);
              updateHeads();
              ruler.redraw();
            });
    peaks.arrivedProperty().addListener((p, was, now) -> arrived());
    stills.arrivedProperty().addListener((p, was, now) -> arrived());
    view.hearing()
        .nowProperty()
        .addListener(
            (p, was, now) -> {
              redrawSeparation();
              trackRows.forEach(r -> r.marks().place());
            });
    view.headWidthProperty().addListener((p, was, now) -> requestLayout());
    desk.meters().follow(() -> trackRows.forEach(r -> r.head().metersMoved()));
    desk.riders().armed().addListener((SetChangeListener<String>) c -> updateHeads());
    desk.transport()
        .stateProperty()
        .addListener(
            (p, was, now) -> {
              updateHeads();
              takeFrom =
                  !(now instanceof TransportState.Recording)
                      ? OptionalLong.empty()
                      : takeFrom.isPresent()
                          ? takeFrom
                          : OptionalLong.of(view.session().playhead());
              Platform.runLater(this::showUnderway); // once what was ridden is written
            });
    view.session().habits().hotDbProperty().addListener((p, was, now) -> updateHeads());
    view.session().playheadProperty().addListener((p, was, now) -> playheadMoved());
    view.axisProperty().addListener((p, was, now) -> redraw());
    view.paletteProperty().addListener((p, was, now) -> redrawAll());
    density.addListener(
        (p, was, now) -> {
          sharedHeight = 0; // rows end on pixels of the screen
          requestLayout();
          redrawAll();
        });
  }

  private void redrawAll() {
    redraw();
    overview.redraw();
  }

  private void projectChanged(Project was, Project now) {
    List<String> tracks = rowsOf(now);
    if (!tracks.equals(shownTracks)) {
      build();
    } else {
      lanes().forEach(l -> l.projectChanged(now));
      updateHeads();
      if (!heightsOf(now).equals(shownHeights)) {
        shareHeight();
      }
    }
    if (was.lengthFrames() != now.lengthFrames() || !was.pictureRate().equals(now.pictureRate())) {
      view.lengthChanged();
      redraw();
    }
    if (!was.markers().equals(now.markers())) {
      ruler.redraw();
    }
    if (!was.shelf().equals(now.shelf())) {
      view.cuts().look(this::redraw);
    }
    overviewThrottle.ask();
  }

  private void updateHeads() {
    Project now = view.session().shown();
    trackRows.stream().map(TrackRow::head).forEach(h -> now.track(h.getId()).ifPresent(h::update));
  }

  /** With the next frame, as much else may have come until then. */
  private void arrived() {
    hasArrived = true;
    requestLayout();
    overviewThrottle.ask();
  }

  @Override
  protected void layoutChildren() {
    super.layoutChildren();
    view.setWidth(getWidth() - view.headWidth());
    double height = getHeight() - snapSizeY(OVERVIEW_HEIGHT) - snapSizeY(RULER_HEIGHT);
    if (!held && Math.abs(height - sharedHeight) > 1) {
      sharedHeight = height;
      shareHeight();
    }
    if (hasArrived) {
      hasArrived = false;
      lanes().forEach(Lane::complete);
    }
    playheadMoved();
  }

  /** Makes all rows anew. */
  private void build() {
    Project project = view.session().shown();
    shownTracks = rowsOf(project);
    held = false; // what leaves here is let go of elsewhere
    rows.getChildren().clear();
    trackRows.clear();
    boolean speaks = project.voiceTracks().findAny().isPresent();
    for (Track track : project.tracks()) {
      TrackRow row = row(track);
      trackRows.add(row);
      rows.getChildren().add(row);
      if (speaks && isLastVoice(project, track)) {
        rows.getChildren().add(separation);
      }
    }
    shareHeight();
    empty.setVisible(project.tracks().isEmpty());
    overlay.setVisible(!project.tracks().isEmpty());
  }

  /** Shares the height that there is out to the rows. */
  private void shareHeight() {
    Project project = view.session().shown();
    shownHeights = heightsOf(project);
    double spacing = snapSpaceY(rows.getSpacing());
    boolean strip = rows.getChildren().contains(separation);
    double taken = strip ? snapSizeY(SeparationStrip.HEIGHT) + spacing : 0;
    double room = sharedHeight - spacing * (project.tracks().size() - 1) - taken;
    List<Double> heights = RowHeights.of(project.tracks(), room, density.getValue());
    for (int i = 0; i < trackRows.size(); i++) {
      trackRows.get(i).setRowHeight(heights.get(i));
    }
  }

  private static boolean isLastVoice(Project project, Track track) {
    return project.voiceTracks().reduce((a, b) -> b).filter(track::equals).isPresent();
  }

  private void redrawSeparation() {
    if (view.session().shown().voiceTracks().findAny().isPresent()) {
      separation.redraw(Math.floor(getWidth() - view.headWidth()));
    }
  }

  /** What makes rows: the tracks, and which of them speak. */
  private static List<String> rowsOf(Project project) {
    return project.tracks().stream().map(t -> t.id() + t.isVoice()).toList();
  }

  private static List<Integer> heightsOf(Project project) {
    return project.tracks().stream().map(Track::rowHeight).toList();
  }

  private TrackRow row(Track track) {
    Ground ground =
        track.kind() == TrackKind.PICTURE
            ? new StillsGround(view, stills)
            : new WaveGround(view, peaks);
    return new TrackRow(view, desk, track, ground, box, this::isInView);
  }

  private Stream<Lane> lanes() {
    return trackRows.stream().map(TrackRow::lane);
  }

  /** Whether some of a lane can be seen among the rows, however far they are scrolled. */
  private boolean isInView(Node lane) {
    double seen = scroll.getViewportBounds().getHeight();
    double top = scroll.getVvalue() * Math.max(0, rows.getHeight() - seen);
    Bounds row = lane.getParent().getParent().getBoundsInParent();
    return row.getMaxY() > top && row.getMinY() < top + seen;
  }

  /** Draws what has come into view; of very many lanes only those are kept that can be seen. */
  private void rowsMoved() {
    lanes().forEach(Lane::catchUp);
    if (trackRows.size() > MOST_DRAWN) {
      lanes().forEach(Lane::letGo);
    }
  }

  private void redraw() {
    ruler.redraw();
    lanes().forEach(Lane::redraw);
    redrawSeparation();
    trackRows.forEach(r -> r.marks().place());
    playheadMoved();
  }

  private void playheadMoved() {
    double x = view.headWidth() + Math.round(view.axis().xOf(view.session().playhead()));
    boolean inView = x >= view.headWidth() && x <= getWidth();
    playhead.setVisible(inView);
    cap.setVisible(inView);
    playhead.setHeight(overlay.getHeight());
    playhead.setTranslateX(x - 1);
    cap.setTranslateX(x);
    overview.moveMarks();
    separation.playheadMoved();
    showUnderway();
  }

  /** Shows what hands and a voice are about to add. */
  private void showUnderway() {
    Optional<Track> voice = view.session().shown().firstTrack(TrackKind.VOICE);
    for (TrackRow row : trackRows) {
      Lane lane = row.lane();
      boolean speaks = voice.filter(t -> t.id().equals(lane.trackId())).isPresent();
      lane.showRide(desk.riders().passOf(lane.trackId()));
      lane.showTake(speaks ? takeFrom : OptionalLong.empty());
    }
  }

  private void scroll(ScrollEvent e) {
    double x = sceneToLocal(e.getSceneX(), e.getSceneY()).getX() - view.headWidth();
    if (x < 0) {
      return;
    }
    double turn = e.getDeltaY() == 0 ? e.getDeltaX() : e.getDeltaY();
    if (e.isControlDown() || e.isMetaDown()) {
      view.zoom(turn > 0 ? 1 / ZOOM_STEP : ZOOM_STEP, Math.max(0, x));
    } else {
      view.scroll(-turn);
    }
    e.consume();
  }

  /** Gives a drag that is under way back; false when there is none. */
  public boolean cancelDrag() {
    boolean cancelled = ruler.cancelDrag();
    for (TrackRow row : trackRows) {
      cancelled |= row.lane().cancelDrag();
      cancelled |= row.head().cancelDrag();
    }
    return cancelled;
  }
}
