package hushrise.core.record;

import hushrise.core.Problem;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;

/**
 * Writes a take as it is spoken: a mono PCM WAV of 24 bits whose header is right, and whose samples
 * are on the disk, at every half second, so that a crash or a power cut costs no more than that.
 */
public final class TakeWriter implements TakeSink {

  private static final int HEADER = 44;
  private static final int BYTES = 3;
  private static final double FORCED_EVERY_SECONDS = 0.5;

  private final Path file;
  private final int sampleRate;
  private final FileChannel channel;
  private ByteBuffer block = ByteBuffer.allocate(1 << 14).order(ByteOrder.LITTLE_ENDIAN);
  private long frames;
  private long forcedFrames;

  /**
   * Begins a file, which must not be there yet; its folder is made when it is not.
   *
   * @throws Problem when it cannot be written
   */
  public TakeWriter(Path file, int sampleRate) {
    this.file = file;
    this.sampleRate = sampleRate;
    try {
      Files.createDirectories(file.toAbsolutePath().getParent());
      channel = FileChannel.open(file, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE);
      writeHeader();
    } catch (IOException e) {
      throw new Problem(
          "The take cannot be written to %s: check that its folder is there and may be written to, or choose another one."
              .formatted(file),
          e);
    }
  }

  /**
   * Appends samples; what is over full scale is clipped.
   *
   * @throws Problem when the disk takes no more; what was written so far stays, and is valid
   */
  @Override
  public void write(float[] samples, int offset, int count) {
    if (block.capacity() < count * BYTES) {
      block = ByteBuffer.allocate(count * BYTES).order(ByteOrder.LITTLE_ENDIAN);
    }
    block.clear();
    for (int i = offset; i < offset + count; i++) {
      int value = Math.round(Math.clamp(samples[i], -1f, 1f) * 8_388_607);
      block.put((byte) value).put((byte) (value >> 8)).put((byte) (value >> 16));
    }
    block.flip();
    long start = frames;
    try {
      while (block.hasRemaining()) {
        channel.write(block, HEADER + start * BYTES + block.position());
        frames = start + block.position() / BYTES;
      }
      if (frames - forcedFrames >= FORCED_EVERY_SECONDS * sampleRate) {
        settle();
      }
    } catch (IOException e) {
      throw new Problem(
          "The take cannot be written any further to %s (%s): make room on its disk. What was spoken so far is kept."
              .formatted(file, e.getMessage()),
          e);
    }
  }

  private void settle() throws IOException {
    writeHeader();
    channel.force(false);
    forcedFrames = frames;
  }

  private void writeHeader() throws IOException {
    int bytes = (int) Math.min(Integer.MAX_VALUE - HEADER, frames * BYTES);
    ByteBuffer header = ByteBuffer.allocate(HEADER).order(ByteOrder.LITTLE_ENDIAN);
    header.put("RIFF".getBytes(StandardCharsets.US_ASCII)).putInt(HEADER - 8 + bytes);
    header.put("WAVEfmt ".getBytes(StandardCharsets.US_ASCII)).putInt(16);
    header.putShort((short) 1).putShort((short) 1).putInt(sampleRate).putInt(sampleRate * BYTES);
    header.putShort((short) BYTES).putShort((short) (8 * BYTES));
    header.put("data".getBytes(StandardCharsets.US_ASCII)).putInt(bytes).flip();
    channel.write(header, 0);
  }

  public Path file() {
    return file;
  }

  /** How many frames have been written. */
  @Override
  public long frames() {
    return frames;
  }

  /** Completes the file; one without samples goes. */
  @Override
  public void close() {
    try (channel) {
      writeHeader();
      channel.force(true);
    } catch (IOException e) {
      throw new Problem(
          "The end of the take %s could not be written (%s); all but its last half second is there."
              .formatted(file, e.getMessage()),
          e);
    } finally {
      if (frames == 0) {
        try {
          Files.deleteIfExists(file);
        } catch (IOException e) {
          org.slf4j.LoggerFactory.getLogger(TakeWriter.class).debug("An empty take stays", e);
        }
      }
    }
  }
}
