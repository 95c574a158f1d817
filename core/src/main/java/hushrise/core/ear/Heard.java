package hushrise.core.ear;

import hushrise.core.fit.Songs;
import hushrise.core.loudness.LoudnessLibrary;
import hushrise.core.project.Project;
import hushrise.core.separation.Energies;
import hushrise.core.separation.Separation;

/**
 * A project as the Second Ear hears it.
 *
 * @param energies of its tracks
 * @param separation of its voice
 * @param loudness of its files
 * @param songs to fit music by
 */
public record Heard(
    Energies energies, Separation separation, LoudnessLibrary loudness, Songs songs) {

  public Project project() {
    return energies.project();
  }
}
