package hushrise.media;

import hushrise.core.Problem;
import hushrise.core.edit.PictureRange;
import hushrise.core.export.Delivered;
import hushrise.core.export.MixExport;
import hushrise.core.export.MixExport.Part;
import hushrise.core.export.MixExport.Written;
import hushrise.core.export.Outputs;
import hushrise.core.export.Stems;
import hushrise.core.loudness.FilmLoudness;
import hushrise.core.loudness.LoudnessGoal;
import hushrise.core.loudness.LoudnessPlan;
import hushrise.core.loudness.Mastering;
import hushrise.core.loudness.Measurement;
import hushrise.core.project.Marker;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Track;
import hushrise.core.report.CreditsSheet;
import hushrise.core.report.FilmReport;
import hushrise.core.report.ReportFile;
import hushrise.core.separation.PassageLoudness;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SoundLibrary;
import hushrise.core.time.Span;
import hushrise.media.FileHead.Mark;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Carries out an order: a film or a mix, at the loudness asked for, and its stems.
 *
 * <p>Where a loudness is asked for, the film is measured, the gain is planned, and what was written
 * is decoded and measured again before it takes its place: a codec moves peaks. When it is not what
 * was asked for, it is written once more with the difference taken off.
 */
public final class Exporter {

  private static final Logger LOG = LoggerFactory.getLogger(Exporter.class);

  private static final int TRIES = 4;
  private static final double NEAR_LU = 0.1;

  /** From here on samples lie over full scale, in dB relative to it. */
  private static final double CLIPPED_DB = 0.01;

  /** How much lower peaks are held at first where a codec will move them. */
  private static final double CODEC_MARGIN_DB = 0.4;

  /** What is taken off besides what was too much, so that once is enough. */
  private static final double SPARE_DB = 0.05;

  private static final double MEASURING_SHARE = 0.15;

  private final Order order;
  private final SoundLibrary library;
  private final Progress progress;
  private final Project project;
  private final Span span;
  private final Map<TrackKind, Path> stemFiles;

  /** The film by itself; known when a loudness is asked for. */
  private FilmLoudness film;

  /** By how much the last try was too soft, and its peaks too high. */
  private double missedLu;

  private double overDb;

  private Exporter(Order order, SoundLibrary library, Progress progress) {
    this.order = order;
    this.library = library;
    this.progress = progress;
    project = order.project();
    span = order.span();
    stemFiles = order.stems().map(folder -> stemFiles(project, folder)).orElse(Map.of());
  }

  /**
   * Exports all of a project, as it is.
   *
   * @throws Problem when the output is an input, cannot be written, or needs a picture that is not
   *     there
   */
  public static Delivered export(
      Project project, SoundLibrary library, Path target, OutputFormat format, Progress progress) {
    return export(Order.of(project, target, format), library, progress);
  }

  /**
   * Carries out an order.
   *
   * @throws Problem when an output is an input, cannot be written, needs a picture that is not
   *     there, or when the loudness asked for is out of reach
   */
  public static Delivered export(Order order, SoundLibrary library, Progress progress) {
    Outputs.requireApart(
        order.project().shelf().stream().map(Media::file).toList(), outputsOf(order));
    order.reports().forEach(ReportFile::requireKnown);
    Exporter exporter = new Exporter(order, library, progress);
    Delivered delivered = exporter.export();
    exporter.report(delivered);
    return delivered;
  }

  /** All files that an order will write. */
  public static List<Path> outputsOf(Order order) {
    List<Path> all = new ArrayList<>(List.of(order.target()));
    order.stems().ifPresent(f -> all.addAll(stemFiles(order.project(), f).values()));
    all.addAll(order.reports());
    return all;
  }

  private static Map<TrackKind, Path> stemFiles(Project project, Path folder) {
    Map<TrackKind, Path> files = new EnumMap<>(TrackKind.class);
    for (Track track : project.tracks().stream().filter(project.heardTracks()).toList()) {
      if (track.kind().sounds()) {
        files.put(track.kind(), folder.resolve(Stems.nameOf(track.kind()) + ".wav"));
      }
    }
    return files;
  }

  private Delivered export() {
    if (order.goal().isEmpty()) {
      return write(Mastering.NONE, 0).orElseThrow();
    }
    LoudnessGoal goal = order.goal().get();
    film = FilmLoudness.of(project, library, part -> progress.at(MEASURING_SHARE * part));
    double spareDb = order.format().coding().isLossy() ? CODEC_MARGIN_DB : 0;
    Mastering mastering =
        LoudnessPlan.of(film, span, goal, spareDb, library, part -> progress.at(MEASURING_SHARE))
            .mastering();
    for (int tries = 1; ; tries++) {
      Optional<Delivered> made = write(mastering, tries);
      if (made.isPresent()) {
        return made.get();
      }
      mastering = mastering.moved(missedLu, -Math.max(0, overDb));
    }
  }

  /**
   * Writes everything once.
   *
   * @param tries how many times it has been written, with this one; 0 when it is not measured
   * @return empty when it is not what was asked for and is worth another try
   */
  private Optional<Delivered> write(Mastering mastering, int tries) {
    Optional<LoudnessGoal> goal = order.goal();
    Part part = new Part(project, library, span, mastering);
    double from = goal.isPresent() ? MEASURING_SHARE : 0;
    try (FileMixWriter writer = writer();
        Stems stems = stems(mastering.gainDb())) {
      Written written =
          MixExport.write(part, writer, stems, done -> progress.at(from + (0.9 - from) * done));
      writer.complete();
      Measurement measured =
          goal.isPresent()
              ? FileLoudness.streamed(writer.written(), done -> progress.at(0.9 + 0.1 * done))
              : written.measurement();
      if (goal.isPresent() && !isReached(goal.get(), measured)) {
        LOG.debug("{} is written again: {} LU, {} dB", order.target(), missedLu, overDb);
        if (tries < TRIES) {
          return Optional.empty();
        }
        requireUnder(goal.get());
      }
      boolean copied = writer.copiesPicture();
      List<String> notes = new ArrayList<>(writer.leftOut());
      if (order.format().isFilm() && !copied) {
        notes.addFirst(whyAnew());
      }
      notes.addAll(stems.notes());
      notes.addAll(cutShort());
      clipped(measured).ifPresent(notes::add);
      if (order.markersAsChapters() && marks().isEmpty()) {
        notes.add("No marker lies within what is exported, so that there is no chapter.");
      }
      if (order.creditsChapter() && head().credits().isEmpty()) {
        notes.add("Nothing in the film has credits, so that there is no chapter for them.");
      }
      lostByCutting().ifPresent(notes::addAll);
      stems.finish();
      writer.finish();
      progress.at(1);
      return Optional.of(
          new Delivered(
              goal.isPresent() ? before(mastering, written) : written.measurement(),
              measured,
              goal,
              written.limiterMostDb(),
              project.seconds(written.limitedFrames()),
              copied,
              outputsOf(order),
              notes));
    }
  }

  private Measurement before(Mastering mastering, Written written) {
    double gain = mastering.gainDb();
    return new Measurement(
        written.measurement().durationSeconds(),
        film.integratedLufs(span),
        film.loudnessRangeLu(),
        written.measurement().maxMomentaryLufs() - gain,
        written.measurement().maxShortTermLufs() - gain,
        film.truePeakDbtp(span),
        written.measurement().samplePeakDbfs() - gain);
  }

  private void report(Delivered delivered) {
    if (!order.reports().isEmpty()) {
      List<PassageLoudness> passages = MixExport.separations(project, library);
      FilmReport report =
          new FilmReport(project, span, delivered, List.of(), passages, Optional.empty());
      for (Path file : order.reports()) {
        ReportFile.write(file, report, this::film);
      }
    }
  }

  private FilmLoudness film() {
    return film == null ? FilmLoudness.of(project, library, Progress.NONE) : film;
  }

  private void requireUnder(LoudnessGoal goal) {
    if (overDb > 0) {
      throw new Problem(
          "The peaks of %s cannot be held under %.1f dBTP in this coding: choose a higher bit rate, a lower loudness, or a coding that loses nothing."
              .formatted(order.target(), goal.ceilingDbtp()));
    }
  }

  private boolean isReached(LoudnessGoal goal, Measurement measured) {
    missedLu = goal.lufs() - measured.integratedLufs();
    double over = measured.truePeakDbtp() - goal.ceilingDbtp();
    overDb = over > 0 ? over + SPARE_DB : 0;
    return Math.abs(missedLu) <= NEAR_LU && over <= 0;
  }

  private Stems stems(double gainDb) {
    if (stemFiles.isEmpty()) {
      return Stems.NONE;
    }
    Path folder = order.stems().orElseThrow();
    try {
      Files.createDirectories(folder);
    } catch (IOException e) {
      throw new Problem(
          "The folder %s cannot be made: choose another for the stems.".formatted(folder), e);
    }
    // before the limiter a stem may pass full scale, and floats hold that
    boolean over = film != null && film.truePeakDbtp(span) + gainDb > 0;
    OutputFormat format = over ? OutputFormat.WAV_32_FLOAT : OutputFormat.WAV_24;
    Map<TrackKind, FileMixWriter> writers = new EnumMap<>(TrackKind.class);
    try {
      stemFiles.forEach(
          (kind, file) ->
              writers.put(kind, FileMixWriter.ofSound(file, format, project.sampleRate())));
    } catch (Problem e) {
      writers.values().forEach(FileMixWriter::close);
      throw e;
    }
    return new Stems(project, writers, gainDb, format == OutputFormat.WAV_24);
  }

  private boolean isWholeFilm() {
    return span.startFrame() == 0
        && span.endFrame() == project.lengthFrames()
        && SequenceStretch.isOneWholeFilm(project);
  }

  private Optional<List<String>> lostByCutting() {
    return order.format().isFilm() && !isWholeFilm()
        ? project
            .pictureMedia()
            .filter(m -> Files.isRegularFile(m.file()))
            .filter(m -> m.kind() == MediaKind.PICTURE)
            .map(m -> Companions.lostFrom(m.file()))
        : Optional.empty();
  }

  private FileMixWriter writer() {
    FileHead head = head();
    if (!order.format().isFilm()) {
      return FileMixWriter.ofSound(head, order.format());
    }
    Media film =
        project
            .pictureMedia()
            .orElseThrow(
                () ->
                    new Problem(
                        "%s would be a film, and the project has no picture: add one, or export sound such as .wav."
                            .formatted(order.target())));
    return isWholeFilm()
        ? FileMixWriter.ofFilm(head, order.format(), film.file())
        : FileMixWriter.ofSequence(head, order.format(), PictureRange.of(project, span));
  }

  private FileHead head() {
    List<String> credits = CreditsSheet.of(project).lines();
    return new FileHead(
        order.target(),
        project.seconds(span.lengthFrames()),
        project.sampleRate(),
        order.kbps(),
        Optional.of(project.name()).filter(n -> !n.isBlank()),
        Optional.of(String.join("\n", credits))
            .filter(lines -> order.creditsInTags() && !lines.isBlank()),
        order.keepsTracks(),
        order.markersAsChapters() ? marks() : List.of(),
        Optional.of(String.join("; ", credits))
            .filter(lines -> order.creditsChapter() && !lines.isBlank()));
  }

  /** The markers within what is exported. */
  private List<Mark> marks() {
    return project.markers().stream()
        .filter(m -> m.frame() >= span.startFrame() && m.frame() < span.endFrame())
        .sorted(Comparator.comparingLong(Marker::frame))
        .map(m -> new Mark(project.seconds(m.frame() - span.startFrame()), m.name()))
        .toList();
  }

  /** Why a film's picture is not that of its file, untouched. */
  private String whyAnew() {
    if (project
        .tracksOf(TrackKind.PICTURE)
        .flatMap(t -> t.clips().stream())
        .allMatch(project::isStill)) {
      return "The picture was encoded, as still ones have to be.";
    }
    return isWholeFilm()
        ? "The picture was encoded anew: a .%s file does not take it as it is."
            .formatted(order.format().ending())
        : "The picture was encoded anew, as it is cut or put together.";
  }

  /** What is to be said of files that seem to end before their end. */
  private List<String> cutShort() {
    return project.shelf().stream()
        .filter(m -> m.cutShort() && project.isUsed(m.id()))
        .map(
            m ->
                "%s seems cut short: it holds %.1f s; get it whole from its source, unless that is all you want of it."
                    .formatted(m.title(), project.seconds(m.lengthFrames())))
        .toList();
  }

  /** What passes full scale where nothing was asked to hold it down. */
  private Optional<String> clipped(Measurement measured) {
    boolean holds = order.format().coding() == SoundCoding.PCM_32_FLOAT;
    return holds || measured.samplePeakDbfs() < CLIPPED_DB
        ? Optional.empty()
        : Optional.of(
            "The mix passes full scale by %.1f dB, and that is clipped: ask for a loudness, which holds peaks down, or lower the mix."
                .formatted(measured.samplePeakDbfs()));
  }
}
