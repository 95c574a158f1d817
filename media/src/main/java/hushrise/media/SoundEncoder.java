package hushrise.media;

import static hushrise.media.Ffmpeg.allocated;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_rescale_ts;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_parameters_from_context;
import static org.bytedeco.ffmpeg.global.avformat.AVFMT_GLOBALHEADER;
import static org.bytedeco.ffmpeg.global.avformat.avformat_new_stream;

import org.bytedeco.ffmpeg.avcodec.AVCodecContext;
import org.bytedeco.ffmpeg.avcodec.AVPacket;
import org.bytedeco.ffmpeg.avformat.AVFormatContext;
import org.bytedeco.ffmpeg.avformat.AVStream;
import org.bytedeco.ffmpeg.avutil.AVRational;

/** Encodes stereo floats into a stream of an output file. */
abstract sealed class SoundEncoder implements AutoCloseable permits WholeSound, SegmentedSound {

  static {
    Ffmpeg.load();
  }

  private final AVStream stream;
  private final AVRational clock;

  /** Adds a stream for what an encoder gives. */
  SoundEncoder(AVFormatContext output, AVCodecContext codec) {
    stream = allocated(avformat_new_stream(output, null));
    clock = codec.time_base();
    stream.time_base(clock);
    SampleEncoder.require(avcodec_parameters_from_context(stream.codecpar(), codec), "stream");
  }

  /** An encoder for an output: AAC on all cores, anything else on one. */
  static SoundEncoder of(AVFormatContext output, OutputFormat format, int sampleRate, int bitRate) {
    boolean head = (output.oformat().flags() & AVFMT_GLOBALHEADER) != 0;
    SampleEncoder first = new SampleEncoder(format, sampleRate, bitRate, head, 0);
    return format.coding() == SoundCoding.AAC
        ? new SegmentedSound(
            output, first, from -> new SampleEncoder(format, sampleRate, bitRate, head, from))
        : new WholeSound(output, first);
  }

  AVStream stream() {
    return stream;
  }

  /** Stamps a packet, whose times are in sample frames, for the stream, and hands it over. */
  void deliver(AVPacket packet, PacketSink sink) {
    packet.stream_index(stream.index());
    av_packet_rescale_ts(packet, clock, stream.time_base());
    sink.write(packet);
  }

  abstract void add(float[] left, float[] right, int frames, PacketSink sink);

  /** Encodes what is left and everything the encoder holds back. */
  abstract void finish(PacketSink sink);

  @Override
  public abstract void close();
}
