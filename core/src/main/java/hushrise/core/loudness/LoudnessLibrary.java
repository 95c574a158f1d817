package hushrise.core.loudness;

import hushrise.core.project.media.Media;

/** Where the energies of a project's media come from. */
public interface LoudnessLibrary {

  /**
   * The energies of a media item with sound. The first call for a file may take long, as it reads
   * all of it; later ones are quick.
   *
   * @throws hushrise.core.Problem when the file is missing or cannot be read
   */
  LoudnessSteps steps(Media media);
}
