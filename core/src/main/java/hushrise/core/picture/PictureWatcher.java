package hushrise.core.picture;

import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Watches a film go by as small grey pictures, and finds its hard cuts and its fade to black.
 *
 * <p>A hard cut is a picture that differs from the one before it much more than the pictures around
 * it differ from theirs: its mean absolute difference stands out from the median of its neighbours'
 * (after A. Hanjalic, "Shot-Boundary Detection: Unraveled and Resolved?", 2002). A fade to black is
 * a steady fall of the mean to black at the end.
 */
public final class PictureWatcher {

  private static final int NEIGHBOURS = 6;
  private static final double LEAST_DIFFERENCE = 9;
  private static final double STANDS_OUT = 4;
  private static final double BLACK = 6;
  private static final double LONGEST_FADE_SECONDS = 12;

  private final int sampleRate;
  private final List<Long> times = new ArrayList<>();
  private final List<Double> differences = new ArrayList<>();
  private final List<Double> means = new ArrayList<>();
  private byte[] last = new byte[0];

  public PictureWatcher(int sampleRate) {
    this.sampleRate = sampleRate;
  }

  /**
   * Takes the next picture.
   *
   * @param frame when it is shown, in sample frames of the media
   * @param grey its pixels, 0 to 255 as unsigned bytes; the same size every time
   */
  public void add(long frame, byte[] grey) {
    double sum = 0;
    double difference = 0;
    for (int i = 0; i < grey.length; i++) {
      int value = grey[i] & 255;
      sum += value;
      difference += last.length == grey.length ? Math.abs(value - (last[i] & 255)) : 0;
    }
    times.add(frame);
    means.add(sum / grey.length);
    differences.add(difference / grey.length);
    last = grey.clone();
  }

  /** What has been seen. */
  public PictureFacts facts() {
    return new PictureFacts(cuts(), fadeToBlack());
  }

  private List<Long> cuts() {
    List<Long> cuts = new ArrayList<>();
    for (int i = 1; i < times.size(); i++) {
      double here = differences.get(i);
      if (here > LEAST_DIFFERENCE && here > STANDS_OUT * medianAround(i) + 2) {
        cuts.add(times.get(i));
      }
    }
    return cuts;
  }

  private double medianAround(int at) {
    List<Double> around = new ArrayList<>();
    int first = Math.max(1, at - NEIGHBOURS);
    int end = Math.min(differences.size() - 1, at + NEIGHBOURS);
    for (int i = first; i <= end; i++) {
      if (i != at) {
        around.add(differences.get(i));
      }
    }
    around.sort(null);
    return around.isEmpty() ? 0 : around.get(around.size() / 2);
  }

  private Optional<Span> fadeToBlack() {
    int black = means.size() - 1;
    if (black < 2 || means.get(black) > BLACK) {
      return Optional.empty();
    }
    while (black > 0 && means.get(black - 1) <= BLACK) {
      black--;
    }
    int start = black;
    while (start > 0
        && means.get(start - 1) > means.get(start) + 0.05
        && times.get(black) - times.get(start - 1) < LONGEST_FADE_SECONDS * sampleRate) {
      start--;
    }
    boolean steady = black - start >= 3;
    return steady ? Optional.of(new Span(times.get(start), times.get(black))) : Optional.empty();
  }
}
