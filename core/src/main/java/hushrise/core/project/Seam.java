package hushrise.core.project;

/**
 * Where a clip's content jumps within its media: a repeat or a cut, crossfaded with equal power.
 *
 * @param atFrame the middle of the crossfade, in frames from the clip's start
 * @param fromFrame the media frame that has been reached there
 * @param toFrame the media frame that goes on from there
 * @param crossfadeFrames the crossfade's whole length
 * @param score how alike both sides sound, 0 to 1
 */
public record Seam(long atFrame, long fromFrame, long toFrame, long crossfadeFrames, double score) {

  public Seam {
    if (crossfadeFrames < 0 || !(score >= 0 && score <= 1)) {
      throw new IllegalArgumentException(
          "Not a seam: crossfade " + crossfadeFrames + ", score " + score);
    }
  }
}
