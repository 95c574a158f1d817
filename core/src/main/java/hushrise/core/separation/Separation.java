package hushrise.core.separation;

import hushrise.core.loudness.GatedLoudness;
import hushrise.core.project.Project;
import hushrise.core.project.Track;
import hushrise.core.speech.Passages;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

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

  private final float[] values;
  private final List<PassageLoudness> passages;
  private final double wantedLu;

  private Separation(float[] values, List<PassageLoudness> passages, double wantedLu) {
    this.values = values;
    this.passages = passages;
    this.wantedLu = wantedLu;
  }

  /** Reckons a project's separation from its tracks' energies. */
  public static Separation of(Energies energies, double wantedLu) {
    Project project = energies.project();
    float[] voice = energies.sum(project.heardTracks().and(Track::isVoice));
    float[] background = energies.sum(project.heardTracks().and(Track::isBackground));
    float[] values = new float[energies.count() / STEPS + 1];
    Arrays.fill(values, Float.NaN);
    List<PassageLoudness> passages = new ArrayList<>();
    for (Span span : Passages.of(project)) {
      double loudness = energies.lufs(voice, span);
      passages.add(new PassageLoudness(span, loudness, energies.lufs(background, span)));
      int from = energies.stepAt(span.startFrame());
      int to = energies.stepAt(span.endFrame());
      for (int at = from / STEPS; at * STEPS < to; at++) {
        int middle = at * STEPS + STEPS / 2;
        int first = Math.max(from, middle - HALF_WINDOW);
        int last = Math.min(to, middle + HALF_WINDOW);
        double heard = GatedLoudness.lufs(mean(voice, first, last));
        if (last > first && heard >= loudness - PAUSE_LU) {
          values[at] = (float) (heard - GatedLoudness.lufs(mean(background, first, last)));
        }
      }
    }
    return new Separation(values, List.copyOf(passages), wantedLu);
  }

  private static double mean(float[] energy, int from, int to) {
    double sum = 0;
    for (int i = from; i < to; i++) {
      sum += energy[i];
    }
    return sum / Math.max(1, to - from);
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
