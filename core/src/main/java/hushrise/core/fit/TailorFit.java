package hushrise.core.fit;

import hushrise.core.Problem;
import hushrise.core.project.timeline.Fit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Brings a song to a length by jumping inside it, so that its own beginning and ending are kept.
 *
 * <p>Ways through the song grow by one jump at a time; of those that stand at nearly the same place
 * after nearly the same time the cheapest is kept, and of all the {@link #KEPT} that promise most.
 * A way ends by playing on to the song's end, with or without one more jump, for which the echoes
 * of just the lag that is missing are looked through. Playing on costs nothing, a jump costs what
 * it changes in sound and a little for being one. What is missing to the wanted length in the end,
 * less than a beat, is a pause before the first note.
 */
final class TailorFit {

  private static final int JOINTS = 300;
  private static final int KEPT = 1_200;
  private static final int MOST_JUMPS = 14;
  private static final int TRIED = 60;
  private static final double PLAY_ON_SECONDS = 2.5;
  private static final double SHORTEST_SECONDS = 2;
  private static final double COST_OF_JUMPING = 0.3;
  private static final double COST_OF_PAUSE = 0.15;

  /**
   * What a jump that is still to come is thought to cost for each song's length it has to bridge.
   */
  private static final double COST_TO_COME = 0.5;

  /**
   * A way so far.
   *
   * @param position the media frame that plays next
   * @param played how much has played up to there
   */
  private record Way(long position, long played, double cost, Optional<Way> before, Joint last) {

    List<Joint> jumps() {
      List<Joint> jumps = new ArrayList<>();
      Way way = this;
      while (way.before().isPresent()) {
        jumps.add(way.last());
        way = way.before().get();
      }
      return jumps.reversed();
    }
  }

  private final Song song;
  private final SongAnalysis analysis;
  private final Joints joints;
  private final String name;
  private final long wanted;
  private final long own;
  private final long playOn;
  private final long pause;

  private TailorFit(Song song, Fit fit, long lengthFrames, String name) {
    this.song = song;
    this.analysis = song.analysis();
    this.joints = new Joints(analysis, fit);
    this.name = name;
    this.wanted = lengthFrames;
    own = analysis.soundEnd() - analysis.soundStart();
    playOn = Math.min(analysis.frames(PLAY_ON_SECONDS), own / 8);
    pause = analysis.usualStretch();
  }

  /**
   * The song at a length.
   *
   * @param name what a person knows it as
   * @throws Problem when it cannot be brought to that length
   */
  static Arrangement arrange(Song song, Fit fit, long lengthFrames, String name) {
    return new TailorFit(song, fit, lengthFrames, name).arrange();
  }

  private Arrangement arrange() {
    List<Joint> known = joints.best(JOINTS, Math.min(analysis.frames(SHORTEST_SECONDS), own / 8));
    List<Way> done = new ArrayList<>();
    List<Way> ways = List.of(new Way(analysis.soundStart(), 0, 0, Optional.empty(), null));
    double best = Double.POSITIVE_INFINITY;
    for (int jumps = 0; jumps < MOST_JUMPS && !ways.isEmpty(); jumps++) {
      for (Way way : ways) {
        end(way, done);
      }
      double cheapest = done.stream().mapToDouble(Way::cost).min().orElse(best);
      ways = grown(ways, known, cheapest);
    }
    done.sort(Comparator.comparingDouble(Way::cost));
    for (Way way : done.subList(0, Math.min(TRIED, done.size()))) {
      List<Splice> splices = way.jumps().stream().map(song::splice).toList();
      long missing =
          wanted - Arrangement.lengthOf(analysis.soundStart(), analysis.soundEnd(), splices);
      if (missing >= 0 && missing <= Math.round(1.05 * pause)) {
        return new Arrangement(
            analysis.soundStart(),
            wanted - missing,
            missing,
            Arrangement.seamsOf(analysis.soundStart(), splices));
      }
    }
    throw impossible();
  }

  /** Ends a way by playing on, at once or after one more jump. */
  private void end(Way way, List<Way> done) {
    long missing = wanted - way.played() - (analysis.soundEnd() - way.position());
    if (missing >= 0 && missing <= pause) {
      done.add(way.before().isEmpty() ? way : withPause(way, missing));
    }
    for (Joint joint : joints.gaining(missing - pause, missing)) {
      if (joint.fromFrame() >= way.position() + playOn) {
        done.add(withPause(after(way, joint), missing - joint.gain()));
      }
    }
  }

  private Way withPause(Way way, long missing) {
    double cost = COST_OF_PAUSE * Math.max(0, missing) / pause;
    return new Way(way.position(), way.played(), way.cost() + cost, way.before(), way.last());
  }

  private static Way after(Way way, Joint joint) {
    return new Way(
        joint.toFrame(),
        way.played() + joint.fromFrame() - way.position(),
        way.cost() + Math.max(0.01, COST_OF_JUMPING + joint.cost()),
        Optional.of(way),
        joint);
  }

  private List<Way> grown(List<Way> ways, List<Joint> known, double cheapest) {
    Map<Long, Way> best = new HashMap<>();
    long second = analysis.sampleRate();
    for (Way way : ways) {
      for (Joint joint : known) {
        if (joint.fromFrame() < way.position() + playOn) {
          continue;
        }
        Way next = after(way, joint);
        if (next.played() + playOn <= wanted && next.cost() + COST_OF_JUMPING < cheapest) {
          long key = next.position() / second * 1_000_000 + 4 * next.played() / second;
          best.merge(key, next, (a, b) -> a.cost() <= b.cost() ? a : b);
        }
      }
    }
    return best.values().stream()
        .sorted(Comparator.comparingDouble(this::promise))
        .limit(KEPT)
        .toList();
  }

  private double promise(Way way) {
    long missing = wanted - way.played() - (analysis.soundEnd() - way.position());
    return way.cost() + COST_TO_COME * Math.abs(missing) / own;
  }

  private Problem impossible() {
    double rate = analysis.sampleRate();
    return new Problem(
        "%s (%.1f s) cannot be tailored to %.1f s with its own beginning and ending: %s; choose trim or loop, protect less of it, or give rejected seams back."
            .formatted(
                name,
                own / rate,
                wanted / rate,
                wanted < own
                    ? "too little would be left between them"
                    : "it has no places that lead back"));
  }
}
