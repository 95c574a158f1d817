package hushrise.app.window;

import hushrise.app.panel.DetailPane;
import hushrise.app.panel.DraftPane;
import hushrise.app.panel.MixPane;
import hushrise.app.panel.PicturePane;
import hushrise.app.panel.SecondEarPane;
import hushrise.app.session.Session;
import java.util.Optional;
import javafx.beans.binding.Bindings;
import javafx.beans.binding.DoubleBinding;
import javafx.beans.property.DoubleProperty;
import javafx.beans.property.SimpleDoubleProperty;
import javafx.beans.value.ObservableValue;
import javafx.scene.Cursor;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;

/**
 * What lies under the timeline: the picture, the selected thing, the Second Ear and the meters. A
 * draft that is shown takes the room of the two in the middle. In a high window it is higher, so
 * that the picture is larger; its upper edge can be dragged.
 */
final class BottomRow extends HBox {

  private static final double LOWEST = 206;
  private static final double PADDING = 8;
  private static final double MIX_WIDTH = 212;

  /** Of what a window is higher than this, the row takes a part. */
  private static final double HIGH_WINDOW = 800;

  private static final double PART = 0.4;

  /** What it leaves to the rest of the window. */
  private static final double LEAVES = 480;

  private static final double USUAL_PICTURE = (LOWEST - 2 * PADDING) * 16 / 9;

  /** From this width on everything has the room it wants. */
  private static final double ROOMY = 1240;

  private static final double GIVES_WAY = 0.7;

  private final MixPane mix;

  /** How high a person made it; 0: as high as the window asks for. */
  private final DoubleProperty chosenHeight = new SimpleDoubleProperty();

  private final ObservableValue<Double> windowHeight =
      sceneProperty().flatMap(Scene::heightProperty).map(Number::doubleValue).orElse(HIGH_WINDOW);
  private final DoubleBinding height =
      Bindings.createDoubleBinding(this::wantedHeight, chosenHeight, windowHeight);
  private double heightBefore;
  private double pressedAt = Double.NaN;
  private double pressedHeight;
  private double chosenAtPress;

  BottomRow(
      Session session,
      PicturePane picture,
      DetailPane detail,
      SecondEarPane secondEar,
      DraftPane draft,
      MixPane mix) {
    super(PADDING, picture, detail, secondEar, draft, mix);
    this.mix = mix;
    picture
        .minWidthProperty()
        .bind(Bindings.createDoubleBinding(this::pictureWidth, widthProperty(), height));
    picture.maxWidthProperty().bind(picture.minWidthProperty());
    mix.setMinWidth(MIX_WIDTH);
    mix.setMaxWidth(MIX_WIDTH);
    detail.setPrefWidth(352);
    secondEar.setPrefWidth(322);
    for (Node wide : new Node[] {detail, secondEar, draft}) {
      setHgrow(wide, Priority.ALWAYS);
    }
    showOnlyWhile(
        picture,
        Bindings.createBooleanBinding(
            () -> session.draft().isEmpty() || getWidth() >= ROOMY,
            session.draftProperty(),
            widthProperty()));
    showOnlyWhile(draft, session.draftProperty().map(Optional::isPresent));
    showOnlyWhile(detail, session.draftProperty().map(Optional::isEmpty));
    showOnlyWhile(secondEar, session.draftProperty().map(Optional::isEmpty));
    setId("bottom");
    getStyleClass().add("bottom");
    minHeightProperty().bind(height);
    maxHeightProperty().bind(height);
    takeMouse();
  }

  /** How high a person made it; 0: as high as the window asks for. */
  DoubleProperty chosenHeightProperty() {
    return chosenHeight;
  }

  private double wantedHeight() {
    double window = windowHeight.getValue();
    double usual = LOWEST + PART * Math.max(0, window - HIGH_WINDOW);
    return Math.clamp(chosenHeight.get() > 0 ? chosenHeight.get() : usual, LOWEST, highest());
  }

  private double highest() {
    return Math.max(LOWEST, windowHeight.getValue() - LEAVES);
  }

  /** Makes it, and the picture in it, as large as can be, or as it was again. */
  void enlarge() {
    if (height.get() < highest()) {
      heightBefore = chosenHeight.get();
      chosenHeight.set(highest());
    } else {
      chosenHeight.set(heightBefore < highest() ? heightBefore : 0);
    }
  }

  /** The picture gives way in a narrow window, and to a draft altogether. */
  private double pictureWidth() {
    double beside = getWidth() - ROOMY;
    double room = USUAL_PICTURE + (beside < 0 ? GIVES_WAY * beside : beside);
    double wanted = (height.get() - 2 * PADDING) * 16 / 9;
    return Math.max(USUAL_PICTURE / 2, Math.min(wanted, room));
  }

  /** Its upper edge drags; a double-click gives the usual height back. */
  private void takeMouse() {
    setOnMouseMoved(e -> setCursor(isOnEdge(e) ? Cursor.V_RESIZE : null));
    setOnMouseExited(e -> setCursor(null));
    setOnMousePressed(
        e -> {
          pressedAt = isOnEdge(e) ? e.getScreenY() : Double.NaN;
          pressedHeight = height.get();
          chosenAtPress = chosenHeight.get();
          if (isOnEdge(e) && e.getClickCount() == 2) {
            chosenHeight.set(0);
          }
        });
    setOnMouseDragged(
        e -> {
          if (!Double.isNaN(pressedAt)) {
            double to = pressedHeight + pressedAt - e.getScreenY();
            chosenHeight.set(Math.clamp(to, LOWEST, highest()));
          }
        });
    setOnMouseReleased(e -> pressedAt = Double.NaN);
  }

  /** Gives a drag of the upper edge or of the mix's level back; false when there is none. */
  boolean cancelDrag() {
    if (Double.isNaN(pressedAt)) {
      return mix.cancelDrag();
    }
    pressedAt = Double.NaN;
    chosenHeight.set(chosenAtPress);
    return true;
  }

  private static boolean isOnEdge(MouseEvent e) {
    return e.getButton() != MouseButton.SECONDARY && e.getY() < PADDING;
  }

  private static void showOnlyWhile(Node node, ObservableValue<Boolean> shown) {
    node.visibleProperty().bind(shown);
    node.managedProperty().bind(shown);
  }
}
