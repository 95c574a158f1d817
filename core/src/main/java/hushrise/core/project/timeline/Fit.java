package hushrise.core.project.timeline;

import hushrise.core.time.Span;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * How a music clip keeps to a length: what a person chose, from which its content follows whenever
 * the picture's length changes.
 *
 * @param mode trim, loop or tailor
 * @param anchorFrame where on the timeline the clip was placed; tailored music may start a little
 *     later, so that its ending lands exactly
 * @param untilFrame where on the timeline it has to end; empty: with the picture
 * @param part which part of the media may be heard; empty: all of it
 * @param introFrames how much of the song's beginning is never repeated
 * @param outroFrames how much of the song's ending is never repeated
 * @param rejected jumps that are not wanted again
 * @param preferred jumps that were moved by hand and are to be kept
 * @param leewayFrames by how much tailored music may miss the length: it then ends that much
 *     sooner, or is faded out where it would end that much later; empty: not at all
 */
@RecordBuilder
public record Fit(
    FitMode mode,
    long anchorFrame,
    Optional<Long> untilFrame,
    Optional<Span> part,
    long introFrames,
    long outroFrames,
    List<Jump> rejected,
    List<Jump> preferred,
    Optional<Long> leewayFrames)
    implements FitBuilder.With {

  public Fit {
    untilFrame = untilFrame == null ? Optional.empty() : untilFrame;
    part = part == null ? Optional.empty() : part;
    rejected = rejected == null ? List.of() : List.copyOf(rejected);
    preferred = preferred == null ? List.of() : List.copyOf(preferred);
    leewayFrames = leewayFrames == null ? Optional.empty() : leewayFrames.filter(l -> l != 0);
    if (introFrames < 0 || outroFrames < 0) {
      throw new IllegalArgumentException("A protected part cannot be shorter than nothing");
    }
    if (leewayFrames.filter(l -> l < 0).isPresent()) {
      throw new IllegalArgumentException("A length cannot be missed by less than nothing");
    }
  }

  /** A fit to the film's end. */
  public static Fit of(FitMode mode, long anchorFrame) {
    return new Fit(
        mode,
        anchorFrame,
        Optional.empty(),
        Optional.empty(),
        0,
        0,
        List.of(),
        List.of(),
        Optional.empty());
  }

  /** This fit with other parts that are never repeated. */
  public Fit withProtected(long intro, long outro) {
    return with(b -> b.introFrames(intro).outroFrames(outro));
  }

  /** This fit with another length by which it may miss the end; 0 for none. */
  public Fit withLeeway(long frames) {
    return with(b -> b.leewayFrames(Optional.of(frames)));
  }

  /**
   * This fit without a jump: the next best one takes its place.
   *
   * @param near how near a jump counts as the same one, in frames
   */
  public Fit rejecting(Jump jump, long near) {
    List<Jump> more = new ArrayList<>(rejected);
    more.add(jump);
    List<Jump> rest = preferred.stream().filter(j -> !j.isNear(jump, near)).toList();
    return with(b -> b.rejected(more).preferred(rest));
  }

  /**
   * This fit with a jump in another one's place.
   *
   * @param near how near a jump counts as the same one, in frames
   */
  public Fit replacing(Jump old, Jump jump, long near) {
    Fit without = rejecting(old, near);
    List<Jump> kept = new ArrayList<>(without.preferred);
    kept.add(jump);
    List<Jump> others = without.rejected.stream().filter(j -> !j.isNear(jump, near)).toList();
    return with(b -> b.rejected(others).preferred(kept));
  }

  /** This fit with nothing rejected or preferred. */
  public Fit forgetting() {
    return with(b -> b.rejected(List.of()).preferred(List.of()));
  }
}
