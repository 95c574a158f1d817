package hushrise.cli;

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
import hushrise.media.Exporter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * What is told of a exported film.
 *
 * @param output the file
 * @param project what it was made of
 * @param result how it was exported
 * @param before the passages without hushes; empty when that is not told
 * @param after the passages as exported
 * @param wanted the separation that was wanted; empty when none was
 */
record FilmReport(
    Path output,
    Project project,
    Exporter.Result result,
    List<PassageLoudness> before,
    List<PassageLoudness> after,
    Optional<Wanted> wanted) {

  /**
   * What a film was made for.
   *
   * @param separationLu how far the voice was to stand above everything else
   * @param energies of the film's tracks, to tell what is in the way
   */
  record Wanted(double separationLu, Energies energies) {}

  private record PlacedSeam(long frame, Seam seam) {}

  String json() {
    return new Report()
        .put("output", output.toString())
        .put("durationSeconds", project.seconds(project.lengthFrames()))
        .put("pictureCopied", result.pictureCopied())
        .put("passages", after, this::passage)
        .put("hushes", hushes(), this::hush)
        .put("seams", seams(), this::seam)
        .put("integratedLufs", result.measurement().integratedLufs())
        .put("truePeakDbtp", result.measurement().truePeakDbtp())
        .json();
  }

  private Report passage(PassageLoudness p) {
    return new Report()
        .put("startSeconds", project.seconds(p.passage().startFrame()))
        .put("endSeconds", project.seconds(p.passage().endFrame()))
        .put("voiceLufs", p.voiceLufs())
        .put("backgroundLufs", p.backgroundLufs())
        .put("separationLu", p.separationLu());
  }

  private Report hush(Hush hush) {
    Hush.Knots k = hush.knots(project.sampleRate());
    return new Report()
        .put("startSeconds", project.seconds(k.start()))
        .put("floorStartSeconds", project.seconds(k.floorStart()))
        .put("floorEndSeconds", project.seconds(k.floorEnd()))
        .put("endSeconds", project.seconds(k.end()))
        .put("depthDb", k.depthDb());
  }

  /** A plain repeat's join is not rated, so its score is null. */
  private Report seam(PlacedSeam placed) {
    double score = placed.seam().score();
    return new Report()
        .put("atSeconds", project.seconds(placed.frame()))
        .put("score", score == 0 ? Double.NaN : score);
  }

  private List<Hush> hushes() {
    return project.firstTrack(TrackKind.MUSIC).map(Track::hushes).orElse(List.of());
  }

  private List<PlacedSeam> seams() {
    List<PlacedSeam> seams = new ArrayList<>();
    for (Track track : project.tracksOf(TrackKind.MUSIC).toList()) {
      for (Clip clip : track.clips()) {
        clip.seams().forEach(s -> seams.add(new PlacedSeam(clip.startFrame() + s.atFrame(), s)));
      }
    }
    return seams;
  }

  String text() {
    StringBuilder text = new StringBuilder();
    text.append(
        "%s: %.2f s, %.1f LUFS, true peak %.1f dBTP%n"
            .formatted(
                output,
                project.seconds(project.lengthFrames()),
                result.measurement().integratedLufs(),
                result.measurement().truePeakDbtp()));
    if (project.pictureClip().isPresent()) {
      text.append(result.pictureCopied() ? "The picture was copied untouched.%n".formatted() : "");
    }
    if (project.masterDb() < 0) {
      text.append(
          "The whole mix was lowered by %.1f dB to keep its peaks under -1 dBTP.%n"
              .formatted(-project.masterDb()));
    }
    project
        .voiceTracks()
        .flatMap(t -> t.clips().stream())
        .filter(c -> c.gainDb() != 0)
        .forEach(
            c ->
                text.append(
                    "%s was changed by %+.1f dB to be as loud as the other takes.%n"
                        .formatted(
                            project.media(c.mediaId()).map(Media::title).orElse(""), c.gainDb())));
    if (!after.isEmpty()) {
      text.append("%nPassage               voice      under it   separation%n".formatted());
    }
    for (int i = 0; i < after.size(); i++) {
      text.append(passageLine(i)).append(System.lineSeparator());
    }
    unheard().forEach(line -> text.append(System.lineSeparator()).append(line));
    return text.toString().stripTrailing();
  }

  /** Which narration goes on after the film has ended: a line each. */
  List<String> unheard() {
    List<String> lines = new ArrayList<>();
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

  private String passageLine(int index) {
    PassageLoudness p = after.get(index);
    String was = before.isEmpty() ? "" : " (was %.1f)".formatted(before.get(index).separationLu());
    String verdict = shortfall(p).map(why -> "  " + why).orElse("");
    return "%8.2f - %8.2f s  %6.1f LUFS  %6.1f LUFS  %5.1f LU%s%s"
        .formatted(
            project.seconds(p.passage().startFrame()),
            project.seconds(p.passage().endFrame()),
            p.voiceLufs(),
            p.backgroundLufs(),
            p.separationLu(),
            was,
            verdict);
  }

  /** Which passages fell short of what was wanted, and why: a line each. */
  List<String> missed() {
    List<String> lines = new ArrayList<>();
    for (PassageLoudness p : after) {
      shortfall(p)
          .ifPresent(
              why ->
                  lines.add(
                      "The passage at %.2f s stands %.1f LU above the rest, %s."
                          .formatted(
                              project.seconds(p.passage().startFrame()), p.separationLu(), why)));
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
