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
import java.util.Map;

/**
 * How high clips peak <em>after</em> all levels of their track: gain, fades, track level, line,
 * rises and hushes. Reckoned from the peaks of the files in steps of 10 ms; no sample is read.
 */
public final class ClipPeaks {

  /** Hot moments nearer to one another than this are one spot. */
  private static final double ONE_SPOT_SECONDS = 0.4;

  private final Project project;
  private final Track track;
  private final LoudnessLibrary library;
  private final TrackCurve curve;
  private final Map<String, ClipEnvelope> envelopes;

  private ClipPeaks(Project project, Track track, LoudnessLibrary library) {
    this.project = project;
    this.track = track;
    this.library = library;
    curve = TrackCurve.of(track, project.sampleRate());
    envelopes = ClipEnvelope.of(track);
  }

  /**
   * The peaks of a track's clips.
   *
   * @param track with the levels that count, which need not be those it has in the project
   */
  public static ClipPeaks of(Project project, Track track, LoudnessLibrary library) {
    return new ClipPeaks(project, track, library);
  }

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

  private void each(Clip clip, Taker taker) {
    Media media = project.media(clip.mediaId()).orElseThrow();
    if (!media.hasSound() || track.levelDb() <= Decibels.OFF_DB) {
      return;
    }
    int rate = project.sampleRate();
    LoudnessSteps steps = library.steps(media);
    ClipEnvelope envelope = envelopes.get(clip.id());
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
  public double highestDb(Clip clip) {
    double[] highest = {Double.NEGATIVE_INFINITY};
    each(clip, (frame, db) -> highest[0] = Math.max(highest[0], db));
    return highest[0];
  }

  /**
   * Where the track is hot, in order of time.
   *
   * @param hotDb what peaks over this is hot, in dBFS
   */
  public List<HotSpot> hotSpots(double hotDb) {
    List<HotSpot> spots = new ArrayList<>();
    long apart = Math.round(ONE_SPOT_SECONDS * project.sampleRate());
    long step = project.sampleRate() / LoudnessSteps.PER_SECOND;
    for (Clip clip : track.clipsInTime()) {
      each(
          clip,
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
