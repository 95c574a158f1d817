package hushrise.core.speech;

import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;

/** Tells how likely somebody speaks. */
public interface SpeechModel {

  /** Seconds that one probability stands for. */
  double frameSeconds();

  /**
   * How likely speech is, frame by frame.
   *
   * @param source mono or stereo; stereo is folded to mono
   * @param sampleRate of the source in Hz
   * @return one value from 0 to 1 for each {@link #frameSeconds}, the last one covering the end
   * @throws hushrise.core.Problem when the model cannot be used
   */
  float[] probabilities(SampleSource source, int sampleRate, Progress progress);
}
