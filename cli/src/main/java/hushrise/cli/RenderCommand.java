package hushrise.cli;

import hushrise.core.export.MixExport;
import hushrise.core.export.Outputs;
import hushrise.core.project.Project;
import hushrise.core.report.FilmReport;
import hushrise.core.store.ProjectFile;
import hushrise.media.CacheFolder;
import hushrise.media.Exporter;
import hushrise.media.MediaStore;
import hushrise.media.Order;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Exports a saved project. */
@Command(
    name = "render",
    mixinStandardHelpOptions = true,
    description = "Exports a saved project as a film or a mix, and its stems if wanted.")
final class RenderCommand implements Callable<Integer> {

  @Spec private CommandSpec spec;

  @Parameters(paramLabel = "PROJECT", description = "A project file (.hushrise).")
  private Path projectFile;

  @Mixin private DeliveryOptions delivery;

  @Option(names = "--json", description = "Prints one JSON object instead of text.")
  private boolean json;

  @Override
  public Integer call() {
    delivery.check();
    Project project = ProjectFile.load(projectFile);
    List<Order> orders = delivery.orders(project);
    List<Path> inputs = new ArrayList<>(List.of(projectFile));
    project.shelf().forEach(m -> inputs.add(m.file()));
    Outputs.requireApart(
        inputs, orders.stream().flatMap(o -> Exporter.outputsOf(o).stream()).toList());
    Outputs.requireWritable(orders.stream().map(Order::target).toList());
    MediaStore store = new MediaStore(CacheFolder.ofUser());
    Deliveries made = Deliveries.of(orders, store, new ProgressLine(json));
    made.first()
        .ifPresent(
            delivered -> {
              FilmReport report =
                  new FilmReport(
                      project,
                      orders.getFirst().span(),
                      delivered,
                      List.of(),
                      MixExport.separations(project, store),
                      Optional.empty());
              spec.commandLine().getOut().println(json ? report.json() : report.text());
            });
    return made.finish(spec.commandLine().getErr());
  }
}
