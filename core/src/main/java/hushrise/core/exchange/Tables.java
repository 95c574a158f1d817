package hushrise.core.exchange;

import hushrise.core.loudness.FilmLoudness;
import hushrise.core.project.Project;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.timeline.Track;
import java.util.Locale;

/** Figures of a project as CSV (RFC 4180). */
public final class Tables {

  private static final int HOPS_PER_SECOND = 10;

  private Tables() {}

  /** The keyframes of all level lines: track, seconds, level in dB, shape up to the next one. */
  public static String levels(Project project) {
    StringBuilder csv = new StringBuilder("track,seconds,levelDb,shape\r\n");
    for (Track track : project.tracks()) {
      for (Keyframe k : track.line().keyframes()) {
        csv.append(quoted(track.name()))
            .append(
                String.format(
                    Locale.ROOT,
                    ",%.6f,%.3f,%s\r\n",
                    project.seconds(k.frame()),
                    k.levelDb(),
                    k.shape().name().toLowerCase(Locale.ROOT)));
      }
    }
    return csv.toString();
  }

  /** Momentary and short-term loudness every tenth of a second; empty where there is silence. */
  public static String loudness(FilmLoudness film) {
    StringBuilder csv = new StringBuilder("seconds,momentaryLufs,shortTermLufs\r\n");
    for (int hop = 0; hop < film.hops(); hop++) {
      csv.append(
          String.format(
              Locale.ROOT,
              "%.1f,%s,%s\r\n",
              (hop + 1) / (double) HOPS_PER_SECOND,
              number(film.momentaryLufs(hop)),
              number(film.shortTermLufs(hop))));
    }
    return csv.toString();
  }

  private static String number(double lufs) {
    return Double.isFinite(lufs) ? String.format(Locale.ROOT, "%.2f", lufs) : "";
  }

  private static String quoted(String text) {
    return text.matches("[^\",\r\n]*") ? text : "\"" + text.replace("\"", "\"\"") + "\"";
  }
}
