package hushrise.core.report;

import hushrise.core.export.Delivered;
import hushrise.core.loudness.LoudnessGoal;
import hushrise.core.loudness.Measurement;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Seam;
import hushrise.core.project.timeline.Track;
import hushrise.core.separation.Energies;
import hushrise.core.separation.PassageLoudness;
import hushrise.core.separation.Separation;
import hushrise.core.speech.Passages;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * What is told of an exported film. Its times count from the start of what was exported.
 *
 * @param project what it was made of
 * @param span which part of it
 * @param delivered how it was exported
 * @param before the passages without hushes; empty when that is not told
 * @param after the passages as exported
 * @param wanted the separation that was wanted; empty when none was
 */
public record FilmReport(
    Project project,
    Span span,
    Delivered delivered,
    List<PassageLoudness> before,
    List<PassageLoudness> after,
    Optional<Wanted> wanted) {

  public FilmReport {
    before = before.stream().filter(p -> span.overlaps(p.passage())).toList();
    after = after.stream().filter(p -> span.overlaps(p.passage())).toList();
  }

  /**
   * What a film was made for.
   *
   * @param separationLu how far the voice was to stand above everything else
   * @param energies of the film's tracks, to tell what is in the way
   */
  public record Wanted(double separationLu, Energies energies) {}

  record PlacedSeam(long frame, Seam seam) {}

  /** All of it as one JSON object. */
  public String json() {
    Report report =
        new Report()
            .put("output", delivered.outputs().getFirst().toString())
            .put("durationSeconds", project.seconds(span.lengthFrames()))
            .put("pictureCopied", delivered.pictureCopied())
            .put("passages", after, this::passage)
            .put("hushes", hushes(), this::hush)
            .put("seams", seams(), this::seam)
            .put("integratedLufs", delivered.measurement().integratedLufs())
            .put("truePeakDbtp", delivered.measurement().truePeakDbtp())
            .put("loudness", loudness())
            .put("credits", credits())
            .put("notes", delivered.notes());
    if (delivered.outputs().size() > 1) {
      report.put("outputs", delivered.outputs().stream().map(Object::toString).toList());
    }
    return report.json();
  }

  /** The loudness that was asked for and what came of it; null where none was. */
  private Report loudness() {
    Measurement after = delivered.measurement();
    return new Report()
        .put("targetLufs", delivered.goal().map(LoudnessGoal::lufs).orElse(Double.NaN))
        .put("beforeLufs", delivered.before().integratedLufs())
        .put("afterLufs", after.integratedLufs())
        .put("rangeLu", after.loudnessRangeLu())
        .put("truePeakDbtp", after.truePeakDbtp())
        .put("limiterMaxDb", delivered.limiterMostDb())
        .put("limiterActiveSeconds", delivered.limiterActiveSeconds());
  }

  /** A time of the project in seconds of what was exported. */
  private double at(long frame) {
    return project.seconds(frame - span.startFrame());
  }

  private Report passage(PassageLoudness p) {
    return new Report()
        .put("startSeconds", at(p.passage().startFrame()))
        .put("endSeconds", at(p.passage().endFrame()))
        .put("voiceLufs", p.voiceLufs())
        .put("backgroundLufs", p.backgroundLufs())
        .put("separationLu", p.separationLu());
  }

  private Report hush(Hush hush) {
    Hush.Knots k = hush.knots(project.sampleRate());
    return new Report()
        .put("startSeconds", at(k.start()))
        .put("floorStartSeconds", at(k.floorStart()))
        .put("floorEndSeconds", at(k.floorEnd()))
        .put("endSeconds", at(k.end()))
        .put("depthDb", k.depthDb());
  }

  /** A plain repeat's join is not rated, so its score is null. */
  private Report seam(PlacedSeam placed) {
    double score = placed.seam().score();
    return new Report()
        .put("atSeconds", at(placed.frame()))
        .put("score", score == 0 ? Double.NaN : score);
  }

  /** The credits of the music and the effects, a line each. */
  List<String> credits() {
    return CreditsSheet.of(project).lines();
  }

  private List<Hush> hushes() {
    return project.firstTrack(TrackKind.MUSIC).map(Track::hushes).orElse(List.of()).stream()
        .filter(h -> span.overlaps(h.passage()))
        .toList();
  }

  List<PlacedSeam> seams() {
    List<PlacedSeam> seams = new ArrayList<>();
    for (Track track : project.tracksOf(TrackKind.MUSIC).toList()) {
      for (Clip clip : track.clips()) {
        clip.seams().forEach(s -> seams.add(new PlacedSeam(clip.startFrame() + s.atFrame(), s)));
      }
    }
    seams.removeIf(s -> !span.contains(s.frame()));
    return seams;
  }

  /** All of it as lines of text. */
  public String text() {
    StringBuilder text = new StringBuilder();
    Measurement after = delivered.measurement();
    text.append(
        "%s: %.2f s, %.1f LUFS, true peak %.1f dBTP%n"
            .formatted(
                delivered.outputs().getFirst(),
                project.seconds(span.lengthFrames()),
                after.integratedLufs(),
                after.truePeakDbtp()));
    if (delivered.goal().isPresent()) {
      text.append(loudnessLine());
    }
    if (project.pictureClip().isPresent() && delivered.pictureCopied()) {
      text.append("The picture was copied untouched.%n".formatted());
    }
    delivered.notes().forEach(note -> text.append(note).append(System.lineSeparator()));
    if (project.masterDb() < 0) {
      text.append("The level of the whole mix is %.1f dB.%n".formatted(project.masterDb()));
    }
    project.tracks().stream()
        .filter(t -> t.isBackground() && t.levelDb() != 0 && !t.clips().isEmpty())
        .forEach(
            t -> text.append("The level of %s is %+.1f dB.%n".formatted(t.name(), t.levelDb())));
    project
        .voiceTracks()
        .flatMap(t -> t.clips().stream())
        .filter(c -> c.gainDb() != 0)
        .forEach(
            c ->
                text.append(
                    "The gain of %s is %+.1f dB.%n"
                        .formatted(
                            project.media(c.mediaId()).map(Media::title).orElse(""), c.gainDb())));
    if (!this.after.isEmpty()) {
      text.append("%nPassage               voice      under it   separation%n".formatted());
    }
    for (int i = 0; i < this.after.size(); i++) {
      text.append(passageLine(i)).append(System.lineSeparator());
    }
    for (String credit : credits()) {
      text.append(System.lineSeparator()).append(credit);
    }
    misplaced().forEach(line -> text.append(System.lineSeparator()).append(line));
    return text.toString().stripTrailing();
  }

  private String loudnessLine() {
    String limited =
        delivered.limiterMostDb() > 0
            ? "the limiter held peaks down by %.1f dB at most, for %.2f s"
                .formatted(delivered.limiterMostDb(), delivered.limiterActiveSeconds())
            : "no peak had to be held down";
    return "Brought from %.1f LUFS to the %.1f asked for; %s.%n"
        .formatted(
            delivered.before().integratedLufs(), delivered.goal().orElseThrow().lufs(), limited);
  }

  /** Which narration goes on after the film has ended, or speaks over another: a line each. */
  public List<String> misplaced() {
    List<String> lines = new ArrayList<>();
    for (Passages.Overlap both : Passages.atOnce(project)) {
      if (span.overlaps(both.span())) {
        lines.add(
            "%s and %s both speak at %.1f s: place one of them elsewhere."
                .formatted(
                    title(both.before()), title(both.after()), at(both.span().startFrame())));
      }
    }
    for (Track track : project.voiceTracks().filter(project.heardTracks()).toList()) {
      for (Clip clip : track.clips()) {
        Media media = project.media(clip.mediaId()).orElseThrow();
        Passages.unheard(project, track, clip, media)
            .filter(s -> s.lengthFrames() > project.frames(0.1))
            .ifPresent(
                s ->
                    lines.add(
                        "%s goes on for %.1f s after the picture has ended, and that is not heard: place it earlier."
                            .formatted(media.title(), project.seconds(s.lengthFrames()))));
      }
    }
    return lines;
  }

  private String title(Passages.Passage passage) {
    return project
        .clip(passage.clipId())
        .flatMap(c -> project.media(c.mediaId()))
        .map(Media::title)
        .orElse("");
  }

  private String passageLine(int index) {
    PassageLoudness p = after.get(index);
    String was = before.isEmpty() ? "" : " (was %.1f)".formatted(before.get(index).separationLu());
    String verdict = shortfall(p).map(why -> "  " + why).orElse("");
    return "%8.2f - %8.2f s  %6.1f LUFS  %6.1f LUFS  %5.1f LU%s%s"
        .formatted(
            at(p.passage().startFrame()),
            at(p.passage().endFrame()),
            p.voiceLufs(),
            p.backgroundLufs(),
            p.separationLu(),
            was,
            verdict);
  }

  /** Which passages fell short of what was wanted, and why: a line each. */
  public List<String> missed() {
    List<String> lines = new ArrayList<>();
    for (PassageLoudness p : after) {
      shortfall(p)
          .ifPresent(
              why ->
                  lines.add(
                      "The passage at %.2f s stands %.1f LU above the rest, %s."
                          .formatted(at(p.passage().startFrame()), p.separationLu(), why)));
    }
    return lines;
  }

  private Optional<String> shortfall(PassageLoudness p) {
    if (wanted.isEmpty()
        || p.separationLu() >= wanted.get().separationLu() - Separation.TOLERANCE_LU) {
      return Optional.empty();
    }
    String under = "under the wanted %.1f LU".formatted(wanted.get().separationLu());
    Energies energies = wanted.get().energies();
    return Optional.of(
        energies
            .loudestWithoutHush(p.passage())
            .map(
                t ->
                    "%s: %s (%.1f LUFS there) lies over it"
                        .formatted(
                            under, t.name(), energies.lufs(energies.track(t.id()), p.passage())))
            .orElse(under + ": the music may go no deeper"));
  }
}
