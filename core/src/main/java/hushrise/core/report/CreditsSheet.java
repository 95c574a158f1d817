package hushrise.core.report;

import hushrise.core.project.Project;
import hushrise.core.project.media.Licence;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.speech.WebVtt;
import java.util.List;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.regex.Pattern;

/**
 * Whom a film owes thanks to: for the music and the effects that lie on its timeline. A person's
 * own narration and pictures owe nobody anything.
 */
public final class CreditsSheet {

  /** How long each line of an end title is shown, in seconds, and all of it at least. */
  private static final double LINE_SECONDS = 1.5;

  private static final double LEAST_SECONDS = 3;

  /** What CommonMark takes for a mark; an underscore within a word is none. */
  private static final Pattern MARKDOWN =
      Pattern.compile("[\\\\*`\\[\\]<~]|(?<![\\p{L}\\p{N}])_|_(?![\\p{L}\\p{N}])");

  private final Project project;

  private CreditsSheet(Project project) {
    this.project = project;
  }

  public static CreditsSheet of(Project project) {
    return new CreditsSheet(project);
  }

  /** What somebody may be owed for: used music and effects, in the order of the Shelf. */
  public List<Media> owed() {
    Set<String> used = project.usedMediaIds();
    return project.shelf().stream().filter(m -> isOwed(m) && used.contains(m.id())).toList();
  }

  /** Whether somebody may be owed for an item of its kind. */
  public static boolean isOwed(Media media) {
    return media.kind() == MediaKind.MUSIC || media.kind() == MediaKind.EFFECT;
  }

  /** The title of a file without its ending. */
  public static String nameOf(Media media) {
    return media.title().replaceFirst("\\.[^.]+$", "");
  }

  private static String line(Media media) {
    return media.credit().line(nameOf(media));
  }

  private boolean isNamed(Media media) {
    return !media.credit().isEmpty() && media.credit().licence() != Licence.OWN;
  }

  /** The lines, without what is one's own or not known. */
  public List<String> lines() {
    return owed().stream().filter(this::isNamed).map(CreditsSheet::line).distinct().toList();
  }

  /** Plain text: music first, then effects, each under its heading. */
  public String text() {
    StringBuilder text = new StringBuilder();
    block(text, MediaKind.MUSIC, "Music", l -> l);
    block(text, MediaKind.EFFECT, "Sound effects", l -> l);
    return text.toString();
  }

  /** Markdown. */
  public String markdown() {
    StringBuilder text = new StringBuilder();
    block(text, MediaKind.MUSIC, "## Music\n", CreditsSheet::item);
    block(text, MediaKind.EFFECT, "## Sound effects\n", CreditsSheet::item);
    return text.toString();
  }

  private void block(
      StringBuilder text, MediaKind kind, String heading, UnaryOperator<String> shown) {
    List<String> lines =
        owed().stream()
            .filter(m -> m.kind() == kind && isNamed(m))
            .map(CreditsSheet::line)
            .distinct()
            .map(shown)
            .toList();
    if (!lines.isEmpty()) {
      text.append(text.isEmpty() ? "" : "\n").append(heading).append('\n');
      lines.forEach(l -> text.append(l).append('\n'));
    }
  }

  /** WebVTT for an end title: one cue that ends with the film. */
  public String webVtt() {
    List<String> lines = lines();
    long end = project.lengthFrames();
    double shown = Math.max(LEAST_SECONDS, LINE_SECONDS * lines.size());
    long start = Math.max(0, end - project.frames(shown));
    int rate = project.sampleRate();
    return lines.isEmpty()
        ? "WEBVTT\n"
        : "WEBVTT\n\n%s --> %s\n%s\n"
            .formatted(
                WebVtt.time(start, rate),
                WebVtt.time(end, rate),
                String.join("\n", lines.stream().map(CreditsSheet::inWebVtt).toList()));
  }

  /** An item of a list in Markdown. */
  private static String item(String line) {
    return "- " + MARKDOWN.matcher(line).replaceAll("\\\\$0");
  }

  /** A line as the text of a WebVTT cue, which knows marks such as those of HTML. */
  private static String inWebVtt(String line) {
    return line.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;");
  }
}
