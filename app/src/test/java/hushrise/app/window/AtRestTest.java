package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.Map;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import org.junit.jupiter.api.Test;

/** A window that nobody touches stays as it is: nothing in it grows or moves on and on. */
class AtRestTest extends SurveyTestCase {

  /** How often a view is looked at until it has come to rest: some seconds. */
  private static final int LOOKS = 100;

  private Map<Node, Bounds> places() {
    Map<Node, Bounds> places = new HashMap<>();
    robot.interact(
        () ->
            within(window.root()).forEach(n -> places.put(n, n.localToScene(n.getLayoutBounds()))));
    return places;
  }

  @Test
  void everyViewComesToRest() {
    everywhere(
        where -> {
          Map<Node, Bounds> before = places();
          int still = 0;
          for (int i = 0; i < LOOKS && still < 3; i++) {
            Map<Node, Bounds> now = places();
            still = now.equals(before) ? still + 1 : 0;
            before = now;
          }
          assertThat(still)
              .as("looks at %s in which all stood still".formatted(where))
              .isEqualTo(3);
        });
  }
}
