package hushrise.app.widget;

import javafx.event.Event;
import javafx.event.EventType;

/** Something that was typed was not taken, and why; it goes up to whoever tells the person. */
public final class Refused extends Event {

  public static final EventType<Refused> TYPE = new EventType<>(Event.ANY, "REFUSED");

  private static final long serialVersionUID = 1;

  private final String typed;
  private final String takes;

  /**
   * @param typed what was typed
   * @param takes what the field takes, in a sentence
   */
  public Refused(String typed, String takes) {
    super(TYPE);
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
