package hushrise.core.mix;

/** Looks at what each track gives to the mix, block by block, on the rendering thread. */
@FunctionalInterface
public interface BusTap {

  /** Looks at nothing. */
  BusTap NONE = (bus, left, right, frames) -> {};

  /**
   * Looks at a track's sound after all its levels, before the level of the mix. A track that is
   * silent in a block is not told.
   *
   * @param bus the track's place among the project's tracks
   * @param frames how many of the arrays' frames count; at most 4 096
   */
  void bus(int bus, float[] left, float[] right, int frames);
}
