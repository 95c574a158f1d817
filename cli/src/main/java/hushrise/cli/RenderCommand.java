package hushrise.cli;

import hushrise.core.Problem;
import hushrise.core.deliver.Delivery;
import hushrise.core.project.Project;
import hushrise.core.project.Track;
import hushrise.core.store.ProjectFile;
import hushrise.media.CacheFolder;
import hushrise.media.Deliverer;
import hushrise.media.FileMixWriter;
import hushrise.media.MediaStore;
import hushrise.media.OutputFormat;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Delivers a saved project. */
@Command(
    name = "render",
    mixinStandardHelpOptions = true,
    description = "Delivers a saved project as a film or a mix, and its stems if wanted.")
final class RenderCommand implements Callable<Integer> {

  @Spec private CommandSpec spec;

  @Parameters(paramLabel = "PROJECT", description = "A project file (.hushrise).")
  private Path projectFile;

  @Option(
      names = "--to",
      required = true,
      paramLabel = "OUT",
      description =
          "The file to write; its ending says what: .mp4, .mov, .mkv, .webm, .wav, .flac, .mp3, .m4a, .opus.")
  private Path output;

  @Option(
      names = "--stems",
      paramLabel = "DIR",
      description =
          "Also writes each track that is heard as a 24-bit WAV of the film's length into this folder.")
  private Path stems;

  @Option(names = "--json", description = "Prints one JSON object instead of text.")
  private boolean json;

  @Override
  public Integer call() {
    OutputFormat format = OutputFormat.of(output);
    Project project = ProjectFile.load(projectFile);
    if (projectFile.toAbsolutePath().normalize().equals(output.toAbsolutePath().normalize())) {
      throw new Problem("%s is the project itself: choose another name.".formatted(output));
    }
    MediaStore store = new MediaStore(CacheFolder.ofUser());
    ProgressLine progress = new ProgressLine(json);
    Deliverer.Result result =
        Deliverer.deliver(project, store, output, format, progress.of("Writing"));
    if (stems != null) {
      writeStems(project, store, progress);
    }
    progress.end();
    FilmReport report =
        new FilmReport(
            output,
            project,
            result,
            List.of(),
            Delivery.separations(project, store),
            Optional.empty());
    spec.commandLine().getOut().println(json ? report.json() : report.text());
    return 0;
  }

  private void writeStems(Project project, MediaStore store, ProgressLine progress) {
    try {
      Files.createDirectories(stems);
    } catch (IOException e) {
      throw new Problem(
          "The folder %s cannot be made: choose another for the stems.".formatted(stems), e);
    }
    Set<String> used = new HashSet<>();
    for (Track track : project.tracks().stream().filter(project.heardTracks()).toList()) {
      Path file = stems.resolve(fileName(track, used));
      Delivery.requireNoInput(project, file);
      try (FileMixWriter writer =
          FileMixWriter.ofSound(file, OutputFormat.WAV_24, project.sampleRate())) {
        Delivery.write(
            project,
            store,
            t -> t.id().equals(track.id()),
            writer,
            progress.of("Writing " + track.name()));
      }
    }
  }

  private static String fileName(Track track, Set<String> used) {
    String plain = track.name().toLowerCase(Locale.ROOT).replaceAll("[^\\p{L}\\p{N}]+", "-");
    String name = plain;
    for (int n = 2; !used.add(name); n++) {
      name = plain + "-" + n;
    }
    return name + ".wav";
  }
}
