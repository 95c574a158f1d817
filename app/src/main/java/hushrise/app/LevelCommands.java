package hushrise.app;

import static hushrise.app.look.Texts.text;

import hushrise.core.edit.LevelEdits;
import hushrise.core.project.Hush;
import hushrise.core.project.Keyframe;
import hushrise.core.project.Project;
import hushrise.core.project.Track;
import hushrise.core.project.TrackKind;
import java.util.List;
import java.util.Optional;

/** What keys do to levels. */
final class LevelCommands {

  private final Session session;

  LevelCommands(Session session) {
    this.session = session;
  }

  List<Command> all() {
    return List.of(
        Command.of("keyframe.add", "K", this::addKeyframe),
        Command.of("level.up", "UP", () -> nudge(1)),
        Command.of("level.down", "DOWN", () -> nudge(-1)),
        Command.of("level.upFine", "Shift+UP", () -> nudge(0.1)),
        Command.of("level.downFine", "Shift+DOWN", () -> nudge(-0.1)));
  }

  private Optional<Track> track() {
    String id = session.selection().trackId();
    Optional<Track> chosen = session.project().track(id);
    return (chosen.isPresent() ? chosen : session.project().firstTrack(TrackKind.MUSIC))
        .filter(t -> t.kind().sounds());
  }

  private void addKeyframe() {
    track()
        .ifPresent(
            t -> {
              session.commit(
                  text("edit.addKeyframe"),
                  p -> LevelEdits.addKeyframe(p, t.id(), session.playhead()));
              session.select(new Selection.OfKeyframe(t.id(), session.playhead()));
            });
  }

  private void nudge(double byDb) {
    Project project = session.project();
    switch (session.selection()) {
      case Selection.OfKeyframe k ->
          nudgeKeyframe(project.track(k.trackId()).orElseThrow(), k, byDb);
      case Selection.OfHush h -> nudgeHush(project.track(h.trackId()).orElseThrow(), h, byDb);
      case Selection.OfTrack t ->
          project
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
      case Selection.Nothing n -> {}
    }
  }

  private void nudgeKeyframe(Track track, Selection.OfKeyframe k, double byDb) {
    int index = track.line().indexAfter(k.frame()) - 1;
    Keyframe keyframe = track.line().keyframes().get(index);
    session.commit(
        text("edit.moveKeyframe"),
        p -> LevelEdits.moveKeyframe(p, k.trackId(), index, k.frame(), keyframe.levelDb() + byDb));
  }

  private void nudgeHush(Track track, Selection.OfHush h, double byDb) {
    track.hushes().stream()
        .filter(hush -> hush.id().equals(h.hushId()))
        .map(Hush::depthDb)
        .findFirst()
        .ifPresent(
            depth ->
                session.commit(
                    text("edit.hushDepth"),
                    p -> LevelEdits.setHushDepth(p, h.hushId(), depth + byDb)));
  }

  private void nudgeGain(double byDb) {
    session.commit(
        text("edit.clipGain"),
        p -> {
          Project changed = p;
          for (String id : session.selection().clipIds()) {
            double gain = p.clip(id).orElseThrow().gainDb();
            changed =
                hushrise.core.edit.ClipEdits.setGain(changed, java.util.Set.of(id), gain + byDb);
          }
          return changed;
        });
  }
}
