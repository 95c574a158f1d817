package hushrise.core.project;

import hushrise.core.Problem;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.Rise;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import java.util.List;
import java.util.OptionalLong;
import java.util.function.ToLongFunction;

/** How much a project can hold: far more than anybody needs, and no more than can be read again. */
public final class Limits {

  /** The longest time of anything, in hours. */
  public static final int MOST_HOURS = 48;

  public static final int MOST_TRACKS = 1000;

  /** How many clips, hushes or rises of a track may lie over one another. */
  public static final int MOST_AT_ONCE = 256;

  private Limits() {}

  /**
   * Lets a project pass that can be read again from its file.
   *
   * @throws Problem when there is more in it
   */
  public static void require(Project project) {
    if (project.tracks().size() > MOST_TRACKS) {
      throw new Problem(
          "Nothing was changed: a project holds %d tracks at most.".formatted(MOST_TRACKS));
    }
    if (reachFrame(project) > MOST_HOURS * 3600L * project.sampleRate()) {
      throw new Problem(
          "Nothing was changed: no project can be longer than %d hours.".formatted(MOST_HOURS));
    }
    for (Track track : project.tracks()) {
      if (crowd(track.clips(), Clip::startFrame, Clip::endFrame).isPresent()
          || crowd(track.hushes(), Hush::startFrame, Hush::endFrame).isPresent()
          || crowd(track.rises(), Rise::startFrame, Rise::endFrame).isPresent()) {
        throw new Problem(
            "Nothing was changed: more than %d things would lie over one another on %s."
                .formatted(MOST_AT_ONCE, track.name()));
      }
    }
  }

  /** The last frame that anything in a project reaches. */
  private static long reachFrame(Project project) {
    long reach = 0;
    for (var media : project.shelf()) {
      reach = Math.max(reach, media.lengthFrames());
    }
    for (var marker : project.markers()) {
      reach = Math.max(reach, marker.frame());
    }
    for (Track track : project.tracks()) {
      reach = Math.max(reach, track.reachFrame());
    }
    return reach;
  }

  /**
   * Where more things than {@link #MOST_AT_ONCE} lie over one another; empty where they nowhere do.
   *
   * @param start the first frame of a thing
   * @param end the first frame after it
   */
  public static <T> OptionalLong crowd(
      List<T> things, ToLongFunction<T> start, ToLongFunction<T> end) {
    if (things.size() <= MOST_AT_ONCE) {
      return OptionalLong.empty();
    }
    long[] starts = things.stream().mapToLong(start).sorted().toArray();
    long[] ends = things.stream().mapToLong(end).sorted().toArray();
    int ended = 0;
    for (int i = 0; i < starts.length; i++) {
      while (ended < ends.length && ends[ended] <= starts[i]) {
        ended++;
      }
      if (i + 1 - ended > MOST_AT_ONCE) {
        return OptionalLong.of(starts[i]);
      }
    }
    return OptionalLong.empty();
  }
}
