package hushrise.app.timeline;

import hushrise.core.Decibels;
import hushrise.core.level.ClipEnvelope;
import hushrise.core.level.TrackCurve;
import hushrise.core.project.Clip;
import hushrise.core.sound.Peaks;
import java.nio.IntBuffer;
import java.util.Arrays;
import javafx.scene.image.Image;
import javafx.scene.image.PixelBuffer;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;
import javafx.scene.paint.Color;

/**
 * A lane's waveforms as pixels: for each column the loudness on the lane's dB scale, filled from
 * the bottom up. Dark is the RMS as it will sound, lighter above it the peak, and the ghost behind
 * both is the RMS before the level line, so that a dip is seen in the sound itself.
 *
 * <p>Columns are filled straight into the image's memory, which costs a small part of what drawing
 * them as lines would. Zoomed in further than the peaks reach, a column shows the peak bucket it
 * lies in.
 */
final class WaveformImage {

  private static final double FLOOR_DB = -59;

  private final int width;
  private final int height;
  private final int[] pixels;
  private final PixelBuffer<IntBuffer> buffer;
  private final Image image;
  private final float[] column = new float[3];
  private final LevelScale scale;

  WaveformImage(int width, int height) {
    this.width = width;
    this.height = height;
    this.scale = new LevelScale(height);
    IntBuffer memory = IntBuffer.allocate(width * height);
    pixels = memory.array();
    buffer = new PixelBuffer<>(width, height, memory, PixelFormat.getIntArgbPreInstance());
    image = new WritableImage(buffer);
  }

  Image image() {
    return image;
  }

  boolean hasSize(int w, int h) {
    return w == width && h == height;
  }

  void clear() {
    Arrays.fill(pixels, 0);
  }

  /** Shows what has been drawn. */
  void publish() {
    buffer.updateBuffer(b -> null);
  }

  /** Draws one clip's columns. */
  void draw(
      Clip clip, Peaks peaks, TrackCurve curve, ClipEnvelope envelope, TimeAxis axis, Color color) {
    int from = (int) Math.clamp(Math.floor(axis.xOf(clip.startFrame())), 0, width);
    int to = (int) Math.clamp(Math.ceil(axis.xOf(clip.endFrame())), 0, width);
    int body = premultiplied(color, 0.92);
    int peak = premultiplied(color, 0.38);
    int ghost = premultiplied(color, 0.16);
    double clipDb = clip.gainDb();
    double half = Math.max(axis.framesPerPixel(), Peaks.BASE) / 2;
    for (int x = from; x < to; x++) {
      long frame = Math.clamp(axis.frameAt(x + 0.5), clip.startFrame(), clip.endFrame() - 1);
      double media = clip.mediaFrameAt(frame - clip.startFrame());
      peaks.over(media - half, media + half, column);
      double rmsDb = Decibels.ofFactor(column[2]) + clipDb;
      double peakDb = Decibels.ofFactor(Math.max(-column[0], column[1])) + clipDb;
      double gainDb = curve.levelDbAt(frame) + Decibels.ofFactor(envelope.factorAt(frame));
      fill(x, peakDb + gainDb, peak);
      fill(x, rmsDb, ghost);
      fill(x, rmsDb + gainDb, body);
    }
  }

  /** Lays a colour over a column from the bottom up to a level. */
  private void fill(int x, double db, int argb) {
    if (!(db > FLOOR_DB)) {
      return;
    }
    int top = (int) Math.round(scale.yOf(db));
    int keep = 255 - (argb >>> 24);
    for (int y = Math.max(0, top), at = y * width + x; y < height; y++, at += width) {
      pixels[at] = over(argb, pixels[at], keep);
    }
  }

  private static int over(int top, int under, int keep) {
    int a = (under >>> 24) * keep / 255;
    int r = (under >>> 16 & 255) * keep / 255;
    int g = (under >>> 8 & 255) * keep / 255;
    int b = (under & 255) * keep / 255;
    return top + (a << 24 | r << 16 | g << 8 | b);
  }

  private static int premultiplied(Color c, double opacity) {
    int a = (int) Math.round(opacity * 255);
    int r = (int) Math.round(c.getRed() * a);
    int g = (int) Math.round(c.getGreen() * a);
    int b = (int) Math.round(c.getBlue() * a);
    return a << 24 | r << 16 | g << 8 | b;
  }
}
