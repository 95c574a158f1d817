package hushrise.app.listen;

import static hushrise.app.words.Texts.text;

import hushrise.app.job.Jobs;
import hushrise.app.job.Messages;
import hushrise.app.session.Session;
import hushrise.core.Problem;
import hushrise.core.edit.ShelfEdits;
import hushrise.core.project.media.Media;
import hushrise.media.FileIdentity;
import hushrise.media.MediaStore;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import javafx.animation.Animation;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
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
  private final Consumer<Path> gone;
  private final BiConsumer<Media, Media> renewed;
  private final Map<Path, Optional<FileIdentity>> known = new HashMap<>();
  private final Timeline clock = new Timeline();
  private final ReadOnlyObjectWrapper<Set<Path>> missing = new ReadOnlyObjectWrapper<>(Set.of());
  private boolean looking;
  private boolean again;
  private boolean learning;

  /**
   * @param forget lets go of everything that was found out about a file
   * @param gone is told of each file that is not where it was any more
   * @param renewed is told of an item whose file holds something else, and of what
   */
  public FileWatch(
      Session session,
      MediaStore store,
      Jobs jobs,
      Messages messages,
      Consumer<Path> forget,
      Consumer<Path> gone,
      BiConsumer<Media, Media> renewed) {
    this.session = session;
    this.store = store;
    this.jobs = jobs;
    this.messages = messages;
    this.forget = forget;
    this.gone = gone;
    this.renewed = renewed;
    clock.getKeyFrames().add(new KeyFrame(EVERY, e -> look()));
    clock.setCycleCount(Animation.INDEFINITE);
    clock.play();
  }

  /** The files of the project that are not where they were. */
  public ReadOnlyObjectProperty<Set<Path>> missingProperty() {
    return missing.getReadOnlyProperty();
  }

  /** Looks whether files have changed. */
  public void look() {
    List<Path> files = session.present().shelf().stream().map(Media::file).distinct().toList();
    if (looking || files.isEmpty()) {
      again = looking;
      return;
    }
    looking = true;
    again = false;
    jobs.run(
        () -> {
          Map<Path, Optional<FileIdentity>> found = new HashMap<>();
          files.forEach(f -> found.put(f, FileIdentity.ifThere(f)));
          return found;
        },
        found -> {
          looking = false;
          found.forEach(this::compare);
          tellMissing(found);
          learnContents();
          if (again) {
            look(); // for files of another project than those that were looked for
          }
        },
        () -> looking = false);
  }

  private void tellMissing(Map<Path, Optional<FileIdentity>> found) {
    Set<Path> gone = new LinkedHashSet<>(); // the first on the shelf is named
    for (Media media : session.present().shelf()) {
      if (found.containsKey(media.file()) && found.get(media.file()).isEmpty()) {
        gone.add(media.file());
      }
    }
    Set<Path> before = missing.get();
    missing.set(Set.copyOf(gone));
    gone.removeAll(before);
    gone.stream()
        .findFirst()
        .ifPresent(
            file -> messages.complain(text("file.missing", file.getFileName(), gone.size() - 1)));
  }

  /** Notes what tells each file's content from any other, where nobody has yet. */
  private void learnContents() {
    List<Path> unknown =
        session.present().shelf().stream()
            .filter(m -> m.content().isEmpty() && !missing.get().contains(m.file()))
            .map(Media::file)
            .distinct()
            .toList();
    if (unknown.isEmpty() || learning) {
      return;
    }
    learning = true;
    jobs.run(
        () -> {
          Map<Path, String> contents = new HashMap<>();
          unknown.forEach(file -> contents.put(file, contentOf(file)));
          return contents;
        },
        contents -> {
          learning = false;
          session.learn(p -> ShelfEdits.withContents(p, contents));
        },
        () -> learning = false);
  }

  /** A file's content; of one that cannot be read nothing, so that nobody asks again. */
  private String contentOf(Path file) {
    try {
      return store.contentOf(file);
    } catch (Problem e) {
      return "";
    }
  }

  private void compare(Path file, Optional<FileIdentity> now) {
    Optional<FileIdentity> before = known.put(file, now);
    if (before == null || before.equals(now)) {
      return;
    }
    if (now.isEmpty()) {
      gone.accept(file);
      return;
    }
    forget.accept(file);
    for (Media media : session.present().shelf()) {
      if (media.file().equals(file)) {
        jobs.look(
            file,
            text("taking", media.title()),
            progress -> store.take(file, media.kind(), progress),
            fresh -> arrived(media, fresh, before.isEmpty()));
      }
    }
  }

  private void arrived(Media media, Media fresh, boolean wasGone) {
    boolean isSame = fresh.content().equals(media.content());
    if (isSame && wasGone) {
      messages.say(text("file.back", media.title()));
    } else if (!isSame) {
      session.present().media(media.id()).ifPresent(old -> renewed.accept(old, fresh));
    }
  }

  /** Ends watching. */
  public void close() {
    clock.stop();
  }
}
