package hushrise.app.command;

import static hushrise.app.words.Texts.text;

import hushrise.app.job.Jobs;
import hushrise.app.job.Messages;
import hushrise.app.listen.Hearing;
import hushrise.app.session.Session;
import hushrise.core.edit.ClipEdits;
import hushrise.core.edit.SafeLevel;
import hushrise.core.project.Project;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.separation.Energies;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;

/** A safe level in one step: for clips, a track, or everything of a kind. */
public final class SafeCommands {

  private final Session session;
  private final Hearing hearing;
  private final Jobs jobs;
  private final Messages messages;
  private final ObjectProperty<SafeLevel.Rule> rule =
      new SimpleObjectProperty<>(SafeLevel.Rule.DEFAULT);

  public SafeCommands(Session session, Hearing hearing, Jobs jobs, Messages messages) {
    this.session = session;
    this.hearing = hearing;
    this.jobs = jobs;
    this.messages = messages;
  }

  /** Sets what its commands do. */
  public void addTo(Commands.Builder table) {
    table
        .set(CommandId.SAFE_LEVEL, () -> bring(chosen()))
        .set(CommandId.SAFE_KIND, () -> bring(ofKind()));
  }

  /** The numbers used. */
  public ObjectProperty<SafeLevel.Rule> ruleProperty() {
    return rule;
  }

  /** The clips that are chosen, else those of the chosen track, else all of the film. */
  private Set<String> chosen() {
    Set<String> clips = session.selection().clipIds();
    String trackId = session.selection().trackId();
    return !clips.isEmpty() ? clips : clipsOf(t -> trackId.isEmpty() || t.id().equals(trackId));
  }

  private Set<String> ofKind() {
    TrackKind kind =
        session
            .present()
            .track(session.selection().trackId())
            .map(Track::kind)
            .orElse(TrackKind.VOICE);
    return clipsOf(t -> t.kind() == kind);
  }

  private Set<String> clipsOf(Predicate<Track> of) {
    return session.present().tracks().stream()
        .filter(of)
        .flatMap((Track t) -> t.kind().sounds() ? t.clips().stream() : Stream.of())
        .map(Clip::id)
        .collect(Collectors.toSet());
  }

  private void bring(Set<String> clipIds) {
    Project asked = session.present();
    SafeLevel.Rule used = rule.get().withHotDb(session.habits().hotDbProperty().get());
    jobs.run(
        () -> {
          Energies energies = hearing.energies(asked);
          return SafeLevel.of(asked, clipIds, energies, hearing.library(), used);
        },
        session.whileOpen(
            safe -> {
              Set<String> changed = changed(asked, safe);
              if (changed.isEmpty()) {
                messages.say(text("safe.already"));
                return;
              }
              session.commit(text("edit.safe"), p -> ClipEdits.gainsAsIn(safe, p, changed));
              messages.say(text("safe.done", changed.size()));
            }));
  }

  private static Set<String> changed(Project asked, Project safe) {
    Set<Clip> before =
        asked.tracks().stream().flatMap(t -> t.clips().stream()).collect(Collectors.toSet());
    return safe.tracks().stream()
        .flatMap(t -> t.clips().stream())
        .filter(c -> !before.contains(c))
        .map(Clip::id)
        .collect(Collectors.toSet());
  }
}
