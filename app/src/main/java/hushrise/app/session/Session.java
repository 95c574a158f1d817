package hushrise.app.session;

import hushrise.app.job.Messages;
import hushrise.core.Problem;
import hushrise.core.edit.History;
import hushrise.core.edit.Snippet;
import hushrise.core.fit.Fits;
import hushrise.core.fit.Songs;
import hushrise.core.hush.HushDraft;
import hushrise.core.hush.HushFollow;
import hushrise.core.journal.Journal;
import hushrise.core.journal.Recovered;
import hushrise.core.project.Project;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.Turn;
import hushrise.core.store.ProjectFile;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.DoubleProperty;
import javafx.beans.property.LongProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleDoubleProperty;
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

  private static final Logger LOG = LoggerFactory.getLogger(Session.class);

  /** Works something out off the window's thread, then goes on there, however that ended. */
  @FunctionalInterface
  public interface Elsewhere {
    void run(Runnable work, Runnable then);
  }

  /** A drag under way: what it will be called, and what it makes of a project. */
  private record Drag(String name, UnaryOperator<Project> edit) {}

  private final Songs songs;
  private final Messages messages;
  private final Elsewhere elsewhere;
  private History history = new History(Project.empty(""));
  private Optional<Journal> journal = Optional.empty();
  private Optional<Path> file = Optional.empty();
  private final ReadOnlyObjectWrapper<Project> present =
      new ReadOnlyObjectWrapper<>(history.present());
  private final ReadOnlyObjectWrapper<Project> shown =
      new ReadOnlyObjectWrapper<>(history.present());
  private final ReadOnlyObjectWrapper<Optional<HushDraft>> draft =
      new ReadOnlyObjectWrapper<>(Optional.empty());
  private final ObjectProperty<Selection> selection =
      new SimpleObjectProperty<>(Selection.nothing());
  private final LongProperty playhead = new SimpleLongProperty();
  private final ReadOnlyObjectWrapper<Boolean> unsaved = new ReadOnlyObjectWrapper<>(false);
  private final BooleanProperty carriesKeyframes = new SimpleBooleanProperty(true);
  private final BooleanProperty snaps = new SimpleBooleanProperty(true);
  private final BooleanProperty followsPlayhead = new SimpleBooleanProperty(true);
  private final DoubleProperty hotDb = new SimpleDoubleProperty(-6);
  private Optional<Drag> drag = Optional.empty();
  private Optional<UnaryOperator<Project>> pointed = Optional.empty();
  private Optional<UnaryOperator<Project>> comparison = Optional.empty();
  private boolean searching;
  private Snippet clipboard = Snippet.EMPTY;
  private List<Keyframe> copiedKeyframes = List.of();
  private Turn lastTurn = Turn.DEFAULT;
  private double lastRiseDb = 3;

  /**
   * @param songs lets music follow the picture
   * @param messages are told why an edit, or a fit after one, could not be made
   * @param elsewhere searches songs for their seams off the window's thread
   */
  public Session(Songs songs, Messages messages, Elsewhere elsewhere) {
    this.songs = songs;
    this.messages = messages;
    this.elsewhere = elsewhere;
  }

  public Songs songs() {
    return songs;
  }

  /** Whether keyframes go along when the clips under them are moved. */
  public BooleanProperty carriesKeyframesProperty() {
    return carriesKeyframes;
  }

  public boolean carriesKeyframes() {
    return carriesKeyframes.get();
  }

  /** Whether what is dragged is drawn to clip ends, markers, cuts and the playhead. */
  public BooleanProperty snapsProperty() {
    return snaps;
  }

  /** Whether the timeline keeps the playhead in view while playing. */
  public BooleanProperty followsPlayheadProperty() {
    return followsPlayhead;
  }

  /** From which level on sound counts as hot, in dBFS. */
  public DoubleProperty hotDbProperty() {
    return hotDb;
  }

  /** The times that were given to a hush or a span last; new ones begin with them. */
  public Turn lastTurn() {
    return lastTurn;
  }

  public void setLastTurn(Turn turn) {
    lastTurn = turn;
  }

  /** How high the last rise was, in dB. */
  public double lastRiseDb() {
    return lastRiseDb;
  }

  public void setLastRiseDb(double db) {
    lastRiseDb = db;
  }

  /** Keyframes that were copied, in order of time; possibly empty. */
  public List<Keyframe> copiedKeyframes() {
    return copiedKeyframes;
  }

  public void setCopiedKeyframes(List<Keyframe> keyframes) {
    copiedKeyframes = List.copyOf(keyframes);
    clipboard = Snippet.EMPTY;
  }

  public Snippet clipboard() {
    return clipboard;
  }

  public void setClipboard(Snippet snippet) {
    clipboard = snippet;
    copiedKeyframes = List.of();
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
    history = with;
    journal.ifPresent(j -> history.setListener(j::happened));
    file = from;
    drag = Optional.empty();
    pointed = Optional.empty();
    draft.set(Optional.empty());
    selection.set(Selection.nothing());
    playhead.set(0);
    historyChanged();
  }

  /**
   * Shows what a drag would make of the present project, without a step in the history.
   *
   * @param name what undo will call it
   * @param edit from the present project to what the drag makes of it, at any time
   * @throws Problem when it cannot be done; nothing changes then
   */
  public void drag(String name, UnaryOperator<Project> edit) {
    var _ = edit.apply(present());
    drag = Optional.of(new Drag(name, edit));
    showAnew();
  }

  /** Whether a drag is under way. An edit that takes away what it holds ends it. */
  public boolean isDragging() {
    return drag.isPresent();
  }

  /** Makes the drag's own edit a step. */
  public void endDrag() {
    Optional<Drag> ended = drag;
    drag = Optional.empty();
    ended.ifPresent(d -> commit(d.name(), d.edit()));
  }

  /** Gives the drag back. */
  public void cancelDrag() {
    if (drag.isPresent()) {
      drag = Optional.empty();
      showAnew();
    }
  }

  /** Shows what a remedy would do while it is pointed at. */
  public void pointAt(UnaryOperator<Project> remedy) {
    pointed = Optional.of(remedy);
    showAnew();
  }

  /** Shows the project again as it is. */
  public void pointAway() {
    if (pointed.isPresent()) {
      pointed = Optional.empty();
      showAnew();
    }
  }

  /** Shows the project without something, until {@link #endComparison}. */
  public void compare(UnaryOperator<Project> without) {
    comparison = Optional.of(without);
    showAnew();
  }

  public void endComparison() {
    if (comparison.isPresent()) {
      comparison = Optional.empty();
      showAnew();
    }
  }

  public boolean isComparing() {
    return comparison.isPresent();
  }

  /** The draft that is shown and not yet taken; empty when there is none. */
  public ReadOnlyObjectProperty<Optional<HushDraft>> draftProperty() {
    return draft.getReadOnlyProperty();
  }

  public Optional<HushDraft> draft() {
    return draft.get();
  }

  /** Shows a draft over the present project. */
  public void showDraft(HushDraft drafted) {
    draft.set(Optional.of(drafted));
    showAnew();
  }

  /** Gives the draft that is shown up. */
  public void leaveDraft() {
    draft.set(Optional.empty());
    showAnew();
  }

  /** Makes the draft that is shown a step. */
  public void takeDraft(String name) {
    Optional<HushDraft> taken = draft();
    draft.set(Optional.empty());
    taken.ifPresent(d -> commit(name, d::onto));
  }

  /** Whether something else than the present project is shown. */
  public boolean isShowingOther() {
    return drag.isPresent() || pointed.isPresent() || comparison.isPresent() || draft().isPresent();
  }

  /**
   * Makes one step. Within it hushes follow the speech and fitted music follows the picture; where
   * a song has to be searched for that, its new seams arrive a little later, in the same step. An
   * edit that cannot be made says why and changes nothing. A drag under way goes on over it.
   *
   * @param name what was done, as undo tells it
   * @param edit from the present project to the new one
   */
  public void commit(String name, UnaryOperator<Project> edit) {
    pointed = Optional.empty();
    Project before = present();
    try {
      Project edited = HushFollow.followed(before, edit.apply(before));
      Fits.Followed followed = Fits.followedAsKnown(before, edited, songs);
      history.commit(name, followed.project());
      historyChanged();
      followed.problems().forEach(messages::complain);
      if (!followed.isComplete()) {
        search(before, edited, () -> followedFrom(before));
      }
    } catch (Problem e) {
      showAnew();
      messages.complain(e.getMessage());
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
    Project base = present();
    elsewhere.run(
        () -> {
          try {
            Fits.followed(base, edit.apply(base), songs);
          } catch (Problem e) {
            LOG.debug("Said when the edit is made", e);
          }
        },
        () -> {
          commit(name, edit);
          then.run();
        });
  }

  private void search(Project before, Project edited, Runnable then) {
    elsewhere.run(() -> Fits.followed(before, edited, songs), then);
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
    search(now, now, () -> followedFrom(now));
  }

  /** Applies what was found for the clips that have changed since. */
  private void followedFrom(Project before) {
    Fits.Followed followed = Fits.followedAsKnown(before, present(), songs);
    history.amend(followed.project());
    historyChanged();
    followed.problems().forEach(messages::complain);
  }

  public void undo() {
    drag = Optional.empty();
    history.undo();
    historyChanged();
  }

  public void redo() {
    drag = Optional.empty();
    history.redo();
    historyChanged();
  }

  public Optional<String> undoName() {
    return history.undoName();
  }

  public Optional<String> redoName() {
    return history.redoName();
  }

  /**
   * Writes the project.
   *
   * @throws hushrise.core.Problem when that fails; nothing is lost then
   */
  public void save(Path target) {
    ProjectFile.save(present(), target);
    history.markSaved();
    journal.ifPresent(j -> j.saved(target));
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
    Project now = present();
    if (drag.isPresent()) {
      try {
        now = followed(now, drag.get().edit());
      } catch (RuntimeException e) {
        LOG.debug("A drag has lost what it held", e);
        drag = Optional.empty();
      }
    }
    if (pointed.isPresent()) {
      now = followed(now, pointed.get());
    }
    if (draft().isPresent()) {
      now = draft().get().onto(now);
    }
    if (comparison.isPresent()) {
      now = comparison.get().apply(now);
    }
    shown.set(now);
  }

  private Project followed(Project base, UnaryOperator<Project> edit) {
    Project edited = HushFollow.followed(base, edit.apply(base));
    Fits.Followed followed = Fits.followedAsKnown(base, edited, songs);
    if (!followed.isComplete() && !searching) {
      searching = true;
      search(
          base,
          edited,
          () -> {
            searching = false;
            showAnew();
          });
    }
    return followed.project();
  }

  private void dropStaleSelection() {
    if (!selection().isIn(present())) {
      selection.set(Selection.nothing());
    }
  }
}
