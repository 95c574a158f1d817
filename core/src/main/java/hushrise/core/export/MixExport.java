package hushrise.core.export;

import hushrise.core.Problem;
import hushrise.core.loudness.Measurement;
import hushrise.core.mix.Mixer;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.timeline.Track;
import hushrise.core.separation.PassageLoudness;
import hushrise.core.sound.Blocks;
import hushrise.core.sound.MixWriter;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SoundLibrary;
import hushrise.core.speech.Passages;
import hushrise.core.time.Span;
import java.nio.file.Path;
import java.util.List;
import java.util.function.Predicate;

/** Renders a project from its first to its last frame into a writer, and measures what it wrote. */
public final class MixExport {

  private MixExport() {}

  /**
   * Writes the mix as it is heard.
   *
   * @param writer receives the mix; finished here, closed by the caller
   * @param progress hears how far it is and may cancel
   * @return what was measured of the mix
   */
  public static Measurement write(
      Project project, SoundLibrary library, MixWriter writer, Progress progress) {
    return write(project, library, project.heardTracks(), writer, progress);
  }

  /** Writes the mix of chosen tracks, such as one stem. */
  public static Measurement write(
      Project project,
      SoundLibrary library,
      Predicate<Track> heard,
      MixWriter writer,
      Progress progress) {
    long length = project.lengthFrames();
    if (length == 0) {
      throw new Problem(
          "The project %s is empty: place a picture or some sound first."
              .formatted(project.name()));
    }
    Mixer mixer = Mixer.of(project, library, heard);
    Measurement.Running running = new Measurement.Running(project.sampleRate(), 2);
    try (WriteBehind behind = new WriteBehind(writer, Blocks.FRAMES)) {
      Blocks.each(
          new Span(0, length),
          mixer::render,
          (planar, n, at) -> {
            progress.at(at / (double) length);
            running.add(planar, n);
            behind.write(planar[0], planar[1], n);
          });
      behind.finish();
    }
    progress.at(1);
    return running.result();
  }

  /** The separation of every passage as exported. */
  public static List<PassageLoudness> separations(Project project, SoundLibrary library) {
    return PassageLoudness.measure(project, library, Passages.of(project));
  }

  /**
   * Refuses an output that is one of the project's inputs.
   *
   * @throws Problem naming the file
   */
  public static void requireNoInput(Project project, Path output) {
    Outputs.requireApart(project.shelf().stream().map(Media::file).toList(), List.of(output));
  }
}
