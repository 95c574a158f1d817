package hushrise.core.loudness;

import hushrise.core.Problem;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SoundLibrary;
import hushrise.core.time.Span;
import java.util.Optional;

/**
 * How a film comes to the loudness that is asked for: the gain under which, with the limiter at
 * work, it measures just that. As the limiter takes away loudness of its own, the gain is found by
 * trying; each try measures only the seconds in which it works.
 *
 * @param mastering gain and ceiling
 * @param beforeLufs how loud the film is by itself
 * @param afterLufs how loud it will be
 * @param limitingDb by how much its highest peak is held down for it, at least 0
 */
public record LoudnessPlan(
    Mastering mastering, double beforeLufs, double afterLufs, double limitingDb) {

  private static final int TRIES = 6;
  private static final double NEAR_LU = 0.02;
  private static final double LEAST_LU = 0.05;

  /**
   * A plan for a part of a film.
   *
   * @param spareDb how much lower than the ceiling peaks are held, as the coding will move them
   * @throws Problem when the part is silent, or more limiting would be needed than is allowed: it
   *     says how much, and what can be had
   */
  public static LoudnessPlan of(
      FilmLoudness film,
      Span part,
      LoudnessGoal goal,
      double spareDb,
      SoundLibrary library,
      Progress progress) {
    LoudnessPlan plan = nearest(film, part, goal, spareDb, library, progress);
    if (plan.isShortOf(goal)) {
      LoudnessGoal freely =
          new LoudnessGoal(goal.lufs(), goal.ceilingDbtp(), LoudnessGoal.MOST_LIMITING_DB);
      LoudnessPlan free = nearest(film, part, freely, spareDb, library, progress);
      throw new Problem(
          "%.1f LUFS under %.1f dBTP would need %s%.1f dB of limiting, and %.1f dB are allowed: ask for %.1f LUFS, or allow more."
              .formatted(
                  goal.lufs(),
                  goal.ceilingDbtp(),
                  free.isShortOf(goal) ? "more than " : "",
                  Math.ceil(free.limitingDb() * 10) / 10,
                  goal.mostLimitingDb(),
                  Math.floor(plan.afterLufs() * 10) / 10));
    }
    return plan;
  }

  private boolean isShortOf(LoudnessGoal goal) {
    return goal.lufs() - afterLufs > LEAST_LU;
  }

  /**
   * The plan that comes nearest to a goal without more limiting than is allowed.
   *
   * @param spareDb how much lower than the ceiling peaks are held
   */
  public static LoudnessPlan nearest(
      FilmLoudness film,
      Span part,
      LoudnessGoal goal,
      double spareDb,
      SoundLibrary library,
      Progress progress) {
    double before = film.integratedLufs(part);
    if (!Double.isFinite(before)) {
      throw new Problem(
          "%s is silent and cannot be brought to %.1f LUFS: export it as it is."
              .formatted(film.project().name(), goal.lufs()));
    }
    double held = goal.ceilingDbtp() - spareDb;
    double most = held + goal.mostLimitingDb() - film.truePeakDbtp(part);
    Optional<Double> ceiling = Optional.of(held);
    double gain = Math.min(most, goal.lufs() - before);
    double after = after(film, part, gain, ceiling, library, progress);
    for (int tries = 1; tries < TRIES && Math.abs(goal.lufs() - after) > NEAR_LU; tries++) {
      double next = Math.min(most, gain + goal.lufs() - after);
      if (next == gain) {
        break;
      }
      gain = next;
      after = after(film, part, gain, ceiling, library, progress);
    }
    double limiting = Math.max(0, film.truePeakDbtp(part) + gain - held);
    return new LoudnessPlan(new Mastering(gain, ceiling), before, after, limiting);
  }

  private static double after(
      FilmLoudness film,
      Span part,
      double gainDb,
      Optional<Double> ceiling,
      SoundLibrary library,
      Progress progress) {
    return film.mastered(new Mastering(gainDb, ceiling), library, progress).integratedLufs(part);
  }
}
