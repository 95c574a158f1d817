package hushrise.core.ride;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;

/**
 * What a hand did to one track from when playing began until it stopped: strokes, each from where
 * the fader was touched on. A jump of the playhead ends a stroke.
 */
public final class Pass {

  /**
   * Where the level was at a frame.
   *
   * @param levelDb from {@code OFF_DB} up
   */
  public record Point(long frame, double levelDb) {}

  private final List<List<Point>> strokes = new ArrayList<>();

  /**
   * Goes on with the last stroke, or begins another.
   *
   * @param begins whether the fader was touched here
   */
  public void add(long frame, double levelDb, boolean begins) {
    if (begins || strokes.isEmpty() || strokes.getLast().getLast().frame() >= frame) {
      strokes.add(new ArrayList<>());
    }
    List<Point> stroke = strokes.getLast();
    int size = stroke.size();
    boolean stood =
        size > 1
            && stroke.get(size - 1).levelDb() == levelDb
            && stroke.get(size - 2).levelDb() == levelDb;
    if (stood) {
      stroke.set(size - 1, new Point(frame, levelDb));
    } else {
      stroke.add(new Point(frame, levelDb));
    }
  }

  public boolean isEmpty() {
    return strokes.isEmpty();
  }

  /** How many strokes have begun. */
  public int strokeCount() {
    return strokes.size();
  }

  /** A stroke as far as it has come, in order of time; at least one point. */
  public List<Point> stroke(int index) {
    return strokes.get(index);
  }

  /** The strokes in the order in which they were made; each in order of time. */
  public List<List<Point>> strokes() {
    return strokes.stream().filter(s -> s.size() > 1).map(Collections::unmodifiableList).toList();
  }
}
