package hushrise.core.level;

import hushrise.core.Decibels;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.CrossfadeShape;
import hushrise.core.project.timeline.Seam;
import hushrise.core.project.timeline.Track;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * How a clip's own level runs over time as an amplitude factor: its fades, its crossfades with
 * clips of its track that overlap it, and what its seams even. Immutable.
 *
 * <p>Where one clip starts while another still sounds and outlasts it, the earlier gives way over
 * the overlap, in the shape of the later one. A clip that lies wholly within another sounds
 * together with it.
 */
public final class ClipEnvelope {

  /** One crossfade: from where to where, in which shape, and whether the clip comes in. */
  private record Cross(long startFrame, long endFrame, CrossfadeShape shape, boolean comesIn) {

    double factorAt(long frame) {
      double passed = Math.clamp((frame - startFrame) / (double) (endFrame - startFrame), 0.0, 1.0);
      return shape.factorAt(comesIn ? passed : 1 - passed);
    }
  }

  private final Clip clip;
  private final List<Cross> crosses;
  private final Seam[] evened;

  private ClipEnvelope(Clip clip, List<Cross> crosses) {
    this.clip = clip;
    this.crosses = List.copyOf(crosses);
    this.evened = clip.seams().stream().filter(s -> s.evening().isPresent()).toArray(Seam[]::new);
  }

  /** The envelopes of a track's clips by the clips' ids. */
  public static Map<String, ClipEnvelope> of(Track track) {
    Map<String, List<Cross>> crosses = new HashMap<>();
    List<Clip> ordered = track.clipsInTime();
    ordered.forEach(c -> crosses.put(c.id(), new ArrayList<>(2)));
    List<Clip> sounding = new ArrayList<>();
    for (Clip in : ordered) {
      sounding.removeIf(c -> c.endFrame() <= in.startFrame());
      for (Clip out : sounding) {
        if (out.startFrame() < in.startFrame() && out.endFrame() < in.endFrame()) {
          crosses
              .get(in.id())
              .add(new Cross(in.startFrame(), out.endFrame(), in.crossfade(), true));
          crosses
              .get(out.id())
              .add(new Cross(in.startFrame(), out.endFrame(), in.crossfade(), false));
        }
      }
      sounding.add(in);
    }
    Map<String, ClipEnvelope> result = new HashMap<>();
    ordered.forEach(c -> result.put(c.id(), new ClipEnvelope(c, crosses.get(c.id()))));
    return result;
  }

  /** The factor of fades, crossfades and evened seams at a timeline frame; at least 0. */
  public double factorAt(long frame) {
    double factor = clip.fadeFactorAt(frame);
    for (int i = 0; i < crosses.size(); i++) {
      factor *= crosses.get(i).factorAt(frame);
    }
    return evened.length == 0 ? factor : factor * evenedFactorAt(frame - clip.startFrame());
  }

  private double evenedFactorAt(long clipFrame) {
    int low = 0;
    int high = evened.length;
    while (low < high) {
      int middle = (low + high) >>> 1;
      if (evened[middle].startFrame() < clipFrame) {
        low = middle + 1;
      } else {
        high = middle;
      }
    }
    double db = low == 0 ? 0 : evened[low - 1].evenedDbAt(clipFrame);
    return db == 0 ? 1 : Decibels.toFactor(db);
  }

  /** Whether a frame lies in a crossfade. */
  public boolean isCrossing(long frame) {
    return crosses.stream().anyMatch(c -> frame > c.startFrame() && frame < c.endFrame());
  }
}
