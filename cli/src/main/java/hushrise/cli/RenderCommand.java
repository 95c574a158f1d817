package hushrise.cli;

import hushrise.core.Problem;
import hushrise.core.export.MixExport;
import hushrise.core.export.Outputs;
import hushrise.core.project.Project;
import hushrise.core.project.timeline.Track;
import hushrise.core.store.ProjectFile;
import hushrise.media.CacheFolder;
import hushrise.media.Exporter;
import hushrise.media.FileMixWriter;
import hushrise.media.MediaStore;
import hushrise.media.OutputFormat;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
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
    Map<Track, Path> parts = stems == null ? Map.of() : stemFiles(project);
    List<Path> inputs = new ArrayList<>(List.of(projectFile));
    project.shelf().forEach(m -> inputs.add(m.file()));
    List<Path> outputs = new ArrayList<>(List.of(output));
    outputs.addAll(parts.values());
    Outputs.requireApart(inputs, outputs);
    MediaStore store = new MediaStore(CacheFolder.ofUser());
    ProgressLine progress = new ProgressLine(json);
    Exporter.Result result =
        Exporter.export(project, store, output, format, progress.of("Writing"));
    if (stems != null) {
      writeStems(project, parts, store, progress);
    }
    progress.end();
    FilmReport report =
        new FilmReport(
            output,
            project,
            result,
            List.of(),
            MixExport.separations(project, store),
            Optional.empty());
    spec.commandLine().getOut().println(json ? report.json() : report.text());
    return 0;
  }

  /** Where each stem goes; makes the folder. */
  private Map<Track, Path> stemFiles(Project project) {
    try {
      Files.createDirectories(stems);
    } catch (IOException e) {
      throw new Problem(
          "The folder %s cannot be made: choose another for the stems.".formatted(stems), e);
    }
    Set<String> used = new HashSet<>();
    Map<Track, Path> files = new LinkedHashMap<>();
    for (Track track : project.tracks().stream().filter(project.heardTracks()).toList()) {
      files.put(track, stems.resolve(fileName(track, used)));
    }
    return files;
  }

  private static void writeStems(
      Project project, Map<Track, Path> files, MediaStore store, ProgressLine progress) {
    files.forEach(
        (track, file) -> {
          try (FileMixWriter writer =
              FileMixWriter.ofSound(file, OutputFormat.WAV_24, project.sampleRate())) {
            MixExport.write(
                project,
                store,
                t -> t.id().equals(track.id()),
                writer,
                progress.of("Writing " + track.name()));
          }
        });
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
