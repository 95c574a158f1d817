package hushrise.media;

import static org.bytedeco.ffmpeg.global.avutil.AV_PIX_FMT_BGRA;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_alloc;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_free;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_move_ref;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_unref;
import static org.bytedeco.ffmpeg.global.swscale.SWS_BILINEAR;
import static org.bytedeco.ffmpeg.global.swscale.sws_scale;

import java.nio.IntBuffer;
import java.nio.file.Path;
import java.util.Optional;
import org.bytedeco.ffmpeg.avutil.AVFrame;
import org.bytedeco.ffmpeg.swscale.SwsContext;
import org.bytedeco.javacpp.BytePointer;
import org.bytedeco.javacpp.IntPointer;
import org.bytedeco.javacpp.PointerPointer;

/**
 * Gives the picture at any time, scaled into a box, as pixels. Going forward it decodes on; going
 * back or far ahead it seeks. For one thread.
 */
public final class PictureReader implements AutoCloseable {

  static {
    Ffmpeg.load();
  }

  /** How far ahead it is quicker to decode on than to seek. */
  private static final double DECODE_ON_SECONDS = 1.0;

  /** A picture that begins this little after a time counts as shown then: times are rounded. */
  private static final double ROUNDING_SECONDS = 0.0006;

  private final PictureDecoder decoder;
  private final int width;
  private final int height;
  private final BytePointer pixels;
  private final PointerPointer<BytePointer> planes;
  private final IntPointer strides;
  private final AVFrame held = Ffmpeg.allocated(av_frame_alloc());
  private final Scaling scaling = new Scaling();
  private final int[] argb;
  private double shownFrom = Double.NaN;
  private double shownUntil;
  private boolean hasNext;
  private boolean fresh;

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
   * @param maxWidth the box's width in pixels
   * @param maxHeight the box's height in pixels
   * @throws hushrise.core.Problem when it has no picture that can be read
   */
  public PictureReader(Path file, int maxWidth, int maxHeight) {
    decoder = new PictureDecoder(file);
    double fullWidth = decoder.codec().width() * Probe.aspectOf(decoder.stream());
    double fullHeight = decoder.codec().height();
    boolean lying = decoder.orientation().transposed();
    double scale =
        Math.min(
            maxWidth / (lying ? fullHeight : fullWidth),
            maxHeight / (lying ? fullWidth : fullHeight));
    width = Math.max(2, (int) Math.round(fullWidth * scale));
    height = Math.max(2, (int) Math.round(fullHeight * scale));
    argb = new int[width * height];
    pixels = new BytePointer((long) width * height * 4 + 64);
    planes = new PointerPointer<>(1);
    planes.put(0, pixels);
    strides = new IntPointer(1).put(0, width * 4);
  }

  /** How wide the pictures are, in pixels. */
  public int width() {
    return decoder.orientation().transposed() ? height : width;
  }

  /** How high the pictures are, in pixels. */
  public int height() {
    return decoder.orientation().transposed() ? width : height;
  }

  /**
   * As {@link #at}, into a buffer of {@link #width} times {@link #height} pixels. Allocates nothing
   * for a picture that stands upright.
   *
   * @return false, with nothing written, when that is the picture that was given last, or there is
   *     none
   */
  public boolean changedAt(double seconds, IntBuffer to) {
    if (!goTo(seconds) || !fresh) {
      return false;
    }
    fresh = false;
    to.clear().put(upright());
    return true;
  }

  /**
   * The picture shown at a time from the film's zero: the last one that begins by then, whatever
   * comes when after it. Before the first picture the first is given; empty where none can be
   * decoded.
   */
  public Optional<Picture> at(double seconds) {
    if (!goTo(seconds)) {
      return Optional.empty();
    }
    fresh = false;
    int[] upright = upright();
    return Optional.of(new Picture(width(), height(), upright == argb ? upright.clone() : upright));
  }

  /** Decodes what is shown at a time; false where there is nothing. */
  private boolean goTo(double seconds) {
    double wanted = Math.max(0, seconds) + ROUNDING_SECONDS;
    if (wanted >= shownFrom && wanted < shownUntil) {
      return true;
    }
    boolean near = wanted >= shownFrom && wanted < shownUntil + DECODE_ON_SECONDS;
    if (!near) {
      decoder.seek(Math.max(0, seconds));
      shownFrom = Double.NaN;
      hasNext = false;
    }
    boolean found = false;
    double from = shownFrom;
    while (hasNext || decoder.next()) {
      hasNext = true;
      shownUntil = decoder.frameSeconds();
      boolean first = !found && Double.isNaN(from);
      if (shownUntil > wanted && !first) {
        break;
      }
      from = first ? Math.min(shownUntil, wanted) : shownUntil;
      av_frame_unref(held);
      av_frame_move_ref(held, decoder.frame());
      hasNext = false;
      found = true;
    }
    if (!hasNext) {
      shownUntil = Double.MAX_VALUE;
    }
    if (found) {
      scale(held);
      shownFrom = from;
      fresh = true;
    }
    return !Double.isNaN(shownFrom);
  }

  private void scale(AVFrame frame) {
    SwsContext scaler =
        scaling.from(
            frame.width(),
            frame.height(),
            frame.format(),
            width,
            height,
            AV_PIX_FMT_BGRA,
            SWS_BILINEAR);
    sws_scale(scaler, frame.data(), frame.linesize(), 0, frame.height(), planes, strides);
  }

  /** The pixels as they are looked at. */
  private int[] upright() {
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
    return decoder.orientation().turned(argb, width, height);
  }

  @Override
  public void close() {
    scaling.close();
    av_frame_free(held);
    pixels.deallocate();
    planes.deallocate();
    strides.deallocate();
    decoder.close();
  }
}
