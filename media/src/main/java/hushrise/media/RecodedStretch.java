package hushrise.media;

import static org.bytedeco.ffmpeg.global.avutil.AV_PIX_FMT_BGRA;
import static org.bytedeco.ffmpeg.global.swscale.SWS_BICUBIC;
import static org.bytedeco.ffmpeg.global.swscale.sws_scale;

import hushrise.core.time.FrameRate;
import java.nio.file.Path;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import org.bytedeco.ffmpeg.avformat.AVFormatContext;
import org.bytedeco.ffmpeg.avutil.AVFrame;
import org.bytedeco.ffmpeg.swscale.SwsContext;
import org.bytedeco.javacpp.IntPointer;
import org.bytedeco.javacpp.PointerPointer;

/**
 * A stretch of a film's picture, decoded and encoded anew, for containers that do not take its
 * coding. Every frame keeps its own time, so that films of variable rate stay in step; one that
 * lies on its side is turned.
 *
 * <p>A stretch begins where decoding can begin: a film with few key frames has few of them.
 */
final class RecodedStretch implements ClosedGroups.Stretch {

  static {
    Ffmpeg.load();
  }

  /** FFmpeg's AV_FRAME_FLAG_KEY, which the bindings leave out as it is a macro with a shift. */
  private static final int KEY = 1 << 1;

  /** A film, and what becomes of it. */
  private record Plan(Path film, double neededSeconds, FrameRate rate, VideoEncoder.Target target) {

    VideoEncoder encoder(PictureDecoder decoder) {
      boolean lying = decoder.orientation().transposed();
      int width = decoder.codec().width();
      int height = decoder.codec().height();
      VideoEncoder encoder =
          new VideoEncoder(
              target,
              lying ? height : width,
              lying ? width : height,
              rate,
              VideoEncoder.BITS_PER_PIXEL,
              VideoEncoder.TICKS_PER_SECOND);
      double aspect = Probe.aspectOf(decoder.stream());
      encoder.setAspect(lying ? 1 / aspect : aspect);
      encoder.open();
      return encoder;
    }
  }

  private final Plan plan;
  private final PictureDecoder decoder;
  private final Scaling scaling = new Scaling();
  private final long startTick;
  private int[] argb = new int[0];

  /** Whether the decoder holds the first frame already. */
  private boolean hasFrame;

  private RecodedStretch(Plan plan, PictureDecoder decoder, long startTick, boolean hasFrame) {
    this.plan = plan;
    this.decoder = decoder;
    this.startTick = startTick;
    this.hasFrame = hasFrame;
  }

  /**
   * A film's picture, encoded anew in closed groups.
   *
   * @param neededSeconds how much of the film has to be there
   */
  static PictureFeed feed(
      Path film,
      double neededSeconds,
      FrameRate rate,
      AVFormatContext output,
      OutputFormat format) {
    Plan plan = new Plan(film, neededSeconds, rate, VideoEncoder.Target.of(output, format));
    RecodedStretch first = new RecodedStretch(plan, new PictureDecoder(film), 0, false);
    try (VideoEncoder description = plan.encoder(first.decoder)) {
      return new ClosedGroups(output, description, first);
    } catch (RuntimeException e) {
      first.close();
      throw e;
    }
  }

  @Override
  public long startTick() {
    return startTick;
  }

  @Override
  public Optional<RecodedStretch> following() {
    double start = startTick / (double) VideoEncoder.TICKS_PER_SECOND;
    PictureDecoder next = new PictureDecoder(plan.film());
    for (double on = ClosedGroups.SECONDS; start + on < plan.neededSeconds(); on *= 2) {
      next.seek(start + on);
      if (!next.next()) {
        break;
      }
      long tick = tickOf(next);
      if (tick > startTick && (next.frame().flags() & KEY) != 0) {
        return Optional.of(new RecodedStretch(plan, next, tick, true));
      }
    }
    next.close();
    return Optional.empty();
  }

  private static long tickOf(PictureDecoder decoder) {
    return Math.round(decoder.frameSeconds() * VideoEncoder.TICKS_PER_SECOND);
  }

  @Override
  public void encode(Optional<Long> endTick, PacketSink sink) {
    try (VideoEncoder encoder = plan.encoder(decoder)) {
      long lastTick = startTick - 1;
      while (hasFrame || decoder.next()) {
        if (Thread.currentThread().isInterrupted()) {
          throw new CancellationException();
        }
        hasFrame = false;
        long tick = Math.max(lastTick + 1, tickOf(decoder));
        if (endTick.filter(end -> tick >= end).isPresent()) {
          encoder.finish(sink);
          return;
        }
        encode(encoder, decoder.frame(), tick, sink);
        lastTick = tick;
      }
      decoder.requireWhole(plan.neededSeconds());
      encoder.finish(sink);
    }
  }

  private void encode(VideoEncoder encoder, AVFrame frame, long tick, PacketSink sink) {
    Orientation way = decoder.orientation();
    if (way.isUpright()) {
      encoder.add(frame, tick, sink);
      return;
    }
    int width = frame.width();
    int height = frame.height();
    int[] turned = way.turned(pixelsOf(frame), width, height);
    encoder.add(
        turned, way.transposed() ? height : width, way.transposed() ? width : height, tick, sink);
  }

  private int[] pixelsOf(AVFrame frame) {
    int width = frame.width();
    int height = frame.height();
    SwsContext scaler =
        scaling.from(width, height, frame.format(), width, height, AV_PIX_FMT_BGRA, SWS_BICUBIC);
    if (argb.length != width * height) {
      argb = new int[width * height];
    }
    try (IntPointer pixels = new IntPointer((long) width * height + 16);
        PointerPointer<IntPointer> planes = new PointerPointer<>(4);
        IntPointer strides = new IntPointer(width * 4, 0, 0, 0)) {
      planes.put(0, pixels);
      sws_scale(scaler, frame.data(), frame.linesize(), 0, height, planes, strides);
      pixels.get(argb, 0, argb.length);
    }
    return argb;
  }

  @Override
  public void close() {
    scaling.close();
    decoder.close();
  }
}
