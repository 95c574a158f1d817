package hushrise.app.window;

import java.util.concurrent.Callable;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import javafx.geometry.Point2D;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import org.testfx.api.FxRobot;
import org.testfx.robot.Motion;
import org.testfx.service.query.PointQuery;
import org.testfx.util.WaitForAsyncUtils;

/**
 * A robot that waits for the window after each act for as long as its platform needs. TestFX's own
 * waits five rounds after every key and button, and its pointer takes up to 200 steps on its way.
 */
final class QuickRobot extends FxRobot {

  private static final int STEPS = 8;
  private static final double NEAR = 8;

  /** That platform has done what it was told when it returns; a display tells it later. */
  private static final boolean HEADLESS = "Headless".equals(System.getProperty("glass.platform"));

  private static final int ROUNDS = HEADLESS ? 3 : 5;

  /** Two presses of one place within this time are one double-click. */
  private static final long DOUBLE_CLICK_MILLIS = 550;

  private static final long CLICK_ARRIVES_NANOS = 400_000_000;

  private final AtomicInteger released = new AtomicInteger();
  private Point2D clicked = Point2D.ZERO;
  private long clickedAt = System.nanoTime() - DOUBLE_CLICK_MILLIS * 1_000_000;

  /** Waits until the window has done what it has been told, and has been laid out after it. */
  static void settle() {
    WaitForAsyncUtils.waitForFxEvents(ROUNDS);
  }

  @Override
  public QuickRobot interact(Runnable act) {
    interactNoWait(act);
    settle();
    return this;
  }

  @Override
  public <T> QuickRobot interact(Callable<T> act) {
    interactNoWait(act);
    settle();
    return this;
  }

  @Override
  public QuickRobot press(KeyCode... keys) {
    robotContext().getKeyboardRobot().pressNoWait(keys);
    settle();
    return this;
  }

  @Override
  public QuickRobot release(KeyCode... keys) {
    robotContext().getKeyboardRobot().releaseNoWait(keys);
    settle();
    return this;
  }

  /** Presses the keys one after another and lets go of them, the last one first. */
  @Override
  public QuickRobot push(KeyCode... keys) {
    robotContext().getKeyboardRobot().pressNoWait(keys);
    for (int i = keys.length - 1; i >= 0; i--) {
      robotContext().getKeyboardRobot().releaseNoWait(keys[i]);
    }
    settle();
    return this;
  }

  @Override
  public QuickRobot press(MouseButton... buttons) {
    robotContext().getMouseRobot().pressNoWait(buttons);
    settle();
    return this;
  }

  @Override
  public QuickRobot release(MouseButton... buttons) {
    robotContext().getMouseRobot().releaseNoWait(buttons);
    settle();
    return this;
  }

  /** Tells that a button's release has arrived in the window. */
  void released() {
    released.incrementAndGet();
  }

  /** Waits a moment for a release; one over a menu goes to a window of its own. */
  private void awaitRelease(int before) {
    long end = System.nanoTime() + CLICK_ARRIVES_NANOS;
    while (released.get() == before && System.nanoTime() < end) {
      WaitForAsyncUtils.sleep(2, TimeUnit.MILLISECONDS);
    }
    settle();
  }

  /** Clicks once: a click of the same place just before it is not to make a double-click of it. */
  @Override
  public QuickRobot clickOn(MouseButton... buttons) {
    Point2D here = robotContext().getBaseRobot().retrieveMouse();
    long since = (System.nanoTime() - clickedAt) / 1_000_000;
    if (here.distance(clicked) < NEAR && since < DOUBLE_CLICK_MILLIS) {
      sleep(DOUBLE_CLICK_MILLIS - since);
    }
    clicked = here;
    clickedAt = System.nanoTime();
    int before = released.get();
    press(buttons);
    release(buttons);
    if (!HEADLESS) {
      awaitRelease(before);
    }
    return this;
  }

  @Override
  public QuickRobot clickOn(PointQuery place, Motion way, MouseButton... buttons) {
    moveTo(place, way);
    return clickOn(buttons);
  }

  /**
   * Goes there straight, in a few steps, and to where the place is by then. In TestFX's own small
   * ones on a display, which is shown what lies between, and with a button held, as the headless
   * platform gives a drag to what lies under the pointer.
   */
  @Override
  public FxRobot moveTo(PointQuery place, Motion way) {
    if (!HEADLESS || !robotContext().getMouseRobot().getPressedButtons().isEmpty()) {
      return super.moveTo(place, way);
    }
    Point2D from = robotContext().getBaseRobot().retrieveMouse();
    Point2D to = place.query();
    for (int step = 1; step < STEPS; step++) {
      robotContext().getMouseRobot().moveNoWait(from.interpolate(to, (double) step / STEPS));
    }
    robotContext().getMouseRobot().moveNoWait(place.query());
    settle();
    return this;
  }
}
