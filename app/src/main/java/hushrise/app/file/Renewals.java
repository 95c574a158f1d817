package hushrise.app.file;

import static hushrise.app.words.Texts.text;

import hushrise.app.job.Jobs;
import hushrise.app.job.Messages;
import hushrise.app.session.Session;
import hushrise.core.Problem;
import hushrise.core.edit.Renewal;
import hushrise.core.loudness.LoudnessSteps;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.sound.Progress;
import hushrise.core.time.Span;
import hushrise.media.MediaStore;
import hushrise.media.SongStore;
import hushrise.media.SpeechStore;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Lets an item of the Shelf hold something else, with all that was set: another file that a person
 * chose, or its own that was written anew. What has to be known of it is found out first, so that
 * fits and hushes follow in the same step.
 */
public final class Renewals {

  private static final Logger LOG = LoggerFactory.getLogger(Renewals.class);

  /** Less is not heard, in dB. */
  private static final double SAME_DB = 0.1;

  private final Session session;
  private final MediaStore store;
  private final SongStore songs;
  private final SpeechStore speech;
  private final Jobs jobs;
  private final Messages messages;

  /** By the ids of the media, what was asked of each last. */
  private final Map<String, Object> latest = new HashMap<>();

  public Renewals(
      Session session,
      MediaStore store,
      SongStore songs,
      SpeechStore speech,
      Jobs jobs,
      Messages messages) {
    this.session = session;
    this.store = store;
    this.songs = songs;
    this.speech = speech;
    this.jobs = jobs;
    this.messages = messages;
  }

  /**
   * What was found out about another file.
   *
   * @param louderDb by how much it has to be louder to be as loud as the old one; 0 where that is
   *     not known or not wanted
   */
  private record Found(Media media, double louderDb) {}

  /** Lets a person choose the file that is to take the place of that of the clip chosen last. */
  public void choose(FileChoice choice) {
    Project project = session.present();
    session.selection().clipIds().stream()
        .reduce((a, b) -> b)
        .flatMap(project::clip)
        .flatMap(c -> project.media(c.mediaId()))
        .ifPresent(
            old ->
                choice
                    .toRead(FileChoice.Kind.MEDIA, text("other.title", old.title()), false)
                    .stream()
                    .findFirst()
                    .ifPresent(file -> use(old, file)));
  }

  /** Lets another file take the place of an item's. What is asked last is what comes. */
  public void use(Media old, Path file) {
    Object asked = ask(old);
    jobs.run(
        text("taking", file.getFileName()),
        progress -> {
          Media fresh = heard(store.take(file, old.kind(), progress), old, progress);
          return new Found(fresh, louderDb(old, fresh));
        },
        session.whileOpen(
            found -> {
              Optional<Media> now = present(old, asked);
              if (now.filter(m -> !m.file().equals(old.file())).isPresent()) {
                use(now.get(), file); // its loudness is to be another one's now
              } else if (now.isPresent()) {
                renew(text("edit.otherFile", found.media().title()), old, found, said(old, found));
              }
            }));
  }

  /** Takes over what an item's file holds, now that it was written anew. */
  public void writtenAnew(Media old, Media fresh) {
    Object asked = ask(old);
    jobs.run(
        text("taking", old.title()),
        progress -> new Found(heardIfPossible(fresh, old, progress), 0),
        session.whileOpen(
            found -> {
              if (present(old, asked).filter(m -> m.file().equals(old.file())).isPresent()) {
                String said = text("file.changed", old.title());
                renew(text("edit.fileChanged", old.title()), old, found, said);
              }
            }));
  }

  private Object ask(Media media) {
    Object asked = new Object();
    latest.put(media.id(), asked);
    return asked;
  }

  /** The item as it is now, unless it has gone or something else was asked of it since. */
  private Optional<Media> present(Media old, Object asked) {
    return session.present().media(old.id()).filter(m -> latest.get(m.id()) == asked);
  }

  /** Finds out what fits and hushes need to follow. */
  private Media heard(Media fresh, Media old, Progress progress) {
    if (old.kind() == MediaKind.MUSIC) {
      songs.listen(fresh, progress);
    }
    boolean spoke = old.speech().isPresent();
    List<Span> spoken = spoke && fresh.hasSound() ? speech.listen(fresh, progress) : List.of();
    return fresh.withSpeech(spoken.isEmpty() ? Optional.empty() : Optional.of(spoken));
  }

  /** What a file holds now is so, whether it still serves or not. */
  private Media heardIfPossible(Media fresh, Media old, Progress progress) {
    try {
      return heard(fresh, old, progress);
    } catch (Problem e) {
      LOG.debug("What was written anew cannot be listened to", e);
      return fresh;
    }
  }

  /**
   * Sounds are brought to the loudness of the old one; what belongs to a picture stays as it is.
   */
  private double louderDb(Media old, Media fresh) {
    if (old.kind() == MediaKind.PICTURE || old.kind() == MediaKind.STILL) {
      return 0;
    }
    try {
      double db = lufs(old) - lufs(fresh);
      return Double.isFinite(db) ? Math.round(db * 10) / 10.0 : 0;
    } catch (Problem e) {
      LOG.debug("What takes its place keeps its own loudness", e);
      return 0;
    }
  }

  private double lufs(Media media) {
    LoudnessSteps steps = store.steps(media);
    return steps.lufs(0, steps.count());
  }

  private void renew(String name, Media old, Found found, String said) {
    session.commitSearched(
        name,
        p ->
            p.media(old.id()).isEmpty()
                ? p
                : Renewal.louder(
                    Renewal.of(p, old.id(), found.media(), songs), old.id(), found.louderDb()),
        () -> {
          Optional<Media> now = session.present().media(old.id());
          if (now.filter(m -> m.content().equals(found.media().content())).isPresent()) {
            messages.say(said);
          }
        });
  }

  private static String said(Media old, Found found) {
    double db = found.louderDb();
    String loud =
        Math.abs(db) < SAME_DB
            ? ""
            : " " + text(db > 0 ? "other.louder" : "other.softer", Math.abs(db));
    return text("other.used", found.media().title(), old.title()) + loud;
  }
}
