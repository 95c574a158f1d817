package hushrise.media;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Whether a file seems to have been cut off, where its kind plays on regardless: Ogg, whose last
 * page is marked (RFC 3533, section 6); Matroska and WebM, whose segment says how large it is (RFC
 * 8794); ADTS, whose frames say how long they are (ISO/IEC 13818-7, 6.2); AVI and CAF, whose chunks
 * say how large they are (OpenDML 1.02, section 4; Core Audio Format, "Chunk Header"); ASF, whose
 * head says how large the file is (ASF 1.2, section 3.2); FLV, whose every tag is followed by its
 * length (Adobe FLV 10.1, E.3); and MPEG transport streams, which are made of whole packets of 188
 * bytes. Other kinds state their length, and are refused when it is not there.
 */
final class CutShort {

  private static final Logger LOG = LoggerFactory.getLogger(CutShort.class);

  private static final int TAIL = 1 << 17;
  private static final int HEAD = 1 << 12;
  private static final int LAST_PAGE = 4;
  private static final int EBML = 0x1A45DFA3;
  private static final int SEGMENT = 0x18538067;
  private static final int TS_PACKET = 188;

  /** Who has more of them means to keep us busy. */
  private static final int MOST_CHUNKS = 10_000;

  private static final int RIFF_HEAD = 8;
  private static final int FLV_TAG_HEAD = 11;
  private static final int CAF_HEAD = 8;
  private static final int CAF_CHUNK_HEAD = 12;

  /** The first halves of two of ASF's ids. */
  private static final long ASF = 0x3026B2758E66CF11L;

  private static final long ASF_FILE_PROPERTIES = 0xA1DCAB8C47A9CF11L;

  /** Behind the id and length of the head, and how many objects are in it. */
  private static final int ASF_FIRST_OBJECT = 30;

  private static final int ASF_SIZE = 40;
  private static final int ASF_FLAGS = 88;

  /** So many ADTS frames after one another are no chance. */
  private static final int SURE = 4;

  private CutShort() {}

  /** Whether a file seems to end before its end; false where that cannot be told. */
  static boolean seems(Path file) {
    try (FileChannel channel = FileChannel.open(file)) {
      ByteBuffer head = read(channel, 0, HEAD);
      if (head.remaining() < 16) {
        return false;
      }
      if (starts(head, "OggS")) {
        return oggIsOpen(read(channel, Math.max(0, channel.size() - TAIL), TAIL));
      }
      if (starts(head, "RIFF") && bytesAt(head, 8).equals("AVI ")) {
        return riffGoesOn(channel);
      }
      if (starts(head, "caff")) {
        return cafGoesOn(channel);
      }
      if (starts(head, "FLV\1")) {
        return flvBreaksOff(channel);
      }
      if (head.getLong(0) == ASF) {
        return asfGoesOn(head, channel.size());
      }
      if (head.getInt(0) == EBML) {
        return segmentGoesOn(head, channel.size());
      }
      if ((head.getShort(0) & 0xFFF6) == 0xFFF0) {
        return adtsBreaksOff(read(channel, Math.max(0, channel.size() - TAIL), TAIL));
      }
      return head.get(0) == 0x47
          && head.remaining() > TS_PACKET
          && head.get(TS_PACKET) == 0x47
          && channel.size() % TS_PACKET != 0;
    } catch (IOException | IndexOutOfBoundsException e) {
      LOG.debug("Whether {} is whole cannot be told", file, e);
      return false;
    }
  }

  private static ByteBuffer read(FileChannel channel, long from, int bytes) throws IOException {
    ByteBuffer buffer = ByteBuffer.allocate(bytes);
    while (buffer.hasRemaining() && channel.read(buffer, from + buffer.position()) >= 0) {
      // reads on until the buffer is full or the file ends
    }
    return buffer.flip();
  }

  private static boolean starts(ByteBuffer bytes, String with) {
    return bytesAt(bytes, 0).equals(with);
  }

  private static String bytesAt(ByteBuffer bytes, int at) {
    byte[] four = new byte[4];
    bytes.get(at, four);
    return new String(four, StandardCharsets.ISO_8859_1);
  }

  /** Whether the last page is not marked as the last of its stream, or runs over the end. */
  private static boolean oggIsOpen(ByteBuffer tail) {
    for (int at = tail.limit() - 27; at >= 0; at--) {
      if (tail.get(at) == 'O' && bytesAt(tail, at).equals("OggS")) {
        int segments = tail.get(at + 26) & 0xFF;
        int length = 27 + segments;
        for (int i = 0; i < segments && at + 27 + i < tail.limit(); i++) {
          length += tail.get(at + 27 + i) & 0xFF;
        }
        return (tail.get(at + 5) & LAST_PAGE) == 0 || at + length > tail.limit();
      }
    }
    return true;
  }

  /** Whether one of the RIFF chunks after one another says that it goes on after the end. */
  private static boolean riffGoesOn(FileChannel channel) throws IOException {
    long size = channel.size();
    long at = 0;
    for (int chunk = 0; chunk < MOST_CHUNKS && at + RIFF_HEAD <= size; chunk++) {
      ByteBuffer head = read(channel, at, RIFF_HEAD).order(ByteOrder.LITTLE_ENDIAN);
      if (!starts(head, "RIFF")) {
        return false;
      }
      long length = head.getInt(4) & 0xFFFF_FFFFL;
      at += RIFF_HEAD + length + length % 2;
    }
    // Some writers count the head, too, or leave out the byte that makes the length even.
    return at > size + RIFF_HEAD;
  }

  /** Whether one of the chunks of a CAF file does; a length of -1 is "until the end". */
  private static boolean cafGoesOn(FileChannel channel) throws IOException {
    long size = channel.size();
    long at = CAF_HEAD;
    for (int chunk = 0; chunk < MOST_CHUNKS && at + CAF_CHUNK_HEAD <= size; chunk++) {
      long length = read(channel, at, CAF_CHUNK_HEAD).getLong(4);
      if (length < 0 || length > Long.MAX_VALUE / 2) {
        return false;
      }
      at += CAF_CHUNK_HEAD + length;
    }
    return at > size;
  }

  /** Whether the last four bytes are not the length of the tag before them. */
  private static boolean flvBreaksOff(FileChannel channel) throws IOException {
    long end = channel.size() - 4;
    long tag = read(channel, end, 4).getInt() & 0xFFFF_FFFFL;
    if (tag < FLV_TAG_HEAD || tag > end) {
      return true;
    }
    int head = read(channel, end - tag, 4).getInt(); // its kind, then the length of its content
    return (head & 0xFF_FFFF) != tag - FLV_TAG_HEAD;
  }

  /** Whether an ASF head tells of more bytes than there are; a broadcast's tells nothing. */
  private static boolean asfGoesOn(ByteBuffer head, long size) {
    ByteBuffer bytes = head.duplicate();
    for (int at = ASF_FIRST_OBJECT; at + ASF_FLAGS + 4 <= bytes.limit(); ) {
      boolean isFile = bytes.order(ByteOrder.BIG_ENDIAN).getLong(at) == ASF_FILE_PROPERTIES;
      bytes.order(ByteOrder.LITTLE_ENDIAN);
      if (isFile) {
        boolean isBroadcast = (bytes.getInt(at + ASF_FLAGS) & 1) != 0;
        return !isBroadcast && bytes.getLong(at + ASF_SIZE) > size;
      }
      long length = bytes.getLong(at + 16);
      if (length < 24 || length > bytes.limit()) {
        return false;
      }
      at += (int) length;
    }
    return false;
  }

  /** Whether a Matroska segment says that it goes on after the file's end. */
  private static boolean segmentGoesOn(ByteBuffer head, long size) {
    int at = 4;
    long header = number(head, at);
    at += width(head, at) + (int) header;
    if (head.getInt(at) != SEGMENT) {
      return false;
    }
    at += 4;
    int width = width(head, at);
    long segment = number(head, at);
    boolean isUnknown = segment == (1L << 7 * width) - 1;
    return !isUnknown && at + width + segment > size;
  }

  /** How many bytes a number of EBML has. */
  private static int width(ByteBuffer bytes, int at) {
    return Integer.numberOfLeadingZeros(bytes.get(at) & 0xFF) - 23;
  }

  private static long number(ByteBuffer bytes, int at) {
    int width = width(bytes, at);
    long value = bytes.get(at) & (0xFF >> width);
    for (int i = 1; i < width; i++) {
      value = value << 8 | bytes.get(at + i) & 0xFF;
    }
    return value;
  }

  /** Whether the last of a chain of ADTS frames runs over the end. */
  private static boolean adtsBreaksOff(ByteBuffer tail) {
    for (int start = 0; start < tail.limit() - 7; start++) {
      int at = start;
      int frames = 0;
      while (at <= tail.limit() - 7 && (tail.getShort(at) & 0xFFF6) == 0xFFF0) {
        int length =
            (tail.get(at + 3) & 3) << 11
                | (tail.get(at + 4) & 0xFF) << 3
                | (tail.get(at + 5) & 0xFF) >> 5;
        if (length < 7) {
          break;
        }
        at += length;
        frames++;
      }
      if (frames >= SURE) {
        return at > tail.limit() || at < tail.limit() && at > tail.limit() - 7;
      }
    }
    return false;
  }
}
