package hushrise.app;

import hushrise.app.panel.DetailPane;
import hushrise.app.panel.DraftPane;
import hushrise.app.panel.MetersPane;
import hushrise.app.panel.PicturePane;
import hushrise.app.panel.SecondEarPane;
import java.util.Optional;
import javafx.beans.value.ObservableValue;
import javafx.scene.Node;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;

/**
 * What lies under the timeline: the picture, the selected thing, the Second Ear and the meters. A
 * draft that is shown takes the room of the two in the middle.
 */
final class BottomRow extends HBox {

  private static final double HEIGHT = 206;
  private static final double PADDING = 8;
  private static final double METERS_WIDTH = 132;

  BottomRow(
      Session session,
      PicturePane picture,
      DetailPane detail,
      SecondEarPane secondEar,
      DraftPane draft,
      MetersPane meters) {
    super(PADDING, picture, detail, secondEar, draft, meters);
    double pictureWidth = (HEIGHT - 2 * PADDING) * 16 / 9;
    picture.setMinWidth(pictureWidth);
    picture.setMaxWidth(pictureWidth);
    meters.setMinWidth(METERS_WIDTH);
    meters.setMaxWidth(METERS_WIDTH);
    detail.setPrefWidth(320);
    secondEar.setPrefWidth(360);
    for (Node wide : new Node[] {detail, secondEar, draft}) {
      setHgrow(wide, Priority.ALWAYS);
    }
    showOnlyWhile(draft, session.draftProperty().map(Optional::isPresent));
    showOnlyWhile(detail, session.draftProperty().map(Optional::isEmpty));
    showOnlyWhile(secondEar, session.draftProperty().map(Optional::isEmpty));
    getStyleClass().add("bottom");
    setMinHeight(HEIGHT);
    setMaxHeight(HEIGHT);
  }

  private static void showOnlyWhile(Node node, ObservableValue<Boolean> shown) {
    node.visibleProperty().bind(shown);
    node.managedProperty().bind(shown);
  }
}
