package hushrise.core.project.timeline;

import java.util.Optional;

/**
 * Where a clip's content jumps within its media: a repeat or a cut, crossfaded so that the power
 * stays even.
 *
 * @param atFrame the middle of the crossfade, in frames from the clip's start
 * @param fromFrame the media frame that has been reached there
 * @param toFrame the media frame that goes on from there
 * @param crossfadeFrames the crossfade's whole length
 * @param score how alike both sides sound, 0 to 1; 0 when that was not rated
 * @param correlation how far both sides are the same wave, 0 to 1: 0 crossfades with equal power, 1
 *     with equal gain
 * @param evening what brings both sides to one loudness; empty: nothing
 */
public record Seam(
    long atFrame,
    long fromFrame,
    long toFrame,
    long crossfadeFrames,
    double score,
    double correlation,
    Optional<Evening> evening) {

  /** The most that a seam may be evened, in dB. */
  public static final double MOST_GAIN_DB = 1.5;

  /**
   * What evens the levels of both sides.
   *
   * @param gainDb by how much the side that goes on is turned up where it takes over
   * @param frames over how many frames after the crossfade that gain returns to 0 dB
   */
  public record Evening(double gainDb, long frames) {

    public Evening {
      if (!(Math.abs(gainDb) <= MOST_GAIN_DB) || frames < 0) {
        throw new IllegalArgumentException(
            "A seam cannot be evened by " + gainDb + " dB over " + frames + " frames");
      }
    }
  }

  public Seam {
    evening = evening == null ? Optional.empty() : evening;
    if (crossfadeFrames < 0
        || !(score >= 0 && score <= 1)
        || !(correlation >= 0 && correlation <= 1)) {
      throw new IllegalArgumentException(
          "Not a seam: crossfade " + crossfadeFrames + ", score " + score);
    }
  }

  /** Whether a join will be heard, in a word. */
  public enum Heard {
    UNHEARD,
    FAINT,
    NOTICED,
    /** Nobody has compared both sides. */
    UNRATED
  }

  /** The score of the nearest 0.5 % and of the nearest 2 % of all pairs of places of a song. */
  private static final double LEAST_UNHEARD = 0.74;

  private static final double LEAST_FAINT = 0.38;

  /** Whether it will be heard, as far as its score tells. */
  public Heard heard() {
    if (score == 0) {
      return Heard.UNRATED;
    }
    return score >= LEAST_UNHEARD
        ? Heard.UNHEARD
        : score >= LEAST_FAINT ? Heard.FAINT : Heard.NOTICED;
  }

  /** A seam between unrelated sounds. */
  public Seam(long atFrame, long fromFrame, long toFrame, long crossfadeFrames, double score) {
    this(atFrame, fromFrame, toFrame, crossfadeFrames, score, 0, Optional.empty());
  }

  /** The first frame of the crossfade, from the clip's start. */
  public long startFrame() {
    return atFrame - crossfadeFrames / 2;
  }

  /** The frame after the crossfade, from the clip's start. */
  public long endFrame() {
    return startFrame() + crossfadeFrames;
  }

  /** This seam seen from a clip that starts {@code frames} later. */
  public Seam earlierBy(long frames) {
    return new Seam(
        atFrame - frames, fromFrame, toFrame, crossfadeFrames, score, correlation, evening);
  }

  /**
   * What evening the levels of both sides adds at a time, in dB: it comes with the crossfade and
   * goes over the frames after it.
   *
   * @param clipFrame frames from the clip's start
   */
  public double evenedDbAt(long clipFrame) {
    if (evening.isEmpty()) {
      return 0;
    }
    double gainDb = evening.get().gainDb();
    long evenFrames = evening.get().frames();
    long end = endFrame();
    if (clipFrame <= startFrame() || clipFrame >= end + evenFrames) {
      return 0;
    }
    return clipFrame < end
        ? gainDb * (clipFrame - startFrame()) / crossfadeFrames
        : gainDb * (end + evenFrames - clipFrame) / evenFrames;
  }
}
