package hushrise.media;

import hushrise.core.Problem;
import hushrise.core.export.MixExport;
import hushrise.core.loudness.Measurement;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SoundLibrary;
import java.nio.file.Path;

/** Exports a project into a file whose ending says what is wanted: a film or a mix. */
public final class Exporter {

  private Exporter() {}

  /**
   * What became of an export.
   *
   * @param measurement of the exported mix
   * @param pictureCopied whether the picture's packets went along untouched
   */
  public record Result(Measurement measurement, boolean pictureCopied) {}

  /**
   * Exports a project.
   *
   * @throws Problem when the output is an input, cannot be written, or needs a picture that is not
   *     there
   */
  public static Result export(
      Project project, SoundLibrary library, Path target, OutputFormat format, Progress progress) {
    MixExport.requireNoInput(project, target);
    try (FileMixWriter writer = writer(project, target, format)) {
      boolean copied = writer.copiesPicture();
      return new Result(MixExport.write(project, library, writer, progress), copied);
    }
  }

  private static FileMixWriter writer(Project project, Path target, OutputFormat format) {
    if (!format.isFilm()) {
      return FileMixWriter.ofSound(target, format, project.sampleRate());
    }
    Media film =
        project
            .pictureMedia()
            .orElseThrow(
                () ->
                    new Problem(
                        "%s would be a film, and the project has no picture: add one, or export sound such as .wav."
                            .formatted(target)));
    return PictureSequence.isOneWholeFilm(project)
        ? FileMixWriter.ofFilm(target, format, film.file(), project.sampleRate())
        : FileMixWriter.ofSequence(target, format, project);
  }
}
