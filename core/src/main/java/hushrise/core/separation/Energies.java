package hushrise.core.separation;

import hushrise.core.Decibels;
import hushrise.core.level.ClipEnvelope;
import hushrise.core.level.TrackChange;
import hushrise.core.level.TrackCurve;
import hushrise.core.loudness.GatedLoudness;
import hushrise.core.loudness.LoudnessLibrary;
import hushrise.core.loudness.LoudnessSteps;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;

/**
 * How much K-weighted energy each track gives to the mix, in steps of 10 ms of the timeline, after
 * all its levels and whether it is heard or not. Reckoned from the energies of the files: no sample
 * is read. Tracks count as having nothing to do with one another. Immutable.
 */
public final class Energies {

  private static final class Known {
    private final Track track;
    private final EnergySteps steps;

    Known(Track track, EnergySteps steps) {
      this.track = track;
      this.steps = steps;
    }
  }

  /**
   * A stretch of steps.
   *
   * @param from the first
   * @param to the one after the last
   */
  record Steps(int from, int to) {

    boolean overlaps(int otherFrom, int otherTo) {
      return from < otherTo && otherFrom < to;
    }
  }

  private final Project project;
  private final Map<String, Known> tracks;
  private final int count;

  private Energies(Project project, Map<String, Known> tracks, int count) {
    this.project = project;
    this.tracks = tracks;
    this.count = count;
  }

  /** Reckons all tracks of a project. */
  public static Energies of(Project project, LoudnessLibrary library) {
    return new Energies(project, Map.of(), 0).following(project, library);
  }

  /** As {@link #of}, for a changed project; what did not change is taken from these. */
  public Energies following(Project changed, LoudnessLibrary library) {
    int steps = LoudnessSteps.stepsIn(changed.lengthFrames(), changed.sampleRate());
    boolean comparable = steps == count && hasSameSounds(changed);
    Map<String, Known> all = new LinkedHashMap<>();
    for (Track track : changed.tracks()) {
      if (track.kind().sounds()) {
        Optional<Known> known =
            comparable ? Optional.ofNullable(tracks.get(track.id())) : Optional.empty();
        all.put(
            track.id(),
            known
                .map(k -> following(k, track, changed, library))
                .orElseGet(() -> fresh(track, changed, library, steps)));
      }
    }
    return new Energies(changed, all, steps);
  }

  private boolean hasSameSounds(Project changed) {
    return changed.shelf().equals(project.shelf())
        || changed.shelf().stream()
            .allMatch(
                m ->
                    project
                        .media(m.id())
                        .filter(w -> w.file().equals(m.file()) && w.hasSound() == m.hasSound())
                        .isPresent());
  }

  private static Known fresh(Track track, Project project, LoudnessLibrary library, int count) {
    EnergySteps.Change change = EnergySteps.silent(count).change(0, count);
    return new Known(track, filled(change, track, project, library));
  }

  /** Only the stretch in which the track changed is reckoned anew. */
  private static Known following(
      Known known, Track track, Project project, LoudnessLibrary library) {
    Optional<Span> span = TrackChange.between(known.track, track, project.sampleRate());
    if (span.isEmpty()) {
      return known;
    }
    Steps steps = stepsOf(span.get(), project, known.steps.count());
    EnergySteps.Change change = known.steps.change(steps.from(), steps.to());
    return new Known(track, filled(change, track, project, library));
  }

  /** All steps that a span touches, held within the film. */
  private static Steps stepsOf(Span span, Project project, int count) {
    long film = project.lengthFrames();
    int rate = project.sampleRate();
    int from = (int) (Math.min(span.startFrame(), film) * LoudnessSteps.PER_SECOND / rate);
    int to = Math.min(count, LoudnessSteps.stepsIn(Math.min(span.endFrame(), film), rate));
    return new Steps(from, Math.max(from, to));
  }

  /** Where tracks may have other energies than in another version of the project. */
  Steps changedSince(Energies was) {
    Steps all = new Steps(0, count);
    boolean comparable =
        was.count == count
            && was.tracks.keySet().equals(tracks.keySet())
            && was.hasSameSounds(project);
    if (!comparable) {
      return all;
    }
    int from = count;
    int to = 0;
    for (Map.Entry<String, Known> entry : tracks.entrySet()) {
      Known then = was.tracks.get(entry.getKey());
      Known now = entry.getValue();
      if (!then.steps.hasSameEnergies(now.steps)) {
        Steps steps =
            TrackChange.between(then.track, now.track, project.sampleRate())
                .map(span -> stepsOf(span, project, count))
                .orElse(all);
        from = Math.min(from, steps.from());
        to = Math.max(to, steps.to());
      }
    }
    return new Steps(Math.min(from, to), to);
  }

  /** With one track as another version of itself. */
  public Energies with(Track track, LoudnessLibrary library) {
    Map<String, Known> all = new LinkedHashMap<>(tracks);
    all.put(track.id(), fresh(track, project, library, count));
    return new Energies(project, all, count);
  }

  /** Adds a track's energy to the steps that change. */
  private static EnergySteps filled(
      EnergySteps.Change change, Track track, Project project, LoudnessLibrary library) {
    if (track.levelDb() <= Decibels.OFF_DB) {
      return change.done();
    }
    int rate = project.sampleRate();
    long start = LoudnessSteps.frameOf(change.from(), rate);
    long end = LoudnessSteps.frameOf(change.to(), rate);
    TrackCurve curve = TrackCurve.of(track, rate);
    Map<String, ClipEnvelope> envelopes = ClipEnvelope.of(track);
    for (Clip clip : track.clips()) {
      Media media = project.media(clip.mediaId()).orElseThrow();
      if (media.hasSound() && clip.endFrame() > start && clip.startFrame() < end) {
        LoudnessSteps sound = library.steps(media);
        new ClipEnergy(clip, track, envelopes.get(clip.id()), sound, curve, rate).addTo(change);
      }
    }
    return change.done();
  }

  public Project project() {
    return project;
  }

  /** How many steps cover the film. */
  public int count() {
    return count;
  }

  /** A track's energies; silence for a track without sound. */
  public EnergySteps track(String trackId) {
    Known known = tracks.get(trackId);
    return known == null ? EnergySteps.silent(count) : known.steps;
  }

  /** The energies of chosen tracks together. */
  public EnergySteps sum(Predicate<Track> chosen) {
    return sum(chosen, EnergySteps.silent(count), new Steps(0, count));
  }

  /** As an earlier sum, with some of the steps put together anew. */
  EnergySteps sum(Predicate<Track> chosen, EnergySteps before, Steps steps) {
    EnergySteps.Change change = before.change(steps.from(), steps.to());
    for (Track t : project.tracks()) {
      if (chosen.test(t) && tracks.containsKey(t.id())) {
        change.add(tracks.get(t.id()).steps);
      }
    }
    return change.done();
  }

  /** The steps that a span covers, held within the film. */
  public int stepAt(long frame) {
    return Math.clamp(LoudnessSteps.nearestStep(frame, project.sampleRate()), 0, count);
  }

  /** The gated loudness of energies over a span, in LUFS. */
  public double lufs(EnergySteps energy, Span span) {
    int from = stepAt(span.startFrame());
    int to = Math.max(stepAt(span.endFrame()), Math.min(count, from + 1));
    return GatedLoudness.lufs(energy, from, to);
  }

  /** The loudest track over a span that is heard under the voice and has no hush there. */
  public Optional<Track> loudestWithoutHush(Span span) {
    return project.tracks().stream()
        .filter(project.heardTracks().and(Track::isBackground))
        .filter(t -> t.hushes().stream().noneMatch(h -> h.passage().overlaps(span)))
        .filter(t -> Double.isFinite(lufs(track(t.id()), span)))
        .max(Comparator.comparingDouble(t -> lufs(track(t.id()), span)));
  }
}
