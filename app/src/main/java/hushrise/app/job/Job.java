package hushrise.app.job;

import hushrise.core.sound.Progress;
import java.util.OptionalDouble;
import java.util.concurrent.CancellationException;
import java.util.concurrent.atomic.AtomicLong;
import javafx.application.Platform;
import javafx.beans.property.ReadOnlyDoubleProperty;
import javafx.beans.property.ReadOnlyDoubleWrapper;

/** Something under way that a person may want to see or end. */
public final class Job {

  private static final long SHOW_EVERY_NANOS = 50_000_000L;

  private final String words;
  private final ReadOnlyDoubleWrapper fraction = new ReadOnlyDoubleWrapper();
  private final AtomicLong shownAt = new AtomicLong();
  private final Pace pace = new Pace();
  private volatile boolean cancelled;
  private volatile Runnable onCancel = () -> {};

  /**
   * @param words what it is
   */
  Job(String words) {
    this.words = words;
  }

  public String words() {
    return words;
  }

  /** How far it is, 0 to 1; changes on the window's thread. */
  public ReadOnlyDoubleProperty fractionProperty() {
    return fraction.getReadOnlyProperty();
  }

  /** How long it will still take at the pace so far, in seconds; empty while nobody can tell. */
  public OptionalDouble secondsLeft() {
    return pace.secondsLeft();
  }

  /** Ends it at the next opportunity. Any thread may do so. */
  public void cancel() {
    cancelled = true;
    onCancel.run();
  }

  /** Sets what else ending it does. */
  public void onCancel(Runnable also) {
    onCancel = also;
  }

  public boolean isCancelled() {
    return cancelled;
  }

  /** What the work tells how far it is; ends the work once it has been cancelled. */
  public Progress progress() {
    return part -> {
      if (cancelled) {
        throw new CancellationException();
      }
      long now = System.nanoTime();
      pace.at(part, now);
      long last = shownAt.get();
      if (now - last > SHOW_EVERY_NANOS && shownAt.compareAndSet(last, now)) {
        Platform.runLater(() -> fraction.set(part));
      }
    };
  }
}
