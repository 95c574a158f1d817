package hushrise.demo;

/**
 * The demo's bed: 38 seconds of own composition at 101 beats a minute, sixteen bars of 4/4, in G.
 * Two eight-bar halves over the same chords; the second adds a melody, and the last chord rings
 * out.
 */
final class HarbourTune {

  private static final double BEAT = 38.0 / 64;
  private static final int[][] CHORDS = {
    {43, 59, 62, 67}, {50, 57, 62, 66}, {52, 59, 64, 67}, {48, 60, 64, 67},
    {43, 59, 62, 67}, {47, 59, 62, 66}, {48, 60, 64, 67}, {50, 57, 62, 66},
  };
  private static final int[] PATTERN = {1, 2, 3, 2, 1, 3, 2, 3};
  private static final int[][] MELODY = {
    {0, 74}, {3, 71}, {4, 69}, {7, 66}, {8, 67}, {10, 71}, {12, 72}, {14, 76}, {15, 74}, {16, 74},
    {19, 79}, {20, 78}, {22, 74}, {24, 72}, {26, 71}, {28, 69},
  };

  private HarbourTune() {}

  static Synth play() {
    Synth s = new Synth(64 * BEAT);
    for (int bar = 0; bar < 16; bar++) {
      int[] chord = CHORDS[bar % 8];
      double at = bar * 4 * BEAT;
      s.bass(at, 2.4 * BEAT, chord[0], 0.30);
      s.bass(at + 2.5 * BEAT, 1.4 * BEAT, chord[0] + (bar % 2 == 0 ? 7 : 0), 0.22);
      for (int i = 1; i < 4; i++) {
        s.pad(at, 4 * BEAT, chord[i], 0.045, (i - 2) * 0.5);
      }
      for (int i = 0; i < 8; i++) {
        s.pluck(
            at + i * BEAT / 2, chord[PATTERN[i]], i == 0 ? 0.17 : 0.12, i % 2 == 0 ? -0.35 : 0.35);
        s.brush(at + i * BEAT / 2, 0.09, i % 2 == 0 ? 0.05 : 0.09, 0.9, bar * 8L + i);
      }
      s.kick(at, 0.34);
      s.kick(at + 2 * BEAT, 0.30);
      s.brush(at + BEAT, 0.16, 0.16, 0.6, 1000 + bar);
      s.brush(at + 3 * BEAT, 0.16, 0.16, 0.6, 2000 + bar);
    }
    for (int[] note : MELODY) {
      s.pluck((32 + note[0]) * BEAT, note[1], 0.20, 0.1);
      s.pluck((32 + note[0]) * BEAT + 0.012, note[1] - 12, 0.08, -0.2);
    }
    s.normalise(0.7);
    return s;
  }
}
