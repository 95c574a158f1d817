package hushrise.media;

/** Brings a picture's packets into an output file, a stretch at a time. */
interface PictureFeed extends AutoCloseable {

  /** Whether the packets are those of the source, untouched. */
  boolean copies();

  /** Hands over all packets that are decoded before a time, in seconds from the start. */
  void writeUntil(double seconds, PacketSink sink);

  @Override
  void close();
}
