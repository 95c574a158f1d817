package hushrise.app.command;

import static hushrise.app.words.Texts.text;

import hushrise.app.file.Intake;
import hushrise.app.job.Messages;
import hushrise.app.listen.PictureCuts;
import hushrise.app.play.Transport;
import hushrise.app.session.Selection;
import hushrise.app.session.Session;
import hushrise.core.edit.FadeEdits;
import hushrise.core.fit.Fits;
import hushrise.core.fit.Sections.Section;
import hushrise.core.fit.Song;
import hushrise.core.fit.Starts;
import hushrise.core.fit.TrimAdvice;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.FitMode;
import hushrise.core.project.timeline.Seam;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.function.BiConsumer;

/** What keys and menus do to music that is fitted, and to its seams. */
public final class FitCommands {

  private static final double AUDITION_SECONDS = 2;

  private final Session session;
  private final Transport transport;
  private final Intake intake;
  private final PictureCuts cuts;
  private final Messages messages;

  public FitCommands(
      Session session, Transport transport, Intake intake, PictureCuts cuts, Messages messages) {
    this.session = session;
    this.transport = transport;
    this.intake = intake;
    this.cuts = cuts;
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
        .set(CommandId.SEAM_REJECT, this::rejectSeam)
        .set(CommandId.SEAM_TO_CUT, this::seamToCut)
        .set(CommandId.MUSIC_PEAK, this::peakHere)
        .set(CommandId.MUSIC_SECTION, this::nextSection)
        .set(CommandId.FADE_WITH_MUSIC, this::fadeWithMusic);
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
    withSong(
        (clip, song) -> {
          if (mode != FitMode.TRIM && !song.analysis().echoes().repeats()) {
            String title = project().media(clip.mediaId()).orElseThrow().title();
            messages.say(text("fit.nothingRepeats." + mode.name(), title));
          }
          session.commitSearched(
              text("edit.fit." + mode.name()),
              p -> Fits.set(p, clip.id(), mode, session.songs()),
              () ->
                  project()
                      .trackOfClip(clip.id())
                      .ifPresent(t -> session.select(new Selection.OfClip(t.id(), clip.id()))));
        });
  }

  /** What is done to music once its song is known. */
  private void withSong(BiConsumer<Clip, Song> then) {
    Optional<Clip> clip = chosenMusic();
    if (clip.isEmpty()) {
      messages.say(text("fit.chooseMusic"));
      return;
    }
    String id = clip.get().id();
    Media media = project().media(clip.get().mediaId()).orElseThrow();
    intake.listen(
        media,
        () ->
            project()
                .clip(id)
                .ifPresent(c -> session.songs().song(media).ifPresent(s -> then.accept(c, s))));
  }

  private void peakHere() {
    long at = session.playhead();
    withSong(
        (clip, song) ->
            session.commitSearched(
                text("edit.musicPeak"),
                p -> Starts.peakAt(p, clip.id(), at, session.songs()),
                () -> {}));
  }

  /** Lets the music start with the section after the one that it starts with. */
  private void nextSection() {
    withSong(
        (clip, song) -> {
          List<Section> all = song.sections();
          Section next =
              all.stream()
                  .filter(s -> s.startFrame() > clip.mediaStartFrame())
                  .findFirst()
                  .orElse(all.getFirst());
          startAt(clip, next.startFrame());
        });
  }

  /** Lets a clip start with another place of its song. */
  public void startAt(Clip clip, long mediaFrame) {
    session.commitSearched(
        text("edit.startAt"), p -> Starts.at(p, clip.id(), mediaFrame, session.songs()), () -> {});
  }

  /** Lets the only clip, or the chosen one, of a song start with another place of it. */
  public void startAt(Media media, long mediaFrame) {
    Optional<Clip> chosen = session.selection().oneClip().flatMap(project()::clip);
    chosen
        .filter(c -> c.mediaId().equals(media.id()))
        .or(
            () ->
                project()
                    .tracksOf(TrackKind.MUSIC)
                    .flatMap(t -> t.clips().stream())
                    .filter(c -> c.mediaId().equals(media.id()))
                    .findFirst())
        .ifPresentOrElse(
            c -> startAt(c, mediaFrame), () -> messages.say(text("fit.placeFirst", media.title())));
  }

  private void fadeWithMusic() {
    withSong(
        (clip, song) -> {
          OptionalLong at = TrimAdvice.fadeStart(song.analysis(), clip);
          if (at.isEmpty()) {
            messages.say(text("fade.noPhrase"));
          } else {
            long length = clip.lengthFrames() - at.getAsLong();
            session.commit(text("edit.fadeOut"), p -> FadeEdits.fitOut(p, clip.id(), length));
          }
        });
  }

  private void unfit() {
    chosenMusic()
        .ifPresentOrElse(
            c -> session.commit(text("edit.fit.none"), p -> Fits.remove(p, c.id())),
            () -> messages.say(text("fit.chooseMusic")));
  }

  private void auditionSeam() {
    if (session.selection() instanceof Selection.OfSeam s) {
      Clip clip = project().clip(s.clipId()).orElseThrow();
      Seam seam = clip.seams().get(s.index());
      long at = clip.startFrame() + seam.atFrame();
      long reach = Math.round(AUDITION_SECONDS * project().sampleRate());
      transport.audition(
          project(), t -> t.id().equals(s.trackId()), Math.max(0, at - reach), at + reach);
    }
  }

  private void seamToCut() {
    if (session.selection() instanceof Selection.OfSeam s) {
      List<Long> places = cuts.frames();
      session.commitSearched(
          text("edit.moveSeam"),
          p -> Fits.moveSeamToCut(p, s.clipId(), s.index(), places, session.songs()),
          () -> {});
    }
  }

  /** Takes the next best jump in place of the selected seam. */
  void rejectSeam() {
    if (session.selection() instanceof Selection.OfSeam s) {
      session.commitSearched(
          text("edit.rejectSeam"),
          p -> Fits.rejectSeam(p, s.clipId(), s.index(), session.songs()),
          () -> {});
    }
  }
}
