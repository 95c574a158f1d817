package hushrise.media;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Optional;

/**
 * Where the samples of a plain PCM WAV file lie, so that they can be mapped instead of decoded.
 *
 * @param channels 1 or 2
 * @param sampleRate in Hz
 * @param bytesPerSample 2 and 3 for integers, 4 for floats
 * @param dataOffset the first byte of the samples
 * @param frames how many there are, in the file as it is
 * @param statedBytes how many bytes of samples the file says it has; {@link #STREAMED} when it does
 *     not know, or says 0 as a recorder leaves it that never came to its end
 */
record WavLayout(
    int channels,
    int sampleRate,
    int bytesPerSample,
    long dataOffset,
    long frames,
    long statedBytes) {

  static final long STREAMED = -1;

  private static final long UNKNOWN_FROM = 0xFFFFFF00L;
  private static final int PCM = 1;
  private static final int FLOAT = 3;
  private static final int EXTENSIBLE = 0xFFFE;

  /**
   * The layout; empty when the file is no WAV of 16 or 24 bits or 32-bit floats, mono or stereo.
   */
  static Optional<WavLayout> of(Path file) throws IOException {
    try (FileChannel channel = FileChannel.open(file)) {
      ByteBuffer head = read(channel, 0, 12);
      if (head.limit() < 12 || !isWave(head)) {
        return Optional.empty();
      }
      ByteBuffer format = ByteBuffer.allocate(0);
      long size64 = STREAMED;
      for (long at = 12; at + 8 <= channel.size(); ) {
        ByteBuffer chunk = read(channel, at, 8);
        long size = Integer.toUnsignedLong(chunk.getInt(4));
        if (tag(chunk, 0).equals("fmt ")) {
          format = read(channel, at + 8, (int) Math.min(size, 40));
        } else if (tag(chunk, 0).equals("ds64")) {
          ByteBuffer sizes = read(channel, at + 8, 16);
          size64 = sizes.limit() == 16 ? sizes.getLong(8) : STREAMED;
        } else if (tag(chunk, 0).equals("data")) {
          long there = channel.size() - at - 8;
          long stated = size < UNKNOWN_FROM ? size : size64;
          boolean believed = stated > 0 || stated == 0 && there == 0;
          long bytes = believed ? Math.min(stated, there) : there;
          return layout(format, at + 8, bytes, believed ? stated : STREAMED);
        }
        at += 8 + size + (size & 1);
      }
      return Optional.empty();
    }
  }

  /** RIFF, or RF64 (EBU Tech 3306), whose sizes may pass 4 GiB. */
  private static boolean isWave(ByteBuffer head) {
    return (tag(head, 0).equals("RIFF") || tag(head, 0).equals("RF64"))
        && tag(head, 8).equals("WAVE");
  }

  /** Whether samples are missing that the head promises; a streamed file promises nothing. */
  boolean isCutShort() {
    return statedBytes != STREAMED
        && statedBytes - frames * channels * bytesPerSample >= (long) channels * bytesPerSample;
  }

  private static Optional<WavLayout> layout(
      ByteBuffer format, long offset, long bytes, long stated) {
    if (format.limit() < 16) {
      return Optional.empty();
    }
    int coding = Short.toUnsignedInt(format.getShort(0));
    if (coding == EXTENSIBLE && format.limit() >= 26) {
      coding = Short.toUnsignedInt(format.getShort(24));
    }
    int channels = Short.toUnsignedInt(format.getShort(2));
    int bits = Short.toUnsignedInt(format.getShort(14));
    boolean known = coding == PCM ? bits == 16 || bits == 24 : coding == FLOAT && bits == 32;
    if (!known || channels < 1 || channels > 2) {
      return Optional.empty();
    }
    int width = bits / 8;
    return Optional.of(
        new WavLayout(
            channels, format.getInt(4), width, offset, bytes / ((long) width * channels), stated));
  }

  private static ByteBuffer read(FileChannel channel, long at, int size) throws IOException {
    ByteBuffer buffer = ByteBuffer.allocate(size).order(ByteOrder.LITTLE_ENDIAN);
    int got = 0;
    while (buffer.hasRemaining() && got >= 0) {
      got = channel.read(buffer, at + buffer.position());
    }
    return buffer.flip().order(ByteOrder.LITTLE_ENDIAN);
  }

  private static String tag(ByteBuffer buffer, int at) {
    if (buffer.limit() < at + 4) {
      return "";
    }
    byte[] letters = new byte[4];
    buffer.get(at, letters);
    return new String(letters, StandardCharsets.US_ASCII);
  }
}
