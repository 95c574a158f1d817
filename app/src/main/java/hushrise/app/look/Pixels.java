package hushrise.app.look;

import java.nio.IntBuffer;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import javafx.geometry.Rectangle2D;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.image.PixelBuffer;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;
import javafx.scene.paint.Color;

/**
 * An image whose memory is drawn into directly: straight runs of pixels cost a small part of what
 * the same lines cost as shapes. Its pixels are those of the screen, of which {@link #density()}
 * make one unit of the window; all places and lengths are in pixels. Colours are premultiplied
 * ARGB.
 */
public final class Pixels {

  private final double density;
  private final int width;
  private final int height;
  private final int[] pixels;
  private final PixelBuffer<IntBuffer> buffer;
  private final Image image;
  private int ground;
  private int clipFrom;
  private int clipTo;
  private boolean whole;

  /** Those drawn so far: of each size and colour one. */
  private final List<Bead> beads = new ArrayList<>();

  /**
   * @param across how wide, in the window's units
   * @param down how high
   * @param density pixels of the screen to a unit
   */
  public Pixels(double across, double down, double density) {
    this.density = density;
    width = pixels(across, density);
    height = pixels(down, density);
    IntBuffer memory = IntBuffer.allocate(width * height);
    pixels = memory.array();
    buffer = new PixelBuffer<>(width, height, memory, PixelFormat.getIntArgbPreInstance());
    image = new WritableImage(buffer);
    clipTo = width;
  }

  private static int pixels(double units, double density) {
    return (int) Math.floor(units * density);
  }

  /** The pixels of an image row by row, as ARGB that is not premultiplied. */
  public static int[] of(Image image) {
    int width = (int) image.getWidth();
    int height = (int) image.getHeight();
    int[] pixels = new int[width * height];
    image
        .getPixelReader()
        .getPixels(0, 0, width, height, PixelFormat.getIntArgbInstance(), pixels, 0, width);
    return pixels;
  }

  /** Whether it is what a size and a density ask for. */
  public boolean fits(double across, double down, double ofDensity) {
    return density == ofDensity
        && width == pixels(across, density)
        && height == pixels(down, density);
  }

  /** Lets a view show it, each pixel as one of the screen. */
  public void showIn(ImageView view) {
    view.setImage(image);
    view.setFitWidth(width / density);
    view.setFitHeight(height / density);
  }

  /** Pixels of the screen to a unit of the window. */
  public double density() {
    return density;
  }

  /** How thick a thin line is: one unit, in whole pixels. */
  public int thin() {
    return (int) Math.max(1, Math.round(density));
  }

  /** Sets the colour of what is empty; opaque, it needs nothing beneath that has to be drawn. */
  public void setGround(Color color) {
    ground = premultiplied(color, 1);
  }

  /** The colour of what is empty. */
  public int ground() {
    return ground;
  }

  /** Restricts drawing to columns {@code from} (inclusive) to {@code to}, and empties them. */
  public void clip(int from, int to) {
    clipFrom = Math.clamp(from, 0, width);
    clipTo = Math.clamp(to, clipFrom, width);
    for (int y = 0; y < height; y++) {
      Arrays.fill(pixels, y * width + clipFrom, y * width + clipTo, ground);
    }
  }

  /** The first column that may be drawn. */
  public int from() {
    return clipFrom;
  }

  /** The column after the last one that may be drawn. */
  public int to() {
    return clipTo;
  }

  /** Moves everything right, or left when negative; what comes into view is left as it was. */
  public void shift(int byColumns) {
    whole = true;
    int n = width - Math.abs(byColumns);
    for (int y = 0; y < height; y++) {
      int row = y * width;
      System.arraycopy(
          pixels, row + Math.max(0, -byColumns), pixels, row + Math.max(0, byColumns), n);
    }
  }

  public int width() {
    return width;
  }

  public int height() {
    return height;
  }

  /** The memory itself, row by row. */
  public int[] memory() {
    return pixels;
  }

  /** Empties the image and lets all of it be drawn. */
  public void clear() {
    clip(0, width);
  }

  /** Shows what has been drawn: only the columns that could be, unless everything moved. */
  public void publish() {
    Rectangle2D columns = new Rectangle2D(clipFrom, 0, (double) clipTo - clipFrom, height);
    Rectangle2D changed = whole ? null : columns;
    whole = false;
    buffer.updateBuffer(b -> changed);
  }

  /** Lays a colour over one pixel, if it lies in the image. */
  public void point(int x, int y, int argb) {
    if (x >= clipFrom && x < clipTo && y >= 0 && y < height) {
      int at = y * width + x;
      int keep = 255 - (argb >>> 24);
      pixels[at] = keep == 0 ? argb : over(argb, pixels[at], keep);
    }
  }

  /** Lays a colour over a rectangle; its right and bottom pixels are the first ones outside. */
  public void block(int left, int top, int right, int bottom, int argb) {
    for (int y = Math.max(0, top); y < Math.min(height, bottom); y++) {
      for (int x = Math.max(clipFrom, left); x < Math.min(clipTo, right); x++) {
        point(x, y, argb);
      }
    }
  }

  /** A disc with a ring two units wide, its edges by their coverage. */
  public void bead(double x, double y, double radius, int fill, int ring) {
    Bead bead = beadOf(radius, fill, ring);
    int quartersX = Bead.quarters(x);
    int quartersY = Bead.quarters(y);
    int[] stamp = bead.at(quartersX, quartersY);
    int side = 2 * bead.reach() + 1;
    int left = Bead.pixel(quartersX) - bead.reach();
    int top = Bead.pixel(quartersY) - bead.reach();
    for (int row = Math.max(0, -top); row < side && top + row < height; row++) {
      for (int column = 0; column < side; column++) {
        int argb = stamp[row * side + column];
        if (argb != 0) {
          point(left + column, top + row, argb);
        }
      }
    }
  }

  private Bead beadOf(double radius, int fill, int ring) {
    for (Bead bead : beads) {
      if (bead.is(radius, fill, ring)) {
        return bead;
      }
    }
    beads.add(new Bead(radius, density, fill, ring));
    return beads.getLast();
  }

  /**
   * A flag that leans right (1) or left (-1) from its pole, which stands on a quarter of a pixel.
   * Reckoned from the pole's own pixel, so that it looks the same wherever it stands.
   */
  public void flag(double pole, int lean, double top, double size, int argb) {
    int quarters = Bead.quarters(pole);
    int left = Bead.pixel(quarters);
    double x = quarters / (double) Bead.QUARTERS - left;
    double tall = size * 1.2;
    for (int i = 0; i < (int) Math.ceil(tall); i++) {
      double part = 1 - Math.abs(2 * (i + 0.5) / tall - 1);
      double wide = size * part;
      double from = lean > 0 ? x : x - wide;
      int first = (int) Math.floor(from);
      for (int px = first; px <= (int) Math.ceil(from + wide); px++) {
        double cover = Math.min(px + 1.0, from + wide) - Math.max(px, from);
        if (cover > 0) {
          point(left + px, (int) top + i, scaled(argb, Math.min(1, cover)));
        }
      }
    }
  }

  /** Lays a colour over a column from one height to another, its ends by their coverage. */
  public void run(int x, double from, double to, int argb) {
    double top = Math.max(0, from);
    double bottom = Math.min(height, to);
    if (top >= bottom) {
      return;
    }
    int firstWhole = (int) Math.ceil(top);
    int endWhole = (int) Math.floor(bottom);
    if (firstWhole > endWhole) {
      lay(x, endWhole, argb, bottom - top);
      return;
    }
    if (firstWhole > top) {
      lay(x, firstWhole - 1, argb, firstWhole - top);
    }
    boolean opaque = argb >>> 24 == 255;
    int keep = 255 - (argb >>> 24);
    int end = endWhole * width + x;
    for (int at = firstWhole * width + x; at < end; at += width) {
      pixels[at] = opaque ? argb : over(argb, pixels[at], keep);
    }
    if (bottom > endWhole) {
      lay(x, endWhole, argb, bottom - endWhole);
    }
  }

  private void lay(int x, int y, int argb, double cover) {
    int color = scaled(argb, cover);
    int at = y * width + x;
    pixels[at] = over(color, pixels[at], 255 - (color >>> 24));
  }

  static int scaled(int argb, double cover) {
    int a = (int) ((argb >>> 24) * cover);
    int r = (int) ((argb >>> 16 & 255) * cover);
    int g = (int) ((argb >>> 8 & 255) * cover);
    int b = (int) ((argb & 255) * cover);
    return a << 24 | r << 16 | g << 8 | b;
  }

  /** A premultiplied colour over another, of which {@code keep} of 255 shines through. */
  public static int over(int top, int under, int keep) {
    int a = (under >>> 24) * keep / 255;
    int r = (under >>> 16 & 255) * keep / 255;
    int g = (under >>> 8 & 255) * keep / 255;
    int b = (under & 255) * keep / 255;
    return top + (a << 24 | r << 16 | g << 8 | b);
  }

  /** A colour of an opacity as premultiplied ARGB. */
  public static int premultiplied(Color c, double opacity) {
    int a = (int) Math.round(opacity * 255);
    int r = (int) Math.round(c.getRed() * a);
    int g = (int) Math.round(c.getGreen() * a);
    int b = (int) Math.round(c.getBlue() * a);
    return a << 24 | r << 16 | g << 8 | b;
  }
}
