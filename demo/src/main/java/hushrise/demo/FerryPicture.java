package hushrise.demo;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.GradientPaint;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.Ellipse2D;
import java.awt.geom.Path2D;
import java.awt.geom.Rectangle2D;
import java.awt.image.BufferedImage;
import java.awt.image.DataBufferInt;

/** The demo's picture: one drawing whose light, sea and ferry move with time, in five scenes. */
final class FerryPicture {

  static final double SECONDS = 96;
  static final int WIDTH = 640;
  static final int HEIGHT = 360;

  /** Where the scenes change, in seconds. */
  private static final double[] CUTS = {0, 21, 40, 58, 76, SECONDS};

  private static final double FADE_SECONDS = 3.5;

  private final BufferedImage image = new BufferedImage(WIDTH, HEIGHT, BufferedImage.TYPE_INT_RGB);

  /** The pixels at a time; valid until the next call. */
  int[] at(double t) {
    Graphics2D g = image.createGraphics();
    g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
    int scene = 0;
    while (t >= CUTS[scene + 1]) {
      scene++;
    }
    double into = (t - CUTS[scene]) / (CUTS[scene + 1] - CUTS[scene]);
    double morning = t / SECONDS;
    sky(g, morning, scene);
    switch (scene) {
      case 0 -> {
        island(g, 430 - into * 10, 168, 0.55, morning);
        sea(g, t, 178, morning);
        pier(g);
        ferry(g, 170 + into * 40, 208 + Math.sin(t * 1.3) * 1.5, 1.0, t);
      }
      case 1 -> {
        island(g, 470 - into * 50, 190, 0.8, morning);
        sea(g, t, 200, morning);
        ferry(g, 60 + into * 230, 236 + Math.sin(t * 1.1) * 3, 1.5, t);
        gulls(g, t);
      }
      case 2 -> {
        sea(g, t * 1.4, 150, morning);
        wake(g, t);
        rail(g, t);
        gulls(g, t + 5);
      }
      case 3 -> {
        island(g, 320 - into * 30, 220, 1.5 + into * 0.3, morning);
        sea(g, t, 228, morning);
        ferry(g, 90 + into * 70, 262 + Math.sin(t * 1.2) * 2, 0.8, t);
      }
      default -> {
        island(g, 250, 236, 2.4, morning);
        sea(g, t * 0.7, 244, morning);
        ferry(g, 330 - into * 12, 286 + Math.sin(t) * 1.2, 1.7, t);
        lamp(g, t);
      }
    }
    double fade = Math.clamp((SECONDS - t) / FADE_SECONDS, 0, 1);
    g.setColor(new Color(0, 0, 0, (int) Math.round(255 * (1 - fade))));
    g.fillRect(0, 0, WIDTH, HEIGHT);
    g.dispose();
    return ((DataBufferInt) image.getRaster().getDataBuffer()).getData();
  }

  private static Color mix(Color a, Color b, double f) {
    return new Color(
        (int) (a.getRed() + (b.getRed() - a.getRed()) * f),
        (int) (a.getGreen() + (b.getGreen() - a.getGreen()) * f),
        (int) (a.getBlue() + (b.getBlue() - a.getBlue()) * f));
  }

  private static void sky(Graphics2D g, double morning, int scene) {
    Color top = mix(new Color(0x1E2A4A), new Color(0x6FB1D6), morning);
    Color low = mix(new Color(0xE08A63), new Color(0xF6E3B8), morning);
    g.setPaint(new GradientPaint(0, 0, top, 0, 230, low));
    g.fillRect(0, 0, WIDTH, HEIGHT);
    double x = 500 - scene * 60;
    double y = 170 - morning * 120;
    g.setColor(new Color(255, 236, 190, 60));
    g.fill(new Ellipse2D.Double(x - 46, y - 46, 92, 92));
    g.setColor(new Color(0xFFF3D0));
    g.fill(new Ellipse2D.Double(x - 22, y - 22, 44, 44));
  }

  private static void island(Graphics2D g, double x, double horizon, double size, double morning) {
    Path2D rock = new Path2D.Double();
    rock.moveTo(x - 120 * size, horizon + 10);
    rock.curveTo(
        x - 80 * size,
        horizon - 20 * size,
        x - 60 * size,
        horizon - 62 * size,
        x - 20 * size,
        horizon - 58 * size);
    rock.curveTo(
        x + 10 * size,
        horizon - 70 * size,
        x + 30 * size,
        horizon - 30 * size,
        x + 60 * size,
        horizon - 34 * size);
    rock.curveTo(
        x + 90 * size,
        horizon - 30 * size,
        x + 110 * size,
        horizon - 8 * size,
        x + 140 * size,
        horizon + 10);
    rock.closePath();
    g.setColor(mix(new Color(0x2B3550), new Color(0x55735F), morning));
    g.fill(rock);
    g.setColor(new Color(0xF2EFE6));
    g.fill(new Rectangle2D.Double(x - 26 * size, horizon - 86 * size, 9 * size, 30 * size));
    g.setColor(new Color(0xB5483A));
    g.fill(new Rectangle2D.Double(x - 27 * size, horizon - 92 * size, 11 * size, 7 * size));
  }

  private static void sea(Graphics2D g, double t, double horizon, double morning) {
    Color far = mix(new Color(0x6A5A6E), new Color(0x7FB4BE), morning);
    Color near = mix(new Color(0x16263E), new Color(0x1F5C73), morning);
    g.setPaint(new GradientPaint(0, (float) horizon, far, 0, HEIGHT, near));
    g.fill(new Rectangle2D.Double(0, horizon, WIDTH, HEIGHT - horizon));
    g.setStroke(new BasicStroke(1.4f));
    for (int row = 0; row < 9; row++) {
      double depth = (row + 1) / 9.0;
      double y = horizon + 4 + depth * depth * (HEIGHT - horizon);
      g.setColor(new Color(255, 255, 255, (int) (22 + 26 * depth)));
      Path2D wave = new Path2D.Double();
      wave.moveTo(0, y);
      for (int x = 0; x <= WIDTH; x += 16) {
        wave.lineTo(x, y + Math.sin(x * 0.03 / depth + t * (0.7 + depth) + row) * 3 * depth);
      }
      g.draw(wave);
    }
  }

  private static void ferry(Graphics2D g, double x, double y, double s, double t) {
    Path2D hull = new Path2D.Double();
    hull.moveTo(x - 70 * s, y - 14 * s);
    hull.lineTo(x + 78 * s, y - 14 * s);
    hull.lineTo(x + 62 * s, y + 12 * s);
    hull.lineTo(x - 58 * s, y + 12 * s);
    hull.closePath();
    g.setColor(new Color(0x1E3C5A));
    g.fill(hull);
    g.setColor(new Color(0xF5F1E6));
    g.fill(new Rectangle2D.Double(x - 48 * s, y - 34 * s, 92 * s, 20 * s));
    g.fill(new Rectangle2D.Double(x - 20 * s, y - 50 * s, 44 * s, 16 * s));
    g.setColor(new Color(0xE0A43A));
    g.fill(new Rectangle2D.Double(x - 38 * s, y - 58 * s, 13 * s, 24 * s));
    g.setColor(new Color(0x31506B));
    for (int i = 0; i < 7; i++) {
      g.fill(new Rectangle2D.Double(x + (-42 + i * 12) * s, y - 29 * s, 7 * s, 7 * s));
    }
    for (int i = 0; i < 5; i++) {
      double age = (t * 0.35 + i / 5.0) % 1;
      g.setColor(new Color(230, 230, 235, (int) (70 * (1 - age))));
      double r = (5 + 16 * age) * s;
      g.fill(
          new Ellipse2D.Double(
              x - 32 * s - age * 60 * s - r / 2, y - 62 * s - age * 22 * s - r / 2, r, r * 0.8));
    }
    g.setColor(new Color(255, 255, 255, 70));
    g.fill(new Ellipse2D.Double(x - 84 * s, y + 9 * s, 168 * s, 7 * s));
  }

  private static void pier(Graphics2D g) {
    g.setColor(new Color(0x3A2E2A));
    g.fillRect(0, 214, 128, 9);
    for (int i = 0; i < 5; i++) {
      g.fillRect(8 + i * 27, 214, 6, 60);
    }
  }

  private static void rail(Graphics2D g, double t) {
    double y = 292 + Math.sin(t * 0.9) * 4;
    g.setColor(new Color(0xEDE7D8));
    g.setStroke(new BasicStroke(6));
    g.draw(new Path2D.Double(new java.awt.geom.Line2D.Double(0, y, WIDTH, y - 10)));
    g.setStroke(new BasicStroke(4));
    for (int i = 0; i < 9; i++) {
      g.draw(new java.awt.geom.Line2D.Double(30 + i * 76, y, 30 + i * 76, HEIGHT));
    }
  }

  private static void wake(Graphics2D g, double t) {
    g.setColor(new Color(255, 255, 255, 60));
    for (int i = 0; i < 22; i++) {
      double age = (t * 0.3 + i / 22.0) % 1;
      double w = 10 + 150 * age;
      g.fill(
          new Ellipse2D.Double(
              330 - w / 2 + Math.sin(i * 2.1) * 30 * age, 156 + age * age * 200, w, 4 + 8 * age));
    }
  }

  private static void gulls(Graphics2D g, double t) {
    g.setColor(new Color(0xFAFAF5));
    g.setStroke(new BasicStroke(2));
    for (int i = 0; i < 4; i++) {
      double x = (t * (22 + 6 * i) + i * 170) % (WIDTH + 60) - 30;
      double y = 70 + i * 18 + Math.sin(t * 1.4 + i) * 8;
      double flap = Math.sin(t * 7 + i * 2) * 5;
      Path2D bird = new Path2D.Double();
      bird.moveTo(x - 10, y - flap);
      bird.quadTo(x - 4, y - 3, x, y);
      bird.quadTo(x + 4, y - 3, x + 10, y - flap);
      g.draw(bird);
    }
  }

  private static void lamp(Graphics2D g, double t) {
    double beam = Math.max(0, Math.sin(t * 1.1));
    g.setColor(new Color(255, 240, 190, (int) (90 * beam)));
    g.fill(new Ellipse2D.Double(170, 0, 60, 60));
  }
}
