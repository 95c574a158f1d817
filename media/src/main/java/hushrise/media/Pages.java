package hushrise.media;

import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;

/** Brings parts of mapped files into memory ahead of their use. */
final class Pages {

  private static final long PAGE = 4096;

  private Pages() {}

  /** Touches every page of a stretch, as far as it lies within the file. */
  static void touch(MemorySegment data, long fromByte, long bytes) {
    long end = Math.min(fromByte + bytes, data.byteSize());
    for (long at = Math.max(0, fromByte); at < end; at += PAGE) {
      data.get(ValueLayout.JAVA_BYTE, at);
    }
  }
}
