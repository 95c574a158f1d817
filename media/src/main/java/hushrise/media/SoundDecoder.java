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
import static org.bytedeco.ffmpeg.global.avutil.AV_CHAN_BACK_LEFT;
import static org.bytedeco.ffmpeg.global.avutil.AV_CHAN_BACK_RIGHT;
import static org.bytedeco.ffmpeg.global.avutil.AV_CHAN_LOW_FREQUENCY;
import static org.bytedeco.ffmpeg.global.avutil.AV_CHAN_LOW_FREQUENCY_2;
import static org.bytedeco.ffmpeg.global.avutil.AV_CHAN_SIDE_LEFT;
import static org.bytedeco.ffmpeg.global.avutil.AV_CHAN_SIDE_RIGHT;
import static org.bytedeco.ffmpeg.global.avutil.AV_NOPTS_VALUE;
import static org.bytedeco.ffmpeg.global.avutil.AV_SAMPLE_FMT_FLTP;
import static org.bytedeco.ffmpeg.global.avutil.av_channel_layout_channel_from_index;
import static org.bytedeco.ffmpeg.global.avutil.av_channel_layout_copy;
import static org.bytedeco.ffmpeg.global.avutil.av_channel_layout_default;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_alloc;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_free;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_get_buffer;
import static org.bytedeco.ffmpeg.global.avutil.av_opt_set_double;
import static org.bytedeco.ffmpeg.global.avutil.av_samples_set_silence;
import static org.bytedeco.ffmpeg.global.swresample.swr_alloc_set_opts2;
import static org.bytedeco.ffmpeg.global.swresample.swr_convert;
import static org.bytedeco.ffmpeg.global.swresample.swr_free;
import static org.bytedeco.ffmpeg.global.swresample.swr_get_out_samples;
import static org.bytedeco.ffmpeg.global.swresample.swr_init;

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
import org.bytedeco.ffmpeg.swresample.SwrContext;
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

  /** Receives decoded sound. */
  interface Sink {

    /**
     * Takes the next frames.
     *
     * @param planar one array for each channel
     * @param frames how many of them to take
     * @param fraction how much of the file has been read, 0 to 1
     */
    void take(float[][] planar, int frames, double fraction);
  }

  /** A gap in a film's sound up to this is a rounded time, in seconds. */
  private static final double LEAST_GAP = 0.015;

  /** A gap over this is a wrong time, in seconds. */
  private static final double LONGEST_GAP = 3600;

  private static final int SILENT_FRAMES = 4096;

  /** So high that a fold is never made softer. */
  private static final double NO_LIMIT = 1e6;

  private final Path file;
  private final AVFormatContext format;
  private final AVStream stream;
  private final AVCodecContext codec;
  private final SwrContext resampler;
  private final AVChannelLayout layout;
  private final int outRate;
  private final int outChannels;
  private final double zeroSeconds;
  private final boolean inStep;
  private final AVPacket packet = allocated(av_packet_alloc());
  private final AVFrame frame = allocated(av_frame_alloc());
  private FloatPointer[] out = new FloatPointer[0];
  private final PointerPointer<FloatPointer> outPlanes;
  private int outCapacity;
  private float[][] planar;
  private Optional<AVFrame> silence = Optional.empty();
  private boolean started;
  private boolean broken;
  private double fraction;
  private long goodFrames;

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
      resampler = new SwrContext(null);
      layout = new AVChannelLayout();
      outChannels = 0;
      close();
      throw new Problem(
          "The sound of %s cannot be decoded: it may be damaged; copy it again from its source."
              .formatted(file));
    }
    layout = new AVChannelLayout();
    if (codec.ch_layout().order() == 0) {
      av_channel_layout_default(layout, codec.ch_layout().nb_channels());
    } else {
      av_channel_layout_copy(layout, codec.ch_layout());
    }
    outChannels = folds ? Math.min(2, layout.nb_channels()) : layout.nb_channels();
    outPlanes = new PointerPointer<>(outChannels);
    planar = new float[outChannels][0];
    resampler = resampler();
  }

  private SwrContext resampler() {
    AVChannelLayout outLayout = new AVChannelLayout();
    if (outChannels == layout.nb_channels()) {
      av_channel_layout_copy(outLayout, layout);
    } else {
      av_channel_layout_default(outLayout, outChannels);
    }
    SwrContext made = new SwrContext(null);
    swr_alloc_set_opts2(
        made,
        outLayout,
        AV_SAMPLE_FMT_FLTP,
        outRate,
        layout,
        codec.sample_fmt(),
        codec.sample_rate(),
        0,
        null);
    av_opt_set_double(made, "rematrix_maxval", NO_LIMIT, 0);
    if (swr_init(made) < 0) {
      swr_free(made);
      made.setNull();
      throw new Problem(
          "The sound of %s has a channel layout that cannot be folded to stereo: convert it first."
              .formatted(file));
    }
    return made;
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
        }
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
        || format.duration_estimation_method() == AVFMT_DURATION_FROM_BITRATE) {
      if (broken) {
        throw cutShort(goodFrames / (double) codec.sample_rate());
      }
      return;
    }
    double stated = stream.duration() * TimeZero.seconds(stream.time_base());
    double found = goodFrames / (double) codec.sample_rate();
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
    while (avcodec_receive_frame(codec, frame) >= 0) {
      if (frame.sample_rate() == codec.sample_rate()) {
        keepInStep(sink);
        goodFrames += frame.nb_samples();
        reached += frame.nb_samples();
        convert(frame.extended_data(), frame.nb_samples(), sink);
      }
    }
  }

  /** Puts silence where a film's sound has none, and leaves out what comes before its zero. */
  private void keepInStep(Sink sink) {
    long time = frame.best_effort_timestamp();
    if (time == AV_NOPTS_VALUE || !(inStep || !started)) {
      started = true;
      return;
    }
    double seconds = time * TimeZero.seconds(stream.time_base()) - zeroSeconds;
    double ahead = seconds - reached / (double) codec.sample_rate();
    if (!started && inStep && seconds < 0) {
      reached = Math.round(seconds * codec.sample_rate());
      leftOut = Math.round(-seconds * outRate);
    } else if (inStep && ahead > (started ? LEAST_GAP : 0) && ahead < LONGEST_GAP) {
      silent(Math.round(ahead * codec.sample_rate()), sink);
    }
    started = true;
  }

  private void silent(long frames, Sink sink) {
    AVFrame quiet = silence.orElseGet(this::makeSilence);
    silence = Optional.of(quiet);
    for (long done = 0; done < frames; done += SILENT_FRAMES) {
      int n = (int) Math.min(SILENT_FRAMES, frames - done);
      convert(quiet.extended_data(), n, sink);
    }
    reached += frames;
  }

  private AVFrame makeSilence() {
    AVFrame quiet = allocated(av_frame_alloc());
    quiet.format(codec.sample_fmt());
    quiet.sample_rate(codec.sample_rate());
    av_channel_layout_copy(quiet.ch_layout(), layout);
    quiet.nb_samples(SILENT_FRAMES);
    av_frame_get_buffer(quiet, 0);
    av_samples_set_silence(
        quiet.extended_data(), 0, SILENT_FRAMES, layout.nb_channels(), codec.sample_fmt());
    return quiet;
  }

  private void convert(PointerPointer<?> input, int frames, Sink sink) {
    ensure(Math.max(1024, swr_get_out_samples(resampler, frames)));
    int got = swr_convert(resampler, outPlanes, outCapacity, input, frames);
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
    if (resampler != null && !resampler.isNull()) {
      swr_free(resampler);
    }
    avcodec_free_context(codec);
    avformat_close_input(format);
  }
}
