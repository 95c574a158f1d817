package hushrise.cli;

import hushrise.core.Problem;
import hushrise.core.exchange.Otio;
import hushrise.core.exchange.OtioReader;
import hushrise.core.exchange.Tables;
import hushrise.core.export.Outputs;
import hushrise.core.loudness.FilmLoudness;
import hushrise.core.project.Project;
import hushrise.core.speech.Passages;
import hushrise.core.speech.WebVtt;
import hushrise.core.store.AtomicFile;
import hushrise.core.store.ProjectFile;
import hushrise.media.CacheFolder;
import hushrise.media.MediaStore;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Between projects and what other programs read. */
@Command(
    name = "exchange",
    mixinStandardHelpOptions = true,
    description = {
      "Turns a project or an OpenTimelineIO timeline into another form, told by the ending of --to:",
      "  .otio      tracks, clips, gaps, transitions and markers; all else comes back from it too",
      "  .hushrise  a project",
      "  .csv       the keyframes of its level lines, or its loudness with --loudness",
      "  .vtt       where somebody speaks"
    })
final class ExchangeCommand implements Callable<Integer> {

  @Spec private CommandSpec spec;

  @Parameters(paramLabel = "IN", description = "A project (.hushrise) or a timeline (.otio).")
  private Path input;

  @Option(
      names = "--to",
      required = true,
      paramLabel = "OUT",
      description = "The file to write: .otio, .hushrise, .csv or .vtt.")
  private Path output;

  @Option(
      names = "--loudness",
      description = "With .csv: momentary and short-term loudness instead of level lines.")
  private boolean loudness;

  @Override
  public Integer call() {
    Outputs.requireApart(List.of(input), List.of(output));
    String ending = ending(output);
    if (!List.of("otio", "hushrise", "csv", "vtt").contains(ending)) {
      throw new Problem(
          "%s does not say what to write: end its name in .otio, .hushrise, .csv or .vtt."
              .formatted(output));
    }
    ProgressLine progress = new ProgressLine(false);
    MediaStore store = new MediaStore(CacheFolder.ofUser());
    Project project = read(store, progress);
    switch (ending) {
      case "otio" -> Otio.write(project, output);
      case "hushrise" -> ProjectFile.save(project, output);
      case "csv" ->
          write(
              loudness
                  ? Tables.loudness(FilmLoudness.of(project, store, progress.of("Measuring")))
                  : Tables.levels(project));
      default -> write(WebVtt.write(Passages.of(project), project.sampleRate()));
    }
    progress.end();
    spec.commandLine().getOut().println("%s is written.".formatted(output));
    return 0;
  }

  private Project read(MediaStore store, ProgressLine progress) {
    return switch (ending(input)) {
      case "hushrise" -> ProjectFile.load(input);
      case "otio" -> timeline(store, progress);
      default ->
          throw new Problem(
              "%s can be neither project nor timeline: choose a .hushrise or an .otio file."
                  .formatted(input));
    };
  }

  /** A timeline's project; what could not be taken over is said beside the result. */
  private Project timeline(MediaStore store, ProgressLine progress) {
    OtioReader.Reading reading = OtioReader.read(input, store, progress.of("Reading"));
    progress.end();
    reading.losses().forEach(spec.commandLine().getErr()::println);
    return reading.project();
  }

  private void write(String text) {
    AtomicFile.write(output, text);
  }

  private static String ending(Path file) {
    String name = String.valueOf(file.getFileName()).toLowerCase(Locale.ROOT);
    return name.substring(name.lastIndexOf('.') + 1);
  }
}
