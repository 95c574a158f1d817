package hushrise.core.report;

import hushrise.core.Problem;
import hushrise.core.loudness.FilmLoudness;
import hushrise.core.store.AtomicFile;
import java.nio.file.Path;
import java.util.Locale;
import java.util.function.Supplier;

/** Writes a report beside what was exported. */
public final class ReportFile {

  private ReportFile() {}

  /**
   * Refuses a name that does not say what to write.
   *
   * @throws Problem for any ending but .json, .txt and .html
   */
  public static void requireKnown(Path file) {
    String name = nameOf(file);
    if (!name.endsWith(".json") && !name.endsWith(".txt") && !name.endsWith(".html")) {
      throw new Problem(
          "%s does not say what report to write: end its name in .html, .txt or .json."
              .formatted(file));
    }
  }

  /**
   * Writes a report as the file's ending says.
   *
   * @param film the loudness of the project by itself, asked for where it is drawn
   * @throws Problem when it cannot be written
   */
  public static void write(Path file, FilmReport report, Supplier<FilmLoudness> film) {
    requireKnown(file);
    String name = nameOf(file);
    String content =
        name.endsWith(".json")
            ? report.json() + "\n"
            : name.endsWith(".txt") ? report.text() + "\n" : HtmlReport.of(report, film.get());
    AtomicFile.write(file, content);
  }

  private static String nameOf(Path file) {
    return String.valueOf(file.getFileName()).toLowerCase(Locale.ROOT);
  }
}
