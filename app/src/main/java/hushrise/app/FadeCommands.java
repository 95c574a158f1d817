package hushrise.app;

import static hushrise.app.look.Texts.text;

import hushrise.app.timeline.Viewport;
import hushrise.core.edit.FadeEdits;
import hushrise.core.edit.LevelEdits;
import hushrise.core.project.Clip;
import hushrise.core.project.Project;
import hushrise.core.project.TrackKind;
import hushrise.core.time.Span;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/** What keys and menus do to the fades of clips. */
final class FadeCommands {

  private final Session session;
  private final Viewport view;
  private final Window window;

  FadeCommands(Session session, Viewport view, Window window) {
    this.session = session;
    this.view = view;
    this.window = window;
  }

  List<Command> all() {
    return List.of(
        Command.of("clip.fadeWithPicture", "Shift+F", this::fadeWithPicture),
        Command.of("fade.fromHere", "F", this::fadeFromHere),
        Command.withoutKeys("fade.both", this::sameFades),
        Command.withoutKeys("fade.toCut", this::fadeToCut));
  }

  private Project project() {
    return session.project();
  }

  private Set<String> chosen() {
    return session.selection().clipIds();
  }

  private void needClip() {
    window.say(text("clip.choose"));
  }

  private void fadeWithPicture() {
    Optional<Span> fade = view.cuts().fadeToBlack();
    if (fade.isEmpty()) {
      window.say(text("clip.noPictureFade"));
      return;
    }
    Set<String> ids =
        chosen().isEmpty()
            ? project()
                .tracksOf(TrackKind.MUSIC)
                .flatMap(t -> t.clips().stream())
                .filter(c -> c.endFrame() > fade.get().startFrame())
                .map(Clip::id)
                .collect(Collectors.toSet())
            : chosen();
    session.commit(
        text("edit.fadeOut"),
        p -> {
          Project changed = p;
          for (String id : ids) {
            long length = p.clip(id).orElseThrow().endFrame() - fade.get().startFrame();
            changed = length > 0 ? LevelEdits.setFadeOut(changed, id, length) : changed;
          }
          return changed;
        });
  }

  private void fadeFromHere() {
    if (chosen().isEmpty()) {
      needClip();
      return;
    }
    Set<String> ids = chosen();
    session.commit(text("edit.fadeOut"), p -> FadeEdits.outFrom(p, ids, session.playhead()));
  }

  private void sameFades() {
    Set<String> ids = chosen();
    session.commit(
        text("edit.fades"),
        p -> {
          Project changed = p;
          for (String id : ids) {
            changed = FadeEdits.sameOnBothEnds(changed, id);
          }
          return changed;
        });
  }

  /** Lets the fade-in reach to the first cut of the picture after the clip's start. */
  private void fadeToCut() {
    Optional<Clip> clip = session.selection().oneClip().flatMap(project()::clip);
    if (clip.isEmpty()) {
      needClip();
      return;
    }
    java.util.OptionalLong cut =
        view.cuts().frames().stream()
            .mapToLong(Long::longValue)
            .filter(f -> f > clip.get().startFrame() && f < clip.get().endFrame())
            .min();
    if (cut.isEmpty()) {
      window.say(text("fade.noCut"));
    } else {
      session.commit(
          text("edit.fadeIn"),
          p -> FadeEdits.setIn(p, clip.get().id(), cut.getAsLong() - clip.get().startFrame()));
    }
  }
}
