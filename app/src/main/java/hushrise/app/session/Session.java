package hushrise.app.session;

import static hushrise.app.words.Texts.text;

import hushrise.app.job.Messages;
import hushrise.core.Problem;
import hushrise.core.edit.History;
import hushrise.core.fit.FitFollow;
import hushrise.core.fit.Songs;
import hushrise.core.hush.HushDraft;
import hushrise.core.journal.Journal;
import hushrise.core.journal.Recovered;
import hushrise.core.project.Limits;
import hushrise.core.project.Project;
import java.nio.file.Path;
import java.util.NoSuchElementException;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import javafx.beans.property.LongProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleLongProperty;
import javafx.beans.property.SimpleObjectProperty;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * The project in the window: its history, its file, the playhead and the selection. Used by the
 * window's thread alone.
 *
 * <p>The <em>present</em> project is what was done so far; only edits of it are ever committed, by
 * {@link #commit}. What is <em>shown</em> is the present project with an edit over it while
 * something is dragged, pointed at, drafted or compared. Each of these is an edit, worked out anew
 * on whatever is present, so that work in the background may change the present project at any
 * time.
 */
public final class Session {

  /** Works something out off the window's thread, then goes on there, however that ended. */
  @FunctionalInterface
  public interface Elsewhere {
    void run(Runnable work, Runnable then);
  }

  private static final Logger LOG = LoggerFactory.getLogger(Session.class);

  private static final Object POINTER = "the pointer";

  private final Messages messages;
  private final Following following;
  private final Habits habits = new Habits();
  private final Copied copied = new Copied();
  private final Overlay overlay = new Overlay();
  private History history = new History(Project.empty(""));
  private Optional<Journal> journal = Optional.empty();
  private Optional<Path> file = Optional.empty();
  private final ReadOnlyObjectWrapper<Project> present =
      new ReadOnlyObjectWrapper<>(history.present());
  private final ReadOnlyObjectWrapper<Project> shown =
      new ReadOnlyObjectWrapper<>(history.present());
  private final ObjectProperty<Selection> selection =
      new SimpleObjectProperty<>(Selection.nothing());
  private final LongProperty playhead = new SimpleLongProperty();
  private final Sitting sitting = new Sitting();
  private final ReadOnlyObjectWrapper<Boolean> unsaved = new ReadOnlyObjectWrapper<>(false);

  /**
   * @param songs lets music follow the picture
   * @param messages are told why an edit, or a fit after one, could not be made
   * @param elsewhere searches songs for their seams off the window's thread
   */
  public Session(Songs songs, Messages messages, Elsewhere elsewhere) {
    this.messages = messages;
    following = new Following(songs, elsewhere);
  }

  public Songs songs() {
    return following.songs();
  }

  /** How the person works. */
  public Habits habits() {
    return habits;
  }

  /** What was copied last. */
  public Copied copied() {
    return copied;
  }

  /** What is shown: the present project, with what is dragged, pointed at, drafted or compared. */
  public ReadOnlyObjectProperty<Project> shownProperty() {
    return shown.getReadOnlyProperty();
  }

  public Project shown() {
    return shown.get();
  }

  /** The present project, whatever is shown. */
  public ReadOnlyObjectProperty<Project> presentProperty() {
    return present.getReadOnlyProperty();
  }

  public Project present() {
    return present.get();
  }

  public ObjectProperty<Selection> selectionProperty() {
    return selection;
  }

  public Selection selection() {
    return selection.get();
  }

  public void select(Selection what) {
    selection.set(what);
  }

  public LongProperty playheadProperty() {
    return playhead;
  }

  public long playhead() {
    return playhead.get();
  }

  /** Moves the playhead, held within the film. */
  public void seek(long frame) {
    playhead.set(Math.clamp(frame, 0, Math.max(0, shown().lengthFrames())));
  }

  public ReadOnlyObjectProperty<Boolean> unsavedProperty() {
    return unsaved.getReadOnlyProperty();
  }

  public boolean hasUnsavedChanges() {
    return unsaved.get();
  }

  /** How often a person has done, undone or done again something in the project that is open. */
  public long turns() {
    return history.turns();
  }

  public Optional<Path> file() {
    return file;
  }

  /** Lets every step from now on be noted in a journal. */
  public void keepIn(Journal kept) {
    journal = Optional.of(kept);
    kept.opened(present(), file);
    history.setListener(kept::happened);
  }

  /** Starts over with another project. */
  public void open(Project opened, Optional<Path> from) {
    start(new History(opened), from);
    journal.ifPresent(j -> j.opened(opened, from));
  }

  /** Goes on where a crash had ended, with all that can be undone. */
  public void goOn(Recovered recovered) {
    start(recovered.history(), recovered.project());
    journal.ifPresent(j -> j.goOn(recovered));
  }

  private void start(History with, Optional<Path> from) {
    sitting.begin();
    history = with;
    journal.ifPresent(j -> history.setListener(j::happened));
    file = from;
    following.startOver();
    overlay.clear();
    selection.set(Selection.nothing());
    playhead.set(0);
    historyChanged();
  }

  /**
   * What takes the result of work that was begun for the project that is open now: it does nothing
   * once another one has been opened.
   */
  public <T> Consumer<T> whileOpen(Consumer<T> then) {
    return sitting.only(then);
  }

  /**
   * Shows what a drag would make of the present project, without a step in the history.
   *
   * @param name what undo will call it
   * @param edit from the present project to what the drag makes of it, at any time
   * @throws Problem when it cannot be done; nothing changes then
   */
  public void drag(String name, UnaryOperator<Project> edit) {
    drag(POINTER, name, edit);
  }

  /**
   * The same for another hand than the pointer's, as a fader of a surface is; neither disturbs the
   * other.
   */
  public void drag(Object hand, String name, UnaryOperator<Project> edit) {
    var _ = edit.apply(present());
    overlay.drag(hand, new Overlay.Drag(name, edit));
    showAnew();
  }

  /** Whether any drag is under way. An edit that takes away what it holds ends it. */
  public ReadOnlyBooleanProperty draggingProperty() {
    return overlay.draggingProperty();
  }

  /** Whether the pointer's drag is under way. */
  public boolean isDragging() {
    return overlay.isDragging(POINTER);
  }

  /** Makes the drag's own edit a step. */
  public void endDrag() {
    endDrag(POINTER);
  }

  /** The same for another hand. */
  public void endDrag(Object hand) {
    overlay.dropDrag(hand).ifPresent(d -> commit(d.name(), d.edit(), () -> {}));
  }

  /** Gives the drag back. */
  public void cancelDrag() {
    if (overlay.dropDrag(POINTER).isPresent()) {
      showAnew();
    }
  }

  /** Shows what a remedy would do while it is pointed at. */
  public void pointAt(UnaryOperator<Project> remedy) {
    overlay.pointAt(remedy);
    showAnew();
  }

  /** Shows the project again as it is. */
  public void pointAway() {
    if (overlay.pointAway()) {
      showAnew();
    }
  }

  /** Shows the project without something, until {@link #endComparison}. */
  public void compare(UnaryOperator<Project> without) {
    overlay.compare(without);
    showAnew();
  }

  public void endComparison() {
    if (overlay.hasComparison()) {
      overlay.endComparison();
      showAnew();
    }
  }

  public boolean isComparing() {
    return overlay.hasComparison();
  }

  /** The draft that is shown and not yet taken; empty when there is none. */
  public ReadOnlyObjectProperty<Optional<HushDraft>> draftProperty() {
    return overlay.draftProperty();
  }

  public Optional<HushDraft> draft() {
    return overlay.draft();
  }

  /** Shows a draft over the present project. */
  public void showDraft(HushDraft drafted) {
    overlay.showDraft(drafted);
    showAnew();
  }

  /** Gives the draft that is shown up. */
  public void leaveDraft() {
    overlay.dropDraft();
    showAnew();
  }

  /** Makes the draft that is shown a step. */
  public void takeDraft(String name) {
    overlay.dropDraft().ifPresent(d -> commit(name, d::onto));
  }

  /** Whether something else than the present project is shown. */
  public boolean isShowingOther() {
    return !overlay.isEmpty();
  }

  /**
   * Makes one step. Within it hushes follow the speech and fitted music follows the picture; where
   * a song has to be searched for that, its new seams arrive a little later, in the same step. An
   * edit that cannot be made, or whose subject has gone since it was asked for, says so and changes
   * nothing; one that changes nothing says that. A drag under way goes on over it.
   *
   * @param name what was done, as undo tells it
   * @param edit from the present project to the new one
   */
  public void commit(String name, UnaryOperator<Project> edit) {
    commit(name, edit, () -> messages.say(text("edit.nothing", name)));
  }

  private void commit(String name, UnaryOperator<Project> edit, Runnable whereNothingChanged) {
    overlay.pointAway();
    Project before = present();
    try {
      Project edited = following.edited(before, edit);
      Limits.require(edited);
      FitFollow.Followed followed = following.asKnown(before, edited);
      history.commit(name, followed.project());
      historyChanged();
      followed.problems().forEach(messages::complain);
      if (!followed.isComplete()) {
        following.search(before, edited, sitting.only(() -> followedFrom(before)));
      } else if (followed.problems().isEmpty() && present().equals(before)) {
        whereNothingChanged.run();
      }
    } catch (Problem e) {
      showAnew();
      messages.complain(e.getMessage());
    } catch (NoSuchElementException e) {
      showAnew();
      LOG.warn("'{}' found nothing to work on", name, e);
      messages.complain(text("edit.gone", name));
    } catch (RuntimeException e) {
      showAnew(); // whatever went wrong, what is shown is what is there
      throw e;
    }
  }

  /**
   * As {@link #commit}, for an edit that searches a song: that is done elsewhere first.
   *
   * @param then goes on once the step is made
   */
  public void commitSearched(String name, UnaryOperator<Project> edit, Runnable then) {
    following.searchAhead(
        present(),
        edit,
        sitting.only(
            () -> {
              commit(name, edit);
              then.run();
            }));
  }

  /** Makes another project the present one as it is, as a step. */
  public void replace(String name, Project with) {
    history.commit(name, with);
    historyChanged();
  }

  /** Notes something that was found out about the project, as part of the step before. */
  public void learn(UnaryOperator<Project> what) {
    history.amend(what.apply(present()));
    historyChanged();
  }

  /** Lets fitted music reach its end once its songs are known, as part of the step before. */
  public void followFits() {
    Project now = present();
    Project before = following.takeUnheard().orElse(now);
    following.search(before, now, sitting.only(() -> followedFrom(before)));
  }

  /** Applies what was found for the clips that have changed since. */
  private void followedFrom(Project before) {
    FitFollow.Followed followed = following.asKnown(before, present());
    history.amend(followed.project());
    historyChanged();
    followed.problems().forEach(messages::complain);
  }

  public void undo() {
    overlay.dropDrags();
    history.undo();
    historyChanged();
  }

  public void redo() {
    overlay.dropDrags();
    history.redo();
    historyChanged();
  }

  public Optional<String> undoName() {
    return history.undoName();
  }

  public Optional<String> redoName() {
    return history.redoName();
  }

  /** The present project, to be written to its file while work goes on. */
  public History.Snapshot snapshot() {
    return history.snapshot();
  }

  /** Tells that a project of this history was written to a file, which is the project's now. */
  public void saved(History.Snapshot written, Path target) {
    boolean isPresent = history.markSaved(written);
    journal.ifPresent(j -> j.saved(target, isPresent));
    file = Optional.of(target);
    historyChanged();
  }

  private void historyChanged() {
    unsaved.set(history.hasUnsavedChanges());
    present.set(history.present());
    showAnew();
    dropStaleSelection();
  }

  private void showAnew() {
    shown.set(overlay.over(present(), this::followed));
  }

  private Project followed(Project base, UnaryOperator<Project> edit) {
    return following.shown(base, edit, this::showAnew);
  }

  private void dropStaleSelection() {
    if (!selection().isIn(present())) {
      selection.set(Selection.nothing());
    }
  }
}
