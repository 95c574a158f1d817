package hushrise.app.panel;

import static hushrise.app.words.Texts.figure;
import static hushrise.app.words.Texts.text;

import hushrise.app.command.CommandId;
import hushrise.app.command.Commands;
import hushrise.app.session.Selection;
import hushrise.app.session.Session;
import hushrise.app.widget.Form;
import hushrise.core.edit.ClipEdits;
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
import hushrise.core.project.timeline.CrossfadeShape;
import hushrise.core.project.timeline.FadeShape;
import hushrise.core.project.timeline.Fit;
import hushrise.core.project.timeline.FitMode;
import hushrise.core.project.timeline.Seam;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Timecode;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.function.Consumer;
import javafx.scene.control.Button;

/** The numbers of clips and seams. Each gives the title to show. */
final class ClipDetail {

  private static final int MOST_SECTIONS = 16;

  private final Session session;
  private final Form form;
  private Optional<Commands> commands = Optional.empty();

  ClipDetail(Session session, Form form) {
    this.session = session;
    this.form = form;
  }

  void setCommands(Commands all) {
    commands = Optional.of(all);
  }

  String several(Selection.OfClip chosen) {
    form.level(
        "detail-gain",
        text("detail.gain"),
        session.shown().clip(chosen.clipId()).map(Clip::gainDb).orElse(0.0),
        text("edit.clipGain"),
        (p, db) -> ClipEdits.setGain(p, chosen.clipIds(), db));
    form.words(text("detail.clips.help"));
    return text("detail.clipsChosen", chosen.all().size());
  }

  String one(Project project, Clip clip) {
    Track track = project.trackOfClip(clip.id()).orElseThrow();
    Media media = project.media(clip.mediaId()).orElseThrow();
    form.time("detail-start", text("detail.start"), clip.startFrame(), to -> moveTo(clip, to));
    form.length(
        "detail-length",
        text("detail.length"),
        clip.lengthFrames(),
        length ->
            session.commit(
                text("edit.trimEnd"),
                p -> ClipEdits.trimEnd(p, clip.id(), clip.startFrame() + length)));
    if (track.kind().sounds()) {
      sounding(clip);
    }
    crossfade(track, clip);
    if (track.kind() == TrackKind.MUSIC) {
      fit(project, clip, media);
      sections(project, clip, media);
    }
    return media.title();
  }

  private void moveTo(Clip clip, long to) {
    session.commit(
        text("edit.moveClip"),
        p ->
            ClipEdits.move(
                p, Set.of(clip.id()), to - clip.startFrame(), session.habits().carriesKeyframes()));
  }

  private void sounding(Clip clip) {
    form.level(
        "detail-gain",
        text("detail.gain"),
        clip.gainDb(),
        text("edit.clipGain"),
        (p, db) -> ClipEdits.setGain(p, Set.of(clip.id()), db));
    form.length(
        "detail-fade-in",
        text("detail.fadeIn"),
        clip.fadeIn().visibleFrames(),
        frames -> session.commit(text("edit.fadeIn"), p -> FadeEdits.setIn(p, clip.id(), frames)));
    shape(
        "detail-fade-in-shape",
        text("detail.fadeInShape"),
        clip.fadeIn().shape(),
        s -> session.commit(text("edit.fadeIn"), p -> FadeEdits.setInShape(p, clip.id(), s)));
    form.length(
        "detail-fade-out",
        text("detail.fadeOut"),
        clip.fadeOut().visibleFrames(),
        frames ->
            session.commit(text("edit.fadeOut"), p -> FadeEdits.setOut(p, clip.id(), frames)));
    shape(
        "detail-fade-out-shape",
        text("detail.fadeOutShape"),
        clip.fadeOut().shape(),
        s -> session.commit(text("edit.fadeOut"), p -> FadeEdits.setOutShape(p, clip.id(), s)));
    form.buttons(
        form.command(CommandId.FADE_BOTH, text("button.fade.both")),
        form.command(CommandId.FADE_TO_CUT, text("button.fade.toCut")));
  }

  private void shape(String id, String label, FadeShape shown, Consumer<FadeShape> edit) {
    form.choice(
        id,
        label,
        List.of(FadeShape.values()),
        shown,
        s -> text("fade." + s.name().toLowerCase(Locale.ROOT)),
        edit);
  }

  private void crossfade(Track track, Clip clip) {
    long overlap = ClipEdits.crossfadeFrames(track, clip);
    if (overlap > 0) {
      form.length(
          "detail-crossfade",
          text("detail.crossfade"),
          overlap,
          frames ->
              session.commit(
                  text("edit.crossfade"), p -> ClipEdits.setCrossfadeLength(p, clip.id(), frames)));
      form.choice(
          "detail-crossfade-shape",
          text("detail.crossfadeShape"),
          List.of(CrossfadeShape.values()),
          clip.crossfade(),
          s -> text("crossfade." + s.name().toLowerCase(Locale.ROOT)),
          s ->
              session.commit(text("edit.crossfade"), p -> ClipEdits.setCrossfade(p, clip.id(), s)));
    }
  }

  private void fit(Project project, Clip clip, Media media) {
    List<Optional<FitMode>> modes = new ArrayList<>(List.of(Optional.empty()));
    for (FitMode mode : FitMode.values()) {
      modes.add(Optional.of(mode));
    }
    form.alone()
        .choice(
            "detail-fit",
            text("detail.fit"),
            modes,
            clip.fit().map(Fit::mode),
            m -> text("fit." + m.map(FitMode::name).orElse("none")),
            m -> commands.ifPresent(c -> c.run(commandOf(m))));
    if (clip.fit().isEmpty()) {
      return;
    }
    Fit fit = clip.fit().get();
    if (fit.mode() != FitMode.TRIM) {
      form.length(
          "detail-intro",
          text("detail.intro"),
          fit.introFrames(),
          frames -> refine(clip, f -> f.withProtected(frames, f.outroFrames())));
      form.length(
          "detail-outro",
          text("detail.outro"),
          fit.outroFrames(),
          frames -> refine(clip, f -> f.withProtected(f.introFrames(), frames)));
    }
    if (fit.mode() == FitMode.TAILOR) {
      form.length(
          "detail-leeway",
          text("detail.leeway"),
          fit.leewayFrames().orElse(0L),
          frames -> refine(clip, f -> f.withLeeway(frames)));
    }
    List<Button> buttons = new ArrayList<>();
    if (fit.mode() == FitMode.TRIM) {
      advice(project, clip, media).ifPresent(buttons::add);
    }
    if (!fit.rejected().isEmpty() || !fit.preferred().isEmpty()) {
      buttons.add(
          Form.button(
              "detail-forget", text("detail.forgetSeams"), () -> refine(clip, Fit::forgetting)));
    }
    if (fit.untilFrame().isPresent() && Fits.endOf(project).isPresent()) {
      buttons.add(form.command(CommandId.TO_PICTURE_END, text("detail.toPictureEnd")));
    }
    if (!buttons.isEmpty()) {
      form.buttons(buttons.toArray(Button[]::new));
    }
    form.words(fitWords(project, clip, fit));
  }

  /** The song's sections: pressing one lets the music start with it. */
  private void sections(Project project, Clip clip, Media media) {
    List<Section> all = session.songs().song(media).map(Song::sections).orElse(List.of());
    if (all.size() < 2) {
      return;
    }
    List<Button> buttons = new ArrayList<>();
    for (int i = 0; i < Math.min(all.size(), MOST_SECTIONS); i++) {
      Section section = all.get(i);
      long seconds = Math.round(project.seconds(section.startFrame()));
      String when = "%d:%02d".formatted(seconds / 60, seconds % 60);
      buttons.add(
          Form.button(
              "detail-section-" + i,
              section.letter() + " " + when,
              () ->
                  session.commitSearched(
                      text("edit.startAt"),
                      p -> Starts.at(p, clip.id(), section.startFrame(), session.songs()),
                      () -> {})));
    }
    form.words(text("detail.sections"));
    form.buttons(buttons.toArray(Button[]::new));
  }

  private static CommandId commandOf(Optional<FitMode> mode) {
    return mode.map(
            m ->
                switch (m) {
                  case TRIM -> CommandId.FIT_TRIM;
                  case LOOP -> CommandId.FIT_LOOP;
                  case TAILOR -> CommandId.FIT_TAILOR;
                })
        .orElse(CommandId.FIT_NONE);
  }

  private static String fitWords(Project project, Clip clip, Fit fit) {
    long late = clip.startFrame() - fit.anchorFrame();
    long missed = Fits.endOf(project, clip, fit) - clip.endFrame();
    return switch (fit.mode()) {
      case TRIM -> text("detail.fit.trim");
      case LOOP -> text("detail.fit.loop", clip.seams().size());
      case TAILOR ->
          missed > 0
              ? text("detail.fit.sooner", clip.seams().size(), seconds(project, missed))
              : text(
                  fit.leewayFrames().isPresent() && clip.fadeOut().lengthFrames() > 0
                      ? "detail.fit.faded"
                      : "detail.fit.tailor",
                  clip.seams().size(),
                  seconds(project, Math.max(0, late)));
    };
  }

  private static String seconds(Project project, long frames) {
    return "%.2f".formatted(project.seconds(frames));
  }

  private Optional<Button> advice(Project project, Clip clip, Media media) {
    Optional<Song> song = session.songs().song(media);
    OptionalLong at =
        song.isPresent() ? TrimAdvice.fadeStart(song.get().analysis(), clip) : OptionalLong.empty();
    if (at.isEmpty() || clip.lengthFrames() - at.getAsLong() == clip.fadeOut().lengthFrames()) {
      return Optional.empty();
    }
    long length = clip.lengthFrames() - at.getAsLong();
    String when =
        Timecode.format(
            clip.startFrame() + at.getAsLong(), project.pictureRate(), project.sampleRate());
    return Optional.of(
        Form.button(
            "detail-advice",
            text("detail.fadeFrom", when),
            () ->
                session.commit(text("edit.fadeOut"), p -> FadeEdits.fitOut(p, clip.id(), length))));
  }

  private void refine(Clip clip, java.util.function.UnaryOperator<Fit> change) {
    session.commitSearched(
        text("edit.refineFit"), p -> Fits.refine(p, clip.id(), change, session.songs()), () -> {});
  }

  String seam(Project project, Clip clip, Selection.OfSeam selected) {
    if (selected.index() >= clip.seams().size()) {
      return "";
    }
    Seam seam = clip.seams().get(selected.index());
    form.fact(
        text("detail.seam.at"),
        Timecode.format(
            clip.startFrame() + seam.atFrame(), project.pictureRate(), project.sampleRate()));
    form.fact(
        text("detail.seam.score"), seam.score() == 0 ? "\u2013" : "%.2f".formatted(seam.score()));
    form.fact(text("detail.seam.from"), "%.2f s".formatted(project.seconds(seam.fromFrame())));
    form.fact(text("detail.seam.to"), "%.2f s".formatted(project.seconds(seam.toFrame())));
    form.fact(
        text("detail.seam.crossfade"),
        "%.0f ms".formatted(project.seconds(seam.crossfadeFrames()) * 1000));
    form.fact(
        text("detail.seam.even"),
        figure("%+.1f dB", seam.evening().map(Seam.Evening::gainDb).orElse(0.0)));
    form.buttons(
        form.command(CommandId.SEAM_AUDITION, text("detail.seam.audition")),
        form.command(CommandId.SEAM_REJECT, text("detail.seam.reject")),
        form.command(CommandId.EARLIER, text("detail.seam.earlier")),
        form.command(CommandId.LATER, text("detail.seam.later")),
        form.command(CommandId.SEAM_TO_CUT, text("detail.seam.toCut")));
    form.words(text("detail.seam.help"));
    return text(
        "detail.seam",
        selected.index() + 1,
        clip.seams().size(),
        text("seam.word." + seam.heard().name().toLowerCase(Locale.ROOT)));
  }
}
