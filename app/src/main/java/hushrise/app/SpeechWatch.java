package hushrise.app;

import static hushrise.app.look.Texts.text;

import hushrise.core.edit.SpeechEdits;
import hushrise.core.project.Clip;
import hushrise.core.project.Media;
import hushrise.core.project.Project;
import hushrise.core.time.Span;
import hushrise.media.SpeechStore;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;

/**
 * Looks for speech in whatever comes onto a voice track and has not been looked through: several
 * files side by side, in the background. Passages that a person set are never replaced.
 */
final class SpeechWatch {

  private final Session session;
  private final SpeechStore speech;
  private final Background background;
  private final Consumer<String> tell;
  private final Map<Path, List<Span>> found = new HashMap<>();
  private final Set<Path> asked = new HashSet<>();

  /**
   * @param tell is told when there is no speech in a file
   */
  SpeechWatch(Session session, SpeechStore speech, Background background, Consumer<String> tell) {
    this.session = session;
    this.speech = speech;
    this.background = background;
    this.tell = tell;
    session.projectProperty().addListener((p, was, is) -> look());
  }

  private void look() {
    if (session.isPreviewing()) {
      return;
    }
    Project project = session.present();
    Set<String> spoken = new HashSet<>();
    project.voiceTracks().forEach(t -> t.clips().stream().map(Clip::mediaId).forEach(spoken::add));
    List<Media> unknown =
        project.shelf().stream()
            .filter(m -> m.hasSound() && m.speech().isEmpty() && spoken.contains(m.id()))
            .toList();
    for (Media media : unknown) {
      if (asked.add(media.file())) {
        background.run(
            text("job.speech", media.title()),
            progress -> speech.listen(media, progress),
            spans -> arrived(media, spans));
      }
    }
    learn(unknown);
  }

  private void arrived(Media media, List<Span> spans) {
    found.put(media.file(), spans);
    if (spans.isEmpty()) {
      tell.accept(text("speech.none", media.title()));
    }
    learn(session.present().shelf());
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

  /** Looks again in a file whose passages were forgotten. */
  void again(Media media) {
    asked.remove(media.file());
    found.remove(media.file());
  }
}
