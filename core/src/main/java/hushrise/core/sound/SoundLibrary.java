package hushrise.core.sound;

import hushrise.core.project.media.Media;

/** Where the samples of a project's media come from. */
public interface SoundLibrary {

  /**
   * The samples of a media item at {@code sampleRate}. The first call for a file may take long, as
   * it decodes it; later ones are quick.
   *
   * @throws hushrise.core.Problem when the file is missing or cannot be read
   */
  SampleSource samples(Media media, int sampleRate);
}
