package hushrise.app.file;

import hushrise.core.journal.Journal;
import hushrise.core.journal.Journals;
import hushrise.core.store.ProjectLock;
import hushrise.core.store.Versions;
import java.nio.file.Path;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.prefs.Preferences;

/** What keeps work from being lost: the journal, earlier versions, and who has a project open. */
public final class Safekeeping implements AutoCloseable {

  private static final String MOST = "versions.most";
  private static final int USUAL_MOST = 30;

  private final Preferences preferences = Preferences.userNodeForPackage(Safekeeping.class);
  private final Path locks;
  private final Versions versions;
  private final Journals journals;
  private final Journal journal;
  private ProjectLock lock = ProjectLock.none();
  private Optional<Path> locked = Optional.empty();

  /**
   * @param folder where all of it lies
   * @param complain is told the folder once when the journal cannot be written, on another thread
   */
  public Safekeeping(Path folder, Consumer<String> complain) {
    locks = folder.resolve("open");
    versions = new Versions(folder.resolve("versions"));
    journals = new Journals(folder.resolve("journals"));
    journal = new Journal(journals.folder(), complain);
  }

  public Journal journal() {
    return journal;
  }

  public Journals journals() {
    return journals;
  }

  public Versions versions() {
    return versions;
  }

  /** How many earlier versions of a project are kept. */
  public int mostVersions() {
    return preferences.getInt(MOST, USUAL_MOST);
  }

  public void setMostVersions(int most) {
    preferences.putInt(MOST, Math.clamp(most, 0, 1000));
  }

  /**
   * Takes the lock of a project and lets the last one go; false when another window has it, and the
   * last one stays.
   */
  boolean lock(Path project) {
    if (locked.filter(project::equals).isPresent()) {
      return true;
    }
    Optional<ProjectLock> taken = ProjectLock.take(locks, project);
    taken.ifPresent(
        now -> {
          unlock();
          lock = now;
          locked = Optional.of(project);
        });
    return taken.isPresent();
  }

  void unlock() {
    lock.close();
    lock = ProjectLock.none();
    locked = Optional.empty();
  }

  /** Ends; the journal goes, as what is open was saved or is not wanted. */
  @Override
  public void close() {
    unlock();
    journal.close();
  }
}
