package hushrise.media;

import org.bytedeco.ffmpeg.avcodec.AVPacket;

/** Takes finished packets, stamped in the output stream's own time. */
@FunctionalInterface
interface PacketSink {
  void write(AVPacket packet);
}
