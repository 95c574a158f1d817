package hushrise.core.loudness;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;
import static org.assertj.core.api.Assertions.within;

import hushrise.core.Problem;
import hushrise.core.mix.Mixer;
import hushrise.core.mix.Projects;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.Progress;
import hushrise.core.time.Span;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** Bringing a film to a loudness: what is planned is what comes out. */
class LoudnessPlanTest {

  private final Projects.Sounds sounds = new Projects.Sounds();
  private final Project rich = spiky();
  private final Span all = new Span(0, rich.lengthFrames());
  private final FilmLoudness film = FilmLoudness.of(rich, sounds, Progress.NONE);

  /** Quiet noise that comes and goes, with a loud crack now and then. */
  private Project spiky() {
    float[] noise = Projects.noise(6, 12 * Projects.RATE, 0.2);
    float[] cracks = Projects.noise(7, 12 * Projects.RATE, 0.9);
    for (int i = 0; i < noise.length; i++) {
      boolean cracking = i % 33_333 < 300;
      noise[i] = cracking ? cracks[i] : (float) (noise[i] * Math.sin(i * 2e-5));
    }
    Media media = sounds.add("spiky", MediaKind.MUSIC, noise);
    Track track = Track.of(TrackKind.MUSIC, "Music", List.of(Clip.whole(media, 0)));
    return Project.empty("spiky").withMedia(media).withTracks(List.of(track)).withMasterDb(-4);
  }

  private Measurement delivered(Project project, Mastering mastering) {
    Mixer mixer = Mixer.of(project, sounds);
    Mastering.Stream stream =
        new Mastering.Stream(
            mastering, mixer::render, 0, project.lengthFrames(), project.sampleRate());
    Measurement.Running running = new Measurement.Running(project.sampleRate(), 2);
    float[][] block = new float[2][1000];
    for (long at = 0; at < project.lengthFrames(); at += 1000) {
      int n = (int) Math.min(1000, project.lengthFrames() - at);
      stream.read(n, block[0], block[1]);
      running.add(block, n);
    }
    return running.result();
  }

  @Test
  void aFilmComesToTheLoudnessAskedForWithItsPeaksUnderTheCeiling() {
    for (double raise : new double[] {-12, -3, -0.5, 3, 6}) {
      double headroom = -1 - film.truePeakDbtp();
      double target = film.integratedLufs() + headroom + raise;
      LoudnessGoal goal = new LoudnessGoal(target, -1, 12);
      LoudnessPlan plan = LoudnessPlan.of(film, all, goal, 0, sounds, Progress.NONE);
      Measurement out = delivered(rich, plan.mastering());
      assertThat(out.integratedLufs()).as("%+.0f dB", raise).isCloseTo(target, within(0.05));
      assertThat(out.truePeakDbtp()).as("%+.0f dB", raise).isLessThanOrEqualTo(-1 + 0.01);
      assertThat(plan.limitingDb() > 0).as("%+.0f dB", raise).isEqualTo(raise > 0);
    }
  }

  @Test
  void whatIsMeasuredInPiecesIsWhatIsDelivered() {
    Mastering mastering = new Mastering(-film.truePeakDbtp() + 4, Optional.of(-2.0));
    FilmLoudness pieces = film.mastered(mastering, sounds, Progress.NONE);
    Measurement out = delivered(rich, mastering);
    assertThat(pieces.integratedLufs()).isCloseTo(out.integratedLufs(), within(0.005));
    assertThat(pieces.loudnessRangeLu()).isCloseTo(out.loudnessRangeLu(), within(0.02));
    assertThat(pieces.truePeakDbtp()).isCloseTo(out.truePeakDbtp(), within(0.01));
    FilmLoudness lowered =
        FilmLoudness.of(rich.withMasterDb(-7), sounds, Progress.NONE)
            .mastered(mastering.moved(3, 0), sounds, Progress.NONE);
    assertThat(lowered.integratedLufs()).isCloseTo(out.integratedLufs(), within(0.005));
  }

  @Test
  void aTargetOutOfReachIsSaidWithTheNearest() {
    LoudnessGoal loud = new LoudnessGoal(-5, -1, 2);
    assertThatThrownBy(() -> LoudnessPlan.of(film, all, loud, 0, sounds, Progress.NONE))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("dB of limiting, and 2.0 dB are allowed");
    LoudnessPlan nearest = LoudnessPlan.nearest(film, all, loud, 0, sounds, Progress.NONE);
    assertThat(nearest.limitingDb()).isCloseTo(2, within(0.01));
    double reachable = Math.floor(nearest.afterLufs() * 10) / 10;
    LoudnessPlan plan =
        LoudnessPlan.of(film, all, new LoudnessGoal(reachable, -1, 2), 0, sounds, Progress.NONE);
    assertThat(plan.afterLufs()).isCloseTo(reachable, within(0.05));
    Project silent = rich.withTracks(List.of());
    FilmLoudness nothing = FilmLoudness.of(silent, sounds, Progress.NONE);
    assertThatThrownBy(
            () -> LoudnessPlan.of(nothing, all, LoudnessGoal.of(-16), 0, sounds, Progress.NONE))
        .hasMessageContaining("is silent");
  }

  @Test
  void whatIsSaidToBeNeededIsMoreThanIsAllowedAndIsEnough() {
    double untouched = film.integratedLufs() - 1 - film.truePeakDbtp();
    for (double raise : new double[] {4.1, 6, 9}) {
      double lufs = untouched + raise;
      for (double spareDb : new double[] {0, 0.4}) {
        String said = said(new LoudnessGoal(lufs, -1, 4), spareDb);
        double needed = Double.parseDouble(said.replaceFirst(".*need ([0-9.]+) dB.*", "$1"));
        assertThat(needed).as(said).isGreaterThan(Math.max(4, raise + spareDb));
        assertThat(said(new LoudnessGoal(lufs, -1, needed - 0.2), spareDb)).contains("need");
        LoudnessPlan plan =
            LoudnessPlan.of(
                film, all, new LoudnessGoal(lufs, -1, needed), spareDb, sounds, Progress.NONE);
        assertThat(plan.afterLufs()).isCloseTo(lufs, within(0.05));
        assertThat(plan.mastering().ceilingDbtp()).hasValue(-1 - spareDb);
      }
    }
    assertThat(said(new LoudnessGoal(-5, -20, 4), 0)).contains("need more than 20.0 dB");
  }

  private String said(LoudnessGoal goal, double spareDb) {
    return catchThrowableOfType(
            Problem.class, () -> LoudnessPlan.of(film, all, goal, spareDb, sounds, Progress.NONE))
        .getMessage();
  }
}
