package hushrise.core.separation;

import hushrise.core.loudness.GatedLoudness;
import hushrise.core.project.Project;
import hushrise.core.project.timeline.Track;
import hushrise.core.separation.Energies.Steps;
import hushrise.core.speech.Passages;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;

/**
 * How far the voice stands above everything else, as it will be heard: every tenth of a second and
 * passage by passage. Immutable.
 *
 * <p>A value is the momentary loudness (400 ms around it, K-weighted, held within the passage) of
 * the heard voice tracks less that of all other heard tracks. Where nobody speaks, and where a
 * breath within a passage is more than 6 LU under the passage's own loudness, there is no value.
 */
public final class Separation {

  /** Values in a second. */
  public static final int PER_SECOND = 10;

  /** How clear the voice is. */
  public enum State {
    CLEAR,
    TIGHT,
    BURIED
  }

  /** A passage may miss the wanted separation by this much and still count as reaching it. */
  public static final double TOLERANCE_LU = 0.3;

  private static final double TIGHT_LU = 3;
  private static final int STEPS = 10;
  private static final int HALF_WINDOW = 20;
  private static final double PAUSE_LU = 6;

  private final Energies energies;
  private final EnergySteps voice;
  private final EnergySteps background;
  private final float[] values;
  private final List<PassageLoudness> passages;
  private final double wantedLu;

  private Separation(
      Energies energies,
      EnergySteps voice,
      EnergySteps background,
      float[] values,
      List<PassageLoudness> passages,
      double wantedLu) {
    this.energies = energies;
    this.voice = voice;
    this.background = background;
    this.values = values;
    this.passages = passages;
    this.wantedLu = wantedLu;
  }

  /** Reckons a project's separation from its tracks' energies. */
  public static Separation of(Energies energies, double wantedLu) {
    Project project = energies.project();
    EnergySteps voice = energies.sum(project.heardTracks().and(Track::isVoice));
    EnergySteps background = energies.sum(project.heardTracks().and(Track::isBackground));
    Separation nothing = new Separation(energies, voice, background, none(energies), List.of(), 0);
    return nothing.with(energies, voice, background, new Steps(0, energies.count()), wantedLu);
  }

  /** As {@link #of}, for a changed project; what did not change is taken from this. */
  public Separation following(Energies changed, double newWantedLu) {
    Predicate<Track> voices = changed.project().heardTracks().and(Track::isVoice);
    Predicate<Track> rest = changed.project().heardTracks().and(Track::isBackground);
    Steps steps = changed.changedSince(energies);
    boolean comparable =
        changed.count() == energies.count()
            && hears(changed, voices, energies.project().heardTracks().and(Track::isVoice))
            && hears(changed, rest, energies.project().heardTracks().and(Track::isBackground));
    return comparable
        ? with(
            changed,
            changed.sum(voices, voice, steps),
            changed.sum(rest, background, steps),
            steps,
            newWantedLu)
        : of(changed, newWantedLu);
  }

  /** Whether the same tracks are chosen as before. */
  private boolean hears(Energies changed, Predicate<Track> now, Predicate<Track> before) {
    return ids(changed.project(), now).equals(ids(energies.project(), before));
  }

  private static List<String> ids(Project project, Predicate<Track> chosen) {
    return project.tracks().stream().filter(chosen).map(Track::id).toList();
  }

  private static float[] none(Energies energies) {
    float[] values = new float[energies.count() / STEPS + 1];
    Arrays.fill(values, Float.NaN);
    return values;
  }

  /** With passages that lie clear of the changed steps as they were. */
  private Separation with(
      Energies now,
      EnergySteps newVoice,
      EnergySteps newBackground,
      Steps changed,
      double newWantedLu) {
    Map<Span, PassageLoudness> known = new HashMap<>();
    passages.forEach(p -> known.put(p.passage(), p));
    float[] newValues = none(now);
    List<PassageLoudness> all = new ArrayList<>();
    for (Span span : Passages.of(now.project())) {
      int from = now.stepAt(span.startFrame());
      int to = now.stepAt(span.endFrame());
      int firstTenth = tenthFrom(from);
      int lastTenth = tenthFrom(to);
      PassageLoudness before = known.get(span);
      if (before != null && !changed.overlaps(from, to)) {
        all.add(before);
        System.arraycopy(values, firstTenth, newValues, firstTenth, lastTenth - firstTenth);
        continue;
      }
      double loudness = now.lufs(newVoice, span);
      all.add(new PassageLoudness(span, loudness, now.lufs(newBackground, span)));
      for (int at = firstTenth; at < lastTenth; at++) {
        int middle = at * STEPS + STEPS / 2;
        int first = Math.max(from, middle - HALF_WINDOW);
        int last = Math.min(to, middle + HALF_WINDOW);
        double heard = GatedLoudness.lufs(newVoice.mean(first, last));
        if (heard >= loudness - PAUSE_LU) {
          newValues[at] = (float) (heard - GatedLoudness.lufs(newBackground.mean(first, last)));
        }
      }
    }
    return new Separation(now, newVoice, newBackground, newValues, List.copyOf(all), newWantedLu);
  }

  /** The first tenth of a second whose middle lies at a step or after it. */
  private static int tenthFrom(int step) {
    return Math.max(0, Math.ceilDiv(step - STEPS / 2, STEPS));
  }

  /** How many tenths of a second there are. */
  public int count() {
    return values.length;
  }

  /**
   * The separation in LU in a tenth of a second: infinite over silence, not a number where nobody
   * speaks.
   */
  public float at(int tenth) {
    return tenth < 0 || tenth >= values.length ? Float.NaN : values[tenth];
  }

  public double wantedLu() {
    return wantedLu;
  }

  /** All passages, in order of time. */
  public List<PassageLoudness> passages() {
    return passages;
  }

  /** The passage that stands out least; empty without speech. */
  public Optional<PassageLoudness> worst() {
    return passages.stream().min(Comparator.comparingDouble(PassageLoudness::separationLu));
  }

  /** How clear a passage is. */
  public State stateOf(PassageLoudness passage) {
    return state(passage.separationLu(), wantedLu - TOLERANCE_LU, wantedLu - TIGHT_LU);
  }

  /** How clear a moment is. A voice goes up and down, so a moment may fall short by 3 LU more. */
  public State stateOfMoment(double lu) {
    return state(lu, wantedLu - TIGHT_LU, wantedLu - 2 * TIGHT_LU);
  }

  private static State state(double lu, double clear, double tight) {
    return lu >= clear ? State.CLEAR : lu >= tight ? State.TIGHT : State.BURIED;
  }
}
