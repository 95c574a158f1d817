package hushrise.core.export;

import hushrise.core.Problem;
import hushrise.core.loudness.Mastering;
import hushrise.core.loudness.Measurement;
import hushrise.core.mix.Mixer;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.separation.PassageLoudness;
import hushrise.core.sound.Blocks;
import hushrise.core.sound.MixWriter;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SoundLibrary;
import hushrise.core.speech.Passages;
import hushrise.core.time.Span;
import java.nio.file.Path;
import java.util.List;

/** Renders a project from its first to its last frame into a writer, and measures what it wrote. */
public final class MixExport {

  private MixExport() {}

  /**
   * What is rendered.
   *
   * @param span which part of the project
   * @param mastering what is done to the mix
   */
  public record Part(Project project, SoundLibrary library, Span span, Mastering mastering) {

    /** All of a project, as it is. */
    public static Part all(Project project, SoundLibrary library) {
      return new Part(project, library, new Span(0, project.lengthFrames()), Mastering.NONE);
    }
  }

  /**
   * What was written.
   *
   * @param measurement of the mix as it was handed over
   * @param limiterMostDb how far the limiter turned down at most
   * @param limitedFrames for how many frames it turned anything down
   */
  public record Written(Measurement measurement, double limiterMostDb, long limitedFrames) {}

  /**
   * Writes the mix as it is heard.
   *
   * @param writer receives the mix; finished here, closed by the caller
   * @param progress hears how far it is and may cancel
   * @return what was measured of the mix
   */
  public static Measurement write(
      Project project, SoundLibrary library, MixWriter writer, Progress progress) {
    Measurement measured =
        write(Part.all(project, library), writer, Stems.NONE, progress).measurement();
    writer.finish();
    return measured;
  }

  /**
   * Writes a mix, and its stems, in one traversal.
   *
   * @param writer receives the mix; finished and closed by the caller
   * @param stems receive what each kind of track gives to it; finished and closed by the caller
   */
  public static Written write(Part part, MixWriter writer, Stems stems, Progress progress) {
    Project project = part.project();
    Span span = part.span();
    if (span.lengthFrames() == 0) {
      throw new Problem(
          "The project %s is empty: place a picture or some sound first."
              .formatted(project.name()));
    }
    Mixer mixer = Mixer.of(project, part.library());
    Mastering.Stream stream =
        new Mastering.Stream(
            part.mastering(),
            (at, n, left, right) -> stems.render(mixer, at, n, left, right),
            span.startFrame(),
            span.endFrame(),
            project.sampleRate());
    Measurement.Running running = new Measurement.Running(project.sampleRate(), 2);
    try (Behind writing =
            new Behind("hushrise-writer", (out, n) -> writer.write(out[0], out[1], n));
        Behind measuring = new Behind("hushrise-measure", running::add)) {
      Blocks.each(
          span,
          (at, n, left, right) -> stream.read(n, left, right),
          (planar, n, at) -> {
            progress.at((at - span.startFrame()) / (double) span.lengthFrames());
            writing.hand(planar, n);
            measuring.hand(planar, n);
          });
      writing.drain();
      measuring.drain();
    }
    progress.at(1);
    return new Written(running.result(), stream.limiterMostDb(), stream.limitedFrames());
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
