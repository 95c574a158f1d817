package hushrise.cli;

import hushrise.core.project.Project;
import hushrise.core.report.Report;
import hushrise.core.store.CollectedZip;
import hushrise.core.store.ProjectCollection;
import hushrise.core.store.ProjectCollection.Collected;
import hushrise.core.store.ProjectFile;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Puts a project and its media in one place. */
@Command(
    name = "collect",
    mixinStandardHelpOptions = true,
    description =
        "Copies a saved project and all its media into one folder or zip that opens elsewhere; a zip is unpacked.")
final class CollectCommand implements Callable<Integer> {

  @Spec private CommandSpec spec;

  @Parameters(
      paramLabel = "PROJECT",
      description = "A project file (.hushrise), or a zip that one was collected into.")
  private Path projectFile;

  @Option(
      names = "--to",
      required = true,
      paramLabel = "FOLDER|FILE.zip",
      description = "A folder that is new or empty, or a file that ends in .zip.")
  private Path target;

  @Option(names = "--json", description = "Prints one JSON object instead of text.")
  private boolean json;

  @Override
  public Integer call() {
    if (CollectedZip.isCalled(projectFile)) {
      unpack();
      return 0;
    }
    Project project = ProjectFile.load(projectFile);
    String name = projectFile.getFileName().toString().replaceFirst("\\.hushrise$", "");
    ProgressLine progress = new ProgressLine(json);
    Collected made = ProjectCollection.collect(project, name, target, progress.of("Collecting"));
    progress.end();
    if (json) {
      spec.commandLine()
          .getOut()
          .println(
              new Report()
                  .put("output", made.target().toString())
                  .put("files", made.files())
                  .put("missing", made.missing())
                  .json());
    } else {
      spec.commandLine()
          .getOut()
          .println(
              "%s: the project and %s"
                  .formatted(
                      made.target(), made.files() == 1 ? "one file" : made.files() + " files"));
    }
    made.missing()
        .forEach(
            m ->
                spec.commandLine()
                    .getErr()
                    .println("%s is not where the project says, and is left out.".formatted(m)));
    return made.missing().isEmpty() ? 0 : 1;
  }

  private void unpack() {
    ProgressLine progress = new ProgressLine(json);
    Path project = CollectedZip.unpack(projectFile, target, progress.of("Unpacking"));
    progress.end();
    spec.commandLine()
        .getOut()
        .println(
            json ? new Report().put("project", project.toString()).json() : project.toString());
  }
}
