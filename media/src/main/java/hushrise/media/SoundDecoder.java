package hushrise.media;

import static hushrise.media.Ffmpeg.allocated;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_alloc;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_free;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_unref;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_alloc_context3;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_find_decoder;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_free_context;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_open2;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_parameters_to_context;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_receive_frame;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_send_packet;
import static org.bytedeco.ffmpeg.global.avformat.AVFMT_DURATION_FROM_BITRATE;
import static org.bytedeco.ffmpeg.global.avformat.avformat_close_input;
import static org.bytedeco.ffmpeg.global.avutil.AVERROR_EAGAIN;
import static org.bytedeco.ffmpeg.global.avutil.AVERROR_EOF;
import static org.bytedeco.ffmpeg.global.avutil.AV_CHAN_BACK_LEFT;
import static org.bytedeco.ffmpeg.global.avutil.AV_CHAN_BACK_RIGHT;
import static org.bytedeco.ffmpeg.global.avutil.AV_CHAN_LOW_FREQUENCY;
import static org.bytedeco.ffmpeg.global.avutil.AV_CHAN_LOW_FREQUENCY_2;
import static org.bytedeco.ffmpeg.global.avutil.AV_CHAN_SIDE_LEFT;
import static org.bytedeco.ffmpeg.global.avutil.AV_CHAN_SIDE_RIGHT;
import static org.bytedeco.ffmpeg.global.avutil.AV_NOPTS_VALUE;
import static org.bytedeco.ffmpeg.global.avutil.av_channel_layout_channel_from_index;
import static org.bytedeco.ffmpeg.global.avutil.av_channel_layout_copy;
import static org.bytedeco.ffmpeg.global.avutil.av_channel_layout_default;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_alloc;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_free;

import hushrise.core.Problem;
import java.nio.file.Path;
import java.util.Optional;
import org.bytedeco.ffmpeg.avcodec.AVCodecContext;
import org.bytedeco.ffmpeg.avcodec.AVPacket;
import org.bytedeco.ffmpeg.avformat.AVFormatContext;
import org.bytedeco.ffmpeg.avformat.AVStream;
import org.bytedeco.ffmpeg.avutil.AVChannelLayout;
import org.bytedeco.ffmpeg.avutil.AVDictionary;
import org.bytedeco.ffmpeg.avutil.AVFrame;
import org.bytedeco.javacpp.FloatPointer;
import org.bytedeco.javacpp.PointerPointer;

/**
 * Decodes a file's sound from start to end into planar floats at a wanted rate.
 *
 * <p>More than two channels are folded to stereo by ITU-R BS.775-4 table 2 (centre and surrounds at
 * -3 dB, no LFE) and not made softer for it: a sample may pass full scale. Times are counted from
 * the file's {@link TimeZero}: what starts later is preceded by silence, what starts earlier is
 * left out, and where a film's sound has a gap there is silence, so that it stays in step.
 */
final class SoundDecoder implements AutoCloseable {

  static {
    Ffmpeg.load();
  }

  /** Receives decoded sound. */
  interface Sink {

    /**
     * Takes the next frames.
     *
     * @param planar one array for each channel
     * @param frames how many of them to take; 0 while only other streams of the file are read
     * @param fraction how much of the file has been read, 0 to 1
     */
    void take(float[][] planar, int frames, double fraction);
  }

  /** A gap in a film's sound up to this is a rounded time, in seconds. */
  private static final double LEAST_GAP = 0.015;

  /** A gap over this is a wrong time, in seconds. */
  private static final double LONGEST_GAP = 3600;

  /** Matroska and WebM say how long they last, but not how long each of their streams does. */
  private static final String FILM_LONG = "matroska";

  private static final int SILENT_FRAMES = 4096;

  private final Path file;
  private final AVFormatContext format;
  private final AVStream stream;
  private final AVCodecContext codec;
  private final AVChannelLayout layout = new AVChannelLayout();
  private final AVChannelLayout outLayout = new AVChannelLayout();
  private final int outRate;
  private final int outChannels;
  private final double zeroSeconds;
  private final boolean inStep;
  private final AVPacket packet = allocated(av_packet_alloc());
  private final AVFrame frame = allocated(av_frame_alloc());
  private final int ownRate;
  private Optional<Resampler> resampler = Optional.empty();
  private FloatPointer[] out = new FloatPointer[0];
  private final PointerPointer<FloatPointer> outPlanes;
  private int outCapacity;
  private float[][] planar;
  private Optional<AVFrame> silence = Optional.empty();
  private boolean started;
  private boolean broken;
  private double fraction;
  private long goodFrames;

  /** How many of the stated frames the file itself leaves out, as a recorder does in a pause. */
  private long pausedFrames;

  /** Whether something since the last good frame could not be decoded. */
  private boolean lost;

  /** How many input frames have gone on, from the file's zero; negative while some are left out. */
  private long reached;

  private long leftOut;

  /** A decoder to mono or stereo. */
  static SoundDecoder folded(Path file, int outRate) {
    return new SoundDecoder(file, outRate, true);
  }

  /** A decoder to the file's own channels, at its own rate. */
  static SoundDecoder asItIs(Path file, int ownRate) {
    return new SoundDecoder(file, ownRate, false);
  }

  private SoundDecoder(Path file, int outRate, boolean folds) {
    this.file = file;
    this.outRate = outRate;
    format = Ffmpeg.openInput(file);
    int index = Probe.soundStream(format);
    if (index < 0) {
      avformat_close_input(format);
      throw new Problem("%s has no sound: choose another file.".formatted(file));
    }
    stream = format.streams(index);
    inStep = Probe.pictureStream(format) >= 0;
    zeroSeconds = TimeZero.of(format);
    var decoder = avcodec_find_decoder(stream.codecpar().codec_id());
    if (decoder == null) {
      avformat_close_input(format);
      throw new Problem(
          "The sound of %s is in a coding that cannot be read: convert it to WAV or FLAC first."
              .formatted(file));
    }
    codec = allocated(avcodec_alloc_context3(decoder));
    avcodec_parameters_to_context(codec, stream.codecpar());
    codec.pkt_timebase(stream.time_base());
    if (avcodec_open2(codec, decoder, (AVDictionary) null) < 0) {
      outPlanes = new PointerPointer<>(1);
      outChannels = 0;
      ownRate = 0;
      close();
      throw new Problem(
          "The sound of %s cannot be decoded: it may be damaged; copy it again from its source."
              .formatted(file));
    }
    Resampler.known(codec.ch_layout(), layout);
    outChannels = folds ? Math.min(2, layout.nb_channels()) : layout.nb_channels();
    if (outChannels == layout.nb_channels()) {
      av_channel_layout_copy(outLayout, layout);
    } else {
      av_channel_layout_default(outLayout, outChannels);
    }
    outPlanes = new PointerPointer<>(outChannels);
    planar = new float[outChannels][0];
    ownRate = codec.sample_rate();
    resampler = Optional.of(resampler(ownRate, codec.sample_fmt(), layout));
  }

  private Resampler resampler(int inRate, int format, AVChannelLayout from) {
    try {
      return new Resampler(inRate, format, from, outRate, outLayout);
    } catch (IllegalArgumentException e) {
      throw new Problem(
          "The sound of %s has a channel layout that cannot be folded to stereo: convert it first."
              .formatted(file),
          e);
    }
  }

  int channels() {
    return outChannels;
  }

  /**
   * What each of the file's channels counts in its loudness (ITU-R BS.1770-5 annex 3): 1.41 for
   * those at the sides, 0 for LFE, else 1. Where there are channels at the sides and in the back,
   * those in the back count 1.
   */
  double[] loudnessWeights() {
    boolean sides = false;
    for (int c = 0; c < outChannels; c++) {
      int channel = av_channel_layout_channel_from_index(layout, c);
      sides |= channel == AV_CHAN_SIDE_LEFT || channel == AV_CHAN_SIDE_RIGHT;
    }
    double[] weights = new double[outChannels];
    for (int c = 0; c < outChannels; c++) {
      int channel = av_channel_layout_channel_from_index(layout, c);
      boolean side = channel == AV_CHAN_SIDE_LEFT || channel == AV_CHAN_SIDE_RIGHT;
      boolean back = channel == AV_CHAN_BACK_LEFT || channel == AV_CHAN_BACK_RIGHT;
      boolean low = channel == AV_CHAN_LOW_FREQUENCY || channel == AV_CHAN_LOW_FREQUENCY_2;
      weights[c] = low ? 0 : side || (back && !sides) ? 1.41 : 1;
    }
    return weights;
  }

  /**
   * Decodes everything.
   *
   * @throws Problem when nothing at all could be decoded, or not all there should be
   */
  void decodeTo(Sink sink) {
    while (read()) {
      if (packet.stream_index() == stream.index()) {
        noteFraction();
        if (avcodec_send_packet(codec, packet) >= 0) {
          receive(sink);
        } else {
          lost = true;
        }
      } else {
        sink.take(planar, 0, fraction);
      }
      av_packet_unref(packet);
    }
    avcodec_send_packet(codec, null);
    receive(sink);
    convert(null, 0, sink);
    if (goodFrames == 0) {
      throw new Problem(
          "%s holds no sound that can be decoded: it may be cut short; copy it again from its source."
              .formatted(file));
    }
    requireWhole();
  }

  /** Reads on; what cannot be read counts as the end, and is missed there if it was sound. */
  private boolean read() {
    try {
      return Ffmpeg.read(format, packet, file);
    } catch (Problem e) {
      broken = true;
      return false;
    }
  }

  /** Refuses a file whose container states a length that its sound does not reach. */
  private void requireWhole() {
    if (stream.duration() == AV_NOPTS_VALUE
        || format.duration_estimation_method() == AVFMT_DURATION_FROM_BITRATE
        || format.iformat().name().getString().startsWith(FILM_LONG)) {
      if (broken) {
        throw cutShort(goodFrames / (double) ownRate);
      }
      return;
    }
    double stated = stream.duration() * TimeZero.seconds(stream.time_base());
    double found = (goodFrames + pausedFrames) / (double) ownRate;
    if (stated - found > Math.max(0.5, stated * 0.02)) {
      throw new Problem(
          "%s is cut short: it should last %.1f s and holds %.1f s; copy it again from its source."
              .formatted(file, stated, found));
    }
  }

  private Problem cutShort(double seconds) {
    return new Problem(
        "%s cannot be read after %.1f s: it may be cut short, or its disk is gone; copy it again from its source."
            .formatted(file, seconds));
  }

  private void noteFraction() {
    long size =
        format.pb() == null ? 0 : org.bytedeco.ffmpeg.global.avformat.avio_size(format.pb());
    if (size > 0 && packet.pos() > 0) {
      fraction = Math.min(1, packet.pos() / (double) size);
    }
  }

  private void receive(Sink sink) {
    int result = avcodec_receive_frame(codec, frame);
    while (result >= 0) {
      if (frame.sample_rate() > 0 && frame.ch_layout().nb_channels() > 0) {
        if (!resampler.orElseThrow().takes(frame)) {
          change(sink);
        }
        keepInStep(sink);
        long atOwnRate = Math.round(frame.nb_samples() * (double) ownRate / frame.sample_rate());
        goodFrames += atOwnRate;
        reached += atOwnRate;
        convert(frame.extended_data(), frame.nb_samples(), sink);
        lost = false;
      }
      result = avcodec_receive_frame(codec, frame);
    }
    lost |= result != AVERROR_EAGAIN() && result != AVERROR_EOF();
  }

  /** Goes on with sound of another rate, format or layout, as streams put together have it. */
  private void change(Sink sink) {
    convert(null, 0, sink);
    Resampler next = resampler(frame.sample_rate(), frame.format(), frame.ch_layout());
    resampler.ifPresent(Resampler::close);
    resampler = Optional.of(next);
    silence.ifPresent(org.bytedeco.ffmpeg.global.avutil::av_frame_free);
    silence = Optional.empty();
  }

  /** Puts silence where a film's sound has none, and leaves out what comes before its zero. */
  private void keepInStep(Sink sink) {
    long time = frame.best_effort_timestamp();
    if (time == AV_NOPTS_VALUE || !(inStep || !started)) {
      started = true;
      return;
    }
    double at = time * TimeZero.seconds(stream.time_base());
    double seconds = at - zeroSeconds;
    double ahead = seconds - reached / (double) ownRate;
    if (!started && inStep) {
      notePause(at - TimeZero.startOf(stream));
    }
    if (!started && inStep && seconds < 0) {
      reached = Math.round(seconds * ownRate);
      leftOut = Math.round(-seconds * outRate);
    } else if (inStep && ahead > (started ? LEAST_GAP : 0) && ahead < LONGEST_GAP) {
      if (started) {
        notePause(ahead);
      }
      silent(Math.round(ahead * ownRate), sink);
    }
    started = true;
  }

  private void notePause(double seconds) {
    if (!lost && seconds > LEAST_GAP && seconds < LONGEST_GAP) {
      pausedFrames += Math.round(seconds * ownRate);
    }
  }

  private void silent(long frames, Sink sink) {
    Resampler now = resampler.orElseThrow();
    AVFrame quiet = silence.orElseGet(() -> now.silence(SILENT_FRAMES));
    silence = Optional.of(quiet);
    long count = Math.round(frames * (double) now.inRate() / ownRate);
    for (long done = 0; done < count; done += SILENT_FRAMES) {
      int n = (int) Math.min(SILENT_FRAMES, count - done);
      convert(quiet.extended_data(), n, sink);
    }
    reached += frames;
  }

  private void convert(PointerPointer<?> input, int frames, Sink sink) {
    Resampler now = resampler.orElseThrow();
    ensure(Math.max(1024, now.framesFor(frames)));
    int got = now.convert(input, frames, outPlanes, outCapacity);
    int skipped = (int) Math.min(Math.max(0, got), leftOut);
    leftOut -= skipped;
    int n = got - skipped;
    if (n > 0) {
      for (int c = 0; c < outChannels; c++) {
        out[c].position(skipped).get(planar[c], 0, n);
      }
      sink.take(planar, n, fraction);
    }
  }

  private void ensure(int frames) {
    if (frames > outCapacity) {
      for (FloatPointer p : out) {
        p.position(0).deallocate();
      }
      outCapacity = frames;
      out = new FloatPointer[outChannels];
      for (int c = 0; c < outChannels; c++) {
        out[c] = new FloatPointer(frames);
        planar[c] = new float[frames];
      }
    }
    for (int c = 0; c < outChannels; c++) {
      outPlanes.put(c, out[c].position(0));
    }
  }

  @Override
  public void close() {
    for (FloatPointer p : out) {
      p.position(0).deallocate();
    }
    outPlanes.deallocate();
    av_packet_free(packet);
    av_frame_free(frame);
    silence.ifPresent(org.bytedeco.ffmpeg.global.avutil::av_frame_free);
    resampler.ifPresent(Resampler::close);
    avcodec_free_context(codec);
    avformat_close_input(format);
  }
}
