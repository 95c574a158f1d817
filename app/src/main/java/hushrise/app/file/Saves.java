package hushrise.app.file;

import static hushrise.app.words.Texts.text;

import hushrise.app.job.Jobs;
import hushrise.app.job.Messages;
import hushrise.app.session.Session;
import hushrise.core.Problem;
import hushrise.core.edit.History;
import hushrise.core.store.ContentDigest;
import hushrise.core.store.ProjectFile;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.Map;
import java.util.Optional;
import java.util.Queue;
import java.util.concurrent.Callable;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executor;
import java.util.concurrent.locks.Lock;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.Consumer;

/**
 * Saves the project beside the work that goes on, as a disk may take its time: one save after
 * another. Of the window's thread.
 */
final class Saves {

  /** Not one of the workers, as those may all be busy. */
  private static final Executor ASIDE =
      task -> Thread.ofPlatform().daemon().name("hushrise-save").start(task);

  /** After which it is a person's choice whether to wait any longer. */
  private static final long SLOW_NANOS = 2_000_000_000L;

  /** How a save ended. */
  private sealed interface Outcome {

    /**
     * @param content what lies there now
     * @param unkept why what lay there before could not be kept
     */
    record Saved(Optional<String> content, Optional<Problem> unkept) implements Outcome {}

    /** Somebody else has changed the file. */
    record Changed() implements Outcome {}

    record Failed(Problem problem) implements Outcome {}
  }

  private final Session session;
  private final FileChoice choice;
  private final Questions questions;
  private final Jobs jobs;
  private final Messages messages;
  private final Safekeeping keeping;
  private final RecentProjects recent;

  /** What lay in the project's file when it was read or written last. */
  private Optional<String> content = Optional.empty();

  /** The file that the project is on its way to. */
  private Optional<Path> writing = Optional.empty();

  /** Whether it is, or its file is looked at before it may be. */
  private boolean isUnderWay;

  private long begunNanos;
  private final Map<Path, Lock> locks = new ConcurrentHashMap<>();
  private final Queue<Runnable> waiting = new ArrayDeque<>();

  /**
   * Counts what was begun, so that what ends after nobody waits for it any more changes nothing.
   */
  private int begun;

  Saves(
      Session session,
      FileChoice choice,
      Questions questions,
      Jobs jobs,
      Messages messages,
      Safekeeping keeping,
      RecentProjects recent) {
    this.session = session;
    this.choice = choice;
    this.questions = questions;
    this.jobs = jobs;
    this.messages = messages;
    this.keeping = keeping;
    this.recent = recent;
  }

  /** Whether the project is on its way to a file. */
  boolean isWriting() {
    return writing.isPresent();
  }

  /** Whether it has been for longer than one likes to wait. */
  boolean isSlow() {
    return isWriting() && System.nanoTime() - begunNanos > SLOW_NANOS;
  }

  /** Goes on as soon as nothing is under way: now, or behind that. */
  void whenDone(Runnable then) {
    if (isUnderWay) {
      waiting.add(then);
    } else {
      then.run();
    }
  }

  /** Waits no longer for what is under way, nor does what waited for that come. */
  void giveUp() {
    waiting.clear();
    begun++;
    isUnderWay = false;
    writing = Optional.empty();
  }

  /** Notes what lies in the file of a project that was opened; a save waits for it. */
  void opened(Optional<Path> file) {
    giveUp();
    content = Optional.empty();
    file.ifPresent(
        f ->
            aside(
                text("open.reading", FileNames.bare(f)),
                () -> ContentDigest.ofFile(f),
                found -> content = found));
  }

  /** Saves, and asks where when that is not known, or when somebody else has changed the file. */
  void save(Runnable then) {
    whenDone(
        () ->
            session.file().ifPresentOrElse(file -> write(file, content, then), () -> saveAs(then)));
  }

  /** Asks where to save. */
  void saveAs(Runnable then) {
    Path suggestion =
        session
            .file()
            .orElseGet(
                () ->
                    FileNames.free(
                        folder(), FileNames.nameOf(session.present()), ProjectFile.ENDING));
    choice
        .toWrite(FileChoice.Kind.PROJECT, text("save.title"), suggestion)
        .ifPresent(
            chosen ->
                questions.withEnding(chosen, ProjectFile.ENDING, file -> writeTo(file, then)));
  }

  /** Writes to a file, whatever lies there; waits for no other one. */
  private void writeTo(Path file, Runnable then) {
    if (isUnderWay && !writing.equals(Optional.of(file.toAbsolutePath().normalize()))) {
      giveUp();
    }
    whenDone(() -> write(file, Optional.empty(), then));
  }

  /** Where projects were saved last, else beside the picture. */
  Path folder() {
    return choice
        .lastFolder(FileChoice.Kind.PROJECT)
        .or(() -> session.present().pictureMedia().map(m -> m.file().toAbsolutePath().getParent()))
        .orElse(Path.of(System.getProperty("user.home")));
  }

  /**
   * Writes the project as it is now.
   *
   * @param expected what is to lie there; empty when anything may
   */
  private void write(Path file, Optional<String> expected, Runnable then) {
    Path absolute = file.toAbsolutePath().normalize();
    callAs(absolute);
    History.Snapshot snapshot = session.snapshot();
    int most = keeping.mostVersions();
    aside(
        text("save.under", FileNames.bare(absolute)),
        () -> written(snapshot, absolute, expected, most),
        outcome -> tell(outcome, snapshot, absolute, then));
    writing = Optional.of(absolute);
  }

  /** A project without a name of its own is called as its file, wherever it is saved to. */
  private void callAs(Path file) {
    String name = session.present().name();
    boolean isFiles = session.file().map(FileNames::bare).filter(name::equals).isPresent();
    if ((name.isBlank() || isFiles) && !name.equals(FileNames.bare(file))) {
      session.learn(p -> p.withName(FileNames.bare(file)));
    }
  }

  /** One at a time for each file, so that none that nobody waited for comes after a later one. */
  private Outcome written(
      History.Snapshot snapshot, Path file, Optional<String> expected, int mostVersions) {
    Lock own = locks.computeIfAbsent(file, f -> new ReentrantLock(true));
    own.lock();
    try {
      return writtenNow(snapshot, file, expected, mostVersions);
    } finally {
      own.unlock();
    }
  }

  private Outcome writtenNow(
      History.Snapshot snapshot, Path file, Optional<String> expected, int mostVersions) {
    Optional<String> now = expected.flatMap(e -> ContentDigest.ofFile(file));
    if (now.isPresent() && !now.equals(expected)) {
      return new Outcome.Changed();
    }
    try {
      Optional<Problem> unkept = keepEarlier(file, mostVersions);
      ProjectFile.save(snapshot.project(), file);
      keeping.versions().note(file);
      return new Outcome.Saved(ContentDigest.ofFile(file), unkept);
    } catch (Problem e) {
      return new Outcome.Failed(e);
    }
  }

  /** Keeps what lies there now; where that fails, saving goes on all the same. */
  private Optional<Problem> keepEarlier(Path file, int mostVersions) {
    try {
      keeping.versions().keep(file, mostVersions);
      return Optional.empty();
    } catch (Problem e) {
      return Optional.of(e);
    }
  }

  private void tell(Outcome outcome, History.Snapshot snapshot, Path file, Runnable then) {
    switch (outcome) {
      case Outcome.Saved saved -> {
        session.saved(snapshot, file);
        content = saved.content();
        keeping.lock(file);
        recent.note(file);
        messages.say(text("savedTo", file));
        saved.unkept().ifPresent(problem -> messages.complain(problem.getMessage()));
        then.run();
      }
      case Outcome.Changed changed ->
          questions.ask(
              text("changed.title"),
              text("changed.question", file.getFileName()),
              text("save.elsewhere"),
              () -> saveAs(then),
              text("replace.answer"),
              () -> writeTo(file, then));
      case Outcome.Failed failed -> {
        messages.complain(failed.problem().getMessage());
        questions.ask(
            text("unsaveable.title"),
            failed.problem().getMessage(),
            text("save.elsewhere"),
            () -> saveAs(then));
      }
    }
  }

  /** Runs what is waited for. */
  private <T> void aside(String words, Callable<T> work, Consumer<T> then) {
    isUnderWay = true;
    begun++;
    begunNanos = System.nanoTime();
    int number = begun;
    jobs.runSaying(
        ASIDE,
        words,
        "",
        work,
        result -> finish(number, () -> then.accept(result)),
        () -> finish(number, () -> {}));
  }

  private void finish(int number, Runnable then) {
    if (number != begun) {
      return;
    }
    isUnderWay = false;
    writing = Optional.empty();
    then.run();
    while (!isUnderWay && !waiting.isEmpty()) {
      waiting.remove().run();
    }
  }
}
