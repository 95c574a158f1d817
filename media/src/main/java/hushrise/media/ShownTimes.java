package hushrise.media;

import static hushrise.media.Ffmpeg.allocated;
import static org.bytedeco.ffmpeg.global.avcodec.AVDISCARD_ALL;
import static org.bytedeco.ffmpeg.global.avcodec.AV_CODEC_FLAG_COPY_OPAQUE;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_alloc;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_clone;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_free;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_move_ref;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_alloc_context3;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_find_decoder;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_free_context;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_open2;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_parameters_to_context;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_receive_frame;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_send_packet;
import static org.bytedeco.ffmpeg.global.avutil.AV_NOPTS_VALUE;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_alloc;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_free;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import org.bytedeco.ffmpeg.avcodec.AVCodec;
import org.bytedeco.ffmpeg.avcodec.AVCodecContext;
import org.bytedeco.ffmpeg.avcodec.AVCodecParameters;
import org.bytedeco.ffmpeg.avcodec.AVPacket;
import org.bytedeco.ffmpeg.avformat.AVStream;
import org.bytedeco.ffmpeg.avutil.AVDictionary;
import org.bytedeco.ffmpeg.avutil.AVFrame;
import org.bytedeco.javacpp.Pointer;

/**
 * Gives packets that say only when they are decoded the time at which {@link PictureDecoder} shows
 * them: which is first shown, and which later, stands in the pictures, so they are decoded for it.
 */
final class ShownTimes implements AutoCloseable {

  /** How many packets at most wait for their time, as a damaged picture is never shown. */
  private static final int MOST_WAITING = 160;

  private final AVCodecContext codec;
  private final AVFrame frame = allocated(av_frame_alloc());
  private final Deque<AVPacket> waiting = new ArrayDeque<>();

  /** The times that have been found, by the packets' numbers from 1 on. */
  private final Map<Long, Long> found = new HashMap<>();

  private final FrameTimes times;
  private long added;
  private long taken;
  private boolean ended;

  private ShownTimes(AVCodecContext codec, FrameTimes times) {
    this.codec = codec;
    this.times = times;
  }

  /** Empty where nothing decodes these pictures. */
  static Optional<ShownTimes> of(AVStream stream, AVCodecParameters parameters) {
    AVCodec decoder = avcodec_find_decoder(parameters.codec_id());
    if (decoder == null) {
      return Optional.empty();
    }
    AVCodecContext codec = allocated(avcodec_alloc_context3(decoder));
    avcodec_parameters_to_context(codec, parameters);
    codec.pkt_timebase(stream.time_base());
    codec.thread_count(0);
    codec.flags(codec.flags() | AV_CODEC_FLAG_COPY_OPAQUE);
    // nobody looks at them
    codec.skip_loop_filter(AVDISCARD_ALL);
    codec.skip_idct(AVDISCARD_ALL);
    if (avcodec_open2(codec, decoder, (AVDictionary) null) < 0) {
      avcodec_free_context(codec);
      return Optional.empty();
    }
    return Optional.of(new ShownTimes(codec, new FrameTimes(stream)));
  }

  /** A packet's number, in the place of an address that goes through the decoder with it. */
  private static final class Tag extends Pointer {
    Tag(long number) {
      super((Pointer) null);
      address = number;
    }
  }

  /** Takes the next packet over; the one that is given is empty then. */
  void add(AVPacket packet) {
    AVPacket kept = allocated(av_packet_alloc());
    av_packet_move_ref(kept, packet);
    waiting.add(kept);
    added++;
    AVPacket sent = allocated(av_packet_clone(kept));
    sent.opaque(new Tag(added));
    decode(sent);
    av_packet_free(sent);
  }

  /** After the last packet. */
  void end() {
    decode(null);
    ended = true;
  }

  private void decode(AVPacket packet) {
    avcodec_send_packet(codec, packet);
    while (avcodec_receive_frame(codec, frame) >= 0) {
      long at = times.of(frame);
      Pointer number = frame.opaque();
      if (number != null) {
        found.put(number.address(), at);
      }
    }
  }

  /** The oldest packet, once it is known when it is shown; false when more are needed. */
  boolean next(AVPacket to) {
    AVPacket packet = waiting.peek();
    if (packet == null) {
      return false;
    }
    Long at = found.remove(taken + 1);
    if (at == null && !ended && waiting.size() < MOST_WAITING) {
      return false;
    }
    waiting.remove();
    taken++;
    if (packet.pts() == AV_NOPTS_VALUE) {
      packet.pts(at == null ? packet.dts() : Math.max(at, packet.dts()));
    }
    av_packet_move_ref(to, packet);
    av_packet_free(packet);
    return true;
  }

  @Override
  public void close() {
    waiting.forEach(packet -> av_packet_free(packet));
    av_frame_free(frame);
    avcodec_free_context(codec);
  }
}
