package hushrise.app.timeline;

import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Track;
import java.util.ArrayList;
import java.util.List;

/**
 * How high the rows of tracks are, so that they take just the room there is. Those that were given
 * a height, or cannot be as low as the others become, leave that much less; rows that would become
 * too low take more than there is, and are scrolled.
 */
final class RowHeights {

  /** Rows are never set smaller than this part of their usual height. */
  private static final double LEAST_SCALE = 0.62;

  private static final double MOST_SCALE = 1.6;

  /** A head needs room for its name and its fader. */
  private static final double LEAST_HEIGHT = 46;

  private final double density;

  private RowHeights(double density) {
    this.density = density;
  }

  /**
   * The height of each track's row.
   *
   * @param room for all of them, in the window's units
   * @param density pixels of the screen to a unit; rows end on them
   */
  static List<Double> of(List<Track> tracks, double room, double density) {
    RowHeights heights = new RowHeights(density);
    double scale = heights.scale(tracks, room);
    return tracks.stream().map(t -> heights.height(t, scale)).toList();
  }

  private static double usual(Track track) {
    return switch (track.kind()) {
      case PICTURE, EFFECTS, CAMERA -> 54;
      case VOICE -> 96;
      case MUSIC -> 196;
    };
  }

  private double scale(List<Track> tracks, double room) {
    List<Track> free = new ArrayList<>(tracks);
    double left = room;
    double scale = MOST_SCALE;
    while (!free.isEmpty()) {
      double total = free.stream().mapToDouble(RowHeights::usual).sum();
      scale = Math.clamp(left / total, LEAST_SCALE, MOST_SCALE);
      double at = scale;
      List<Track> set = free.stream().filter(t -> height(t, at) != scaled(t, at)).toList();
      if (set.isEmpty()) {
        break;
      }
      left -= set.stream().mapToDouble(t -> height(t, at)).sum();
      free.removeAll(set);
    }
    return scale;
  }

  private double height(Track track, double scale) {
    double least = track.kind() == TrackKind.PICTURE ? 0 : LEAST_HEIGHT;
    double own = track.rowHeight() > 0 ? track.rowHeight() : least;
    double up = Math.ceil(own * density) / density;
    return track.rowHeight() > 0 ? up : Math.max(up, scaled(track, scale));
  }

  private double scaled(Track track, double scale) {
    return Math.floor(usual(track) * scale * density) / density;
  }
}
