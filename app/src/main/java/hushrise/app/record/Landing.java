package hushrise.app.record;

import static hushrise.app.words.Texts.text;

import hushrise.app.job.Jobs;
import hushrise.app.job.Messages;
import hushrise.app.session.Selection;
import hushrise.app.session.Session;
import hushrise.core.Problem;
import hushrise.core.edit.TakeEdits;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.sound.Progress;
import hushrise.media.MediaStore;
import java.nio.file.Files;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.application.Platform;
import javafx.beans.value.ChangeListener;
import javafx.beans.value.ObservableBooleanValue;
import javafx.beans.value.ObservableValue;

/**
 * What becomes of a take: its file is read, it is placed where it was spoken and selected, what it
 * replaces is said, its hush is drafted, and other takes of the place can be heard instead.
 */
final class Landing {

  private final Session session;
  private final MediaStore store;
  private final Jobs jobs;
  private final Messages messages;
  private final Runnable draftsHush;
  private final List<Runnable> waiting = new ArrayList<>();
  private int underWay;

  /**
   * @param draftsHush shows a draft of the hush that a new take wants
   */
  Landing(Session session, MediaStore store, Jobs jobs, Messages messages, Runnable draftsHush) {
    this.session = session;
    this.store = store;
    this.jobs = jobs;
    this.messages = messages;
    this.draftsHush = draftsHush;
  }

  /**
   * Lets a take come to its end on the disk, reads its file and places it; one in which nothing was
   * spoken goes.
   *
   * @param drafts whether its hush is drafted as soon as it is known where it speaks
   */
  void take(SpokenTake spoken, ObservableBooleanValue drafts) {
    underWay++;
    if (spoken.samples().frames() == 0) {
      messages.say(text("record.nothing"));
    }
    jobs.run(
        text("record.taking"),
        progress -> read(spoken, progress),
        read -> {
          try {
            read.media().ifPresent(media -> land(media, spoken.startFrame(), drafts.get()));
            read.unfinished().ifPresent(problem -> messages.complain(problem.getMessage()));
          } finally {
            ended();
          }
        },
        this::ended);
  }

  /**
   * A take as it lies on the disk.
   *
   * @param media empty when there is nothing of it
   * @param unfinished why the end of it is not there
   */
  private record Read(Optional<Media> media, Optional<Problem> unfinished) {}

  private Read read(SpokenTake spoken, Progress progress) {
    Optional<Problem> unfinished = Optional.empty();
    try {
      spoken.samples().finish(progress);
    } catch (Problem e) {
      unfinished = Optional.of(e);
    }
    return new Read(
        Files.isRegularFile(spoken.file())
            ? Optional.of(store.take(spoken.file(), MediaKind.VOICE, progress))
            : Optional.empty(),
        unfinished);
  }

  private void ended() {
    underWay--;
    if (underWay == 0) {
      List<Runnable> waited = List.copyOf(waiting);
      waiting.clear();
      waited.forEach(Runnable::run);
    }
  }

  /** Goes on once every take has its place. */
  void finish(Runnable then) {
    if (underWay == 0) {
      then.run();
    } else {
      waiting.add(then);
    }
  }

  private void land(Media media, long at, boolean drafts) {
    session.commit(
        text("edit.take", media.title()),
        p -> TakeEdits.place(p.withMedia(media), media, at, text("track.kind.VOICE")));
    session
        .present()
        .tracksOf(TrackKind.VOICE)
        .flatMap(t -> t.clips().stream())
        .filter(c -> c.mediaId().equals(media.id()))
        .findFirst()
        .ifPresent(clip -> landed(media, clip));
    if (drafts) {
      draftOnceHeard(media.id());
    }
  }

  private void landed(Media media, Clip clip) {
    Project project = session.present();
    project
        .trackOfClip(clip.id())
        .ifPresent(t -> session.select(new Selection.OfClip(t.id(), clip.id())));
    Optional<Media> instead =
        clip.otherTakes().stream().findFirst().flatMap(t -> project.media(t.mediaId()));
    messages.say(
        instead
            .map(m -> text("record.instead", media.title(), m.title(), media.file().getParent()))
            .orElse(text("record.landed", media.title(), media.file().getParent())));
  }

  /** Waits until it is known where the take speaks, then drafts. */
  private void draftOnceHeard(String mediaId) {
    if (session.present().media(mediaId).flatMap(Media::speech).isPresent()) {
      draftsHush.run();
      return;
    }
    session
        .presentProperty()
        .addListener(
            new ChangeListener<>() {
              @Override
              public void changed(ObservableValue<? extends Project> p, Project was, Project now) {
                Optional<Media> media = now.media(mediaId);
                if (media.isEmpty()) {
                  session.presentProperty().removeListener(this);
                } else if (media.get().speech().isPresent()) {
                  session.presentProperty().removeListener(this);
                  Platform.runLater(draftsHush);
                }
              }
            });
  }

  /** Lets another take of the selected clip be heard. */
  void another(int by) {
    Optional<Clip> clip =
        session
            .selection()
            .oneClip()
            .flatMap(session.present()::clip)
            .filter(c -> !c.otherTakes().isEmpty());
    if (clip.isEmpty()) {
      messages.say(text("record.oneTake"));
      return;
    }
    session.commit(text("edit.otherTake"), p -> TakeEdits.another(p, clip.get().id(), by));
    session
        .present()
        .clip(clip.get().id())
        .flatMap(c -> session.present().media(c.mediaId()))
        .ifPresent(m -> messages.say(text("record.heard", m.title())));
  }
}
