package hushrise.core.project.timeline;

import hushrise.core.Ids;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.HushRule;
import hushrise.core.project.level.LevelLine;
import hushrise.core.project.level.Rise;
import hushrise.core.project.level.Shaping;
import hushrise.core.project.media.TrackKind;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import java.util.stream.LongStream;

/**
 * One track of the timeline.
 *
 * @param id unique in the project
 * @param kind what it carries
 * @param name as a person called it
 * @param levelDb its level, {@code OFF_DB} meaning off
 * @param pan -1 (left) to 1 (right), 0 in the middle: the other channel is lowered by a cosine
 * @param muted silenced
 * @param soloed heard alone, with other soloed tracks
 * @param rowHeight how high a person made its row, in pixels; 0: as usual for its kind
 * @param line its level line
 * @param hushes its dips
 * @param rises its swells
 * @param clips what lies on it
 * @param other another version of its shaping, kept aside to compare with
 * @param speaks whether somebody speaks on it though it is no voice track, as on camera sound
 * @param rule how hushes are drafted on it; empty: as usual for its kind
 */
@RecordBuilder
public record Track(
    String id,
    TrackKind kind,
    String name,
    double levelDb,
    double pan,
    boolean muted,
    boolean soloed,
    int rowHeight,
    LevelLine line,
    List<Hush> hushes,
    List<Rise> rises,
    List<Clip> clips,
    Optional<Shaping> other,
    boolean speaks,
    Optional<HushRule> rule)
    implements TrackBuilder.With {

  public Track {
    pan = Math.clamp(pan, -1, 1);
    line = line == null ? LevelLine.EMPTY : line;
    hushes = hushes == null ? List.of() : List.copyOf(hushes);
    rises = rises == null ? List.of() : List.copyOf(rises);
    clips = clips == null ? List.of() : List.copyOf(clips);
    other = other == null ? Optional.empty() : other;
    rule = rule == null ? Optional.empty() : rule;
  }

  public static Track of(TrackKind kind, String name, List<Clip> clips) {
    return new Track(
        Ids.fresh("track"),
        kind,
        name,
        0,
        0,
        false,
        false,
        0,
        LevelLine.EMPTY,
        List.of(),
        List.of(),
        clips,
        Optional.empty(),
        false,
        Optional.empty());
  }

  /** Whether what it carries counts as voice. */
  public boolean isVoice() {
    return kind == TrackKind.VOICE || (kind == TrackKind.CAMERA && speaks);
  }

  /** Whether what it carries lies under the voice: all sound that is no voice. */
  public boolean isBackground() {
    return kind.sounds() && !isVoice();
  }

  /** How its level is shaped. */
  public Shaping shaping() {
    return new Shaping(line, hushes, rises);
  }

  public Track withShaping(Shaping shaping) {
    return withLine(shaping.line()).withHushes(shaping.hushes()).withRises(shaping.rises());
  }

  public Optional<Hush> hush(String hushId) {
    return hushes.stream().filter(h -> h.id().equals(hushId)).findFirst();
  }

  public Optional<Rise> rise(String riseId) {
    return rises.stream().filter(r -> r.id().equals(riseId)).findFirst();
  }

  /** This track with one rise changed; the same track when it has no such rise. */
  public Track withRise(String riseId, UnaryOperator<Rise> change) {
    return rise(riseId).isEmpty()
        ? this
        : withRises(rises.stream().map(r -> r.id().equals(riseId) ? change.apply(r) : r).toList());
  }

  /** This track with one clip changed; the same track when it has no such clip. */
  public Track withClip(String clipId, UnaryOperator<Clip> change) {
    return clips.stream().noneMatch(c -> c.id().equals(clipId))
        ? this
        : withClips(clips.stream().map(c -> c.id().equals(clipId) ? change.apply(c) : c).toList());
  }

  /** This track with one hush changed; the same track when it has no such hush. */
  public Track withHush(String hushId, UnaryOperator<Hush> change) {
    return hushes.stream().noneMatch(h -> h.id().equals(hushId))
        ? this
        : withHushes(
            hushes.stream().map(h -> h.id().equals(hushId) ? change.apply(h) : h).toList());
  }

  /** This track without one hush; the same track when it has no such hush. */
  public Track withoutHush(String hushId) {
    return hushes.stream().noneMatch(h -> h.id().equals(hushId))
        ? this
        : withHushes(hushes.stream().filter(h -> !h.id().equals(hushId)).toList());
  }

  /** Where its last clip ends; 0 without clips. */
  public long endFrame() {
    return clips.stream().mapToLong(Clip::endFrame).max().orElse(0);
  }

  /** The last frame that anything on it reaches, be it a clip, a keyframe, a hush or a rise. */
  public long reachFrame() {
    return LongStream.of(
            endFrame(),
            line.keyframes().isEmpty() ? 0 : line.keyframes().getLast().frame(),
            hushes.stream().mapToLong(Hush::endFrame).max().orElse(0),
            rises.stream().mapToLong(Rise::endFrame).max().orElse(0))
        .max()
        .getAsLong();
  }

  public Optional<Clip> clip(String clipId) {
    return clips.stream().filter(c -> c.id().equals(clipId)).findFirst();
  }

  /** The clips in order of time. */
  public List<Clip> clipsInTime() {
    return clips.stream().sorted(Comparator.comparingLong(Clip::startFrame)).toList();
  }
}
