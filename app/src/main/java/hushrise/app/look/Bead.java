package hushrise.app.look;

/**
 * A disc with a ring, its edges by their coverage, ready to be laid down: as pixels once for each
 * quarter of a pixel that it may be off the grid.
 */
final class Bead {

  private static final int QUARTERS = 4;

  private final double radius;
  private final int fill;
  private final int ring;
  private final int reach;
  private final int[][] stamps = new int[QUARTERS * QUARTERS][];

  Bead(double radius, int fill, int ring) {
    this.radius = radius;
    this.fill = fill;
    this.ring = ring;
    reach = (int) Math.ceil(radius + 1.5);
  }

  boolean is(double r, int fillArgb, int ringArgb) {
    return r == radius && fillArgb == fill && ringArgb == ring;
  }

  /** How far it reaches from the pixel that its middle lies in. */
  int reach() {
    return reach;
  }

  /** Its premultiplied colours, row by row, {@code 2 * reach + 1} in each, around a place. */
  int[] at(double x, double y) {
    int quarterX = (int) ((x - Math.floor(x)) * QUARTERS);
    int quarterY = (int) ((y - Math.floor(y)) * QUARTERS);
    int index = quarterY * QUARTERS + quarterX;
    if (stamps[index] == null) {
      stamps[index] = stamp((quarterX + 0.5) / QUARTERS, (quarterY + 0.5) / QUARTERS);
    }
    return stamps[index];
  }

  private int[] stamp(double offX, double offY) {
    int side = 2 * reach + 1;
    int[] stamp = new int[side * side];
    for (int i = 0; i < stamp.length; i++) {
      double distance = Math.hypot(i % side - reach + 0.5 - offX, i / side - reach + 0.5 - offY);
      int inside = Pixels.scaled(fill, Math.clamp(radius - distance + 0.5, 0, 1));
      int onRing = Pixels.scaled(ring, Math.clamp(1.5 - Math.abs(distance - radius), 0, 1));
      stamp[i] = Pixels.over(onRing, inside, 255 - (onRing >>> 24));
    }
    return stamp;
  }
}
