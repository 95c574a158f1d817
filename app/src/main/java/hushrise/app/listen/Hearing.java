package hushrise.app.listen;

import static hushrise.app.words.Texts.text;

import hushrise.app.job.Jobs;
import hushrise.app.job.Throttle;
import hushrise.app.session.Session;
import hushrise.core.Problem;
import hushrise.core.ear.Finding;
import hushrise.core.ear.Heard;
import hushrise.core.ear.PeakOver;
import hushrise.core.ear.SecondEar;
import hushrise.core.hush.HushDrafter;
import hushrise.core.level.TrackChange;
import hushrise.core.loudness.ClipPeaks;
import hushrise.core.loudness.ClipPeaks.HotSpot;
import hushrise.core.loudness.FilmLoudness;
import hushrise.core.loudness.LoudnessLibrary;
import hushrise.core.loudness.LoudnessSteps;
import hushrise.core.project.Project;
import hushrise.core.project.level.HushRule;
import hushrise.core.project.media.Media;
import hushrise.core.project.timeline.Track;
import hushrise.core.separation.Energies;
import hushrise.core.separation.Separation;
import hushrise.media.MediaStore;
import java.nio.FloatBuffer;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Listens to the project as it is shown: how far its voice stands above the rest, and what the
 * Second Ear remarks on. After each edit only the tracks that changed are reckoned again, on a
 * thread of its own; when edits come faster than that, only the last one counts. The one finding
 * that takes the film itself follows once that has been measured.
 */
public final class Hearing {

  private static final Logger LOG = LoggerFactory.getLogger(Hearing.class);

  /** While something is dragged it listens this often, to leave the window its time. */
  private static final long DRAGGED_MILLIS = 160;

  /**
   * What was heard.
   *
   * @param project in which project
   * @param energies of its tracks
   * @param separation of its voice
   * @param findings what a careful listener would remark on, put aside or not
   * @param unheard items that could not be measured, and count as silent
   * @param hotSpots where each track is hot after all levels, by the tracks' ids
   * @param judged the project that the findings and hot spots are of: during a drag, the one before
   */
  public record Now(
      Project project,
      Energies energies,
      Separation separation,
      List<Finding> findings,
      List<Media> unheard,
      Map<String, List<HotSpot>> hotSpots,
      Project judged) {

    private boolean isWhole() {
      return judged.equals(project);
    }

    private Now with(List<Finding> others) {
      return new Now(project, energies, separation, List.copyOf(others), unheard, hotSpots, judged);
    }
  }

  private static final LoudnessSteps SILENCE = new LoudnessSteps(FloatBuffer.allocate(0));

  private final Session session;
  private final MediaStore store;
  private final PictureCuts cuts;
  private final Jobs jobs;
  private final ExecutorService worker =
      Executors.newSingleThreadExecutor(
          Thread.ofPlatform()
              .daemon()
              .name("hushrise-hearing")
              .priority(Thread.MIN_PRIORITY)
              .factory());
  private final ReadOnlyObjectWrapper<Optional<Now>> now =
      new ReadOnlyObjectWrapper<>(Optional.empty());

  /** At hand, so that nobody asks a disk for what has been measured. */
  private final Map<Path, LoudnessSteps> measured = new ConcurrentHashMap<>();

  private final Set<Path> beingMeasured = new HashSet<>();

  /** Files that have changed while they are measured, so that what comes of it is of another. */
  private final Set<Path> outdated = new HashSet<>();

  /** Files that could not be read, or that a person did not want to wait for: they are silent. */
  private final Set<Path> unheard = ConcurrentHashMap.newKeySet();

  private final Throttle whileDragging = new Throttle(DRAGGED_MILLIS, this::listen);
  private final AtomicInteger generation = new AtomicInteger();
  private Optional<Finding> peak = Optional.empty();
  private volatile double heardHotDb = Double.NaN;
  private boolean busy;
  private boolean closed;

  public Hearing(Session session, MediaStore store, PictureCuts cuts, Jobs jobs) {
    this.session = session;
    this.store = store;
    this.cuts = cuts;
    this.jobs = jobs;
    session.shownProperty().addListener((p, was, is) -> changed());
    session.presentProperty().addListener((p, was, is) -> changed());
    session.draggingProperty().addListener((p, was, is) -> changed());
    session.habits().hotDbProperty().addListener((p, was, is) -> forget());
  }

  /**
   * The loudness of the project's files, in which silence stands for what cannot be measured. For
   * any thread.
   */
  public LoudnessLibrary library() {
    return this::stepsOf;
  }

  private LoudnessSteps stepsOf(Media media) {
    if (unheard.contains(media.file())) {
      return SILENCE;
    }
    LoudnessSteps known = measured.get(media.file());
    if (known != null) {
      return known;
    }
    try {
      return store.steps(media);
    } catch (Problem e) {
      LOG.debug("{} counts as silent", media.file(), e);
      unheard.add(media.file());
      return SILENCE;
    }
  }

  /** What was heard last; empty while nothing has been. Changes on the window's thread. */
  public ReadOnlyObjectProperty<Optional<Now>> nowProperty() {
    return now.getReadOnlyProperty();
  }

  public Optional<Now> now() {
    return now.get();
  }

  /** Whether sound of the project is still being read, so that what was heard is not all of it. */
  public boolean isWaiting() {
    return !missing(session.present()).isEmpty();
  }

  /**
   * Energies to draft from: those heard last, or of the project itself. Not on the window's thread.
   */
  public Energies energies(Project project) {
    Optional<Now> known = now.get();
    return known.isPresent()
        ? known.get().energies().following(project, library())
        : Energies.of(project, library());
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

  /** Forgets what was heard and measured, as it was of another project. */
  public void startOver() {
    measured.clear();
    forget();
  }

  /** Forgets what was heard, and listens anew. */
  public void forget() {
    generation.incrementAndGet();
    now.set(Optional.empty());
    peak = Optional.empty();
    unheard.clear();
    changed();
  }

  /** Forgets a file's sound, as the file has changed, and listens anew. */
  public void forget(Path file) {
    measured.remove(file);
    if (beingMeasured.contains(file)) {
      outdated.add(file);
    }
    forget();
  }

  /** Counts a file as silent, as it is not where it was. */
  public void gone(Path file) {
    generation.incrementAndGet();
    measured.remove(file);
    unheard.add(file);
    now.set(Optional.empty());
    changed();
  }

  /** Tries once more to measure what could not be. */
  public void measureAgain() {
    forget();
  }

  private void changed() {
    if (closed) {
      return;
    }
    List<Media> missing = missing(session.shown());
    missing.forEach(this::measure);
    if (missing.isEmpty()) {
      listenSoon();
    }
  }

  private void listenSoon() {
    if (session.isShowingOther()) {
      whileDragging.ask();
    } else {
      listen();
    }
  }

  /** What is used, and neither measured nor given up. */
  private List<Media> missing(Project project) {
    return used(project).stream()
        .filter(m -> !measured.containsKey(m.file()) && !unheard.contains(m.file()))
        .toList();
  }

  private static List<Media> used(Project project) {
    Set<String> used = project.usedMediaIds();
    return project.shelf().stream().filter(m -> m.hasSound() && used.contains(m.id())).toList();
  }

  private void measure(Media media) {
    if (beingMeasured.add(media.file())) {
      jobs.look(
          media.file(),
          text("job.measuring", media.title()),
          Jobs.ifThere(media.file(), progress -> store.steps(media, progress)),
          steps -> arrived(media, Optional.of(steps)),
          () -> arrived(media, Optional.empty()));
    }
  }

  /**
   * @param steps empty when it could not be measured
   */
  private void arrived(Media media, Optional<LoudnessSteps> steps) {
    Path file = media.file();
    beingMeasured.remove(file);
    if (outdated.remove(file)) {
      changed();
      return;
    }
    steps.ifPresentOrElse(s -> measured.put(file, s), () -> unheard.add(file));
    if (missing(session.shown()).isEmpty()) {
      listen();
    }
  }

  private void listen() {
    Project project = session.shown();
    boolean dragging = session.draggingProperty().get();
    boolean known =
        now.get().filter(n -> n.project().equals(project) && (n.isWhole() || dragging)).isPresent();
    if (closed || busy || known) {
      return;
    }
    busy = true;
    int asked = generation.get();
    Optional<Now> before = now.get();
    List<Long> cutsNow = cuts.frames();
    List<Media> silent = used(project).stream().filter(m -> unheard.contains(m.file())).toList();
    jobs.run(
        worker,
        () -> heard(project, before, dragging, silent, cutsNow),
        heard -> {
          busy = false;
          if (asked == generation.get()) {
            show(heard);
          }
          boolean over = !heard.isWhole() && !session.draggingProperty().get();
          if (asked != generation.get() || over || !session.shown().equals(heard.project())) {
            listenSoon();
          }
        },
        () -> busy = false);
  }

  private Now heard(
      Project project,
      Optional<Now> known,
      boolean dragging,
      List<Media> silent,
      List<Long> cutsNow) {
    Energies energies =
        known.isPresent()
            ? known.get().energies().following(project, library())
            : Energies.of(project, library());
    double wantedLu = wantedLu(project);
    Separation separation =
        known.isPresent()
            ? known.get().separation().following(energies, wantedLu)
            : Separation.of(energies, wantedLu);
    if (dragging && known.isPresent()) {
      Now was = known.get();
      return new Now(
          project, energies, separation, was.findings(), silent, was.hotSpots(), was.judged());
    }
    List<Finding> findings =
        SecondEar.hear(new Heard(energies, separation, library(), session.songs(), cutsNow));
    return new Now(
        project, energies, separation, findings, silent, hotSpots(project, known), project);
  }

  /** Only tracks that have changed are looked through again. */
  private Map<String, List<HotSpot>> hotSpots(Project project, Optional<Now> known) {
    double hotDb = session.habits().hotDbProperty().get();
    boolean comparable =
        hotDb == heardHotDb && known.filter(n -> n.judged().shelf() == project.shelf()).isPresent();
    Map<String, List<HotSpot>> spots = new HashMap<>();
    for (Track track : project.tracks()) {
      if (track.kind().sounds()) {
        Optional<Track> was =
            comparable ? known.flatMap(n -> n.judged().track(track.id())) : Optional.empty();
        boolean same =
            was.filter(t -> TrackChange.between(t, track, project.sampleRate()).isEmpty())
                .isPresent();
        spots.put(
            track.id(),
            same
                ? known.get().hotSpots().getOrDefault(track.id(), List.of())
                : ClipPeaks.of(project, track, library()).hotSpots(hotDb));
      }
    }
    heardHotDb = hotDb;
    return Map.copyOf(spots);
  }

  private void show(Now heard) {
    List<Finding> all = new ArrayList<>(heard.findings());
    all.removeIf(f -> f.rule().equals(PeakOver.ID));
    peak.ifPresent(all::add);
    all.sort(Comparator.comparingLong(f -> f.place().startFrame()));
    now.set(Optional.of(heard.with(all)));
  }

  /** Is told what the film was measured to be, if it is known, and looks at its highest peak. */
  public void measured(Optional<FilmLoudness> film) {
    Optional<Finding> found = film.flatMap(PeakOver::hear);
    if (!found.map(Finding::figures).equals(peak.map(Finding::figures))) {
      peak = found;
      now.get().ifPresent(this::show);
    }
  }

  /** Ends its thread. */
  public void close() {
    closed = true;
    worker.shutdownNow();
  }
}
