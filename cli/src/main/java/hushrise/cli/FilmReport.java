package hushrise.cli;

import hushrise.core.hush.PassageLoudness;
import hushrise.core.project.Clip;
import hushrise.core.project.Hush;
import hushrise.core.project.Project;
import hushrise.core.project.Seam;
import hushrise.core.project.Track;
import hushrise.core.project.TrackKind;
import hushrise.media.Deliverer;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/**
 * What is told of a delivered film.
 *
 * @param output the file
 * @param project what it was made of
 * @param result how it was delivered
 * @param before the passages without hushes; empty when that is not told
 * @param after the passages as delivered
 * @param wantedLu the separation that was wanted; not a number when none was
 */
record FilmReport(
    Path output,
    Project project,
    Deliverer.Result result,
    List<PassageLoudness> before,
    List<PassageLoudness> after,
    double wantedLu) {

  private static final double TOLERANCE_LU = 0.3;

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
    if (!after.isEmpty()) {
      text.append("%nPassage               voice      under it   separation%n".formatted());
    }
    for (int i = 0; i < after.size(); i++) {
      text.append(passageLine(i)).append(System.lineSeparator());
    }
    return text.toString().stripTrailing();
  }

  private String passageLine(int index) {
    PassageLoudness p = after.get(index);
    String was = before.isEmpty() ? "" : " (was %.1f)".formatted(before.get(index).separationLu());
    String verdict =
        Double.isNaN(wantedLu) || p.separationLu() >= wantedLu - TOLERANCE_LU
            ? ""
            : "  under the wanted %.1f LU: other sounds than music lie over it".formatted(wantedLu);
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
}
