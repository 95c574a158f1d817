package hushrise.app.look;

import javafx.scene.canvas.GraphicsContext;

/**
 * Straight lines along the axes, laid down as rectangles in the colour of the fill: drawn in
 * software they cost a small part of what strokes do, which are traced as shapes.
 */
public final class Ruled {

  private Ruled() {}

  /** A vertical line around {@code x}. */
  public static void vertical(
      GraphicsContext g, double x, double fromY, double toY, double thickness) {
    g.fillRect(x - thickness / 2, Math.min(fromY, toY), thickness, Math.abs(toY - fromY));
  }

  /** A horizontal line around {@code y}. */
  public static void horizontal(
      GraphicsContext g, double fromX, double toX, double y, double thickness) {
    g.fillRect(Math.min(fromX, toX), y - thickness / 2, Math.abs(toX - fromX), thickness);
  }

  /** The edges of a rectangle, drawn within it; a very narrow one is filled. */
  public static void frame(
      GraphicsContext g, double x, double y, double width, double height, double thickness) {
    if (width <= 2 * thickness || height <= 2 * thickness) {
      g.fillRect(x, y, width, height);
      return;
    }
    g.fillRect(x, y, width, thickness);
    g.fillRect(x, y + height - thickness, width, thickness);
    g.fillRect(x, y + thickness, thickness, height - 2 * thickness);
    g.fillRect(x + width - thickness, y + thickness, thickness, height - 2 * thickness);
  }

  /** A filled rectangle whose corners are a pixel rounder, on whole pixels. */
  public static void plate(GraphicsContext g, double x, double y, double width, double height) {
    double left = Math.rint(x);
    double top = Math.rint(y);
    double w = Math.rint(width);
    double h = Math.rint(height);
    g.fillRect(left + 1, top, w - 2, 1);
    g.fillRect(left, top + 1, w, h - 2);
    g.fillRect(left + 1, top + h - 1, w - 2, 1);
  }
}
