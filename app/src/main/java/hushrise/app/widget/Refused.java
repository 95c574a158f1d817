package hushrise.app.widget;

import javafx.event.Event;
import javafx.event.EventType;

/** Something that was typed was not taken, and why; it goes up to whoever tells the person. */
public final class Refused extends Event {

  public static final EventType<Refused> TYPE = new EventType<>(Event.ANY, "REFUSED");

  /** That which was refused is not there any more: another value stands in its place. */
  public static final EventType<Refused> OVER = new EventType<>(Event.ANY, "REFUSED_OVER");

  private static final long serialVersionUID = 1;

  private final String typed;
  private final String takes;

  /**
   * @param type {@link #TYPE} or {@link #OVER}
   * @param typed what was typed
   * @param takes what the field takes, in a sentence
   */
  Refused(EventType<Refused> type, String typed, String takes) {
    super(type);
    this.typed = typed;
    this.takes = takes;
  }

  /** What was typed. */
  public String typed() {
    return typed;
  }

  /** What the field takes, in a sentence. */
  public String takes() {
    return takes;
  }
}
