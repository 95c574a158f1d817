package hushrise.app.listen;

import static hushrise.app.words.Texts.text;

import hushrise.app.job.Jobs;
import hushrise.app.job.LateAnswers;
import hushrise.app.job.Messages;
import hushrise.app.session.Session;
import hushrise.core.ear.UnheardTalk;
import hushrise.core.edit.SpeechEdits;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import hushrise.media.SpeechStore;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javafx.animation.PauseTransition;
import javafx.util.Duration;

/**
 * Looks for speech in whatever comes onto a voice track and has not been looked through: several
 * files side by side, in the background. Where there is music and for a while no voice, it looks
 * through the film's own sound too, as that may be it. Passages that a person set are never
 * replaced unasked.
 */
public final class SpeechWatch {

  private final Session session;
  private final SpeechStore speech;
  private final Jobs jobs;
  private final LateAnswers late = new LateAnswers();
  private final Messages messages;
  private final Map<Path, List<Span>> found = new HashMap<>();
  private final Set<Path> asked = new HashSet<>();
  private final Set<Path> saidSilent = new HashSet<>();
  private final PauseTransition withoutVoice = new PauseTransition(Duration.seconds(2));

  /**
   * @param messages are told when there is no speech in a file
   */
  public SpeechWatch(Session session, SpeechStore speech, Jobs jobs, Messages messages) {
    this.session = session;
    this.speech = speech;
    this.jobs = jobs;
    this.messages = messages;
    session.presentProperty().addListener((p, was, is) -> look(is));
    withoutVoice.setOnFinished(e -> lookIn(unknownCamera(session.present())));
  }

  private void look(Project project) {
    List<Media> unknown = unknown(project, project.voiceTracks());
    if (session.turns() == 0 && session.file().isPresent()) { // said when they came into the file
      unknown.forEach(m -> saidSilent.add(m.file()));
    }
    lookIn(unknown);
    learn(unknown);
    sayWhereNothingWasFound(unknown);
    if (unknownCamera(project).isEmpty()) {
      withoutVoice.stop();
    } else {
      withoutVoice.playFromStart();
    }
  }

  /** What lies on some tracks and has not been looked through. */
  private static List<Media> unknown(Project project, Stream<Track> tracks) {
    Set<String> used =
        tracks.flatMap(t -> t.clips().stream()).map(Clip::mediaId).collect(Collectors.toSet());
    return project.shelf().stream()
        .filter(m -> m.hasSound() && m.speech().isEmpty() && used.contains(m.id()))
        .toList();
  }

  /** The film's own sound that has not been looked through, where it may be the voice. */
  private List<Media> unknownCamera(Project project) {
    return unknown(project, UnheardTalk.mayBeVoice(project)).stream()
        .filter(m -> !asked.contains(m.file()))
        .toList();
  }

  /** Looks in what nobody has looked in yet; what is not there is asked again once it is back. */
  private void lookIn(List<Media> unknown) {
    for (Media media : unknown) {
      if (asked.add(media.file())) {
        jobs.look(
            media.file(),
            text("job.speech", media.title()),
            Jobs.ifThere(media.file(), progress -> speech.listen(media, progress)),
            late.unlessForgotten(media.file(), spans -> arrived(media, spans)));
      }
    }
  }

  private void arrived(Media media, List<Span> spans) {
    found.put(media.file(), spans);
    Project project = session.present();
    sayWhereNothingWasFound(unknown(project, project.voiceTracks()));
    learn(session.present().shelf());
  }

  /** Says it once of each voice; of the film's own sound it says something only as a voice. */
  private void sayWhereNothingWasFound(List<Media> voices) {
    voices.stream()
        .filter(m -> found.containsKey(m.file()) && found.get(m.file()).isEmpty())
        .filter(m -> saidSilent.add(m.file()))
        .forEach(m -> messages.say(text("speech.none", m.title())));
  }

  /** Notes what was found; where nothing was, the whole clip goes on counting as one passage. */
  private void learn(List<Media> items) {
    List<Media> news =
        items.stream()
            .filter(m -> m.speech().isEmpty())
            .filter(m -> !found.getOrDefault(m.file(), List.of()).isEmpty())
            .toList();
    if (!news.isEmpty()) {
      session.learn(
          project -> {
            Project result = project;
            for (Media media : news) {
              result = SpeechEdits.set(result, media.id(), found.get(media.file()));
            }
            return result;
          });
    }
  }

  /**
   * Looks again in a file, whatever was set by hand. What is found takes the place of the passages
   * there were in one step, in which the hushes follow.
   */
  public void again(Media media) {
    jobs.run(
        text("job.speech", media.title()),
        progress -> speech.listen(media, progress),
        late.unlessForgotten(
            media.file(),
            session.whileOpen(
                spans -> {
                  found.put(media.file(), spans);
                  if (spans.isEmpty()) {
                    messages.say(text("speech.none", media.title()));
                  } else {
                    session.commit(
                        text("edit.speechAgain"), p -> SpeechEdits.set(p, media.id(), spans));
                  }
                })));
  }

  /** Forgets what was found in a file, as the file has changed. */
  public void forget(Path file) {
    late.forget(file);
    asked.remove(file);
    saidSilent.remove(file);
    found.remove(file);
  }
}
