package hushrise.app.command;

import static hushrise.app.words.Texts.figure;
import static hushrise.app.words.Texts.text;

import hushrise.app.file.FileChoice;
import hushrise.app.file.FileNames;
import hushrise.app.file.Questions;
import hushrise.app.job.Jobs;
import hushrise.app.job.Messages;
import hushrise.app.listen.Hearing;
import hushrise.app.listen.SpeechWatch;
import hushrise.app.session.Selection;
import hushrise.app.session.Session;
import hushrise.core.edit.ClipEdits;
import hushrise.core.edit.EvenVoices;
import hushrise.core.edit.SpeechEdits;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.separation.Energies;
import hushrise.core.speech.Captions;
import hushrise.core.speech.Passages;
import hushrise.core.speech.WebVtt;
import hushrise.core.store.AtomicFile;
import hushrise.core.time.Span;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiFunction;
import java.util.stream.Collectors;

/** What keys and menus do with passages: where somebody speaks, and how loud. */
public final class SpeechCommands {

  private final Session session;
  private final SpeechWatch watch;
  private final Hearing hearing;
  private final FileChoice choice;
  private final Questions questions;
  private final Jobs jobs;
  private final Messages messages;

  public SpeechCommands(
      Session session,
      SpeechWatch watch,
      Hearing hearing,
      FileChoice choice,
      Questions questions,
      Jobs jobs,
      Messages messages) {
    this.session = session;
    this.watch = watch;
    this.hearing = hearing;
    this.choice = choice;
    this.questions = questions;
    this.jobs = jobs;
    this.messages = messages;
  }

  /** Sets what its commands do. */
  public void addTo(Commands.Builder table) {
    table
        .set(CommandId.PASSAGE_ADD, this::add)
        .set(CommandId.PASSAGE_SPLIT, this::split)
        .set(CommandId.PASSAGE_JOIN, this::join)
        .set(CommandId.SPEECH_AGAIN, this::again)
        .set(CommandId.SPEECH_READ, this::read)
        .set(CommandId.SPEECH_WRITE, this::write)
        .set(CommandId.VOICES_EVEN, this::even)
        .set(CommandId.VOICES_AS_OTHERS, this::asOthers);
  }

  /** The selected stretch of time on a voice track becomes a passage of the clip there. */
  private void add() {
    if (!(session.selection() instanceof Selection.OfSpan s)) {
      messages.say(text("passage.how"));
      return;
    }
    Project project = session.present();
    Optional<Clip> clip =
        project.track(s.trackId()).filter(Track::isVoice).stream()
            .flatMap(t -> t.clips().stream())
            .filter(c -> c.span().overlaps(s.span()))
            .findFirst();
    if (clip.isEmpty()) {
      messages.say(text("passage.how"));
      return;
    }
    long shift = clip.get().mediaStartFrame() - clip.get().startFrame();
    Span inMedia =
        new Span(
            Math.max(s.span().startFrame(), clip.get().startFrame()) + shift,
            Math.min(s.span().endFrame(), clip.get().endFrame()) + shift);
    session.commit(text("edit.addPassage"), p -> SpeechEdits.add(p, clip.get().mediaId(), inMedia));
  }

  private void split() {
    if (session.selection() instanceof Selection.OfPassage q) {
      Clip clip = session.present().clip(q.clipId()).orElseThrow();
      long at = clip.mediaFrameAt(session.playhead() - clip.startFrame());
      session.commit(
          text("edit.splitPassage"), p -> SpeechEdits.split(p, q.mediaId(), q.index(), at));
    }
  }

  private void join() {
    if (session.selection() instanceof Selection.OfPassage q) {
      session.commit(
          text("edit.joinPassages"), p -> SpeechEdits.joinWithNext(p, q.mediaId(), q.index()));
    }
  }

  /** The clip that is selected, or that a selected passage lies in. */
  private Optional<Clip> clip() {
    String id =
        session.selection() instanceof Selection.OfPassage q
            ? q.clipId()
            : session.selection().oneClip().orElse("");
    return session.present().clip(id);
  }

  private void withMedia(java.util.function.BiConsumer<Clip, Media> what) {
    Optional<Clip> clip = clip();
    Optional<Media> media = clip.flatMap(c -> session.present().media(c.mediaId()));
    if (media.isPresent()) {
      what.accept(clip.get(), media.get());
    } else {
      messages.say(CommandId.Needs.CLIP_OR_PASSAGE.words());
    }
  }

  /** Looks for speech anew, whatever was set by hand. */
  private void again() {
    withMedia((clip, media) -> watch.again(media));
  }

  private void read() {
    withMedia(
        (clip, media) ->
            choice
                .toRead(FileChoice.Kind.CAPTIONS, text("speech.read.title"), false)
                .forEach(f -> read(media, f)));
  }

  private void read(Media media, Path file) {
    int rate = session.present().sampleRate();
    jobs.run(
        () -> Captions.read(file, rate),
        session.whileOpen(
            spans -> {
              if (spans.isEmpty()) {
                messages.complain(text("speech.noCues", file));
                return;
              }
              session.commit(text("edit.readSpeech"), p -> SpeechEdits.set(p, media.id(), spans));
              messages.say(text("speech.wasRead", spans.size(), media.title()));
            }));
  }

  private void write() {
    withMedia(
        (clip, media) -> {
          if (media.speech().orElse(List.of()).isEmpty()) {
            messages.say(text("speech.noPassages", media.title()));
            return;
          }
          Path folder = media.file().toAbsolutePath().getParent();
          Path suggestion = FileNames.free(folder, FileNames.bare(media.file()), ".vtt");
          choice
              .toWrite(FileChoice.Kind.CAPTIONS, text("speech.write.title"), suggestion)
              .ifPresent(f -> questions.withEnding(f, ".vtt", file -> write(media, file)));
        });
  }

  private void write(Media media, Path file) {
    String words = WebVtt.write(media.speech().orElse(List.of()), session.present().sampleRate());
    jobs.run(
        () -> AtomicFile.write(file, words),
        written -> messages.say(text("speech.wasWritten", written)));
  }

  /** Evens the chosen voice clips, or all when fewer than two are chosen. */
  private void even() {
    Set<String> voices =
        Passages.each(session.present(), session.present().heardTracks()).stream()
            .map(Passages.Passage::clipId)
            .collect(Collectors.toSet());
    Set<String> chosen =
        session.selection().clipIds().stream().filter(voices::contains).collect(Collectors.toSet());
    Set<String> ids = chosen.size() > 1 ? chosen : voices;
    if (ids.size() < 2) {
      messages.say(text("voices.tooFew"));
      return;
    }
    evened(text("edit.evenVoices"), (p, e) -> EvenVoices.even(p, ids, e, hearing.library()));
  }

  private void asOthers() {
    session
        .selection()
        .oneClip()
        .ifPresentOrElse(
            id ->
                evened(
                    text("edit.asOthers"),
                    (p, e) -> EvenVoices.asOthers(p, id, e, hearing.library())),
            () -> messages.say(CommandId.Needs.CLIP_OR_PASSAGE.words()));
  }

  /** Waits in the background for what has not been measured yet. */
  private void evened(String name, BiFunction<Project, Energies, Project> edit) {
    Project asked = session.present();
    jobs.run(
        () -> {
          Project even = edit.apply(asked, hearing.energies(asked));
          Map<String, Double> loudness = EvenVoices.loudness(hearing.energies(even));
          return new Evened(even, loudness.keySet(), EvenVoices.apart(loudness));
        },
        session.whileOpen(
            evened -> {
              session.commit(name, p -> ClipEdits.gainsAsIn(evened.project(), p, evened.clipIds()));
              messages.say(text("voices.evened", figure("%.1f", evened.apartLu())));
            }));
  }

  /** What came of it, and how far the voices lie apart then. */
  private record Evened(Project project, Set<String> clipIds, double apartLu) {}
}
