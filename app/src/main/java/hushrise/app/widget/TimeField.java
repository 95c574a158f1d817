package hushrise.app.widget;

import static hushrise.app.words.Texts.text;

import hushrise.core.time.FrameRate;
import hushrise.core.time.Timecode;
import java.util.OptionalLong;
import java.util.function.IntSupplier;
import java.util.function.LongConsumer;
import java.util.function.Supplier;

/** A place in time as timecode; it steps by picture frames. */
public final class TimeField extends TypedField {

  private Supplier<FrameRate> rate = () -> FrameRate.DEFAULT;
  private IntSupplier sampleRate = () -> 48_000;
  private LongConsumer taken = frame -> {};
  private long shownFrame;

  public TimeField() {
    getStyleClass().addAll("time-field", "timecode");
    Takes.selectByPress(this);
    onTyped(this::typed);
    onStep((direction, fine) -> step(direction));
  }

  /** Sets by which rates time is counted. */
  public void setRate(Supplier<FrameRate> picture, IntSupplier samples) {
    rate = picture;
    sampleRate = samples;
  }

  /** Sets what a typed time does, in sample frames. */
  public void onTime(LongConsumer edit) {
    taken = edit;
  }

  /** Shows a place, unless somebody has begun to type another. */
  public void show(long frame) {
    shownFrame = frame;
    show(words());
  }

  private String words() {
    return Timecode.format(shownFrame, rate.get(), sampleRate.getAsInt());
  }

  private void typed(String words) {
    OptionalLong typed = Timecode.parse(words, rate.get(), sampleRate.getAsInt());
    if (typed.isEmpty()) {
      refuse(words(), text("field.time.wrong"));
      return;
    }
    taken.accept(typed.getAsLong());
    show(words());
  }

  private void step(int direction) {
    long picture = rate.get().pictureFrameAt(shownFrame, sampleRate.getAsInt()) + direction;
    taken.accept(rate.get().sampleFrameOf(Math.max(0, picture), sampleRate.getAsInt()));
  }
}
