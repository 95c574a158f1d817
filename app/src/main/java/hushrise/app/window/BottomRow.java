package hushrise.app.window;

import hushrise.app.panel.DetailPane;
import hushrise.app.panel.DraftPane;
import hushrise.app.panel.MixPane;
import hushrise.app.panel.PicturePane;
import hushrise.app.panel.SecondEarPane;
import hushrise.app.session.Session;
import java.util.Optional;
import javafx.beans.binding.Bindings;
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
  private static final double MIX_WIDTH = 212;

  /** From this width on everything has the room it wants. */
  private static final double ROOMY = 1240;

  private static final double GIVES_WAY = 0.7;

  BottomRow(
      Session session,
      PicturePane picture,
      DetailPane detail,
      SecondEarPane secondEar,
      DraftPane draft,
      MixPane mix) {
    super(PADDING, picture, detail, secondEar, draft, mix);
    picture
        .minWidthProperty()
        .bind(Bindings.createDoubleBinding(this::pictureWidth, widthProperty()));
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
    getStyleClass().add("bottom");
    setMinHeight(HEIGHT);
    setMaxHeight(HEIGHT);
  }

  /** The picture gives way in a narrow window, and to a draft altogether. */
  private double pictureWidth() {
    double whole = (HEIGHT - 2 * PADDING) * 16 / 9;
    return Math.clamp(whole - GIVES_WAY * (ROOMY - getWidth()), whole / 2, whole);
  }

  private static void showOnlyWhile(Node node, ObservableValue<Boolean> shown) {
    node.visibleProperty().bind(shown);
    node.managedProperty().bind(shown);
  }
}
