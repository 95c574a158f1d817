package hushrise.app.command;

import hushrise.app.play.SurfaceRides;
import hushrise.app.record.Recording;
import java.util.function.IntConsumer;

/** Recording narration: takes, the text that is read, the input, and a control surface. */
public final class RecordCommands {

  private final Recording recording;
  private final Runnable record;
  private final IntConsumer read;
  private final SurfaceRides surface;
  private final LevelCommands levels;

  /**
   * @param record begins a take where somebody can see it, or ends it
   * @param read goes on by so many passages in the text that is read
   */
  public RecordCommands(
      Recording recording,
      Runnable record,
      IntConsumer read,
      SurfaceRides surface,
      LevelCommands levels) {
    this.recording = recording;
    this.record = record;
    this.read = read;
    this.surface = surface;
    this.levels = levels;
  }

  /** Sets what its commands do. */
  public void addTo(Commands.Builder table) {
    table
        .set(CommandId.RECORD, record)
        .set(CommandId.RECORD_REST, recording::rest)
        .set(CommandId.TAKE_NEXT, () -> recording.another(1))
        .set(CommandId.TAKE_PREVIOUS, () -> recording.another(-1))
        .set(CommandId.READ_NEXT, () -> read.accept(1))
        .set(CommandId.READ_PREVIOUS, () -> read.accept(-1))
        .set(CommandId.INPUT_CHECK, recording::check)
        .set(CommandId.INPUT_LATENCY, recording::measureLatency)
        .set(CommandId.SURFACE_LEARN, () -> levels.onTrack(surface::learn));
  }
}
