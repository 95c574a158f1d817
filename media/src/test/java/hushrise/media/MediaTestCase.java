package hushrise.media;

import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import hushrise.core.time.FrameRate;
import java.nio.file.Path;
import java.util.Arrays;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;

/** What media tests share: a folder, a store with a cache of its own, and simple signals. */
abstract class MediaTestCase {

  static final int RATE = 48_000;

  @TempDir Path folder;
  MediaStore store;

  @BeforeEach
  void makeStore() {
    store = freshStore();
  }

  MediaStore freshStore() {
    return new MediaStore(new CacheFolder(folder.resolve("cache"), 1L << 30));
  }

  static float[] sine(double hz, double amplitude, int frames) {
    float[] samples = new float[frames];
    for (int i = 0; i < frames; i++) {
      samples[i] = (float) (amplitude * Math.sin(2 * Math.PI * hz * i / RATE));
    }
    return samples;
  }

  static float[] read(SampleSource source, long from, int frames) {
    float[] left = new float[frames];
    source.read(from, frames, left, new float[frames], 0);
    return left;
  }

  SampleSource open(Path file) {
    return store.open(file, RATE, Progress.NONE);
  }

  static double rms(float[] samples) {
    double sum = 0;
    for (float s : samples) {
      sum += s * (double) s;
    }
    return Math.sqrt(sum / samples.length);
  }

  /** Upward zero crossings in a second of samples: the frequency of a sine. */
  static int frequency(float[] second) {
    int crossings = 0;
    for (int i = 1; i < second.length; i++) {
      if (second[i - 1] < 0 && second[i] >= 0) {
        crossings++;
      }
    }
    return crossings;
  }

  /**
   * A film of 25 pictures a second, each a flat grey that tells its number, with a tone or without
   * sound.
   */
  Path film(String name, OutputFormat format, int pictures, boolean withSound) {
    Path file = folder.resolve(name);
    float[] tone = sine(440, 0.25, RATE / 25);
    try (DrawnFilmWriter writer =
        new DrawnFilmWriter(file, format, 96, 64, new FrameRate(25, 1), withSound ? RATE : 0)) {
      int[] argb = new int[96 * 64];
      for (int i = 0; i < pictures; i++) {
        int grey = greyOf(i);
        Arrays.fill(argb, 0xFF000000 | grey << 16 | grey << 8 | grey);
        writer.addPicture(argb);
        if (withSound) {
          writer.addSound(tone, tone, tone.length);
        }
      }
      writer.finish();
    }
    return file;
  }

  static int greyOf(int picture) {
    return 30 + picture % 25 * 8;
  }

  /** A WAV file of a tone of 1 kHz. */
  Path tone(int seconds) {
    Path file = folder.resolve("tone.wav");
    float[] samples = sine(1_000, 0.5, seconds * RATE);
    try (FileMixWriter writer = FileMixWriter.ofSound(file, OutputFormat.WAV_24, RATE)) {
      writer.write(samples, samples, samples.length);
      writer.finish();
    }
    return file;
  }
}
