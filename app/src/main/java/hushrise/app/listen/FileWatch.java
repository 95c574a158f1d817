package hushrise.app.listen;

import static hushrise.app.words.Texts.text;

import hushrise.app.job.Jobs;
import hushrise.app.job.Messages;
import hushrise.app.session.Session;
import hushrise.core.edit.ShelfEdits;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.media.FileIdentity;
import hushrise.media.MediaStore;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.animation.Animation;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.util.Duration;

/**
 * Notices when a file of the project is written anew, as by exporting it again under the same name,
 * and lets everything that is known of it be found out afresh.
 */
public final class FileWatch {

  private static final Duration EVERY = Duration.seconds(2);

  private final Session session;
  private final MediaStore store;
  private final Jobs jobs;
  private final Messages messages;
  private final Consumer<Path> forget;
  private final Map<Path, Optional<FileIdentity>> known = new HashMap<>();
  private final Timeline clock = new Timeline();
  private boolean looking;

  /**
   * @param forget lets go of everything that was found out about a file
   */
  public FileWatch(
      Session session, MediaStore store, Jobs jobs, Messages messages, Consumer<Path> forget) {
    this.session = session;
    this.store = store;
    this.jobs = jobs;
    this.messages = messages;
    this.forget = forget;
    clock.getKeyFrames().add(new KeyFrame(EVERY, e -> look()));
    clock.setCycleCount(Animation.INDEFINITE);
    clock.play();
  }

  /** Looks whether files have changed. */
  public void look() {
    List<Path> files = session.present().shelf().stream().map(Media::file).distinct().toList();
    if (looking || files.isEmpty()) {
      return;
    }
    looking = true;
    jobs.run(
        () -> {
          Map<Path, Optional<FileIdentity>> found = new HashMap<>();
          files.forEach(f -> found.put(f, FileIdentity.ifThere(f)));
          return found;
        },
        found -> {
          looking = false;
          found.forEach(this::compare);
        },
        () -> looking = false);
  }

  private void compare(Path file, Optional<FileIdentity> now) {
    Optional<FileIdentity> before = known.put(file, now);
    if (before == null || now.isEmpty() || before.equals(now)) {
      return;
    }
    forget.accept(file);
    for (Media media : session.present().shelf()) {
      if (media.file().equals(file)) {
        jobs.run(
            text("taking", media.title()),
            progress -> store.take(file, media.kind(), progress),
            fresh -> arrived(media, fresh));
      }
    }
  }

  private void arrived(Media media, Media fresh) {
    Project present = session.present();
    if (present.media(media.id()).isPresent()) {
      session.commit(
          text("edit.fileChanged", media.title()), p -> ShelfEdits.refresh(p, media.id(), fresh));
      messages.say(text("file.changed", media.title()));
    }
  }

  /** Ends watching. */
  public void close() {
    clock.stop();
  }
}
