package hushrise.app.session;

import hushrise.core.hush.HushDraft;
import hushrise.core.project.Project;
import java.util.Optional;
import java.util.function.UnaryOperator;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * What lies over the present project while something is dragged, pointed at, drafted or compared.
 * Each is an edit, worked out anew on whatever is present.
 */
final class Overlay {

  private static final Logger LOG = LoggerFactory.getLogger(Overlay.class);

  /** A drag under way: what it will be called, and what it makes of a project. */
  record Drag(String name, UnaryOperator<Project> edit) {}

  /** Makes an edit with all that follows from it. */
  @FunctionalInterface
  interface Follow {
    Project followed(Project base, UnaryOperator<Project> edit);
  }

  private final ReadOnlyObjectWrapper<Optional<HushDraft>> draft =
      new ReadOnlyObjectWrapper<>(Optional.empty());
  private final ReadOnlyBooleanWrapper dragging = new ReadOnlyBooleanWrapper();
  private Optional<Drag> drag = Optional.empty();
  private Optional<UnaryOperator<Project>> pointed = Optional.empty();
  private Optional<UnaryOperator<Project>> comparison = Optional.empty();

  /** Gives everything up but a comparison. */
  void clear() {
    hold(Optional.empty());
    pointed = Optional.empty();
    draft.set(Optional.empty());
  }

  void drag(Drag under) {
    hold(Optional.of(under));
  }

  private void hold(Optional<Drag> held) {
    drag = held;
    dragging.set(held.isPresent());
  }

  ReadOnlyBooleanProperty draggingProperty() {
    return dragging.getReadOnlyProperty();
  }

  /** Gives the drag up, which is returned. */
  Optional<Drag> dropDrag() {
    Optional<Drag> was = drag;
    hold(Optional.empty());
    return was;
  }

  void pointAt(UnaryOperator<Project> remedy) {
    pointed = Optional.of(remedy);
  }

  /** Points at nothing; whether it did at anything. */
  boolean pointAway() {
    boolean did = pointed.isPresent();
    pointed = Optional.empty();
    return did;
  }

  void compare(UnaryOperator<Project> without) {
    comparison = Optional.of(without);
  }

  boolean hasComparison() {
    return comparison.isPresent();
  }

  void endComparison() {
    comparison = Optional.empty();
  }

  ReadOnlyObjectProperty<Optional<HushDraft>> draftProperty() {
    return draft.getReadOnlyProperty();
  }

  Optional<HushDraft> draft() {
    return draft.get();
  }

  void showDraft(HushDraft drafted) {
    draft.set(Optional.of(drafted));
  }

  /** Gives the draft up, which is returned. */
  Optional<HushDraft> dropDraft() {
    Optional<HushDraft> was = draft();
    draft.set(Optional.empty());
    return was;
  }

  boolean isEmpty() {
    return drag.isEmpty() && pointed.isEmpty() && comparison.isEmpty() && draft().isEmpty();
  }

  /**
   * The present project with everything over it. A drag that has lost what it held ends; what was
   * pointed at for something that is gone is shown no longer.
   */
  Project over(Project present, Follow follow) {
    Project now = present;
    if (drag.isPresent()) {
      try {
        now = follow.followed(now, drag.get().edit());
      } catch (RuntimeException e) {
        LOG.debug("A drag has lost what it held", e);
        hold(Optional.empty());
      }
    }
    if (pointed.isPresent()) {
      try {
        now = follow.followed(now, pointed.get());
      } catch (RuntimeException e) {
        LOG.debug("What was pointed at is gone", e);
        pointed = Optional.empty();
      }
    }
    if (draft().isPresent()) {
      now = draft().get().onto(now);
    }
    if (comparison.isPresent()) {
      now = comparison.get().apply(now);
    }
    return now;
  }
}
