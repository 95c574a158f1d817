package hushrise.app.session;

import hushrise.core.hush.HushDraft;
import hushrise.core.project.Project;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
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
  private final Map<Object, Drag> drags = new LinkedHashMap<>();
  private Optional<UnaryOperator<Project>> pointed = Optional.empty();
  private Optional<UnaryOperator<Project>> comparison = Optional.empty();

  /** Gives everything up but a comparison. */
  void clear() {
    dropDrags();
    pointed = Optional.empty();
    draft.set(Optional.empty());
  }

  /**
   * Drags on.
   *
   * @param hand whose drag it is; each has one of its own
   */
  void drag(Object hand, Drag under) {
    drags.put(hand, under);
    tellWhetherDragging();
  }

  boolean isDragging(Object hand) {
    return drags.containsKey(hand);
  }

  private void tellWhetherDragging() {
    dragging.set(!drags.isEmpty());
  }

  ReadOnlyBooleanProperty draggingProperty() {
    return dragging.getReadOnlyProperty();
  }

  /** Gives a hand's drag up, which is returned. */
  Optional<Drag> dropDrag(Object hand) {
    Optional<Drag> was = Optional.ofNullable(drags.remove(hand));
    tellWhetherDragging();
    return was;
  }

  void dropDrags() {
    drags.clear();
    tellWhetherDragging();
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
    return drags.isEmpty() && pointed.isEmpty() && comparison.isEmpty() && draft().isEmpty();
  }

  /**
   * The present project with everything over it. A drag that has lost what it held ends; what was
   * pointed at for something that is gone is shown no longer.
   */
  Project over(Project present, Follow follow) {
    Project now = present;
    for (Object hand : List.copyOf(drags.keySet())) {
      try {
        now = follow.followed(now, drags.get(hand).edit());
      } catch (RuntimeException e) {
        LOG.debug("A drag has lost what it held", e);
        dropDrag(hand);
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
