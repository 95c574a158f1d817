package hushrise.app.record;

import hushrise.core.record.QueuedTake;
import hushrise.core.record.TakeWriter;
import java.nio.file.Path;

/**
 * A take that is spoken.
 *
 * @param file what it is written to
 * @param samples on their way there
 * @param startFrame where it begins on the timeline
 */
record SpokenTake(Path file, QueuedTake samples, long startFrame) {

  /**
   * Begins a file.
   *
   * @throws hushrise.core.Problem when it cannot be written
   */
  static SpokenTake into(Path file, long startFrame, int sampleRate) {
    return new SpokenTake(
        file, new QueuedTake(new TakeWriter(file, sampleRate), sampleRate), startFrame);
  }
}
