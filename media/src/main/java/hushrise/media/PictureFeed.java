package hushrise.media;

import org.bytedeco.ffmpeg.avcodec.AVPacket;

/** Brings a picture's packets into an output file, a stretch at a time. */
interface PictureFeed extends AutoCloseable {

  /** Takes finished packets, stamped in the output stream's own time. */
  interface PacketSink {
    void write(AVPacket packet);
  }

  /** Whether the packets are those of the source, untouched. */
  boolean copies();

  /** Hands over all packets that are decoded before a time, in seconds from the start. */
  void writeUntil(double seconds, PacketSink sink);

  @Override
  void close();
}
