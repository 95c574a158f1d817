package hushrise.app.timeline;

import hushrise.app.look.Palette;
import hushrise.app.look.Pixels;
import hushrise.core.Decibels;
import hushrise.core.level.ClipEnvelope;
import hushrise.core.level.TrackCurve;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.Peaks;
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

  private final Pixels drawn;
  private final double density;
  private final int width;
  private final int height;
  private final int[] pixels;
  private final float[] column = new float[3];

  /** The y of the level line, and of the level as it sounds, at each column. */
  private final double[] lines;

  private final double[] levels;
  private final LevelScale scale;

  /**
   * @param across how wide the lane is, in the window's units
   * @param down how high
   * @param density pixels of the screen to a unit
   */
  WaveformImage(double across, double down, double density) {
    this.density = density;
    scale = new LevelScale(down);
    drawn = new Pixels(across, down, density);
    width = drawn.width();
    height = drawn.height();
    pixels = drawn.memory();
    lines = new double[width + 1];
    levels = new double[width + 1];
  }

  /** What it is drawn into. */
  Pixels pixels() {
    return drawn;
  }

  private double xOf(TimeAxis axis, long frame) {
    return density * axis.xOf(frame);
  }

  private double yOf(double db) {
    return density * scale.yOf(db);
  }

  /** Draws one clip's columns. */
  void draw(
      Clip clip, Peaks peaks, TrackCurve curve, ClipEnvelope envelope, TimeAxis axis, Color color) {
    int from = (int) Math.clamp(Math.floor(xOf(axis, clip.startFrame())), drawn.from(), drawn.to());
    int to = (int) Math.clamp(Math.ceil(xOf(axis, clip.endFrame())), drawn.from(), drawn.to());
    int[] mixed = mixtures(color);
    int[] onGround = new int[mixed.length];
    for (int set = 0; set < mixed.length; set++) {
      onGround[set] = Pixels.over(mixed[set], drawn.ground(), 255 - (mixed[set] >>> 24));
    }
    double clipDb = clip.gainDb();
    double half = Math.max(axis.framesPerPixel() / density, Peaks.BASE) / 2;
    int interval = 0;
    for (int x = from; x < to; x++) {
      long frame =
          Math.clamp(axis.frameAt((x + 0.5) / density), clip.startFrame(), clip.endFrame() - 1);
      double media = clip.mediaFrameAt(frame - clip.startFrame());
      peaks.over(media - half, media + half, column);
      interval = curve.seek(frame, interval);
      double rmsDb = Decibels.ofFactor(column[2]) + clipDb;
      double peakDb = Decibels.ofFactor(Math.max(-column[0], column[1])) + clipDb;
      double gainDb =
          curve.levelDbAt(frame, interval) + Decibels.ofFactor(envelope.factorAt(frame));
      column(x, top(peakDb + gainDb), top(rmsDb), top(rmsDb + gainDb), mixed, onGround);
    }
  }

  /** The first pixel of a level's column; the height when it is too low to be seen. */
  private int top(double db) {
    return db > FLOOR_DB ? Math.max(0, (int) Math.round(yOf(db))) : height;
  }

  /** What peak (1), ghost (2) and body (4) look like over one another. */
  private static int[] mixtures(Color color) {
    int[] layers = {
      Pixels.premultiplied(color, 0.38),
      Pixels.premultiplied(color, 0.16),
      Pixels.premultiplied(color, 0.92)
    };
    int[] mixed = new int[8];
    for (int set = 0; set < mixed.length; set++) {
      for (int layer = 0; layer < layers.length; layer++) {
        if ((set & 1 << layer) != 0) {
          mixed[set] = Pixels.over(layers[layer], mixed[set], 255 - (layers[layer] >>> 24));
        }
      }
    }
    return mixed;
  }

  /** Fills a column from the bottom up: each pixel with the mixture of what reaches it. */
  private void column(int x, int peak, int ghost, int body, int[] mixed, int[] onGround) {
    int ground = drawn.ground();
    int at = Math.min(peak, Math.min(ghost, body));
    while (at < height) {
      int set = (at >= peak ? 1 : 0) | (at >= ghost ? 2 : 0) | (at >= body ? 4 : 0);
      int next = height;
      next = peak > at ? Math.min(next, peak) : next;
      next = ghost > at ? Math.min(next, ghost) : next;
      next = body > at ? Math.min(next, body) : next;
      int color = mixed[set];
      int keep = 255 - (color >>> 24);
      for (int p = at * width + x; at < next; at++, p += width) {
        pixels[p] = pixels[p] == ground ? onGround[set] : Pixels.over(color, pixels[p], keep);
      }
    }
  }

  /**
   * Draws how a track's level is shaped: the areas of hushes and rises between the line and what
   * they make of it, their floors and tops, and the level as it sounds. In pixels, as thousands of
   * small curves cost little here and much as shapes.
   */
  void drawShape(Track track, TrackCurve curve, TimeAxis axis, int sampleRate, Palette colors) {
    double trackDb = track.levelDb() <= Decibels.OFF_DB ? 0 : track.levelDb();
    boolean shaped = !track.hushes().isEmpty() || !track.rises().isEmpty();
    int hush = Pixels.premultiplied(colors.hush(), 0.26);
    int rise = Pixels.premultiplied(colors.rise(), 0.24);
    int floor = Pixels.premultiplied(colors.hush(), 1);
    int top = Pixels.premultiplied(colors.rise(), 1);
    int ink = Pixels.premultiplied(colors.ink(), 1);
    int casing = Pixels.premultiplied(colors.surface(), 1);
    int interval = 0;
    for (int x = drawn.from(); x <= drawn.to(); x++) {
      long frame = axis.frameAt(x / density);
      interval = curve.seek(frame, interval);
      double db = curve.levelDbAt(frame, interval) - trackDb;
      levels[x] = yOf(Double.isNaN(db) ? Decibels.OFF_DB : db);
      lines[x] = shaped ? yOf(track.line().levelDbAt(frame)) : levels[x];
    }
    for (int x = drawn.from(); x < drawn.to() && shaped; x++) {
      if (levels[x] > lines[x] + 0.5) {
        drawn.run(x, lines[x], levels[x], hush);
      } else if (levels[x] < lines[x] - 0.5) {
        drawn.run(x, levels[x], lines[x], rise);
      }
    }
    level(levels, 1.4, casing);
    level(levels, 0, ink);
    for (int x = drawn.from(); x < drawn.to() && shaped; x++) {
      boolean flat = Math.abs(levels[x + 1] - levels[x]) < 0.05;
      if (flat && levels[x] > lines[x] + 1) {
        drawn.run(x, levels[x] - 1.5 * density, levels[x] + 1.5 * density, floor);
      } else if (flat && levels[x] < lines[x] - 1) {
        drawn.run(x, levels[x] - 1.25 * density, levels[x] + 1.25 * density, top);
      }
    }
  }

  /** A line through one height for each column, two units thick and as much more. */
  private void level(double[] ys, double more, int argb) {
    double half = density * (1 + more);
    for (int x = drawn.from(); x < drawn.to(); x++) {
      double high = Math.min(ys[x], ys[x + 1]);
      double low = Math.max(ys[x], ys[x + 1]);
      drawn.run(x, high - half, low + half, argb);
    }
  }
}
