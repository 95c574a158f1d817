package hushrise.core.ear;

import hushrise.core.fit.Songs;
import hushrise.core.loudness.LoudnessLibrary;
import hushrise.core.project.Project;
import hushrise.core.separation.Energies;
import hushrise.core.separation.Separation;
import java.util.List;

/**
 * A project as the Second Ear hears it.
 *
 * @param energies of its tracks
 * @param separation of its voice
 * @param loudness of its files
 * @param songs to fit music by
 * @param cuts of the picture, on the timeline
 */
public record Heard(
    Energies energies,
    Separation separation,
    LoudnessLibrary loudness,
    Songs songs,
    List<Long> cuts) {

  public Heard {
    cuts = List.copyOf(cuts);
  }

  public Project project() {
    return energies.project();
  }
}
