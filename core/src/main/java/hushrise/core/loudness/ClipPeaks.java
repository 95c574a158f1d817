package hushrise.core.loudness;

import hushrise.core.Decibels;
import hushrise.core.level.ClipEnvelope;
import hushrise.core.level.TrackCurve;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;

/**
 * How high clips peak <em>after</em> all levels of their track: gain, fades, track level, line,
 * rises and hushes. Reckoned from the peaks of the files in steps of 10 ms; no sample is read.
 */
public final class ClipPeaks {

  /** Hot moments nearer to one another than this are one spot. */
  private static final double ONE_SPOT_SECONDS = 0.4;

  private ClipPeaks() {}

  /**
   * A stretch of a clip that is hot.
   *
   * @param clipId which clip's
   * @param span on the timeline
   * @param peakFrame where it is hottest
   * @param peakDb how hot, in dBFS
   */
  public record HotSpot(String clipId, Span span, long peakFrame, double peakDb) {}

  /** Takes what a clip's step peaks at. */
  @FunctionalInterface
  private interface Taker {
    void take(long frame, double peakDb);
  }

  private static void each(
      Project project, Track track, Clip clip, LoudnessLibrary library, Taker taker) {
    Media media = project.media(clip.mediaId()).orElseThrow();
    if (!media.hasSound() || track.levelDb() <= Decibels.OFF_DB) {
      return;
    }
    int rate = project.sampleRate();
    LoudnessSteps steps = library.steps(media);
    TrackCurve curve = TrackCurve.of(track, rate);
    ClipEnvelope envelope = ClipEnvelope.of(track).get(clip.id());
    int interval = 0;
    long half = rate / LoudnessSteps.PER_SECOND / 2;
    for (int step = 0; LoudnessSteps.frameOf(step, rate) < clip.lengthFrames(); step++) {
      long into = LoudnessSteps.frameOf(step, rate);
      long frame = clip.startFrame() + Math.min(into + half, clip.lengthFrames() - 1);
      // A step of the clip lies across two of its file.
      int inMedia =
          (int) Math.floorDiv(clip.mediaFrameAt(into) * LoudnessSteps.PER_SECOND, (long) rate);
      float peak = Math.max(steps.peak(inMedia), steps.peak(inMedia + 1));
      if (peak > 0) {
        interval = curve.seek(frame, interval);
        double db =
            Decibels.ofFactor(peak * envelope.factorAt(frame))
                + clip.gainDb()
                + curve.levelDbAt(frame, interval);
        taker.take(frame, db);
      }
    }
  }

  /** The highest that a clip peaks at, in dBFS; minus infinity for silence. */
  public static double highestDb(Project project, Track track, Clip clip, LoudnessLibrary library) {
    double[] highest = {Double.NEGATIVE_INFINITY};
    each(project, track, clip, library, (frame, db) -> highest[0] = Math.max(highest[0], db));
    return highest[0];
  }

  /**
   * Where a track is hot, in order of time.
   *
   * @param hotDb what peaks over this is hot, in dBFS
   */
  public static List<HotSpot> hotSpots(
      Project project, Track track, LoudnessLibrary library, double hotDb) {
    List<HotSpot> spots = new ArrayList<>();
    long apart = Math.round(ONE_SPOT_SECONDS * project.sampleRate());
    long step = project.sampleRate() / LoudnessSteps.PER_SECOND;
    for (Clip clip : track.clipsInTime()) {
      each(
          project,
          track,
          clip,
          library,
          (frame, db) -> {
            if (db > hotDb) {
              add(spots, clip.id(), frame, step, db, apart);
            }
          });
    }
    return spots;
  }

  private static void add(
      List<HotSpot> spots, String clipId, long frame, long step, double db, long apart) {
    if (!spots.isEmpty()) {
      HotSpot last = spots.getLast();
      if (last.clipId().equals(clipId) && frame - last.span().endFrame() < apart) {
        boolean hotter = db > last.peakDb();
        spots.set(
            spots.size() - 1,
            new HotSpot(
                clipId,
                new Span(last.span().startFrame(), frame + step),
                hotter ? frame : last.peakFrame(),
                Math.max(db, last.peakDb())));
        return;
      }
    }
    spots.add(new HotSpot(clipId, Span.ofLength(frame, step), frame, db));
  }
}
