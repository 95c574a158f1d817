package hushrise.app.command;

import static hushrise.app.words.Texts.text;

import hushrise.app.file.Intake;
import hushrise.app.job.Messages;
import hushrise.app.play.Transport;
import hushrise.app.session.Selection;
import hushrise.app.session.Session;
import hushrise.core.fit.Fits;
import hushrise.core.project.Project;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.FitMode;
import hushrise.core.project.timeline.Seam;
import java.util.List;
import java.util.Optional;

/** What keys and menus do to music that is fitted, and to its seams. */
public final class FitCommands {

  private static final double AUDITION_SECONDS = 2;

  private final Session session;
  private final Transport transport;
  private final Intake intake;
  private final Messages messages;

  public FitCommands(Session session, Transport transport, Intake intake, Messages messages) {
    this.session = session;
    this.transport = transport;
    this.intake = intake;
    this.messages = messages;
  }

  /** Sets what its commands do. */
  public void addTo(Commands.Builder table) {
    table
        .set(CommandId.FIT_NONE, this::unfit)
        .set(CommandId.FIT_TRIM, () -> fit(FitMode.TRIM))
        .set(CommandId.FIT_LOOP, () -> fit(FitMode.LOOP))
        .set(CommandId.FIT_TAILOR, () -> fit(FitMode.TAILOR))
        .set(CommandId.SEAM_AUDITION, this::auditionSeam)
        .set(CommandId.SEAM_REJECT, this::rejectSeam);
  }

  private Project project() {
    return session.present();
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
      messages.say(text("fit.chooseMusic"));
      return;
    }
    String id = clip.get().id();
    intake.listen(
        project().media(clip.get().mediaId()).orElseThrow(),
        () ->
            session.commitSearched(
                text("edit.fit." + mode.name()),
                p -> Fits.set(p, id, mode, session.songs()),
                () ->
                    project()
                        .trackOfClip(id)
                        .ifPresent(t -> session.select(new Selection.OfClip(t.id(), id)))));
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
      messages.say(text("seam.choose"));
    }
  }

  /** Takes the next best jump in place of the selected seam. */
  void rejectSeam() {
    if (session.selection() instanceof Selection.OfSeam s) {
      session.commitSearched(
          text("edit.rejectSeam"),
          p -> Fits.rejectSeam(p, s.clipId(), s.index(), session.songs()),
          () -> {});
    } else {
      messages.say(text("seam.choose"));
    }
  }
}
