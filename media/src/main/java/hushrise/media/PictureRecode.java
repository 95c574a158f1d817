package hushrise.media;

import static org.bytedeco.ffmpeg.global.avutil.AV_PIX_FMT_BGRA;
import static org.bytedeco.ffmpeg.global.swscale.SWS_BICUBIC;
import static org.bytedeco.ffmpeg.global.swscale.sws_scale;

import hushrise.core.time.FrameRate;
import java.nio.file.Path;
import org.bytedeco.ffmpeg.avformat.AVFormatContext;
import org.bytedeco.ffmpeg.avutil.AVFrame;
import org.bytedeco.ffmpeg.swscale.SwsContext;
import org.bytedeco.javacpp.IntPointer;
import org.bytedeco.javacpp.PointerPointer;

/**
 * A film's picture, decoded and encoded anew, for containers that do not take its coding. Every
 * frame keeps its own time, so that films of variable rate stay in step; one that lies on its side
 * is turned.
 */
final class PictureRecode implements PictureFeed {

  static {
    Ffmpeg.load();
  }

  private final PictureDecoder decoder;
  private final VideoEncoder encoder;
  private final Scaling scaling = new Scaling();
  private int[] argb = new int[0];
  private final double neededSeconds;
  private boolean waiting;
  private boolean ended;
  private long lastTick = -1;

  /**
   * @param neededSeconds how much of the film has to be there
   */
  PictureRecode(
      Path film,
      double neededSeconds,
      FrameRate rate,
      AVFormatContext output,
      OutputFormat format) {
    this.neededSeconds = neededSeconds;
    decoder = new PictureDecoder(film);
    boolean lying = decoder.orientation().transposed();
    int width = decoder.codec().width();
    int height = decoder.codec().height();
    encoder =
        new VideoEncoder(
            output,
            format,
            lying ? height : width,
            lying ? width : height,
            rate,
            VideoEncoder.BITS_PER_PIXEL,
            VideoEncoder.TICKS_PER_SECOND);
    double aspect = Probe.aspectOf(decoder.stream());
    encoder.setAspect(lying ? 1 / aspect : aspect);
    encoder.open();
  }

  @Override
  public boolean copies() {
    return false;
  }

  @Override
  public void writeUntil(double seconds, PacketSink sink) {
    while (!ended) {
      if (!waiting && !decoder.next()) {
        decoder.requireWhole(neededSeconds);
        ended = true;
        encoder.finish(sink);
        return;
      }
      waiting = decoder.frameSeconds() > seconds;
      if (waiting) {
        return;
      }
      long tick =
          Math.max(
              lastTick + 1, Math.round(decoder.frameSeconds() * VideoEncoder.TICKS_PER_SECOND));
      encode(decoder.frame(), tick, sink);
      lastTick = tick;
    }
  }

  private void encode(AVFrame frame, long tick, PacketSink sink) {
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
    encoder.close();
    decoder.close();
  }
}
