package hushrise.app;

import hushrise.core.Problem;
import hushrise.core.edit.History;
import hushrise.core.edit.Snippet;
import hushrise.core.fit.Fits;
import hushrise.core.fit.Songs;
import hushrise.core.hush.HushDraft;
import hushrise.core.hush.HushFollow;
import hushrise.core.project.Keyframe;
import hushrise.core.project.Media;
import hushrise.core.project.Project;
import hushrise.core.project.Turn;
import hushrise.core.store.ProjectFile;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.LongProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleLongProperty;
import javafx.beans.property.SimpleObjectProperty;

/**
 * The project in the window: its history, its file, the playhead and the selection. Everything that
 * is shown watches these properties; everything that edits goes through {@link #commit}. Used by
 * the window's thread alone.
 */
public final class Session {

  private final Songs songs;
  private final Consumer<String> complain;
  private History history = new History(Project.empty(""));
  private Optional<Path> file = Optional.empty();
  private final ReadOnlyObjectWrapper<Project> project =
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
  private boolean previewing;
  private Snippet clipboard = Snippet.EMPTY;
  private List<Keyframe> copiedKeyframes = List.of();
  private Turn lastTurn = Turn.DEFAULT;
  private double lastRiseDb = 3;

  /**
   * @param songs lets music follow the picture
   * @param complain is told why an edit, or a fit after one, could not be made
   */
  public Session(Songs songs, Consumer<String> complain) {
    this.songs = songs;
    this.complain = complain;
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

  /** The project as shown: the present one, or during a drag what it would become. */
  public ReadOnlyObjectProperty<Project> projectProperty() {
    return project.getReadOnlyProperty();
  }

  public Project project() {
    return project.get();
  }

  /** The present project, whatever a drag shows. */
  public Project present() {
    return history.present();
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
    playhead.set(Math.clamp(frame, 0, Math.max(0, project().lengthFrames())));
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

  /** Starts over with another project. */
  public void open(Project opened, Optional<Path> from) {
    history = new History(opened);
    file = from;
    selection.set(Selection.nothing());
    playhead.set(0);
    show();
  }

  /** Shows what a drag would make of the project, without a step in the history. */
  public void preview(Project changed) {
    previewing = true;
    draft.set(Optional.empty());
    project.set(Fits.followed(HushFollow.followed(present(), changed), songs).project());
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
    project.set(drafted.after());
  }

  /** Gives the draft that is shown up. */
  public void leaveDraft() {
    showPresent();
  }

  /** Makes the draft that is shown a step. */
  public void takeDraft(String name) {
    draft().ifPresent(d -> commit(name, p -> d.after()));
  }

  /** Whether what is shown is what a drag or a draft would make of the project. */
  public boolean isPreviewing() {
    return previewing || draft().isPresent();
  }

  /** Goes back to the present project after a preview. */
  public void dropPreview() {
    previewing = false;
    project.set(history.present());
  }

  /**
   * Makes one step. Within it hushes follow the speech and fitted music follows the picture. An
   * edit that cannot be made says why and changes nothing.
   *
   * @param name what was done, as undo tells it
   * @param edit from the present project to the new one
   */
  public void commit(String name, UnaryOperator<Project> edit) {
    try {
      Project edited = HushFollow.followed(history.present(), edit.apply(history.present()));
      Fits.Followed followed = Fits.followed(edited, songs);
      history.commit(name, followed.project());
      show();
      followed.problems().forEach(complain);
    } catch (Problem e) {
      showPresent();
      complain.accept(e.getMessage());
    }
  }

  /** Notes something that was found out about the project, as part of the step before. */
  public void learn(UnaryOperator<Project> what) {
    history.amend(what.apply(history.present()));
    show();
  }

  /** Lets fitted music follow after a song has become known, as part of the step before. */
  public void followFits() {
    Fits.Followed followed = Fits.followed(history.present(), songs);
    history.amend(followed.project());
    show();
  }

  public void undo() {
    history.undo();
    show();
  }

  public void redo() {
    history.redo();
    show();
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
    ProjectFile.save(history.present(), target);
    history.markSaved();
    file = Optional.of(target);
    show();
  }

  private void showPresent() {
    previewing = false;
    draft.set(Optional.empty());
    project.set(history.present());
  }

  private void show() {
    showPresent();
    unsaved.set(history.hasUnsavedChanges());
    dropStaleSelection();
  }

  private void dropStaleSelection() {
    Project now = history.present();
    boolean alive =
        switch (selection.get()) {
          case Selection.Nothing n -> true;
          case Selection.OfTrack t -> now.track(t.trackId()).isPresent();
          case Selection.OfClip c -> c.clipIds().stream().allMatch(id -> now.clip(id).isPresent());
          case Selection.OfSeam s ->
              now.clip(s.clipId()).filter(c -> s.index() < c.seams().size()).isPresent();
          case Selection.OfMarker m ->
              now.markers().stream().anyMatch(marker -> marker.id().equals(m.markerId()));
          case Selection.OfKeyframe k ->
              now.track(k.trackId())
                  .filter(t -> k.all().stream().allMatch(f -> t.line().at(f).isPresent()))
                  .isPresent();
          case Selection.OfRise r ->
              now.track(r.trackId()).flatMap(t -> t.rise(r.riseId())).isPresent();
          case Selection.OfSpan s -> now.track(s.trackId()).isPresent();
          case Selection.OfPassage p ->
              now.clip(p.clipId()).isPresent()
                  && now.media(p.mediaId())
                      .flatMap(Media::speech)
                      .filter(spans -> p.index() < spans.size())
                      .isPresent();
          case Selection.OfHush h ->
              now.track(h.trackId())
                  .filter(t -> t.hushes().stream().anyMatch(hush -> hush.id().equals(h.hushId())))
                  .isPresent();
        };
    if (!alive) {
      selection.set(Selection.nothing());
    }
  }
}
