package hushrise.app;

import static hushrise.app.look.Texts.text;

import hushrise.core.ear.Finding;
import hushrise.core.ear.Heard;
import hushrise.core.ear.PeakOver;
import hushrise.core.ear.SecondEar;
import hushrise.core.hush.HushDrafter;
import hushrise.core.project.HushRule;
import hushrise.core.project.Media;
import hushrise.core.project.Project;
import hushrise.core.project.Track;
import hushrise.core.separation.Energies;
import hushrise.core.separation.Separation;
import hushrise.core.sound.Progress;
import hushrise.media.MediaStore;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicReference;
import javafx.animation.PauseTransition;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.util.Duration;

/**
 * Listens to the project as it is shown: how far its voice stands above the rest, and what the
 * Second Ear remarks on. After each edit only the tracks that changed are reckoned again, on a
 * thread of its own; when edits come faster than that, only the last one counts. The one finding
 * that takes rendering follows once nothing has changed for a while.
 */
public final class Hearing {

  /** While something is dragged it listens this often, to leave the window its time. */
  private static final long DRAGGED_MILLIS = 160;

  private static final Duration QUIET = Duration.millis(900);

  /**
   * What was heard.
   *
   * @param project in which project
   * @param energies of its tracks
   * @param separation of its voice
   * @param findings what a careful listener would remark on, put aside or not
   */
  public record Now(
      Project project, Energies energies, Separation separation, List<Finding> findings) {}

  private final Session session;
  private final MediaStore store;
  private final Background background;
  private final ExecutorService worker =
      Executors.newSingleThreadExecutor(
          Thread.ofPlatform().daemon().name("hushrise-hearing").factory());
  private final ReadOnlyObjectWrapper<Optional<Now>> now =
      new ReadOnlyObjectWrapper<>(Optional.empty());
  private final Set<Media> measured = new HashSet<>();
  private final Set<Media> beingMeasured = new HashSet<>();

  /** Files that could not be read, or that a person did not want to wait for: said once. */
  private final Set<Media> unreadable = new HashSet<>();

  private final PauseTransition quiet = new PauseTransition(QUIET);
  private final Settling whileDragging = new Settling(DRAGGED_MILLIS, this::listen);
  private final AtomicReference<Project> latest = new AtomicReference<>();
  private Optional<Finding> peak = Optional.empty();
  private boolean busy;
  private boolean lookingForPeak;
  private boolean closed;

  public Hearing(Session session, MediaStore store, Background background) {
    this.session = session;
    this.store = store;
    this.background = background;
    session.projectProperty().addListener((p, was, is) -> changed());
    quiet.setOnFinished(e -> lookForPeak());
  }

  /** What was heard last; empty while nothing has been. Changes on the window's thread. */
  public ReadOnlyObjectProperty<Optional<Now>> nowProperty() {
    return now.getReadOnlyProperty();
  }

  public Optional<Now> now() {
    return now.get();
  }

  /**
   * Energies to draft from: those heard last, or of the project itself. Not on the window's thread.
   */
  public Energies energies(Project project) {
    Optional<Now> known = now.get();
    return known.isPresent()
        ? known.get().energies().following(project, store)
        : Energies.of(project, store);
  }

  /** The separation that a project's voice is to have: that of the first music's rule. */
  public static double wantedLu(Project project) {
    return project.tracks().stream()
        .filter(Track::isBackground)
        .flatMap(t -> HushDrafter.ruleOf(t).stream())
        .mapToDouble(HushRule::separationLu)
        .min()
        .orElse(HushRule.MUSIC_LU);
  }

  /** Forgets what was heard, as it was of another project. */
  void forget() {
    now.set(Optional.empty());
    peak = Optional.empty();
  }

  private void changed() {
    if (closed) {
      return;
    }
    latest.set(session.project());
    quiet.playFromStart();
    List<Media> missing = missing();
    if (missing.isEmpty()) {
      listenSoon();
    } else {
      missing.forEach(this::measure);
    }
  }

  private void listenSoon() {
    if (session.isPreviewing()) {
      whileDragging.ask();
    } else {
      listen();
    }
  }

  private List<Media> missing() {
    Project project = session.project();
    return project.shelf().stream()
        .filter(m -> m.hasSound() && project.isUsed(m.id()))
        .map(Hearing::bare)
        .filter(m -> !measured.contains(m))
        .toList();
  }

  /** A media item with only what tells its sound from others’. */
  private static Media bare(Media media) {
    return new Media(
        "", media.file(), media.kind(), media.lengthFrames(), true, Optional.empty(), "");
  }

  private void measure(Media media) {
    if (!unreadable.contains(media) && beingMeasured.add(media)) {
      background.run(
          text("job.measuring", media.title()),
          progress -> store.steps(media, progress),
          steps -> {
            measured.add(media);
            beingMeasured.remove(media);
            if (missing().isEmpty()) {
              listen();
            }
          },
          () -> {
            beingMeasured.remove(media);
            unreadable.add(media);
          });
    }
  }

  private void listen() {
    Project project = session.project();
    boolean dragging = session.isPreviewing() && session.draft().isEmpty();
    if (closed || busy || now.get().filter(n -> n.project().equals(project)).isPresent()) {
      return;
    }
    busy = true;
    Optional<Now> known = now.get();
    background.run(
        worker,
        () -> {
          Energies energies =
              known.isPresent()
                  ? known.get().energies().following(project, store)
                  : Energies.of(project, store);
          double wantedLu = wantedLu(project);
          Separation separation =
              known.isPresent()
                  ? known.get().separation().following(energies, wantedLu)
                  : Separation.of(energies, wantedLu);
          List<Finding> findings =
              dragging && known.isPresent()
                  ? known.get().findings()
                  : SecondEar.hear(new Heard(energies, separation, store, session.songs()));
          return new Now(project, energies, separation, findings);
        },
        heard -> {
          busy = false;
          show(heard);
          if (!session.project().equals(heard.project())) {
            listenSoon();
          }
        },
        () -> busy = false);
  }

  private void show(Now heard) {
    List<Finding> all = new ArrayList<>(heard.findings());
    all.removeIf(f -> f.rule().equals(PeakOver.ID));
    peak.ifPresent(all::add);
    all.sort(Comparator.comparingLong(f -> f.place().startFrame()));
    now.set(
        Optional.of(
            new Now(heard.project(), heard.energies(), heard.separation(), List.copyOf(all))));
  }

  private void lookForPeak() {
    if (lookingForPeak) {
      quiet.playFromStart();
      return;
    }
    boolean nothing = session.project().lengthFrames() == 0 || !missing().isEmpty();
    if (session.isPreviewing() || nothing) {
      return;
    }
    lookingForPeak = true;
    Project project = session.project();
    Progress whileLatest =
        fraction -> {
          if (!project.equals(latest.get())) {
            throw new CancellationException();
          }
        };
    background.run(
        () -> PeakOver.hear(project, store, whileLatest),
        found -> {
          lookingForPeak = false;
          if (!found.map(Finding::figures).equals(peak.map(Finding::figures))) {
            peak = found;
            now.get().ifPresent(this::show);
          }
        },
        () -> lookingForPeak = false);
  }

  /** Ends its thread. */
  void close() {
    closed = true;
    quiet.stop();
    worker.shutdownNow();
  }
}
