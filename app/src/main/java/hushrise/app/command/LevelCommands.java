package hushrise.app.command;

import static hushrise.app.words.Texts.text;

import hushrise.app.job.Messages;
import hushrise.app.play.Riders;
import hushrise.app.session.Selection;
import hushrise.app.session.Session;
import hushrise.core.edit.ClipEdits;
import hushrise.core.edit.HushEdits;
import hushrise.core.edit.KeyframeEdits;
import hushrise.core.edit.LevelEdits;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.Rise;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.Collectors;

/** What keys do to levels: keyframes, and the levels and times of what is selected. */
public final class LevelCommands {

  private final Session session;
  private final Riders riders;
  private final Messages messages;

  public LevelCommands(Session session, Riders riders, Messages messages) {
    this.session = session;
    this.riders = riders;
    this.messages = messages;
  }

  /** Sets what its commands do. */
  public void addTo(Commands.Builder table) {
    table
        .set(CommandId.KEYFRAME_ADD, this::addKeyframe)
        .set(CommandId.KEYFRAME_NEXT, () -> toKeyframe(true))
        .set(CommandId.KEYFRAME_PREVIOUS, () -> toKeyframe(false))
        .set(CommandId.KEYFRAME_CLEAR_TRACK, () -> clear(false))
        .set(CommandId.KEYFRAME_CLEAR_CLIP, () -> clear(true))
        .set(CommandId.LEVEL_UP, () -> nudge(1))
        .set(CommandId.LEVEL_DOWN, () -> nudge(-1))
        .set(CommandId.LEVEL_UP_FINE, () -> nudge(0.1))
        .set(CommandId.LEVEL_DOWN_FINE, () -> nudge(-0.1));
  }

  /** The track whose fader keys move: the selected one of those that are ridden, else any. */
  private Optional<String> ridden() {
    String selected = session.selection().trackId();
    return riders.isRiding(selected)
        ? Optional.of(selected)
        : riders.armed().stream().filter(riders::isRiding).findFirst();
  }

  /** The selected track when it sounds, else the music. */
  public Optional<Track> track() {
    Optional<Track> chosen = session.present().track(session.selection().trackId());
    return (chosen.isPresent() ? chosen : session.present().firstTrack(TrackKind.MUSIC))
        .filter(t -> t.kind().sounds());
  }

  /** Does something to that track; where there is none it is said. */
  void onTrack(Consumer<Track> what) {
    track().ifPresentOrElse(what, () -> messages.say(text("level.noTrack")));
  }

  private void addKeyframe() {
    onTrack(
        t -> {
          session.commit(
              text("edit.addKeyframe"), p -> LevelEdits.addKeyframe(p, t.id(), session.playhead()));
          session.select(new Selection.OfKeyframe(t.id(), session.playhead()));
        });
  }

  private void toKeyframe(boolean next) {
    onTrack(
        t -> {
          List<Keyframe> all = t.line().keyframes();
          int at =
              next
                  ? t.line().indexAfter(session.playhead())
                  : t.line().indexAfter(session.playhead() - 1) - 1;
          if (at >= 0 && at < all.size()) {
            session.seek(all.get(at).frame());
            session.select(new Selection.OfKeyframe(t.id(), all.get(at).frame()));
          } else {
            messages.say(text("keyframe.none"));
          }
        });
  }

  private void clear(boolean overClip) {
    Optional<Track> track = track();
    Optional<Span> clip =
        session.selection().oneClip().flatMap(id -> session.present().clip(id)).map(c -> c.span());
    if (track.isEmpty() || (overClip && clip.isEmpty())) {
      return;
    }
    Span over = overClip ? clip.get() : new Span(0, Long.MAX_VALUE);
    session.commit(
        text("edit.clearKeyframes"), p -> KeyframeEdits.removeAll(p, track.get().id(), over));
  }

  /** The keyframes that are selected: those of a selected stretch of time count. */
  Set<Long> keyframes() {
    Project p = session.present();
    return switch (session.selection()) {
      case Selection.OfKeyframe k -> Set.copyOf(k.all());
      case Selection.OfSpan s ->
          p.track(s.trackId()).stream()
              .flatMap(t -> t.line().within(s.span().startFrame(), s.span().endFrame()).stream())
              .map(Keyframe::frame)
              .collect(Collectors.toSet());
      default -> Set.of();
    };
  }

  private void select(String trackId, Set<Long> frames) {
    if (session.selection() instanceof Selection.OfKeyframe && !frames.isEmpty()) {
      session.select(new Selection.OfKeyframe(trackId, new ArrayList<>(frames)));
    }
  }

  private void nudge(double byDb) {
    Optional<String> ridden = ridden();
    if (ridden.isPresent()) {
      riders.nudge(ridden.get(), byDb);
      return;
    }
    switch (session.selection()) {
      case Selection.OfKeyframe k -> raise(k.trackId(), byDb);
      case Selection.OfSpan s -> raiseSpan(s, byDb);
      case Selection.OfHush h ->
          hush(h)
              .ifPresent(
                  hush ->
                      session.commit(
                          text("edit.hushDepth"),
                          p -> LevelEdits.setHushDepth(p, h.hushId(), hush.depthDb() + byDb)));
      case Selection.OfRise r ->
          rise(r)
              .ifPresent(
                  rise ->
                      session.commit(
                          text("edit.rise"),
                          p -> HushEdits.setRiseHeight(p, r.riseId(), rise.heightDb() + byDb)));
      case Selection.OfTrack t ->
          session
              .present()
              .track(t.trackId())
              .filter(track -> track.kind().sounds())
              .ifPresent(
                  track ->
                      session.commit(
                          text("edit.trackLevel"),
                          p -> LevelEdits.setTrackLevel(p, t.trackId(), track.levelDb() + byDb)));
      case Selection.OfClip c -> nudgeGain(byDb);
      case Selection.OfSeam s -> {}
      case Selection.OfMarker m -> {}
      case Selection.OfPassage q -> {}
      case Selection.Nothing n -> {}
    }
  }

  private Optional<Hush> hush(Selection.OfHush h) {
    return session.present().track(h.trackId()).flatMap(t -> t.hush(h.hushId()));
  }

  private Optional<Rise> rise(Selection.OfRise r) {
    return session.present().track(r.trackId()).flatMap(t -> t.rise(r.riseId()));
  }

  private void raise(String trackId, double byDb) {
    Set<Long> frames = keyframes();
    session.commit(
        text("edit.moveKeyframe"), p -> KeyframeEdits.move(p, trackId, frames, 0, byDb).project());
  }

  private void raiseSpan(Selection.OfSpan s, double byDb) {
    session.commit(
        text("edit.raiseSpan"),
        p -> KeyframeEdits.raiseSpan(p, s.trackId(), s.span(), session.habits().lastTurn(), byDb));
  }

  private void nudgeGain(double byDb) {
    session.commit(
        text("edit.clipGain"),
        p -> {
          Project changed = p;
          for (String id : session.selection().clipIds()) {
            double gain = p.clip(id).orElseThrow().gainDb();
            changed = ClipEdits.setGain(changed, Set.of(id), gain + byDb);
          }
          return changed;
        });
  }

  /** Moves what is selected of the level in time; false when nothing of it is. */
  boolean nudgeTime(long byFrames) {
    switch (session.selection()) {
      case Selection.OfKeyframe k -> moveKeyframes(k.trackId(), byFrames);
      case Selection.OfSpan s -> {
        moveKeyframes(s.trackId(), byFrames);
        session.select(
            new Selection.OfSpan(
                s.trackId(),
                new Span(
                    Math.max(0, s.span().startFrame() + byFrames),
                    Math.max(1, s.span().endFrame() + byFrames))));
      }
      case Selection.OfHush h ->
          session.commit(
              text("edit.hushNumbers"),
              p -> HushEdits.change(p, h.hushId(), hush -> hush.movedBy(byFrames)));
      case Selection.OfRise r ->
          rise(r)
              .ifPresent(
                  rise ->
                      session.commit(
                          text("edit.rise"),
                          p ->
                              HushEdits.setRiseSpan(
                                  p,
                                  r.riseId(),
                                  new Span(
                                      rise.startFrame() + byFrames, rise.endFrame() + byFrames))));
      default -> {
        return false;
      }
    }
    return true;
  }

  private void moveKeyframes(String trackId, long byFrames) {
    Set<Long> frames = keyframes();
    KeyframeEdits.Moved moved = KeyframeEdits.move(session.present(), trackId, frames, byFrames, 0);
    session.commit(text("edit.moveKeyframe"), p -> moved.project());
    select(trackId, moved.frames());
  }

  /** Deletes what is selected of the level; false when nothing of it is. */
  boolean delete() {
    switch (session.selection()) {
      case Selection.OfKeyframe k -> deleteKeyframes(k.trackId());
      case Selection.OfSpan s -> deleteKeyframes(s.trackId());
      case Selection.OfHush h ->
          session.commit(text("edit.removeHush"), p -> LevelEdits.removeHush(p, h.hushId()));
      case Selection.OfRise r ->
          session.commit(text("edit.removeRise"), p -> HushEdits.removeRise(p, r.riseId()));
      default -> {
        return false;
      }
    }
    return true;
  }

  private void deleteKeyframes(String trackId) {
    Set<Long> frames = keyframes();
    session.commit(text("edit.removeKeyframe"), p -> KeyframeEdits.remove(p, trackId, frames));
  }

  /** Copies selected keyframes; false when there are none. */
  boolean copy() {
    Set<Long> frames = keyframes();
    if (frames.isEmpty()) {
      return false;
    }
    session
        .copied()
        .set(
            session
                .present()
                .track(session.selection().trackId())
                .orElseThrow()
                .line()
                .keyframes()
                .stream()
                .filter(k -> frames.contains(k.frame()))
                .toList());
    messages.say(text("clip.copied", frames.size()));
    return true;
  }

  /** Pastes copied keyframes at the playhead; false when there are none. */
  boolean paste() {
    if (session.copied().keyframes().isEmpty() || track().isEmpty()) {
      return false;
    }
    long at = session.playhead();
    String trackId = track().get().id();
    session.commit(
        text("edit.paste"), p -> KeyframeEdits.paste(p, trackId, session.copied().keyframes(), at));
    return true;
  }
}
