package hushrise.app.timeline;

import hushrise.core.Decibels;
import hushrise.core.project.level.Keyframe;

/**
 * What maps dB to pixels in a lane, the same for every lane: +12 dB at the top, off at the bottom.
 * The range down to -36 dB, in which music is set, takes seven eighths of the height.
 *
 * @param height of the lane in pixels
 */
public record LevelScale(double height) {

  private static final double TOP_DB = Keyframe.MAX_DB;
  private static final double KNEE_DB = -36;
  private static final double KNEE = 0.875;
  private static final double MARGIN = 3;

  public double yOf(double db) {
    double held = Math.clamp(db, Decibels.OFF_DB, TOP_DB);
    double part =
        held >= KNEE_DB
            ? (TOP_DB - held) / (TOP_DB - KNEE_DB) * KNEE
            : KNEE + (KNEE_DB - held) / (KNEE_DB - Decibels.OFF_DB) * (1 - KNEE);
    return MARGIN + part * (height - 2 * MARGIN);
  }

  public double dbAt(double y) {
    double part = Math.clamp((y - MARGIN) / (height - 2 * MARGIN), 0, 1);
    return part <= KNEE
        ? TOP_DB - part / KNEE * (TOP_DB - KNEE_DB)
        : KNEE_DB - (part - KNEE) / (1 - KNEE) * (KNEE_DB - Decibels.OFF_DB);
  }
}
