package hushrise.app.look;

import javafx.beans.value.ObservableValue;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.stage.Window;

/**
 * How many pixels of the screen make one unit of the window's own measure: 1 on most screens, 1.25
 * to 3 on fine ones. What is drawn in pixels is drawn in those of the screen.
 */
public final class Density {

  private Density() {}

  /** The density where a node is shown; 1 while it is shown nowhere. */
  public static ObservableValue<Double> of(Node node) {
    return node.sceneProperty()
        .flatMap(Scene::windowProperty)
        .flatMap(Window::renderScaleXProperty)
        .map(Number::doubleValue)
        .orElse(1.0);
  }
}
