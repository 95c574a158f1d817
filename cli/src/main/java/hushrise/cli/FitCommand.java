package hushrise.cli;

import hushrise.core.Problem;
import hushrise.core.export.MixExport;
import hushrise.core.fit.Fits;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Fade;
import hushrise.core.project.timeline.Fit;
import hushrise.core.project.timeline.FitMode;
import hushrise.core.project.timeline.Seam;
import hushrise.core.project.timeline.Track;
import hushrise.core.report.Report;
import hushrise.core.sound.MixWriter;
import hushrise.media.CacheFolder;
import hushrise.media.FileMixWriter;
import hushrise.media.MediaStore;
import hushrise.media.OutputFormat;
import hushrise.media.SongStore;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Brings a piece of music to a length. */
@Command(
    name = "fit",
    mixinStandardHelpOptions = true,
    description = {
      "Brings a piece of music to a length.",
      "",
      "trim cuts it and fades it out; loop repeats it from the place where that is least heard, cuts it"
          + " and fades it out; tailor shortens or extends it inside, so that its own beginning and its"
          + " own ending are kept and the ending falls on the length asked for."
    })
final class FitCommand implements Callable<Integer> {

  private static final double SHORTEST_SECONDS = 1;
  private static final double LONGEST_SECONDS = 6 * 3600;

  @Spec private CommandSpec spec;

  @Parameters(paramLabel = "MUSIC", description = "The piece of music.")
  private Path music;

  @Option(
      names = "--length",
      required = true,
      paramLabel = "SECONDS",
      description = "How long it is to last, 1 to 21600 seconds.")
  private double seconds;

  @Option(
      names = "--to",
      required = true,
      paramLabel = "OUT",
      description = "The file to write: .wav, .flac, .mp3, .m4a or .opus.")
  private Path output;

  @Option(
      names = "--mode",
      paramLabel = "trim|loop|tailor",
      description = "How (default: trim when it is long enough, else loop).")
  private String mode;

  @Option(
      names = "--may-miss",
      paramLabel = "SECONDS",
      description =
          "With tailor: by how much it may end sooner, or be faded out before its own ending, when it"
              + " joins better so (default: 0).")
  private double leewaySeconds;

  @Option(names = "--json", description = "Prints one JSON object instead of text.")
  private boolean json;

  @Override
  public Integer call() {
    require(
        seconds >= SHORTEST_SECONDS && seconds <= LONGEST_SECONDS,
        "--length takes 1 to 21600 seconds, not " + seconds);
    require(
        leewaySeconds >= 0 && leewaySeconds <= seconds / 2,
        "--may-miss takes up to half of the length, not " + leewaySeconds);
    OutputFormat format = OutputFormat.of(output);
    if (format.isFilm()) {
      throw new Problem(
          "%s would be a film: give the fitted music a name in .wav, .flac, .mp3, .m4a or .opus."
              .formatted(output));
    }
    Optional<FitMode> asked = Optional.ofNullable(mode).map(this::modeOf);
    require(
        leewaySeconds == 0 || asked.filter(m -> m == FitMode.TAILOR).isPresent(),
        "--may-miss belongs to --mode tailor");
    CacheFolder cache = CacheFolder.ofUser();
    MediaStore store = new MediaStore(cache);
    SongStore songs = new SongStore(store, cache);
    ProgressLine progress = new ProgressLine(json);
    Media media = store.take(music, MediaKind.MUSIC, progress.of("Reading " + music.getFileName()));
    songs.listen(media, progress.of("Listening to " + music.getFileName()));
    long length = Math.round(seconds * Project.DEFAULT_SAMPLE_RATE);
    FitMode chosen = asked.orElse(songs.lastsUntil(media) >= length ? FitMode.TRIM : FitMode.LOOP);
    if (chosen == FitMode.TRIM && media.lengthFrames() < length) {
      throw new Problem(
          "%s lasts only %.1f s and cannot be trimmed to %.1f s: use --mode loop or tailor."
              .formatted(music, media.lengthFrames() / 48_000.0, seconds));
    }
    Clip clip = fitted(media, chosen, length, songs);
    Project project =
        Project.empty(media.title())
            .withMedia(media)
            .withTracks(List.of(Track.of(TrackKind.MUSIC, "Music", List.of(clip))));
    MixExport.requireNoInput(project, output);
    try (MixWriter writer = FileMixWriter.ofSound(output, format, Project.DEFAULT_SAMPLE_RATE)) {
      MixExport.write(project, store, writer, progress.of("Writing"));
    }
    progress.end();
    spec.commandLine().getOut().println(json ? json(project, clip, chosen) : text(project, clip));
    return 0;
  }

  private Clip fitted(Media media, FitMode mode, long length, SongStore songs) {
    long leeway = Math.round(leewaySeconds * Project.DEFAULT_SAMPLE_RATE);
    Fit fit = Fit.of(mode, 0).withUntilFrame(Optional.of(length)).withLeeway(leeway);
    Clip fitted =
        Fits.fitted(
            Clip.whole(media, 0).withFit(Optional.of(fit)),
            media,
            songs,
            length,
            Project.DEFAULT_SAMPLE_RATE);
    long usual =
        Math.round(Math.min(Fits.FADE_OUT_SECONDS * Project.DEFAULT_SAMPLE_RATE, length / 3.0));
    return mode == FitMode.TAILOR ? fitted : fitted.withFadeOut(Fade.ofLength(usual));
  }

  private FitMode modeOf(String word) {
    try {
      return FitMode.valueOf(word.toUpperCase(Locale.ROOT));
    } catch (IllegalArgumentException e) {
      throw new CommandLine.ParameterException(
          spec.commandLine(), "--mode takes trim, loop or tailor, not " + word, e);
    }
  }

  private void require(boolean fine, String message) {
    if (!fine) {
      throw new CommandLine.ParameterException(spec.commandLine(), message);
    }
  }

  private String json(Project project, Clip clip, FitMode mode) {
    return new Report()
        .put("output", output.toString())
        .put("durationSeconds", project.seconds(project.lengthFrames()))
        .put("mode", mode.name().toLowerCase(Locale.ROOT))
        .put(
            "seams",
            clip.seams(),
            s ->
                new Report()
                    .put("atSeconds", project.seconds(clip.startFrame() + s.atFrame()))
                    .put("fromSeconds", project.seconds(s.fromFrame()))
                    .put("toSeconds", project.seconds(s.toFrame()))
                    .put("score", s.score()))
        .json();
  }

  private String text(Project project, Clip clip) {
    StringBuilder text = new StringBuilder();
    text.append("%s: %.2f s".formatted(output, project.seconds(project.lengthFrames())));
    if (clip.startFrame() > 0) {
      text.append(", the first note after %.2f s".formatted(project.seconds(clip.startFrame())));
    }
    for (Seam seam : clip.seams()) {
      text.append(
          "%n%8.2f s  from %.2f s to %.2f s of the music, score %.2f"
              .formatted(
                  project.seconds(clip.startFrame() + seam.atFrame()),
                  project.seconds(seam.fromFrame()),
                  project.seconds(seam.toFrame()),
                  seam.score()));
    }
    return text.toString();
  }
}
