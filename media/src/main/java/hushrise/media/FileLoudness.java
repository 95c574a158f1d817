package hushrise.media;

import hushrise.core.loudness.Measurement;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import java.nio.file.Path;

/** Measures the loudness of files as they are: all their channels, at their own rate. */
public final class FileLoudness {

  private FileLoudness() {}

  /**
   * Measures a file's sound.
   *
   * @throws hushrise.core.Problem when it cannot be read or has no sound
   */
  public static Measurement of(Path file, MediaStore store, Progress progress) {
    int rate = Sounds.rateOf(file);
    if (isMonoOrStereo(file)) {
      SampleSource source = store.open(file, rate, part -> progress.at(part / 2));
      return Measurement.of(source, rate, part -> progress.at(0.5 + part / 2));
    }
    return streamed(file, rate, progress);
  }

  /** Measures a file that was just written, without keeping anything of it. */
  static Measurement streamed(Path file, Progress progress) {
    return streamed(file, Sounds.rateOf(file), progress);
  }

  private static Measurement streamed(Path file, int rate, Progress progress) {
    try (SoundDecoder decoder = SoundDecoder.asItIs(file, rate)) {
      Measurement.Running running = new Measurement.Running(rate, decoder.loudnessWeights());
      decoder.decodeTo(
          (planar, n, fraction) -> {
            progress.at(fraction);
            running.add(planar, n);
          });
      return running.result();
    }
  }

  private static boolean isMonoOrStereo(Path file) {
    return Sounds.isPlainWav(file)
        || Probe.of(file).sound().filter(s -> s.channels() > 2).isEmpty();
  }
}
