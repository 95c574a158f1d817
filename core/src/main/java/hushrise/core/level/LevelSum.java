package hushrise.core.level;

import hushrise.core.Decibels;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.Rise;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import java.util.Map;
import java.util.Optional;

/**
 * What a track's level at one moment is made of, term by term, in dB. Minus infinity is silence.
 *
 * @param clipDb the clip's own gain; 0 where no clip lies
 * @param fadeDb its fades and crossfades
 * @param trackDb the track's level
 * @param lineDb its level line
 * @param riseDb the highest rise
 * @param hushDb the deepest hush
 * @param masterDb the level of the whole mix
 * @param hasClip whether a clip lies there at all
 */
public record LevelSum(
    double clipDb,
    double fadeDb,
    double trackDb,
    double lineDb,
    double riseDb,
    double hushDb,
    double masterDb,
    boolean hasClip) {

  /** All terms together. */
  public double totalDb() {
    return clipDb + fadeDb + trackDb + lineDb + riseDb + hushDb + masterDb;
  }

  /** The sum on a track at a frame; of several clips there the one that lies on top counts. */
  public static LevelSum at(Project project, Track track, long frame) {
    Map<String, ClipEnvelope> envelopes = ClipEnvelope.of(track);
    Optional<Clip> clip =
        track.clips().reversed().stream().filter(c -> c.span().contains(frame)).findFirst();
    double hush = 0;
    for (Hush h : track.hushes()) {
      hush = Math.min(hush, h.knots(project.sampleRate()).levelDbAt(frame));
    }
    double rise = 0;
    for (Rise r : track.rises()) {
      rise = Math.max(rise, r.knots(project.sampleRate()).levelDbAt(frame));
    }
    return new LevelSum(
        clip.map(Clip::gainDb).orElse(0.0),
        clip.map(c -> Decibels.ofFactor(envelopes.get(c.id()).factorAt(frame))).orElse(0.0),
        orOff(track.levelDb()),
        orOff(track.line().levelDbAt(frame)),
        rise,
        hush,
        project.masterDb(),
        clip.isPresent());
  }

  private static double orOff(double db) {
    return db <= Decibels.OFF_DB ? Double.NEGATIVE_INFINITY : db;
  }
}
