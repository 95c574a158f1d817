package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import javafx.geometry.Rectangle2D;
import org.junit.jupiter.api.Test;

class WindowPlaceTest {

  private static final Rectangle2D LEFT = new Rectangle2D(0, 25, 1366, 743);
  private static final Rectangle2D RIGHT = new Rectangle2D(1366, 0, 1920, 1080);

  private static Rectangle2D fitting(double x, double y, double width, double height) {
    return WindowPlace.fitting(new Rectangle2D(x, y, width, height), List.of(LEFT, RIGHT));
  }

  @Test
  void aPlaceOnAScreenIsKept() {
    assertThat(fitting(1500, 100, 1280, 800)).isEqualTo(new Rectangle2D(1500, 100, 1280, 800));
  }

  @Test
  void aWindowIsNoLargerThanTheScreenThatShowsMostOfIt() {
    assertThat(fitting(10, 30, 1280, 800)).isEqualTo(new Rectangle2D(10, 25, 1280, 743));
    assertThat(fitting(1300, 500, 3000, 2000)).isEqualTo(RIGHT);
  }

  @Test
  void aWindowOfAScreenThatIsGoneComesToTheFirst() {
    assertThat(fitting(4000, 100, 1000, 700)).isEqualTo(new Rectangle2D(366, 68, 1000, 700));
    assertThat(fitting(-2000, -900, 1000, 700)).isEqualTo(new Rectangle2D(0, 25, 1000, 700));
  }
}
