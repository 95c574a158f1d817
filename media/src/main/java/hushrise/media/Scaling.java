package hushrise.media;

import static org.bytedeco.ffmpeg.global.swscale.sws_freeContext;
import static org.bytedeco.ffmpeg.global.swscale.sws_getCachedContext;

import hushrise.core.Problem;
import org.bytedeco.ffmpeg.swscale.SwsContext;
import org.bytedeco.ffmpeg.swscale.SwsFilter;
import org.bytedeco.javacpp.DoublePointer;

/**
 * The way from pictures of one size and format to another, which may change from one to the next.
 */
final class Scaling implements AutoCloseable {

  static {
    Ffmpeg.load();
  }

  private SwsContext way;

  /**
   * The way from some pictures to others; good until the next is asked for.
   *
   * @param how FFmpeg's flag for it
   * @throws Problem when there is none
   */
  SwsContext from(
      int width, int height, int format, int toWidth, int toHeight, int toFormat, int how) {
    way =
        sws_getCachedContext(
            way,
            width,
            height,
            format,
            toWidth,
            toHeight,
            toFormat,
            how,
            (SwsFilter) null,
            (SwsFilter) null,
            (DoublePointer) null);
    if (way == null) {
      throw new Problem(
          "There is a picture of %d by %d pixels that cannot be shown: the film is damaged, or of a kind to be converted first."
              .formatted(width, height));
    }
    return way;
  }

  @Override
  public void close() {
    if (way != null) {
      sws_freeContext(way);
      way = null;
    }
  }
}
