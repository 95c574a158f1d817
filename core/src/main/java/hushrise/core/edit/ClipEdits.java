package hushrise.core.edit;

import hushrise.core.Decibels;
import hushrise.core.Ids;
import hushrise.core.Problem;
import hushrise.core.level.ClipEnvelope;
import hushrise.core.project.Project;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.media.Media;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.CrossfadeShape;
import hushrise.core.project.timeline.FitMode;
import hushrise.core.project.timeline.Track;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.ToLongFunction;
import java.util.stream.Collectors;

/**
 * Edits of clips: each is a function from project to project. Hushes follow moved speech by what
 * the session does with every edit.
 */
public final class ClipEdits {

  private ClipEdits() {}

  private static List<Clip> chosen(Project project, Set<String> clipIds) {
    return project.tracks().stream().flatMap(t -> chosenOn(t, clipIds).stream()).toList();
  }

  static List<Clip> chosenOn(Track track, Set<String> clipIds) {
    return track.clips().stream().filter(c -> clipIds.contains(c.id())).toList();
  }

  /**
   * Moves clips together in time. Nothing goes before the start of the timeline: there the whole
   * group stops.
   *
   * @param carriesKeyframes whether the keyframes over the clips go along
   */
  public static Project move(
      Project project, Set<String> clipIds, long byFrames, boolean carriesKeyframes) {
    List<Clip> moved = chosen(project, clipIds);
    long earliest = moved.stream().mapToLong(Clip::startFrame).min().orElse(0);
    long by = Math.max(byFrames, -earliest);
    if (by == 0 || moved.isEmpty()) {
      return project;
    }
    return project.withEachTrack(
        track -> {
          List<Clip> own = chosenOn(track, clipIds);
          return own.isEmpty() ? track : moved(track, own, c -> by, carriesKeyframes);
        });
  }

  /** A track with some of its clips moved, each by so many frames. */
  static Track moved(
      Track track, Collection<Clip> clips, ToLongFunction<Clip> by, boolean carriesKeyframes) {
    Set<String> moving = clips.stream().map(Clip::id).collect(Collectors.toSet());
    Track placed =
        track.withClips(
            track.clips().stream()
                .map(c -> moving.contains(c.id()) ? movedBy(c, by.applyAsLong(c)) : c)
                .toList());
    return carriesKeyframes ? placed.withLine(Travel.carried(track.line(), clips, by)) : placed;
  }

  private static Clip movedBy(Clip clip, long by) {
    return clip.withStartFrame(clip.startFrame() + by)
        .withOtherTakes(clip.otherTakes().stream().map(t -> t.movedBy(by)).toList())
        .withFit(
            clip.fit()
                .map(
                    f ->
                        f.withAnchorFrame(f.anchorFrame() + by)
                            .withUntilFrame(f.untilFrame().map(end -> end + by))));
  }

  /**
   * Moves a track's chosen clips to another track of its kind, at the same times.
   *
   * @param carriesKeyframes whether the keyframes over the clips go along
   */
  public static Project moveToTrack(
      Project project,
      Set<String> clipIds,
      String fromTrackId,
      String toTrackId,
      boolean carriesKeyframes) {
    Track from = project.track(fromTrackId).orElseThrow();
    Track to = project.track(toTrackId).orElseThrow();
    if (from.id().equals(to.id()) || from.kind() != to.kind()) {
      return project;
    }
    List<Clip> going = chosenOn(from, clipIds);
    List<Keyframe> keyframes = carriesKeyframes ? Travel.over(from.line(), going) : List.of();
    return project
        .withTrack(
            fromTrackId,
            t ->
                t.withClips(t.clips().stream().filter(c -> !clipIds.contains(c.id())).toList())
                    .withLine(Travel.without(t.line(), keyframes)))
        .withTrack(
            toTrackId,
            t ->
                t.withClips(joined(t.clips(), going))
                    .withLine(Travel.with(t.line(), keyframes, 0)));
  }

  private static List<Clip> joined(List<Clip> clips, Collection<Clip> more) {
    List<Clip> all = new ArrayList<>(clips);
    all.addAll(more);
    return all;
  }

  /**
   * Moves a clip's start to a time, its content staying where it sounds. It stops at the media's
   * beginning and one frame before the clip's end.
   */
  public static Project trimStart(Project project, String clipId, long toFrame) {
    return withClip(
        project,
        clipId,
        (clip, media) -> {
          long earliest = Math.max(0, clip.startFrame() - ClipShape.roomBefore(clip, media));
          long start = Math.clamp(toFrame, earliest, clip.endFrame() - 1);
          boolean tailored = isTailored(clip);
          Clip trimmed =
              tailored
                  ? clip.withExtent(
                      start, clip.endFrame() - start, clip.mediaStartFrame(), clip.seams())
                  : ClipShape.from(clip, start - clip.startFrame());
          return trimmed
              .withFadeIn(clip.fadeIn().withLength(clip.fadeIn().visibleFrames()))
              .withFit(clip.fit().map(f -> f.withAnchorFrame(start)))
              .withFittingFades();
        });
  }

  /**
   * Moves a clip's end to a time. It stops where the media ends, unless the clip has a fit, which
   * then reaches to that time.
   */
  public static Project trimEnd(Project project, String clipId, long toFrame) {
    return withClip(
        project,
        clipId,
        (clip, media) -> {
          boolean free = clip.fit().filter(f -> f.mode() != FitMode.TRIM).isPresent();
          long longest =
              free
                  ? Long.MAX_VALUE / 4
                  : Math.max(clip.lengthFrames(), ClipShape.longest(clip, media));
          long length = Math.clamp(toFrame - clip.startFrame(), 1, longest);
          Clip trimmed =
              ClipShape.upTo(clip, length)
                  .withFadeOut(clip.fadeOut().withLength(clip.fadeOut().visibleFrames()));
          long end = clip.startFrame() + length;
          return trimmed
              .withFit(clip.fit().map(f -> f.withUntilFrame(Optional.of(end))))
              .withFittingFades();
        });
  }

  /**
   * Shifts a clip's content under its fixed ends; positive plays earlier content. It stops at the
   * media's ends.
   *
   * @throws Problem when the clip is tailored, as its song's own beginning is kept
   */
  public static Project slip(Project project, String clipId, long byFrames) {
    return withClip(
        project,
        clipId,
        (clip, media) -> {
          if (isTailored(clip)) {
            throw new Problem(
                "%s keeps its own beginning, as it is tailored: choose another fit to slip it."
                    .formatted(media.title()));
          }
          long room = Math.max(0, media.lengthFrames() - clip.lengthFrames());
          boolean looped = !clip.seams().isEmpty();
          long latest = looped ? media.lengthFrames() / 2 : room;
          long start = Math.clamp(clip.mediaStartFrame() - byFrames, 0, latest);
          long by = start - clip.mediaStartFrame();
          return clip.withExtent(
              clip.startFrame(),
              clip.lengthFrames(),
              start,
              looped ? clip.seams().stream().map(s -> s.earlierBy(by)).toList() : List.of());
        });
  }

  private static boolean isTailored(Clip clip) {
    return clip.fit().filter(f -> f.mode() == FitMode.TAILOR).isPresent();
  }

  /**
   * Cuts the chosen clips that lie over a time in two. Not a sample changes. A clip that had a fit
   * gives it up.
   *
   * @throws Problem when the time lies in a crossfade of such a clip
   */
  public static Project split(Project project, Set<String> clipIds, long frame) {
    return project.withEachTrack(
        track -> {
          if (track.clips().stream().noneMatch(c -> isCut(c, clipIds, frame))) {
            return track;
          }
          Map<String, ClipEnvelope> envelopes = ClipEnvelope.of(track);
          List<Clip> clips = new ArrayList<>();
          for (Clip clip : track.clips()) {
            if (isCut(clip, clipIds, frame)) {
              if (envelopes.get(clip.id()).isCrossing(frame)) {
                throw new Problem(
                    "There is a crossfade here, and a split would change it: move the playhead out of it.");
              }
              Clip plain = clip.withFit(Optional.empty());
              clips.addAll(ClipShape.halves(plain, frame - clip.startFrame(), Ids.fresh("clip")));
            } else {
              clips.add(clip);
            }
          }
          return track.withClips(clips);
        });
  }

  private static boolean isCut(Clip clip, Set<String> clipIds, long frame) {
    return clipIds.contains(clip.id()) && clip.startFrame() < frame && frame < clip.endFrame();
  }

  /** Copies clips with the keyframes over them. */
  public static Snippet copy(Project project, Set<String> clipIds) {
    List<Snippet.Piece> pieces = new ArrayList<>();
    for (Track track : project.tracks()) {
      List<Clip> clips = chosenOn(track, clipIds);
      if (!clips.isEmpty()) {
        pieces.add(
            new Snippet.Piece(track.id(), track.kind(), clips, Travel.over(track.line(), clips)));
      }
    }
    List<Clip> all = pieces.stream().flatMap(p -> p.clips().stream()).toList();
    return all.isEmpty()
        ? Snippet.EMPTY
        : new Snippet(
            pieces,
            all.stream().mapToLong(Clip::startFrame).min().orElse(0),
            all.stream().mapToLong(Clip::endFrame).max().orElse(0));
  }

  /**
   * What a paste gives.
   *
   * @param project with the copies
   * @param clipIds the copies
   */
  public record Pasted(Project project, Set<String> clipIds) {}

  /**
   * Places copies so that the earliest starts at a time, on the tracks they came from, or on the
   * first of their kind when that is gone.
   *
   * @throws Problem when no track takes them, or their media has left the project
   */
  public static Pasted paste(
      Project project, Snippet snippet, long atFrame, boolean carriesKeyframes) {
    long by = atFrame - snippet.startFrame();
    Set<String> ids = new java.util.LinkedHashSet<>();
    Project result = project;
    for (Snippet.Piece piece : snippet.pieces()) {
      Track target =
          result
              .track(piece.trackId())
              .or(() -> project.firstTrack(piece.kind()))
              .orElseThrow(
                  () ->
                      new Problem(
                          "There is no track for what was copied: add one of its kind first."));
      List<Clip> copies = new ArrayList<>();
      for (Clip clip : piece.clips()) {
        if (project.media(clip.mediaId()).isEmpty()) {
          throw new Problem("What was copied has left the project: add its file again.");
        }
        Clip copy = movedBy(clip, by).withId(Ids.fresh("clip"));
        copies.add(copy);
        ids.add(copy.id());
      }
      result =
          result.withTrack(
              target.id(),
              t ->
                  t.withClips(joined(t.clips(), copies))
                      .withLine(
                          carriesKeyframes
                              ? Travel.with(t.line(), piece.keyframes(), by)
                              : t.line()));
    }
    return new Pasted(result, Set.copyOf(ids));
  }

  /** Copies clips to right after themselves. */
  public static Pasted duplicate(Project project, Set<String> clipIds, boolean carriesKeyframes) {
    Snippet snippet = copy(project, clipIds);
    return paste(project, snippet, snippet.endFrame(), carriesKeyframes);
  }

  public static Project setGain(Project project, Set<String> clipIds, double db) {
    return project.withEachTrack(
        t ->
            chosenOn(t, clipIds).isEmpty()
                ? t
                : t.withClips(
                    t.clips().stream()
                        .map(c -> clipIds.contains(c.id()) ? gained(c, db) : c)
                        .toList()));
  }

  private static Clip gained(Clip clip, double db) {
    return clip.withGainDb(Math.clamp(db, Decibels.OFF_DB, Clip.MOST_GAIN_DB));
  }

  /** Gives clips the gains that they have in another project, as far as both have them. */
  public static Project gainsAsIn(Project meant, Project project, Set<String> clipIds) {
    Map<String, Double> gains = new HashMap<>();
    meant.tracks().stream()
        .flatMap(t -> t.clips().stream())
        .filter(c -> clipIds.contains(c.id()))
        .forEach(c -> gains.put(c.id(), c.gainDb()));
    return project.withEachTrack(
        t ->
            chosenOn(t, gains.keySet()).isEmpty()
                ? t
                : t.withClips(
                    t.clips().stream()
                        .map(c -> gained(c, gains.getOrDefault(c.id(), c.gainDb())))
                        .toList()));
  }

  /** Raises the gains of some clips, each by its own number of dB, which may be negative. */
  static Project raise(Project project, Map<String, Double> byDb) {
    return project.withEachTrack(
        t ->
            chosenOn(t, byDb.keySet()).isEmpty()
                ? t
                : t.withClips(
                    t.clips().stream()
                        .map(c -> gained(c, c.gainDb() + byDb.getOrDefault(c.id(), 0.0)))
                        .toList()));
  }

  /** Sets how a clip takes over from the one it overlaps. */
  public static Project setCrossfade(Project project, String clipId, CrossfadeShape shape) {
    return project.withEachTrack(t -> t.withClip(clipId, c -> c.withCrossfade(shape)));
  }

  /** How long a clip overlaps the one of its track that it takes over from; 0 without one. */
  public static long crossfadeFrames(Track track, Clip clip) {
    return track.clips().stream()
        .filter(
            c ->
                c.startFrame() < clip.startFrame()
                    && c.endFrame() > clip.startFrame()
                    && c.endFrame() < clip.endFrame())
        .mapToLong(c -> c.endFrame() - clip.startFrame())
        .max()
        .orElse(0);
  }

  /** Makes a clip's crossfade longer or shorter by moving its start; it stops at its media's. */
  public static Project setCrossfadeLength(Project project, String clipId, long frames) {
    Track track = project.trackOfClip(clipId).orElseThrow();
    Clip clip = track.clip(clipId).orElseThrow();
    long now = crossfadeFrames(track, clip);
    return now == 0 ? project : trimStart(project, clipId, clip.startFrame() + now - frames);
  }

  private interface Change {
    Clip apply(Clip clip, Media media);
  }

  private static Project withClip(Project project, String clipId, Change change) {
    return project.withEachTrack(
        t -> t.withClip(clipId, c -> change.apply(c, project.media(c.mediaId()).orElseThrow())));
  }
}
