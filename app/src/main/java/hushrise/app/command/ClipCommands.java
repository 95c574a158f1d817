package hushrise.app.command;

import static hushrise.app.words.Texts.text;

import hushrise.app.job.Messages;
import hushrise.app.session.Selection;
import hushrise.app.session.Session;
import hushrise.core.edit.ClipEdits;
import hushrise.core.edit.ClipRemoval;
import hushrise.core.edit.MarkerEdits;
import hushrise.core.edit.SpeechEdits;
import hushrise.core.edit.TrackEdits;
import hushrise.core.fit.Fits;
import hushrise.core.project.Project;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/** What keys and menus do to clips and tracks. */
public final class ClipCommands {

  private final Session session;
  private final Messages messages;
  private final LevelCommands levels;
  private final FitCommands fits;

  public ClipCommands(Session session, Messages messages, LevelCommands levels, FitCommands fits) {
    this.session = session;
    this.messages = messages;
    this.levels = levels;
    this.fits = fits;
  }

  /** Sets what its commands do. */
  public void addTo(Commands.Builder table) {
    table
        .set(CommandId.SPLIT, this::split)
        .set(CommandId.TRIM_START, () -> trim(true))
        .set(CommandId.TRIM_END, () -> trim(false))
        .set(CommandId.TO_PICTURE_END, this::toPictureEnd)
        .set(CommandId.EARLIER, () -> nudge(-1))
        .set(CommandId.LATER, () -> nudge(1))
        .set(CommandId.EARLIER_TEN, () -> nudge(-10))
        .set(CommandId.LATER_TEN, () -> nudge(10))
        .set(CommandId.DELETE, () -> delete(false))
        .set(CommandId.DELETE_CLOSING, () -> delete(true))
        .set(CommandId.SELECT_ALL, this::selectAll)
        .set(CommandId.CUT, this::cut)
        .set(CommandId.COPY, this::copy)
        .set(CommandId.PASTE, this::paste)
        .set(CommandId.DUPLICATE, this::duplicate)
        .set(CommandId.CAMERA_SILENCE, this::silenceCameras);
  }

  private Project project() {
    return session.present();
  }

  private Set<String> chosen() {
    return session.selection().clipIds();
  }

  private void needClip() {
    messages.say(CommandId.Needs.CLIP.words());
  }

  /** The chosen clips; without any, those that lie under the playhead on the chosen track. */
  private Set<String> chosenOrUnderPlayhead() {
    if (!chosen().isEmpty()) {
      return chosen();
    }
    String trackId = session.selection().trackId();
    return project().tracks().stream()
        .filter(t -> trackId.isEmpty() || t.id().equals(trackId))
        .flatMap(t -> t.clips().stream())
        .filter(c -> c.span().contains(session.playhead()))
        .map(Clip::id)
        .collect(Collectors.toSet());
  }

  private void split() {
    Set<String> ids = chosenOrUnderPlayhead();
    boolean any =
        ids.stream()
            .flatMap(id -> project().clip(id).stream())
            .anyMatch(
                c -> c.startFrame() < session.playhead() && session.playhead() < c.endFrame());
    if (any) {
      session.commit(text("edit.split"), p -> ClipEdits.split(p, ids, session.playhead()));
    } else {
      messages.say(text("clip.splitNothing"));
    }
  }

  private void trim(boolean start) {
    Set<String> ids = chosenOrUnderPlayhead();
    if (ids.isEmpty()) {
      needClip();
      return;
    }
    long at = session.playhead();
    session.commit(
        text(start ? "edit.trimStart" : "edit.trimEnd"),
        p -> {
          Project changed = p;
          for (String id : ids) {
            changed =
                start ? ClipEdits.trimStart(changed, id, at) : ClipEdits.trimEnd(changed, id, at);
          }
          return changed;
        });
  }

  private void toPictureEnd() {
    if (chosen().isEmpty() || Fits.endOf(project()).isEmpty()) {
      needClip();
      return;
    }
    long end = Fits.endOf(project()).getAsLong();
    session.commit(
        text("edit.trimEnd"),
        p -> {
          Project changed = p;
          for (String id : chosen()) {
            changed = ClipEdits.trimEnd(changed, id, end);
            if (changed.clip(id).orElseThrow().fit().isPresent()) {
              changed =
                  Fits.refine(
                      changed, id, f -> f.withUntilFrame(Optional.empty()), session.songs());
            }
          }
          return changed;
        });
  }

  /** Moves clips, a marker, or along the song a seam. */
  private void nudge(int frames) {
    Project p = project();
    long by =
        p.pictureRate().sampleFrameOf(Math.abs(frames), p.sampleRate()) * Integer.signum(frames);
    switch (session.selection()) {
      case Selection.OfSeam s ->
          session.commitSearched(
              text("edit.moveSeam"),
              now ->
                  Fits.moveSeam(
                      now, s.clipId(), s.index(), Integer.signum(frames), session.songs()),
              () -> {});
      case Selection.OfClip c ->
          session.commit(
              text("edit.moveClip"),
              now -> ClipEdits.move(now, c.clipIds(), by, session.habits().carriesKeyframes()));
      case Selection.OfMarker m ->
          p.markers().stream()
              .filter(marker -> marker.id().equals(m.markerId()))
              .findFirst()
              .ifPresent(
                  marker ->
                      session.commit(
                          text("edit.moveMarker"),
                          now -> MarkerEdits.move(now, m.markerId(), marker.frame() + by)));
      default -> {
        if (!levels.nudgeTime(by)) {
          needClip();
        }
      }
    }
  }

  private void delete(boolean closing) {
    switch (session.selection()) {
      case Selection.OfClip c ->
          session.commit(
              text("edit.deleteClip"),
              p ->
                  ClipRemoval.delete(p, c.clipIds(), closing, session.habits().carriesKeyframes()));
      case Selection.OfMarker m ->
          session.commit(text("edit.removeMarker"), p -> MarkerEdits.remove(p, m.markerId()));
      case Selection.OfTrack t -> removeTrack(t.trackId());
      case Selection.OfSeam s -> fits.rejectSeam();
      case Selection.OfPassage q ->
          session.commit(
              text("edit.removePassage"), p -> SpeechEdits.remove(p, q.mediaId(), q.index()));
      default -> levels.delete();
    }
  }

  /** Removes a track and says what went with it. */
  void removeTrack(String trackId) {
    Track track = project().track(trackId).orElseThrow();
    session.commit(text("edit.removeTrack"), p -> TrackEdits.remove(p, trackId));
    messages.say(
        track.clips().isEmpty()
            ? text("track.removed", track.name())
            : text("track.removedClips", track.name(), track.clips().size()));
  }

  private void selectAll() {
    List<Track> tracks = project().tracks();
    List<String> ids = tracks.stream().flatMap(t -> t.clips().stream()).map(Clip::id).toList();
    if (!ids.isEmpty()) {
      session.select(
          new Selection.OfClip(project().trackOfClip(ids.getLast()).orElseThrow().id(), ids));
    }
  }

  private void copy() {
    if (levels.copy()) {
      return;
    }
    if (chosen().isEmpty()) {
      needClip();
      return;
    }
    session.copied().set(ClipEdits.copy(project(), chosen()));
    messages.say(text("clip.copied", chosen().size()));
  }

  private void cut() {
    if (levels.copy()) {
      levels.delete();
      return;
    }
    if (chosen().isEmpty()) {
      needClip();
      return;
    }
    Set<String> ids = chosen();
    session.copied().set(ClipEdits.copy(project(), ids));
    session.commit(
        text("edit.cut"),
        p -> ClipRemoval.delete(p, ids, false, session.habits().carriesKeyframes()));
  }

  private void paste() {
    if (levels.paste()) {
      return;
    }
    if (session.copied().clips().isEmpty()) {
      messages.say(text("clip.nothingCopied"));
      return;
    }
    long at = session.playhead();
    pasted(
        text("edit.paste"),
        p -> ClipEdits.paste(p, session.copied().clips(), at, session.habits().carriesKeyframes()));
  }

  private void duplicate() {
    Set<String> ids = chosen();
    pasted(
        text("edit.duplicate"),
        p -> ClipEdits.duplicate(p, ids, session.habits().carriesKeyframes()));
  }

  private interface Paste {
    ClipEdits.Pasted apply(Project project);
  }

  private void pasted(String name, Paste paste) {
    Set<String> copies = new java.util.LinkedHashSet<>();
    session.commit(
        name,
        p -> {
          ClipEdits.Pasted result = paste.apply(p);
          copies.addAll(result.clipIds());
          return result.project();
        });
    copies.stream()
        .findFirst()
        .flatMap(id -> project().trackOfClip(id))
        .ifPresent(t -> session.select(new Selection.OfClip(t.id(), List.copyOf(copies))));
  }

  private void silenceCameras() {
    boolean silent = TrackEdits.areCamerasMuted(project());
    session.commit(
        text(silent ? "edit.cameraBack" : "edit.cameraSilence"),
        p -> TrackEdits.muteCameras(p, !silent));
  }
}
