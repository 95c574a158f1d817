package hushrise.app.look;

/**
 * A disc with a ring, its edges by their coverage, ready to be laid down: as pixels once for each
 * quarter of a pixel that it may be off the grid.
 */
final class Bead {

  static final int QUARTERS = 4;

  /** How far the borders between quarters lie from whole pixels. */
  private static final double ASIDE = 0.11;

  private final double radius;
  private final double density;
  private final int fill;
  private final int ring;
  private final int reach;
  private final int[][] stamps = new int[QUARTERS * QUARTERS][];

  /**
   * @param radius to the middle of the ring, in pixels
   * @param density how many pixels wide half of the ring is
   */
  Bead(double radius, double density, int fill, int ring) {
    this.radius = radius;
    this.density = density;
    this.fill = fill;
    this.ring = ring;
    reach = (int) Math.ceil(radius + density + 0.5);
  }

  boolean is(double r, int fillArgb, int ringArgb) {
    return r == radius && fillArgb == fill && ringArgb == ring;
  }

  /** How far it reaches from the pixel that its middle lies in. */
  int reach() {
    return reach;
  }

  /**
   * A place in quarters of a pixel. Whole and half pixels, where places often lie, are far from
   * where one quarter becomes the next, so that a rounding error does not move a bead.
   */
  static int quarters(double place) {
    return (int) Math.floor((place + ASIDE) * QUARTERS);
  }

  /** The pixel of a place in quarters. */
  static int pixel(int quarters) {
    return Math.floorDiv(quarters, QUARTERS);
  }

  /**
   * Its premultiplied colours, row by row, {@code 2 * reach + 1} in each, around the pixel of a
   * place in quarters.
   */
  int[] at(int quartersX, int quartersY) {
    int x = Math.floorMod(quartersX, QUARTERS);
    int y = Math.floorMod(quartersY, QUARTERS);
    int index = y * QUARTERS + x;
    if (stamps[index] == null) {
      stamps[index] = stamp((x + 0.5) / QUARTERS - ASIDE, (y + 0.5) / QUARTERS - ASIDE);
    }
    return stamps[index];
  }

  private int[] stamp(double offX, double offY) {
    int side = 2 * reach + 1;
    int[] stamp = new int[side * side];
    for (int i = 0; i < stamp.length; i++) {
      double distance = Math.hypot(i % side - reach + 0.5 - offX, i / side - reach + 0.5 - offY);
      int inside = Pixels.scaled(fill, Math.clamp(radius - distance + 0.5, 0, 1));
      int onRing =
          Pixels.scaled(ring, Math.clamp(density + 0.5 - Math.abs(distance - radius), 0, 1));
      stamp[i] = Pixels.over(onRing, inside, 255 - (onRing >>> 24));
    }
    return stamp;
  }
}
