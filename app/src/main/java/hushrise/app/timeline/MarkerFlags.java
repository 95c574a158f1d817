package hushrise.app.timeline;

import hushrise.core.project.Marker;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/**
 * The flags of markers as they lie on the ruler, in the order in which they are drawn. Each is as
 * wide as its name, or as the next marker leaves it room; where there is next to none, it is a
 * stroke. That of the selected marker lies whole over the others.
 */
final class MarkerFlags {

  /** A flag that is narrower than this is a stroke. */
  static final double LEAST_WIDTH = 8;

  private static final double LETTER_WIDTH = 5.8;
  private static final double AROUND = 12;

  /** How far left of a marker it can be taken hold of. */
  private static final double REACH = 5;

  /**
   * A marker's flag.
   *
   * @param x where the marker is, in pixels
   * @param width how far it reaches to the right, in pixels
   */
  record Flag(Marker marker, double x, double width, boolean selected) {

    boolean isStroke() {
      return width < LEAST_WIDTH;
    }

    /** As much of the marker's name as there is room for. */
    String words() {
      if (width >= wholeWidth(marker)) {
        return marker.name();
      }
      int most = (int) ((width - AROUND) / LETTER_WIDTH);
      return most < 2 ? "" : marker.name().substring(0, most - 1) + "\u2026";
    }
  }

  private final List<Flag> drawn;

  /**
   * @param markers in any order
   * @param width of what is seen, in pixels
   * @param selected the id of the marker that is selected
   */
  MarkerFlags(List<Marker> markers, TimeAxis axis, double width, Optional<String> selected) {
    List<Marker> inOrder =
        markers.stream().sorted(Comparator.comparingLong(Marker::frame)).toList();
    drawn = new ArrayList<>();
    List<Flag> above = new ArrayList<>();
    double next = Double.POSITIVE_INFINITY;
    for (Marker marker : inOrder.reversed()) {
      double x = Math.round(axis.xOf(marker.frame()));
      boolean isSelected = selected.filter(marker.id()::equals).isPresent();
      double room = isSelected ? Double.POSITIVE_INFINITY : next - x;
      double flagWidth = Math.min(wholeWidth(marker), room);
      if (x <= width && x + flagWidth >= 0) {
        (isSelected ? above : drawn).add(new Flag(marker, x, flagWidth, isSelected));
      }
      next = x;
    }
    Collections.reverse(drawn);
    drawn.addAll(above);
  }

  private static double wholeWidth(Marker marker) {
    return AROUND + marker.name().length() * LETTER_WIDTH;
  }

  List<Flag> drawn() {
    return drawn;
  }

  /** The marker whose flag is seen at {@code x}; else one just right of it. */
  Optional<Marker> at(double x) {
    return drawn.reversed().stream()
        .filter(f -> x >= f.x() && x <= f.x() + Math.max(f.width(), 1))
        .findFirst()
        .or(
            () ->
                drawn.stream()
                    .filter(f -> x < f.x() && x >= f.x() - REACH)
                    .min(Comparator.comparingDouble(Flag::x)))
        .map(Flag::marker);
  }
}
