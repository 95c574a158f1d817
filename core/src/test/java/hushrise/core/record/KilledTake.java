package hushrise.core.record;

import java.nio.file.Path;

/** A program that records a take without end, to be killed at any moment. */
final class KilledTake {

  static final int RATE = 48_000;

  private KilledTake() {}

  /** The sample that is spoken at a frame: each tells where it belongs. */
  static int sampleAt(long frame) {
    return (int) (frame % 1_000_000);
  }

  /**
   * Writes a take, ten milliseconds at a time and as fast as it can. Prints how many frames have
   * been handed over.
   *
   * @param args the file
   */
  public static void main(String[] args) {
    float[] block = new float[RATE / 100];
    try (TakeWriter writer = new TakeWriter(Path.of(args[0]), RATE)) {
      while (writer.frames() < Integer.MAX_VALUE / 4) {
        for (int i = 0; i < block.length; i++) {
          block[i] = sampleAt(writer.frames() + i) / 8_388_607f;
        }
        writer.write(block, 0, block.length);
        System.out.println(writer.frames());
        System.out.flush();
      }
    }
  }
}
