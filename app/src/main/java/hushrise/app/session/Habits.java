package hushrise.app.session;

import hushrise.core.project.level.Turn;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.DoubleProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleDoubleProperty;

/** How the person works: what goes along, what counts as hot, and what was given last. */
public final class Habits {

  private final BooleanProperty carriesKeyframes = new SimpleBooleanProperty(true);
  private final BooleanProperty snaps = new SimpleBooleanProperty(true);
  private final BooleanProperty followsPlayhead = new SimpleBooleanProperty(true);
  private final DoubleProperty hotDb = new SimpleDoubleProperty(-6);
  private Turn lastTurn = Turn.DEFAULT;
  private double lastRiseDb = 3;

  /** Whether keyframes go along when the clips under them are moved. */
  public BooleanProperty carriesKeyframesProperty() {
    return carriesKeyframes;
  }

  public boolean carriesKeyframes() {
    return carriesKeyframes.get();
  }

  /** Whether what is dragged is drawn to clip ends, markers, cuts and the playhead. */
  public BooleanProperty snapsProperty() {
    return snaps;
  }

  /** Whether the timeline keeps the playhead in view while playing. */
  public BooleanProperty followsPlayheadProperty() {
    return followsPlayhead;
  }

  /** From which level on sound counts as hot, in dBFS. */
  public DoubleProperty hotDbProperty() {
    return hotDb;
  }

  /** The times that were given to a hush or a span last; new ones begin with them. */
  public Turn lastTurn() {
    return lastTurn;
  }

  public void setLastTurn(Turn turn) {
    lastTurn = turn;
  }

  /** How high the last rise was, in dB. */
  public double lastRiseDb() {
    return lastRiseDb;
  }

  public void setLastRiseDb(double db) {
    lastRiseDb = db;
  }
}
