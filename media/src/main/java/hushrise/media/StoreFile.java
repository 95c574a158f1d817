package hushrise.media;

import hushrise.core.Problem;
import hushrise.core.store.AtomicFile;
import java.io.IOException;
import java.lang.foreign.Arena;
import java.lang.foreign.MemorySegment;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Optional;
import java.util.zip.CRC32C;

/**
 * A cache file of floats: a head of {@link #HEAD} bytes, then the floats, little-endian. The head
 * tells what the file is, how long it must be, a checksum over samples of its bytes and one over
 * all of them; a file that does not agree with its head is damaged and is made again.
 */
final class StoreFile implements AutoCloseable {

  static final int HEAD = 64;

  private static final long MAGIC = 0x48525354_30303032L;
  private static final int PROBE = 4096;
  private static final int PROBES = 16;
  private static final int PIECE = 1 << 18;

  /** A file up to this is looked through whole before it is used, a larger one at its probes. */
  private static final long LOOKED_THROUGH = 256L << 20;

  private final FileChannel channel;
  private final Path part;
  private final ByteBuffer buffer = ByteBuffer.allocateDirect(PIECE).order(ByteOrder.LITTLE_ENDIAN);
  private final CRC32C whole = new CRC32C();
  private boolean kept;

  /**
   * What a head says.
   *
   * @param floats the floats, mapped
   * @param channels the sound's channels
   * @param frames the sound's length
   */
  record Mapped(MemorySegment floats, int channels, long frames) {}

  private StoreFile(Path part) throws IOException {
    this.part = part;
    this.channel = FileChannel.open(part, StandardOpenOption.READ, StandardOpenOption.WRITE);
    channel.position(HEAD);
  }

  static StoreFile create(CacheFolder cache) {
    Path part = cache.part();
    try {
      return new StoreFile(part);
    } catch (IOException e) {
      AtomicFile.discard(part);
      throw full(part, e);
    }
  }

  private static Problem full(Path part, IOException e) {
    return new Problem(
        "The cache folder %s cannot be written (is the disk full?): free some space, or set HUSHRISE_CACHE to another folder."
            .formatted(part.getParent()),
        e);
  }

  void write(float[] values, int count) {
    try {
      int done = 0;
      while (done < count) {
        if (buffer.remaining() < 4) {
          drain();
        }
        int n = Math.min(count - done, buffer.remaining() / 4);
        buffer.asFloatBuffer().put(values, done, n);
        buffer.position(buffer.position() + n * 4);
        done += n;
      }
    } catch (IOException e) {
      throw full(part, e);
    }
  }

  private void drain() throws IOException {
    buffer.flip();
    whole.update(buffer.duplicate());
    while (buffer.hasRemaining()) {
      channel.write(buffer);
    }
    buffer.clear();
  }

  void keep(CacheFolder cache, Path target, int channels, long frames) {
    try {
      drain();
      long size = channel.size();
      ByteBuffer head = ByteBuffer.allocate(HEAD);
      head.putLong(MAGIC)
          .putLong(size)
          .putInt(channels)
          .putLong(frames)
          .putInt(checksum(channel, size))
          .putInt((int) whole.getValue());
      channel.write(head.rewind(), 0);
      channel.close();
    } catch (IOException e) {
      throw full(part, e);
    }
    cache.keep(part, target);
    kept = true;
  }

  private static int checksum(FileChannel channel, long size) throws IOException {
    CRC32C crc = new CRC32C();
    for (int i = 0; i < PROBES; i++) {
      ByteBuffer probe = ByteBuffer.allocate(PROBE);
      long at = HEAD + Math.max(0, size - HEAD - PROBE) / (PROBES - 1) * i;
      channel.read(probe, at);
      crc.update(probe.flip());
    }
    return (int) crc.getValue();
  }

  /** Of all bytes after the head. Read, not mapped: a failing disk is to be an exception. */
  private static int checksumOfAll(FileChannel channel) throws IOException {
    CRC32C crc = new CRC32C();
    ByteBuffer piece = ByteBuffer.allocateDirect(PIECE);
    long at = HEAD;
    for (int n = channel.read(piece, at); n > 0; n = channel.read(piece, at)) {
      crc.update(piece.flip());
      piece.clear();
      at += n;
    }
    return (int) crc.getValue();
  }

  /** Maps a file of the cache; empty when it is missing or damaged. */
  static Optional<Mapped> map(Path file) {
    if (!Files.exists(file)) {
      return Optional.empty();
    }
    try (FileChannel channel = FileChannel.open(file)) {
      ByteBuffer head = ByteBuffer.allocate(HEAD);
      channel.read(head, 0);
      long size = channel.size();
      if (head.position() < HEAD
          || head.getLong(0) != MAGIC
          || head.getLong(8) != size
          || head.getInt(28) != checksum(channel, size)
          || (size <= LOOKED_THROUGH && head.getInt(32) != checksumOfAll(channel))) {
        AtomicFile.discard(file);
        return Optional.empty();
      }
      MemorySegment floats =
          channel.map(FileChannel.MapMode.READ_ONLY, HEAD, size - HEAD, Arena.ofAuto());
      return Optional.of(new Mapped(floats, head.getInt(16), head.getLong(20)));
    } catch (IOException e) {
      AtomicFile.discard(file);
      return Optional.empty();
    }
  }

  @Override
  public void close() {
    try {
      channel.close();
    } catch (IOException e) {
      throw full(part, e);
    } finally {
      if (!kept) {
        AtomicFile.discard(part);
      }
    }
  }
}
