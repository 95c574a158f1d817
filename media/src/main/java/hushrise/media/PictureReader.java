package hushrise.media;

import static org.bytedeco.ffmpeg.global.avutil.AV_PIX_FMT_BGRA;
import static org.bytedeco.ffmpeg.global.swscale.SWS_BILINEAR;
import static org.bytedeco.ffmpeg.global.swscale.sws_freeContext;
import static org.bytedeco.ffmpeg.global.swscale.sws_getCachedContext;
import static org.bytedeco.ffmpeg.global.swscale.sws_scale;

import hushrise.core.time.FrameRate;
import java.nio.file.Path;
import java.util.Optional;
import org.bytedeco.ffmpeg.avutil.AVFrame;
import org.bytedeco.ffmpeg.swscale.SwsContext;
import org.bytedeco.ffmpeg.swscale.SwsFilter;
import org.bytedeco.javacpp.BytePointer;
import org.bytedeco.javacpp.DoublePointer;
import org.bytedeco.javacpp.IntPointer;
import org.bytedeco.javacpp.PointerPointer;

/**
 * Gives the picture at any time, scaled into a box, as pixels. Going forward it decodes on; going
 * back or far ahead it seeks. For one thread.
 */
public final class PictureReader implements AutoCloseable {

  /** How far ahead it is quicker to decode on than to seek. */
  private static final double DECODE_ON_SECONDS = 1.0;

  /** Frames this close before the wanted time are kept, as the film may end with one of them. */
  private static final double KEEP_SECONDS = 0.5;

  private final PictureDecoder decoder;
  private final double frameSeconds;
  private final int width;
  private final int height;
  private final BytePointer pixels;
  private final PointerPointer<BytePointer> planes;
  private final IntPointer strides;
  private SwsContext scaler;
  private double shownFrom = Double.NaN;

  /**
   * A picture in memory.
   *
   * @param width in pixels
   * @param height in pixels
   * @param argb rows of pixels, top to bottom, each {@code 0xFFRRGGBB}
   */
  @SuppressWarnings("ArrayRecordComponent") // pixels are handed on, never compared
  public record Picture(int width, int height, int[] argb) {}

  /**
   * @param file a film
   * @param rate its frame rate
   * @param maxWidth the box's width in pixels
   * @param maxHeight the box's height in pixels
   * @throws hushrise.core.Problem when it has no picture that can be read
   */
  public PictureReader(Path file, FrameRate rate, int maxWidth, int maxHeight) {
    decoder = new PictureDecoder(file);
    frameSeconds = 1 / rate.perSecond();
    var aspect = decoder.codec().sample_aspect_ratio();
    double stretch =
        aspect.num() > 0 && aspect.den() > 0 ? aspect.num() / (double) aspect.den() : 1;
    double fullWidth = decoder.codec().width() * stretch;
    double fullHeight = decoder.codec().height();
    double scale = Math.min(maxWidth / fullWidth, maxHeight / fullHeight);
    width = Math.max(2, (int) Math.round(fullWidth * scale));
    height = Math.max(2, (int) Math.round(fullHeight * scale));
    pixels = new BytePointer((long) width * height * 4 + 64);
    planes = new PointerPointer<>(1);
    planes.put(0, pixels);
    strides = new IntPointer(1).put(0, width * 4);
  }

  /** The picture shown at a time from the picture's start; empty where none can be decoded. */
  public Optional<Picture> at(double seconds) {
    double wanted = Math.clamp(seconds, 0, Math.max(0, decoder.durationSeconds() - frameSeconds));
    boolean near = wanted >= shownFrom && wanted < shownFrom + DECODE_ON_SECONDS;
    if (!near) {
      decoder.seek(wanted);
      shownFrom = Double.NaN;
    } else if (wanted < shownFrom + frameSeconds * 0.999) {
      return Optional.of(copy());
    }
    while (decoder.next()) {
      double from = decoder.frameSeconds();
      if (from + frameSeconds * 0.999 > wanted) {
        shownFrom = from;
        scale(decoder.frame());
        return Optional.of(copy());
      }
      if (wanted - from < KEEP_SECONDS) {
        shownFrom = from;
        scale(decoder.frame());
      }
    }
    return Double.isNaN(shownFrom) ? Optional.empty() : Optional.of(copy());
  }

  private void scale(AVFrame frame) {
    scaler =
        sws_getCachedContext(
            scaler,
            frame.width(),
            frame.height(),
            frame.format(),
            width,
            height,
            AV_PIX_FMT_BGRA,
            SWS_BILINEAR,
            (SwsFilter) null,
            (SwsFilter) null,
            (DoublePointer) null);
    sws_scale(scaler, frame.data(), frame.linesize(), 0, frame.height(), planes, strides);
  }

  private Picture copy() {
    int[] argb = new int[width * height];
    pixels
        .position(0)
        .limit((long) width * height * 4)
        .asByteBuffer()
        .order(java.nio.ByteOrder.LITTLE_ENDIAN)
        .asIntBuffer()
        .get(argb);
    for (int i = 0; i < argb.length; i++) {
      argb[i] |= 0xFF000000;
    }
    return new Picture(width, height, argb);
  }

  @Override
  public void close() {
    if (scaler != null) {
      sws_freeContext(scaler);
    }
    pixels.deallocate();
    planes.deallocate();
    strides.deallocate();
    decoder.close();
  }
}
