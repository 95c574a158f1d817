package hushrise.app;

import static hushrise.app.look.Texts.text;

import hushrise.core.fit.Fits;
import hushrise.core.project.Clip;
import hushrise.core.project.FitMode;
import hushrise.core.project.Project;
import hushrise.core.project.Seam;
import hushrise.core.project.TrackKind;
import java.util.List;
import java.util.Optional;

/** What keys and menus do to music that is fitted, and to its seams. */
final class FitCommands {

  private static final double AUDITION_SECONDS = 2;

  private final Session session;
  private final Transport transport;
  private final Window window;

  FitCommands(Session session, Transport transport, Window window) {
    this.session = session;
    this.transport = transport;
    this.window = window;
  }

  List<Command> all() {
    return List.of(
        Command.of("fit.none", "Shift+DIGIT0", this::unfit),
        Command.of("fit.trim", "DIGIT1", () -> fit(FitMode.TRIM)),
        Command.of("fit.loop", "DIGIT2", () -> fit(FitMode.LOOP)),
        Command.of("fit.tailor", "DIGIT3", () -> fit(FitMode.TAILOR)),
        Command.of("seam.audition", "A", this::auditionSeam),
        Command.of("seam.reject", "R", this::rejectSeam));
  }

  private Project project() {
    return session.project();
  }

  private Optional<Clip> chosenMusic() {
    Optional<Clip> chosen = session.selection().oneClip().flatMap(project()::clip);
    List<Clip> all = project().tracksOf(TrackKind.MUSIC).flatMap(t -> t.clips().stream()).toList();
    Optional<Clip> music = chosen.filter(all::contains);
    return music.isPresent() || all.size() != 1 ? music : all.stream().findFirst();
  }

  void fit(FitMode mode) {
    Optional<Clip> clip = chosenMusic();
    if (clip.isEmpty()) {
      window.say(text("fit.chooseMusic"));
      return;
    }
    window.withSong(
        clip.get(),
        () -> {
          session.commit(
              text("edit.fit." + mode.name()),
              p -> Fits.set(p, clip.get().id(), mode, session.songs()));
          project()
              .trackOfClip(clip.get().id())
              .ifPresent(t -> session.select(new Selection.OfClip(t.id(), clip.get().id())));
        });
  }

  private void unfit() {
    chosenMusic()
        .ifPresent(c -> session.commit(text("edit.fit.none"), p -> Fits.remove(p, c.id())));
  }

  private void auditionSeam() {
    if (session.selection() instanceof Selection.OfSeam s) {
      Clip clip = project().clip(s.clipId()).orElseThrow();
      Seam seam = clip.seams().get(s.index());
      long at = clip.startFrame() + seam.atFrame();
      long reach = Math.round(AUDITION_SECONDS * project().sampleRate());
      transport.audition(
          project(), t -> t.id().equals(s.trackId()), Math.max(0, at - reach), at + reach);
    } else {
      window.say(text("seam.choose"));
    }
  }

  /** Takes the next best jump in place of the selected seam. */
  void rejectSeam() {
    if (session.selection() instanceof Selection.OfSeam s) {
      session.commit(
          text("edit.rejectSeam"), p -> Fits.rejectSeam(p, s.clipId(), s.index(), session.songs()));
    } else {
      window.say(text("seam.choose"));
    }
  }
}
