package hushrise.core.mix;

/** Working space that the clips of one mixer share, as they are rendered one after another. */
@SuppressWarnings("ArrayRecordComponent") // never compared
record Scratch(
    float[] left,
    float[] right,
    float[] otherLeft,
    float[] otherRight,
    float[] factors,
    float[] gains) {

  Scratch() {
    this(
        new float[Mixer.BLOCK],
        new float[Mixer.BLOCK],
        new float[Mixer.BLOCK],
        new float[Mixer.BLOCK],
        new float[Mixer.CELLS + 2],
        new float[Mixer.BLOCK]);
  }
}
