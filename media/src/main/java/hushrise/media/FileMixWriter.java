package hushrise.media;

import hushrise.core.Problem;
import hushrise.core.project.Project;
import hushrise.core.sound.MixWriter;
import hushrise.core.store.AtomicFile;
import java.nio.file.Path;
import java.util.List;

/**
 * Writes a mix into a file, for a film together with its picture. The file grows beside its final
 * place; {@link #complete} makes it whole there, so that it can be looked at, and {@link #finish}
 * puts it into its place.
 */
public sealed interface FileMixWriter extends MixWriter permits FfmpegWriter, WavWriter {

  /** A writer of sound alone. */
  static FileMixWriter ofSound(FileHead head, OutputFormat format) {
    return format.isPlainWav()
        ? new WavWriter(head, format.coding())
        : FfmpegWriter.ofSound(head, format);
  }

  /** A writer of sound alone that says nothing of itself, with the usual bit rate. */
  static FileMixWriter ofSound(Path target, OutputFormat format, int sampleRate) {
    return ofSound(FileHead.plain(target, sampleRate, 0), format);
  }

  /** A writer of a film whose picture goes along whole, its packets copied where that can be. */
  static FileMixWriter ofFilm(FileHead head, OutputFormat format, Path film) {
    return FfmpegWriter.ofFilm(head, format, film);
  }

  /** A writer of a film whose picture is put together from a project's clips and encoded anew. */
  static FileMixWriter ofSequence(FileHead head, OutputFormat format, Project project) {
    return FfmpegWriter.ofSequence(head, format, project);
  }

  /** The file that is being written. */
  Path written();

  /** Where it goes. */
  Path target();

  /**
   * Makes the written file whole, still beside its final place.
   *
   * @throws Problem when it cannot be written
   */
  void complete();

  /** Whether a picture goes along with its packets untouched. */
  default boolean copiesPicture() {
    return false;
  }

  /** What could not go along, in sentences. */
  default List<String> leftOut() {
    return List.of();
  }

  @Override
  default void finish() {
    complete();
    AtomicFile.moveInto(written(), target());
  }

  /** What to say when a file cannot be written. */
  static Problem unwritable(Path target, String reason) {
    return new Problem(
        "%s cannot be written (%s): check that the disk has room and that you may write there."
            .formatted(target, reason));
  }
}
