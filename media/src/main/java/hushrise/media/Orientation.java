package hushrise.media;

import static org.bytedeco.ffmpeg.global.avcodec.AV_PKT_DATA_DISPLAYMATRIX;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_side_data_get;

import org.bytedeco.ffmpeg.avcodec.AVCodecParameters;
import org.bytedeco.ffmpeg.avcodec.AVPacketSideData;
import org.bytedeco.javacpp.IntPointer;

/**
 * How a film's pictures have to be turned before they are looked at, as its display matrix says:
 * phones write theirs lying on the side.
 *
 * @param transposed whether rows and columns change places
 * @param flippedAcross whether left and right change places, after that
 * @param flippedDown whether top and bottom change places, after that
 */
record Orientation(boolean transposed, boolean flippedAcross, boolean flippedDown) {

  static final Orientation UPRIGHT = new Orientation(false, false, false);

  /** The least size of a display matrix: nine integers. */
  private static final long MATRIX_BYTES = 36;

  /**
   * The orientation of a picture stream. Its matrix gives a picture's point {@code (p, q)} the
   * place {@code (a p + c q, b p + d q)}; anything between quarter turns counts as the nearest one.
   */
  static Orientation of(AVCodecParameters codec) {
    if (codec.nb_coded_side_data() < 1) {
      return UPRIGHT;
    }
    AVPacketSideData found =
        av_packet_side_data_get(
            codec.coded_side_data(), codec.nb_coded_side_data(), AV_PKT_DATA_DISPLAYMATRIX);
    if (found == null || found.isNull() || found.size() < MATRIX_BYTES) {
      return UPRIGHT;
    }
    IntPointer matrix = new IntPointer(found.data());
    int a = matrix.get(0);
    int b = matrix.get(1);
    int c = matrix.get(3);
    int d = matrix.get(4);
    return Math.abs((long) a) >= Math.abs((long) b)
        ? new Orientation(false, a < 0, d < 0)
        : new Orientation(true, c < 0, b < 0);
  }

  boolean isUpright() {
    return equals(UPRIGHT);
  }

  /**
   * A picture turned.
   *
   * @param argb rows of pixels
   * @param width of a row before it is turned
   * @param height the number of rows before it is turned
   */
  int[] turned(int[] argb, int width, int height) {
    if (isUpright()) {
      return argb;
    }
    int across = transposed ? height : width;
    int down = transposed ? width : height;
    int[] result = new int[argb.length];
    for (int y = 0; y < down; y++) {
      int v = flippedDown ? down - 1 - y : y;
      for (int x = 0; x < across; x++) {
        int u = flippedAcross ? across - 1 - x : x;
        result[y * across + x] = transposed ? argb[u * width + v] : argb[v * width + u];
      }
    }
    return result;
  }
}
