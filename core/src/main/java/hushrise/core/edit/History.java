package hushrise.core.edit;

import hushrise.core.project.Project;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Optional;

/** The projects that led to the present one, and those undone since. Without limit. */
public final class History {

  /** What can happen to it. */
  public enum Event {
    /** A step was made. */
    COMMIT,
    /** The present project was put in another's place, within the step that led to it. */
    AMEND,
    UNDO,
    REDO
  }

  /** Is told whatever happens, after it has. */
  @FunctionalInterface
  public interface Listener {
    /**
     * @param name what was done, for a step
     * @param present the project that is there now
     */
    void happened(Event event, String name, Project present);
  }

  /**
   * What is on its way to a file.
   *
   * @param turns as {@link #turns} was then
   */
  public record Snapshot(Project project, long turns) {}

  private record Step(String name, Project before, Project after) {}

  private final Deque<Step> done = new ArrayDeque<>();
  private final Deque<Step> undone = new ArrayDeque<>();
  private Listener listener = (event, name, now) -> {};
  private Project present;
  private Optional<Project> saved;
  private long turns;

  /**
   * @param project the first project; it counts as saved
   */
  public History(Project project) {
    present = project;
    saved = Optional.of(project);
  }

  /** Sets who is told from now on. */
  public void setListener(Listener told) {
    listener = told;
  }

  public Project present() {
    return present;
  }

  /**
   * Makes a project the present one. Nothing happens when it equals the present one.
   *
   * @param name what was done, for a person, such as "Move keyframe"
   */
  public void commit(String name, Project project) {
    if (!project.equals(present)) {
      done.push(new Step(name, present, project));
      undone.clear();
      present = project;
      turns++;
      listener.happened(Event.COMMIT, name, present);
    }
  }

  /** Puts another project in the present one's place, as part of the step that led to it. */
  public void amend(Project project) {
    if (!project.equals(present)) {
      boolean wasSaved = !hasUnsavedChanges();
      if (!done.isEmpty()) {
        Step last = done.pop();
        done.push(new Step(last.name(), last.before(), project));
      }
      present = project;
      saved = wasSaved ? Optional.of(project) : saved;
      listener.happened(Event.AMEND, "", present);
    }
  }

  /** Goes one step back; false at the beginning. */
  public boolean undo() {
    if (done.isEmpty()) {
      return false;
    }
    undone.push(done.pop());
    present = undone.element().before();
    turns++;
    listener.happened(Event.UNDO, "", present);
    return true;
  }

  /** Goes one undone step forward again; false when there is none. */
  public boolean redo() {
    if (undone.isEmpty()) {
      return false;
    }
    done.push(undone.pop());
    present = done.element().after();
    turns++;
    listener.happened(Event.REDO, "", present);
    return true;
  }

  /** How often something was done, undone or done again; what was found out does not count. */
  public long turns() {
    return turns;
  }

  /** What {@link #undo} would take back. */
  public Optional<String> undoName() {
    return Optional.ofNullable(done.peek()).map(Step::name);
  }

  /** What {@link #redo} would do again. */
  public Optional<String> redoName() {
    return Optional.ofNullable(undone.peek()).map(Step::name);
  }

  /** The present project, to be written to its file while work goes on. */
  public Snapshot snapshot() {
    return new Snapshot(present, turns);
  }

  /**
   * Tells that a project has been written to its file. What was only found out since belongs to it.
   *
   * @return whether nothing was done since it was taken
   */
  public boolean markSaved(Snapshot written) {
    boolean isPresent = written.turns() == turns;
    saved = Optional.of(isPresent ? present : written.project());
    return isPresent;
  }

  /** Tells that no file has any of these projects. */
  public void markUnsaved() {
    saved = Optional.empty();
  }

  /** Whether the present project differs from the one last saved. */
  public boolean hasUnsavedChanges() {
    return saved.filter(present::equals).isEmpty();
  }
}
