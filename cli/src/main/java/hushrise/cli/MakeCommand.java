package hushrise.cli;

import hushrise.core.export.Delivered;
import hushrise.core.export.MixExport;
import hushrise.core.export.Outputs;
import hushrise.core.loudness.FilmLoudness;
import hushrise.core.make.FilmMaker;
import hushrise.core.make.FilmPlan;
import hushrise.core.project.Project;
import hushrise.core.project.level.HushRule;
import hushrise.core.project.level.HushRule.RiseRule;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.report.FilmReport;
import hushrise.core.separation.Energies;
import hushrise.core.separation.PassageLoudness;
import hushrise.core.sound.Progress;
import hushrise.core.speech.Passages;
import hushrise.core.store.ProjectFile;
import hushrise.core.time.Span;
import hushrise.media.CacheFolder;
import hushrise.media.MediaStore;
import hushrise.media.Order;
import hushrise.media.SongStore;
import hushrise.media.SpeechStore;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalLong;
import java.util.concurrent.Callable;
import picocli.CommandLine;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** From raw files to a finished film, or sound without a picture, in one go. */
@Command(
    name = "make",
    mixinStandardHelpOptions = true,
    description = {
      "Makes a film from a picture, narration and music, or a podcast from narration and music.",
      "",
      "The music is cut or repeated to the film's length and faded; wherever somebody speaks it is"
          + " hushed so far that the voice stands clear of everything under it. A narration that is quiet"
          + " (under -26 LUFS) is raised to -20, and music that is more than 6 LU louder than the voice where"
          + " nobody speaks is brought down to it. The picture is copied, not re-encoded, whenever the output"
          + " takes it."
    })
final class MakeCommand implements Callable<Integer> {

  private static final String LENGTH_OF_FILM =
      "--length is for sound alone or a still picture: a film is as long as its picture";

  @Spec private CommandSpec spec;

  /** One film, or each of a folder; without either, sound alone is made. */
  private static final class Films {
    @Option(
        names = "--picture",
        required = true,
        paramLabel = "FILM",
        description =
            "The film's picture, or a still one that is shown all the time. Without one, sound alone is made.")
    private Path picture;

    @Option(
        names = "--each",
        required = true,
        paramLabel = "FOLDER",
        description =
            "Makes each film of a folder, with the narration there whose name begins as its own does, and"
                + " writes them into the folder that --to names. With --json it prints a line for each.")
    private Path folder;
  }

  @ArgGroup private Films films = new Films();

  @Option(
      names = "--length",
      paramLabel = "S",
      description =
          "Without a moving picture: how long it is, in seconds (default: until the music has faded after the"
              + " last take).")
  private Double length;

  @Option(
      names = "--voice",
      paramLabel = "FILE[@SECONDS]",
      converter = PlacedFile.Converter.class,
      description =
          "A narration take and when it starts; without a time it follows the take before it. May be given"
              + " many times. Without any, the picture's own sound is the voice.")
  private List<PlacedFile> voices = List.of();

  @Option(
      names = "--music",
      required = true,
      paramLabel = "FILE[@SECONDS]",
      converter = PlacedFile.Converter.class,
      description =
          "Background music and when it starts. Given more than once, the pieces follow one another, as loud"
              + " as the first.")
  private List<PlacedFile> music = List.of();

  @Option(
      names = "--effects",
      paramLabel = "FILE@SECONDS",
      converter = PlacedFile.NeedsPlace.class,
      description = "A sound effect and when it starts.")
  private List<PlacedFile> effects = List.of();

  @Mixin private DeliveryOptions delivery;

  @Option(
      names = "--save",
      paramLabel = "PROJECT",
      description = "Also saves the project, to go on with in the window.")
  private Path save;

  @Option(
      names = "--under",
      paramLabel = "LU",
      description =
          "How far everything else is to lie under the voice, 0 to 40 (default: ${DEFAULT-VALUE}).")
  private double under = HushRule.MUSIC_LU;

  @Option(
      names = "--fade-in",
      paramLabel = "S",
      description = "The music's fade-in in seconds (default: 2).")
  private Double fadeIn;

  @Option(
      names = "--fade-out",
      paramLabel = "S",
      description = "The music's fade-out in seconds (default: 4).")
  private Double fadeOut;

  @Option(
      names = "--rise",
      paramLabel = "DB|voice",
      arity = "0..1",
      fallbackValue = "voice",
      description =
          "Swells the music where nobody speaks for four seconds or more: by so many dB (0 to 12), or, with"
              + " 'voice' or nothing, up to 6 dB and no louder than the voice.")
  private String rise;

  @Option(names = "--json", description = "Prints one JSON object instead of text.")
  private boolean json;

  @Override
  public Integer call() {
    checkUsage();
    CacheFolder cache = CacheFolder.ofUser();
    MediaStore store = new MediaStore(cache);
    Tools tools =
        new Tools(
            store,
            new SongStore(store, cache),
            new SpeechStore(store, cache),
            new ProgressLine(json));
    if (films.folder != null) {
      return new EachFilm(films.folder, delivery, json, spec.commandLine())
          .make(
              (film, voices, output) ->
                  makeOne(Optional.of(film), voices, List.of(output), tools.quiet()));
    }
    Made made = makeOne(Optional.ofNullable(films.picture), voices, delivery.outputs(), tools);
    made.report().ifPresent(this::tell);
    return made.deliveries().finish(spec.commandLine().getErr());
  }

  /** What a film is made with. */
  private record Tools(
      MediaStore store, SongStore songs, SpeechStore speech, ProgressLine progress) {

    Tools quiet() {
      return new Tools(store, songs, speech, new ProgressLine(true));
    }
  }

  /**
   * What was made.
   *
   * @param report of the first file; empty when it failed
   */
  record Made(Optional<FilmReport> report, Deliveries deliveries) {}

  private Made makeOne(
      Optional<Path> picture, List<PlacedFile> voices, List<Path> outputs, Tools tools) {
    refuseInputAsOutput(picture, voices, outputs);
    MediaStore store = tools.store();
    FilmPlan plan = plan(picture, voices, tools);
    plan.music().parallelStream()
        .map(FilmPlan.Placed::media)
        .forEach(
            song ->
                tools.songs().listen(song, tools.progress().of("Listening to " + song.title())));
    Project hushed =
        new FilmMaker(plan, store, store, tools.songs())
            .make(nameOf(save == null ? outputs.getFirst() : save));
    Project project = withinPeak(hushed, store);
    List<Order> orders = delivery.orders(project, outputs);
    Deliveries made = Deliveries.of(orders, store, tools.progress());
    if (save != null) {
      ProjectFile.save(project, save);
    }
    return new Made(made.first().map(d -> report(project, orders.getFirst(), d, store)), made);
  }

  /** Where no loudness is asked for, the mix is lowered until its peaks lie under the ceiling. */
  private Project withinPeak(Project project, MediaStore store) {
    return delivery.asksForLoudness()
        ? project
        : FilmMaker.withinPeak(
            project, FilmLoudness.of(project, store, Progress.NONE).truePeakDbtp());
  }

  private FilmReport report(Project project, Order order, Delivered delivered, MediaStore store) {
    List<PassageLoudness> before =
        PassageLoudness.measure(
            project.withEachTrack(t -> t.withHushes(List.of())), store, Passages.of(project));
    return new FilmReport(
        project,
        order.span(),
        delivered,
        before,
        MixExport.separations(project, store),
        Optional.of(new FilmReport.Wanted(under, Energies.of(project, store))));
  }

  private void tell(FilmReport report) {
    spec.commandLine().getOut().println(json ? report.json() : report.text());
    if (json) {
      report.missed().forEach(spec.commandLine().getErr()::println);
      report.misplaced().forEach(spec.commandLine().getErr()::println);
    }
  }

  private void checkUsage() {
    if (films.folder == null) {
      delivery.check();
    } else {
      delivery.checkFolder();
      require(save == null, "--save belongs to one film");
      require(voices.isEmpty(), "--each finds the narration by its name: leave --voice away");
    }
    requireLengthWithoutPicture();
    require(under >= 0 && under <= 40, "--under takes 0 to 40 LU, not " + under);
    rises();
    require(fadeIn == null || fadeIn >= 0, "--fade-in takes 0 seconds or more");
    require(fadeOut == null || fadeOut >= 0, "--fade-out takes 0 seconds or more");
  }

  private void requireLengthWithoutPicture() {
    boolean noPicture = films.picture == null && films.folder == null;
    require(films.folder == null || length == null, LENGTH_OF_FILM);
    require(length == null || length > 0, "--length takes more than 0 seconds");
    require(
        !noPicture || !voices.isEmpty(),
        "give the film with --picture; for a podcast, the narration with --voice");
    if (noPicture) {
      delivery.requireSoundAlone();
    }
  }

  private void require(boolean fine, String message) {
    if (!fine) {
      throw new CommandLine.ParameterException(spec.commandLine(), message);
    }
  }

  private void refuseInputAsOutput(
      Optional<Path> picture, List<PlacedFile> voices, List<Path> exports) {
    List<Path> inputs = new ArrayList<>(picture.stream().toList());
    List.of(voices, music, effects).forEach(list -> list.forEach(p -> inputs.add(p.file())));
    List<Path> outputs = new ArrayList<>(exports);
    if (save != null) {
      outputs.add(save);
    }
    Outputs.requireApart(inputs, outputs);
    Outputs.requireWritable(outputs);
  }

  private FilmPlan plan(Optional<Path> picture, List<PlacedFile> voices, Tools tools) {
    MediaStore store = tools.store();
    ProgressLine progress = tools.progress();
    Optional<Media> film =
        picture
            .map(file -> seen(file, store, progress.of("Reading " + file.getFileName())))
            .map(seen -> voices.isEmpty() && seen.hasSound() ? listenedTo(seen, tools) : seen);
    if (voices.isEmpty()) {
      film.filter(Media::hasSound).ifPresent(this::tellWithoutSpeech);
    }
    return FilmPlan.of(film, takes(voices, tools), placed(store, music, MediaKind.MUSIC, progress))
        .withEffects(placed(store, effects, MediaKind.EFFECT, progress))
        .withSeparationLu(under)
        .withFadeInSeconds(optional(fadeIn))
        .withFadeOutSeconds(optional(fadeOut))
        .withRises(rises())
        .withEndFrame(
            length == null
                ? OptionalLong.empty()
                : OptionalLong.of(Math.round(length * Project.DEFAULT_SAMPLE_RATE)));
  }

  private Media seen(Path file, MediaStore store, Progress progress) {
    require(length == null || store.guessKind(file, progress) == MediaKind.STILL, LENGTH_OF_FILM);
    return store.take(file, MediaKind.PICTURE, progress);
  }

  private Optional<RiseRule> rises() {
    if (rise == null) {
      return Optional.empty();
    }
    if (rise.equals("voice")) {
      return Optional.of(RiseRule.USUAL);
    }
    double db = rise.matches("\\d{1,2}(\\.\\d+)?") ? Double.parseDouble(rise) : -1;
    require(db >= 0 && db <= 12, "--rise takes 0 to 12 dB or 'voice', not " + rise);
    return Optional.of(RiseRule.of(db));
  }

  private List<FilmPlan.Placed> takes(List<PlacedFile> voices, Tools tools) {
    List<FilmPlan.Placed> takes =
        placed(tools.store(), voices, MediaKind.VOICE, tools.progress()).parallelStream()
            .map(p -> new FilmPlan.Placed(listenedTo(p.media(), tools), p.atFrame()))
            .toList();
    takes.forEach(p -> tellWithoutSpeech(p.media()));
    return takes;
  }

  /** A take with its passages; where no speech is found, the whole of it counts as one. */
  private static Media listenedTo(Media take, Tools tools) {
    List<Span> spans =
        tools.speech().listen(take, tools.progress().of("Listening to " + take.title()));
    return take.withSpeech(Optional.of(spans).filter(found -> !found.isEmpty()));
  }

  private void tellWithoutSpeech(Media take) {
    if (take.speech().isEmpty()) {
      spec.commandLine()
          .getErr()
          .printf(
              "No speech was found in %s: the whole of it counts as one passage.%n", take.file());
    }
  }

  private static OptionalDouble optional(Double value) {
    return value == null ? OptionalDouble.empty() : OptionalDouble.of(value);
  }

  private static List<FilmPlan.Placed> placed(
      MediaStore store, List<PlacedFile> files, MediaKind kind, ProgressLine line) {
    return files.parallelStream().map(file -> placed(store, file, kind, line)).toList();
  }

  private static FilmPlan.Placed placed(
      MediaStore store, PlacedFile file, MediaKind kind, ProgressLine line) {
    Progress progress = line.of("Reading " + file.file().getFileName());
    OptionalLong at =
        file.atSeconds().isEmpty()
            ? OptionalLong.empty()
            : OptionalLong.of(
                Math.round(file.atSeconds().getAsDouble() * Project.DEFAULT_SAMPLE_RATE));
    return new FilmPlan.Placed(store.take(file.file(), kind, progress), at);
  }

  private static String nameOf(Path file) {
    String name = String.valueOf(file.getFileName());
    int dot = name.lastIndexOf('.');
    return dot > 0 ? name.substring(0, dot) : name;
  }
}
