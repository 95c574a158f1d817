package hushrise.media;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;

/**
 * What an exported file says of itself.
 *
 * @param target where it goes
 * @param seconds how long it will be
 * @param sampleRate of its sound, in Hz
 * @param kbps of its sound; 0: the usual ones
 * @param title what it is called, where its source has no title; empty: nothing
 * @param comment such as its credits; empty: nothing
 * @param keepsTracks whether further sound tracks of its source go along
 * @param marks where its chapters begin, in the place of those of its source; in order of time,
 *     possibly empty
 * @param credits what its last chapter is called; empty: it has none of its own for them
 */
record FileHead(
    Path target,
    double seconds,
    int sampleRate,
    int kbps,
    Optional<String> title,
    Optional<String> comment,
    boolean keepsTracks,
    List<Mark> marks,
    Optional<String> credits) {

  FileHead {
    marks = List.copyOf(marks);
  }

  /**
   * A place that has a name.
   *
   * @param seconds from the file's start
   */
  record Mark(double seconds, String title) {}

  /** The head of sound that says nothing of itself. */
  static FileHead plain(Path target, int sampleRate, int kbps) {
    return new FileHead(
        target,
        0,
        sampleRate,
        kbps,
        Optional.empty(),
        Optional.empty(),
        false,
        List.of(),
        Optional.empty());
  }
}
