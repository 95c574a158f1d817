package hushrise.core.report;

import hushrise.core.export.Delivered;
import hushrise.core.loudness.FilmLoudness;
import hushrise.core.loudness.LoudnessGoal;
import hushrise.core.loudness.Measurement;
import hushrise.core.project.Project;
import hushrise.core.separation.PassageLoudness;
import hushrise.core.time.Span;
import java.util.Locale;
import java.util.OptionalDouble;

/**
 * A report as one page of HTML that needs nothing else: the figures, the loudness of the film's
 * every second drawn, and its passages.
 */
final class HtmlReport {

  private static final int WIDTH = 960;
  private static final int HEIGHT = 220;
  private static final double TOP_LUFS = 0;
  private static final double BOTTOM_LUFS = -48;
  private static final int MOST_POINTS = 960;

  private static final String STYLE =
      """
      body{font:15px/1.5 system-ui,sans-serif;max-width:960px;margin:2em auto;padding:0 1em;color:#23302c;background:#fbfaf6}
      h1{font-size:1.4em;margin:0}h2{font-size:1.1em;margin:1.6em 0 .4em}
      table{border-collapse:collapse}td,th{padding:.15em 1em .15em 0;text-align:left;font-variant-numeric:tabular-nums}
      th{font-weight:600;border-bottom:1px solid #b9c2bc}svg{width:100%;height:auto;background:#fff;border:1px solid #d5dbd6}
      """;

  private final FilmReport report;
  private final FilmLoudness film;
  private final StringBuilder page = new StringBuilder();

  private HtmlReport(FilmReport report, FilmLoudness film) {
    this.report = report;
    this.film = film;
  }

  /**
   * The page.
   *
   * @param film the loudness of the project by itself
   */
  static String of(FilmReport report, FilmLoudness film) {
    return new HtmlReport(report, film).page();
  }

  private String page() {
    String name = escaped(report.project().name());
    page.append("<!doctype html><html lang=\"en\"><meta charset=\"utf-8\"><title>")
        .append(name)
        .append("</title><style>")
        .append(STYLE)
        .append("</style><h1>")
        .append(name)
        .append("</h1>");
    figures();
    page.append("<h2>Loudness along the film</h2>");
    history();
    passages();
    seams();
    credits();
    return page.append("</html>\n").toString();
  }

  private void figures() {
    Delivered d = report.delivered();
    Measurement before = d.before();
    Measurement after = d.measurement();
    page.append("<p>");
    d.outputs().forEach(o -> page.append(escaped(String.valueOf(o.getFileName()))).append("<br>"));
    page.append("</p><table><tr><th></th><th>The mix</th><th>Delivered</th></tr>");
    row("Integrated", "LUFS", before.integratedLufs(), after.integratedLufs());
    row("Loudness range", "LU", before.loudnessRangeLu(), after.loudnessRangeLu());
    row("True peak", "dBTP", before.truePeakDbtp(), after.truePeakDbtp());
    page.append("</table><p>");
    d.goal()
        .map(LoudnessGoal::lufs)
        .ifPresent(lufs -> page.append(format("Asked for %.1f LUFS. ", lufs)));
    page.append(
        d.limiterMostDb() > 0
            ? format(
                "The limiter held peaks down by %.1f dB at most, for %.2f s.",
                d.limiterMostDb(), d.limiterActiveSeconds())
            : "No peak was held down.");
    page.append("</p>");
    d.notes().forEach(n -> page.append("<p>").append(escaped(n)).append("</p>"));
  }

  private void row(String name, String unit, double before, double after) {
    page.append(
        format(
            "<tr><td>%s</td><td>%.1f %s</td><td>%.1f %s</td></tr>",
            name, before, unit, after, unit));
  }

  private double x(long frame) {
    Span span = report.span();
    return WIDTH * (frame - span.startFrame()) / (double) Math.max(1, span.lengthFrames());
  }

  private static double y(double lufs) {
    return HEIGHT * (TOP_LUFS - Math.clamp(lufs, BOTTOM_LUFS, TOP_LUFS)) / (TOP_LUFS - BOTTOM_LUFS);
  }

  /**
   * The last three seconds at each place; passages as bands, seams as ticks, the goal as a line.
   */
  private void history() {
    page.append(
        format("<svg viewBox=\"0 0 %d %d\" role=\"img\" aria-label=\"Loudness\">", WIDTH, HEIGHT));
    for (PassageLoudness p : report.after()) {
      double from = x(p.passage().startFrame());
      page.append(
          format(
              "<rect x=\"%.1f\" y=\"0\" width=\"%.1f\" height=\"%d\" fill=\"#e6efe4\"/>",
              from, x(p.passage().endFrame()) - from, HEIGHT));
    }
    for (int lufs = -12; lufs > BOTTOM_LUFS; lufs -= 12) {
      page.append(
          format(
              "<path d=\"M0 %.1fH%d\" stroke=\"#d5dbd6\"/><text x=\"4\" y=\"%.1f\" font-size=\"11\" fill=\"#5a6661\">%d</text>",
              y(lufs), WIDTH, y(lufs) - 3, lufs));
    }
    target()
        .ifPresent(
            lufs ->
                page.append(
                    format(
                        "<path d=\"M0 %.1fH%d\" stroke=\"#8a4b12\" stroke-dasharray=\"6 4\"/>",
                        y(lufs), WIDTH)));
    Project project = report.project();
    int first = (int) (report.span().startFrame() * 10 / project.sampleRate());
    int last = (int) Math.min(film.hops(), report.span().endFrame() * 10 / project.sampleRate());
    double gain =
        report.delivered().measurement().integratedLufs()
            - report.delivered().before().integratedLufs();
    int step = Math.max(1, (last - first) / MOST_POINTS);
    StringBuilder path = new StringBuilder();
    for (int hop = first; hop < last; hop += step) {
      double lufs = film.shortTermLufs(hop) + (Double.isFinite(gain) ? gain : 0);
      path.append(path.isEmpty() ? 'M' : 'L')
          .append(format("%.1f %.1f", x((long) hop * project.sampleRate() / 10), y(lufs)));
    }
    page.append(
        format("<path d=\"%s\" fill=\"none\" stroke=\"#1f5f54\" stroke-width=\"1.5\"/>", path));
    for (FilmReport.PlacedSeam seam : report.seams()) {
      page.append(
          format(
              "<path d=\"M%.1f %dv-10\" stroke=\"#5b3f8c\" stroke-width=\"2\"/>",
              x(seam.frame()), HEIGHT));
    }
    page.append(
        "</svg><p>Loudness over three seconds, in LUFS; shaded where somebody speaks; ticks at the foot where the music is joined.</p>");
  }

  private OptionalDouble target() {
    return report
        .delivered()
        .goal()
        .map(g -> OptionalDouble.of(g.lufs()))
        .orElse(OptionalDouble.empty());
  }

  private void passages() {
    if (report.after().isEmpty()) {
      return;
    }
    page.append(
        "<h2>Passages</h2><table><tr><th>From</th><th>To</th><th>Voice</th><th>Under it</th><th>Separation</th></tr>");
    for (PassageLoudness p : report.after()) {
      page.append(
          format(
              "<tr><td>%.2f s</td><td>%.2f s</td><td>%.1f LUFS</td><td>%.1f LUFS</td><td>%.1f LU</td></tr>",
              seconds(p.passage().startFrame()),
              seconds(p.passage().endFrame()),
              p.voiceLufs(),
              p.backgroundLufs(),
              p.separationLu()));
    }
    page.append("</table>");
  }

  private double seconds(long frame) {
    return report.project().seconds(frame - report.span().startFrame());
  }

  private void seams() {
    if (!report.seams().isEmpty()) {
      page.append("<h2>Joins in the music</h2><table><tr><th>At</th><th>Likeness</th></tr>");
      for (FilmReport.PlacedSeam seam : report.seams()) {
        page.append(
            format(
                "<tr><td>%.2f s</td><td>%.2f</td></tr>",
                seconds(seam.frame()), seam.seam().score()));
      }
      page.append("</table>");
    }
  }

  private void credits() {
    if (!report.credits().isEmpty()) {
      page.append("<h2>Credits</h2><ul>");
      report.credits().forEach(c -> page.append("<li>").append(escaped(c)).append("</li>"));
      page.append("</ul>");
    }
  }

  private static String format(String pattern, Object... values) {
    return String.format(Locale.ROOT, pattern, values);
  }

  private static String escaped(String text) {
    return text.replace("&", "&amp;")
        .replace("<", "&lt;")
        .replace(">", "&gt;")
        .replace("\"", "&quot;");
  }
}
