package hushrise.cli;

import hushrise.core.loudness.LoudnessGoal;
import hushrise.core.project.Project;
import hushrise.core.report.ReportFile;
import hushrise.core.time.Span;
import hushrise.media.Order;
import hushrise.media.OutputFormat;
import hushrise.media.Preset;
import hushrise.media.Presets;
import hushrise.media.SoundCoding;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import picocli.CommandLine;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** What an export is to be, as make and render take it alike. */
final class DeliveryOptions {

  @Spec(Spec.Target.MIXEE)
  private CommandSpec spec;

  @Option(
      names = "--to",
      required = true,
      arity = "1..*",
      paramLabel = "OUT",
      description = {
        "The file to write, or several: .mp4, .mov, .mkv or .webm for a film; .wav, .aiff, .flac, .mp3, .m4a,"
            + " .opus or .ogg for its sound alone."
      })
  private List<Path> outputs;

  @Option(
      names = "--range",
      paramLabel = "FROM-TO",
      description = "Only a part, in seconds, such as 12.5-80.")
  private String range;

  @Option(
      names = "--loudness",
      paramLabel = "LUFS",
      description = "Brings the integrated loudness to a number, -60 to -5, such as -16.")
  private Double lufs;

  @Option(
      names = "--ceiling",
      paramLabel = "DBTP",
      description =
          "Above which no true peak may lie in the file, decoded, -20 to 0 (default: -1).")
  private Double ceiling;

  @Option(
      names = "--most-limiting",
      paramLabel = "DB",
      description = "By how much peaks may be held down for the loudness, 0 to 20 (default: 6).")
  private Double mostLimiting;

  @Option(
      names = "--preset",
      paramLabel = "NAME",
      description =
          "What a place usually asks for: web-video, podcast, broadcast, phone, archive, or one that you have"
              + " kept. The other options change its numbers.")
  private String preset;

  @Option(
      names = "--sound",
      paramLabel = "CODING",
      description = "How the sound is coded: aac, opus, flac, alac, mp3, pcm16, pcm24 or float.")
  private String coding;

  @Option(
      names = "--bitrate",
      paramLabel = "KBPS",
      description = "Kilobits per second of the sound, for codings that have them.")
  private Integer kbps;

  @Option(
      names = "--stems",
      paramLabel = "DIR",
      description =
          "Also writes what voice, music, effects and camera give to the mix, each as a WAV of 24 bits (floats where it passes full scale), into this"
              + " folder.")
  private Path stems;

  @Option(
      names = "--report",
      paramLabel = "FILE",
      description =
          "Also tells what was delivered: .html, .txt or .json. May be given several times.")
  private List<Path> reports = List.of();

  @Option(
      names = "--new-sound-only",
      description = "Leaves out further sound tracks that the film has.")
  private boolean newSoundOnly;

  @Option(
      names = "--credits-in-tags",
      description = "Writes the credits into the tags of what is written.")
  private boolean creditsInTags;

  @Option(
      names = "--credits-chapter",
      description = "Ends with a chapter that is named by the credits.")
  private boolean creditsChapter;

  @Option(
      names = "--chapters",
      description =
          "Begins a chapter at each marker, in the place of the film's own; in a WAV: puts a cue point there.")
  private boolean markersAsChapters;

  /** The files that are the exports themselves. */
  List<Path> outputs() {
    return outputs;
  }

  /**
   * Checks everything that can be checked without a project.
   *
   * @throws hushrise.core.Problem when a name does not say what to write
   */
  void check() {
    reports.forEach(ReportFile::requireKnown);
    outputs.forEach(this::formatOf);
    checkNumbers();
    require(
        reports.isEmpty() || outputs.size() == 1,
        "--report tells of one file: give one --to, or export the others by themselves");
  }

  private void checkNumbers() {
    goal();
    spanOf(Project.empty(""));
  }

  /** Refuses films where there is no picture. */
  void requireSoundAlone() {
    for (Path output : outputs) {
      require(
          !formatOf(output).isFilm(),
          "%s would be a film: give its --picture, or write sound such as .mp3 or .wav"
              .formatted(output));
    }
  }

  /** Checks what can be checked when all goes into a folder. */
  void checkFolder() {
    checkNumbers();
    require(
        outputs.size() == 1 && stems == null && reports.isEmpty(),
        "With --each, --to names one folder, and --stems and --report cannot be had.");
  }

  /**
   * What a film's export ends in when all goes into a folder: as the preset says, else as it does.
   */
  String endingFor(Path film) {
    return preset()
        .flatMap(p -> p.film().or(p::sound))
        .map(OutputFormat::ending)
        .orElseGet(
            () -> {
              String name = film.getFileName().toString().toLowerCase(Locale.ROOT);
              return Arrays.stream(OutputFormat.values())
                  .filter(f -> f.isFilm() && name.endsWith("." + f.ending()))
                  .map(OutputFormat::ending)
                  .findFirst()
                  .orElse(OutputFormat.MP4.ending());
            });
  }

  boolean asksForLoudness() {
    return goal().isPresent();
  }

  private Optional<Preset> preset() {
    return Optional.ofNullable(preset).map(Presets.ofUser()::of);
  }

  private OutputFormat formatOf(Path output) {
    Optional<SoundCoding> wanted = Optional.ofNullable(coding).map(this::codingOf);
    OutputFormat format = OutputFormat.of(output, wanted);
    OutputFormat chosen =
        wanted.isPresent() ? format : preset().map(p -> p.formatFor(format)).orElse(format);
    require(
        kbps == null || chosen.coding().takes(kbps),
        chosen.coding().isLossy()
            ? "--bitrate takes %d to %d for %s"
                .formatted(
                    chosen.coding().choices().getFirst(),
                    chosen.coding().choices().getLast(),
                    chosen.coding().word())
            : "--bitrate has no meaning for " + chosen.coding().word());
    return chosen;
  }

  private SoundCoding codingOf(String word) {
    return Arrays.stream(SoundCoding.values())
        .filter(c -> c.word().equals(word.toLowerCase(Locale.ROOT)))
        .findFirst()
        .orElseThrow(
            () ->
                new CommandLine.ParameterException(
                    spec.commandLine(),
                    "--sound takes %s, not %s"
                        .formatted(
                            Arrays.stream(SoundCoding.values())
                                .map(SoundCoding::word)
                                .collect(Collectors.joining(", ")),
                            word)));
  }

  private Optional<LoudnessGoal> goal() {
    Optional<LoudnessGoal> usual = preset().flatMap(Preset::goal);
    require(
        lufs != null || usual.isPresent() || (ceiling == null && mostLimiting == null),
        "--ceiling and --most-limiting belong to --loudness");
    if (lufs == null && usual.isEmpty()) {
      return Optional.empty();
    }
    LoudnessGoal base = usual.orElse(LoudnessGoal.of(-16));
    try {
      return Optional.of(
          new LoudnessGoal(
              lufs == null ? base.lufs() : lufs,
              ceiling == null ? base.ceilingDbtp() : ceiling,
              mostLimiting == null ? base.mostLimitingDb() : mostLimiting));
    } catch (IllegalArgumentException e) {
      throw new CommandLine.ParameterException(
          spec.commandLine(),
          "--loudness takes -60 to -5 LUFS, --ceiling -20 to 0 dBTP, --most-limiting 0 to 20 dB",
          e);
    }
  }

  private Optional<Span> spanOf(Project project) {
    if (range == null) {
      return Optional.empty();
    }
    String[] ends = range.split("-", -1);
    boolean fine =
        ends.length == 2
            && Arrays.stream(ends).allMatch(e -> e.matches("\\d{1,6}(\\.\\d{1,6})?"))
            && Double.parseDouble(ends[0]) < Double.parseDouble(ends[1]);
    require(fine, "--range takes two times in seconds, such as 12.5-80, not " + range);
    return Optional.of(
        new Span(
            project.frames(Double.parseDouble(ends[0])),
            project.frames(Double.parseDouble(ends[1]))));
  }

  private void require(boolean fine, String message) {
    if (!fine) {
      throw new CommandLine.ParameterException(spec.commandLine(), message);
    }
  }

  /** An order for each file; the first one takes the stems and the reports along. */
  List<Order> orders(Project project) {
    return orders(project, outputs);
  }

  /** Likewise, for other files. */
  List<Order> orders(Project project, List<Path> files) {
    List<Order> orders = new ArrayList<>();
    for (Path output : files) {
      OutputFormat format = formatOf(output);
      int rate = kbps == null ? preset().map(p -> p.kbpsFor(format)).orElse(0) : kbps;
      boolean first = orders.isEmpty();
      orders.add(
          Order.of(project, output, format)
              .withKbps(rate)
              .withRange(spanOf(project))
              .withGoal(goal())
              .withStems(first ? Optional.ofNullable(stems) : Optional.empty())
              .withReports(first ? reports : List.of())
              .withKeepsTracks(!newSoundOnly)
              .withCreditsInTags(creditsInTags)
              .withCreditsChapter(creditsChapter)
              .withMarkersAsChapters(markersAsChapters));
    }
    return orders;
  }
}
