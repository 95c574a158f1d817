package hushrise.app.widget;

import static hushrise.app.words.Texts.text;

import java.util.function.DoubleConsumer;
import javafx.scene.control.Slider;
import javafx.scene.control.Tooltip;

/** Where between left (-1) and right (1) a track sounds. A double-click puts it in the middle. */
public final class PanSlider extends Slider {

  /** What is this near the middle is the middle. */
  private static final double MIDDLE = 0.04;

  private final DoubleConsumer dragged;
  private final DoubleConsumer set;
  private double shown;
  private boolean givenBack;

  /**
   * @param name what it is, for those who do not see it
   * @param dragged is told where the pointer has it
   * @param set is told where it was put at once, as by a key
   * @param letGo runs when the pointer lets go
   */
  public PanSlider(String name, DoubleConsumer dragged, DoubleConsumer set, Runnable letGo) {
    super(-1, 1, 0);
    this.dragged = dragged;
    this.set = set;
    getStyleClass().add("pan");
    setAccessibleText(name);
    setTooltip(new Tooltip(text("head.pan.tip")));
    setBlockIncrement(0.1);
    setMinWidth(40);
    setPrefWidth(60);
    valueProperty().addListener((p, was, now) -> moved(now.doubleValue()));
    valueChangingProperty()
        .addListener(
            (p, was, now) -> {
              if (!now) {
                givenBack = false;
                letGo.run();
              }
            });
    setOnMouseClicked(
        e -> {
          if (e.getClickCount() == 2) {
            setValue(0);
          }
        });
  }

  private void moved(double value) {
    if (givenBack) {
      setValue(shown);
      return;
    }
    double to = Math.abs(value) < MIDDLE ? 0 : value;
    if (value != shown && to != shown) {
      (isValueChanging() ? dragged : set).accept(to);
    }
  }

  /** Shows where the track sounds now; nothing moves under the pointer that holds it. */
  public void show(double pan) {
    shown = pan;
    if (!isHeld()) {
      setValue(pan);
    }
  }

  /** Whether a pointer moves it. */
  public boolean isHeld() {
    return isValueChanging() && !givenBack;
  }

  /** From now on the pointer that holds it moves nothing, until it lets go. */
  public void cancel() {
    givenBack = isValueChanging();
  }
}
