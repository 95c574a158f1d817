package hushrise.media;

import hushrise.core.store.AtomicFile;
import hushrise.media.FileHead.Mark;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;

/**
 * Writes a PCM WAV file. Its head keeps room for the 64-bit sizes of RF64 (EBU Tech 3306), which it
 * becomes when it grows over 4 GiB. Samples of 16 bits are dithered with triangular noise of two
 * steps (S. P. Lipshitz, R. A. Wannamaker, J. Vanderkooy, Quantization and Dither, JAES 40, 1992),
 * but for digital silence, which stays silent. Marks become cue points with labels behind the
 * samples, title and comment an INFO list (Multimedia Programming Interface and Data Specifications
 * 1.0, IBM and Microsoft, 1991), in UTF-8.
 */
final class WavWriter implements FileMixWriter {

  private static final int CHANNELS = 2;
  private static final int DS64_BYTES = 28;
  private static final int FORMAT_BYTES = 16;
  private static final int HEAD_BYTES = 12 + 8 + DS64_BYTES + 8 + FORMAT_BYTES + 8;

  /** What 32 bits can say. */
  static final long MOST_BYTES = 0xFFFF_FFFFL;

  private static final int BUFFER_BYTES = 1 << 18;
  private static final int CUE_BYTES = 24;

  private final Path target;
  private final Path part;
  private final SoundCoding coding;
  private final int sampleRate;
  private final byte[] behind;
  private final List<String> leftOut;
  private final int sampleBytes;
  private final long mostBytes;
  private final ByteBuffer buffer =
      ByteBuffer.allocate(BUFFER_BYTES).order(ByteOrder.LITTLE_ENDIAN);
  private final FileChannel channel;
  private long dataBytes;
  private long noise = 0x9E3779B97F4A7C15L;
  private boolean complete;
  private boolean moved;

  WavWriter(FileHead head, SoundCoding coding) {
    this(head, coding, MOST_BYTES);
  }

  /**
   * @param mostBytes how large it may grow before it becomes an RF64
   */
  WavWriter(FileHead head, SoundCoding coding, long mostBytes) {
    this.mostBytes = mostBytes;
    this.coding = coding;
    target = head.target();
    sampleRate = head.sampleRate();
    behind = joined(cues(head.marks()), info(head));
    leftOut =
        head.credits().isPresent()
            ? List.of("A .wav file has no chapter for the credits, and they are left out.")
            : List.of();
    sampleBytes =
        switch (coding) {
          case PCM_16 -> 2;
          case PCM_24 -> 3;
          case PCM_32_FLOAT -> 4;
          default -> throw new IllegalArgumentException("A WAV file takes no " + coding.word());
        };
    part = AtomicFile.beside(target);
    try {
      channel = FileChannel.open(part, StandardOpenOption.WRITE);
      buffer.put(head());
    } catch (IOException e) {
      AtomicFile.discard(part);
      throw FileMixWriter.unwritable(target, e.getMessage());
    }
  }

  private byte[] head() {
    ByteBuffer head = ByteBuffer.allocate(HEAD_BYTES).order(ByteOrder.LITTLE_ENDIAN);
    long all = HEAD_BYTES - 8 + dataBytes + (dataBytes & 1) + behind.length;
    boolean large = all > mostBytes;
    head.put(tag(large ? "RF64" : "RIFF")).putInt((int) (large ? MOST_BYTES : all));
    head.put(tag("WAVE"));
    head.put(tag(large ? "ds64" : "JUNK")).putInt(DS64_BYTES);
    head.putLong(large ? all : 0).putLong(large ? dataBytes : 0);
    head.putLong(large ? dataBytes / (CHANNELS * sampleBytes) : 0).putInt(0);
    head.put(tag("fmt ")).putInt(FORMAT_BYTES);
    head.putShort((short) (coding == SoundCoding.PCM_32_FLOAT ? 3 : 1)).putShort((short) CHANNELS);
    head.putInt(sampleRate).putInt(sampleRate * CHANNELS * sampleBytes);
    head.putShort((short) (CHANNELS * sampleBytes)).putShort((short) (8 * sampleBytes));
    head.put(tag("data")).putInt((int) (large ? MOST_BYTES : dataBytes));
    return head.array();
  }

  /** The chunks that name places: empty when there are none. */
  private byte[] cues(List<Mark> marks) {
    if (marks.isEmpty()) {
      return new byte[0];
    }
    int points = 4 + CUE_BYTES * marks.size();
    ByteBuffer cue = ByteBuffer.allocate(8 + points).order(ByteOrder.LITTLE_ENDIAN);
    cue.put(tag("cue ")).putInt(points).putInt(marks.size());
    byte[][] labels = new byte[marks.size()][];
    for (int i = 0; i < marks.size(); i++) {
      int frame = (int) Math.round(marks.get(i).seconds() * sampleRate);
      cue.putInt(i + 1).putInt(frame).put(tag("data")).putInt(0).putInt(0).putInt(frame);
      labels[i] = chunk("labl", joined(number(i + 1), text(marks.get(i).title())));
    }
    return joined(cue.array(), chunk("LIST", joined(tag("adtl"), joined(labels))));
  }

  /** The chunk that says what the file is: empty when there is nothing to say. */
  private static byte[] info(FileHead head) {
    byte[] title = head.title().map(t -> chunk("INAM", text(t))).orElse(new byte[0]);
    byte[] comment = head.comment().map(c -> chunk("ICMT", text(c))).orElse(new byte[0]);
    byte[] all = joined(title, comment);
    return all.length == 0 ? all : chunk("LIST", joined(tag("INFO"), all));
  }

  private static byte[] chunk(String letters, byte[] content) {
    return joined(tag(letters), number(content.length), content, new byte[content.length & 1]);
  }

  private static byte[] number(int value) {
    return ByteBuffer.allocate(4).order(ByteOrder.LITTLE_ENDIAN).putInt(value).array();
  }

  private static byte[] text(String words) {
    return (words + '\0').getBytes(StandardCharsets.UTF_8);
  }

  private static byte[] joined(byte[]... parts) {
    ByteArrayOutputStream all = new ByteArrayOutputStream();
    for (byte[] each : parts) {
      all.writeBytes(each);
    }
    return all.toByteArray();
  }

  private static byte[] tag(String letters) {
    return letters.getBytes(StandardCharsets.US_ASCII);
  }

  @Override
  public void write(float[] left, float[] right, int frames) {
    for (int done = 0; done < frames; ) {
      int n = Math.min(frames - done, buffer.remaining() / (CHANNELS * sampleBytes));
      switch (coding) {
        case PCM_16 -> putShorts(left, right, done, n);
        case PCM_24 -> putThrees(left, right, done, n);
        default -> putFloats(left, right, done, n);
      }
      done += n;
      if (done < frames) {
        flush();
      }
    }
    dataBytes += (long) frames * CHANNELS * sampleBytes;
  }

  private void putShorts(float[] left, float[] right, int from, int n) {
    for (int i = from; i < from + n; i++) {
      buffer.putShort((short) Math.clamp(dithered(left[i]), -0x8000, 0x7FFF));
      buffer.putShort((short) Math.clamp(dithered(right[i]), -0x8000, 0x7FFF));
    }
  }

  private void putThrees(float[] left, float[] right, int from, int n) {
    byte[] bytes = buffer.array();
    int at = buffer.position();
    for (int i = from; i < from + n; i++, at += 6) {
      int l = three(left[i]);
      int r = three(right[i]);
      bytes[at] = (byte) l;
      bytes[at + 1] = (byte) (l >> 8);
      bytes[at + 2] = (byte) (l >> 16);
      bytes[at + 3] = (byte) r;
      bytes[at + 4] = (byte) (r >> 8);
      bytes[at + 5] = (byte) (r >> 16);
    }
    buffer.position(at);
  }

  /** A sample in 24 bits, to the nearest. */
  private static int three(float sample) {
    return Math.clamp(Math.round(sample * (float) (1 << 23)), -0x80_0000, 0x7F_FFFF);
  }

  private void putFloats(float[] left, float[] right, int from, int n) {
    for (int i = from; i < from + n; i++) {
      buffer.putFloat(left[i]).putFloat(right[i]);
    }
  }

  private long dithered(float sample) {
    return sample == 0 ? 0 : Math.round(sample * 0x8000 + random() + random());
  }

  /** Even between minus and plus a half; always the same row of numbers. */
  private double random() {
    noise ^= noise << 13;
    noise ^= noise >>> 7;
    noise ^= noise << 17;
    return (noise >> 11) * 0x1p-53;
  }

  private void flush() {
    buffer.flip();
    try {
      while (buffer.hasRemaining()) {
        channel.write(buffer);
      }
    } catch (IOException e) {
      throw FileMixWriter.unwritable(target, e.getMessage());
    }
    buffer.clear();
  }

  @Override
  public List<String> leftOut() {
    return leftOut;
  }

  @Override
  public Path written() {
    return part;
  }

  @Override
  public Path target() {
    return target;
  }

  @Override
  public void complete() {
    if (complete) {
      return;
    }
    if ((dataBytes & 1) == 1) {
      buffer.put((byte) 0);
    }
    flush();
    try {
      for (ByteBuffer rest = ByteBuffer.wrap(behind); rest.hasRemaining(); ) {
        channel.write(rest);
      }
      channel.write(ByteBuffer.wrap(head()), 0);
      channel.close();
    } catch (IOException e) {
      throw FileMixWriter.unwritable(target, e.getMessage());
    }
    complete = true;
  }

  @Override
  public void finish() {
    complete();
    AtomicFile.moveInto(part, target);
    moved = true;
  }

  @Override
  public void close() {
    try {
      channel.close();
    } catch (IOException e) {
      throw FileMixWriter.unwritable(target, e.getMessage());
    } finally {
      if (!moved) {
        AtomicFile.discard(part);
      }
    }
  }
}
