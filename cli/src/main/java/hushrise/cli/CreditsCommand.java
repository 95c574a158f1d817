package hushrise.cli;

import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.report.CreditsSheet;
import hushrise.core.report.Report;
import hushrise.core.store.ProjectFile;
import java.nio.file.Path;
import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Tells whom a film owes thanks to. */
@Command(
    name = "credits",
    mixinStandardHelpOptions = true,
    description = {
      "Prints the credits of the music and the effects of a saved project.",
      "",
      "What is noted as one's own work is left out; what nobody has noted is told as a warning."
    })
final class CreditsCommand implements Callable<Integer> {

  private static final class Form {
    @Option(names = "--json", description = "Prints one JSON object instead of text.")
    private boolean json;

    @Option(names = "--markdown", description = "Prints Markdown.")
    private boolean markdown;

    @Option(names = "--vtt", description = "Prints WebVTT: an end title that ends with the film.")
    private boolean vtt;
  }

  @Spec private CommandSpec spec;

  @Parameters(paramLabel = "PROJECT", description = "A project file (.hushrise).")
  private Path projectFile;

  @ArgGroup private Form form = new Form();

  @Override
  public Integer call() {
    Project project = ProjectFile.load(projectFile);
    CreditsSheet sheet = CreditsSheet.of(project);
    String text =
        form.json
            ? json(sheet)
            : form.markdown ? sheet.markdown() : form.vtt ? sheet.webVtt() : sheet.text();
    spec.commandLine().getOut().println(text.stripTrailing());
    for (Media media : sheet.owed()) {
      if (media.credit().isEmpty() || media.credit().isMissingWhatItOwes()) {
        spec.commandLine()
            .getErr()
            .println("Nobody has noted who made %s.".formatted(media.title()));
      }
    }
    return 0;
  }

  private static String json(CreditsSheet sheet) {
    return new Report()
        .put(
            "credits",
            sheet.owed(),
            m ->
                new Report()
                    .put("file", m.title())
                    .put("kind", m.kind().name().toLowerCase(Locale.ROOT))
                    .put("title", m.credit().title())
                    .put("author", m.credit().author())
                    .put("source", m.credit().source())
                    .put("licence", m.credit().licence().words())
                    .put("note", m.credit().note())
                    .put("line", m.credit().line(CreditsSheet.nameOf(m))))
        .json();
  }
}
