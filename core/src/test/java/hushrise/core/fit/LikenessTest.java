package hushrise.core.fit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import hushrise.core.mix.Projects;
import hushrise.core.project.timeline.Fit;
import hushrise.core.project.timeline.FitMode;
import hushrise.core.project.timeline.Seam;
import hushrise.core.sound.SampleSource;
import java.util.Arrays;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** What is said of a seam: whether it will be heard. */
class LikenessTest {

  private static final int RATE = Projects.RATE;

  /** Echoes of a song whose places are all so far apart, the nearest half of a percent likewise. */
  private static Echoes farApart(float nearest, float usual) {
    float[] distances = new float[Echoes.PARTS.length];
    Arrays.fill(distances, usual);
    Arrays.fill(distances, 0, 4, nearest);
    return new Echoes(20, new float[0], new int[0], new float[0], distances);
  }

  private static Seam.Heard heard(Echoes echoes, double distance) {
    return new Seam(0, 0, 0, 0, echoes.likeness(distance), 1, Optional.empty()).heard();
  }

  @Test
  void theNearestPlacesAreUnheardWhereTheyAreNearByThemselvesToo() {
    Echoes usual = farApart(7, 20);
    assertThat(usual.likeness(0)).isEqualTo(1);
    assertThat(heard(usual, 5)).isEqualTo(Seam.Heard.UNHEARD);
    assertThat(heard(usual, 21)).isEqualTo(Seam.Heard.NOTICED);
    Echoes withoutRepeats = farApart(12, 30);
    assertThat(heard(withoutRepeats, 7.4)).isEqualTo(Seam.Heard.UNHEARD);
    assertThat(heard(withoutRepeats, 7.6)).isEqualTo(Seam.Heard.FAINT);
    assertThat(heard(withoutRepeats, 12)).isEqualTo(Seam.Heard.FAINT);
  }

  @Test
  void aJumpThatWasNotFoundIsMeasuredAsThoseThatWere() {
    Pieces.Piece piece = Pieces.songForm("song", 104, 21);
    Echoes echoes = piece.analysed().analysis().echoes();
    double frames = RATE / (double) echoes.perSecond();
    int compared = 0;
    for (int e = 0; e < echoes.size() && compared < 40; e += 7) {
      if (Math.abs(echoes.lags()[e] - Math.rint(echoes.lags()[e])) > 0.02) {
        continue; // between two counts the search itself knows less exactly
      }
      long early = Math.round(echoes.places()[e] * frames);
      long late = Math.round((echoes.places()[e] + echoes.lags()[e]) * frames);
      double apart = BothSides.apartDb(piece.sound(), RATE, early, late);
      double known = echoes.distances()[e];
      assertThat(apart).as("echo %d", e).isCloseTo(known, within(0.3 + 0.1 * known));
      compared++;
    }
    assertThat(compared).isEqualTo(40);
  }

  /** How far two places are apart that have the same chord, each over a bass note of its own. */
  private static double overBass(double firstHz, double thenHz) {
    float[] sound = new float[12 * RATE];
    for (int i = 0; i < sound.length; i++) {
      double turn = 2 * Math.PI * i / RATE;
      double chord = Math.sin(220 * turn) + Math.sin(277 * turn) + Math.sin(330 * turn);
      double bass = Math.sin((i < 6 * RATE ? firstHz : thenHz) * turn);
      sound[i] = (float) (0.05 * chord + 0.2 * bass);
    }
    return BothSides.apartDb(SampleSource.of(sound), RATE, 3L * RATE, 9L * RATE);
  }

  @Test
  void anotherBassNoteUnderTheSameChordIsHeard() {
    assertThat(overBass(55, 55)).isLessThan(0.1);
    assertThat(overBass(55, 73)).isGreaterThan(2);
    assertThat(overBass(55, 110)).isGreaterThan(2);
  }

  @Test
  void aSeamMovedByHandSaysWhetherItIsHeardThere() {
    Pieces.Piece piece = Pieces.songForm("song", 104, 21);
    Song song = piece.analysed();
    SongAnalysis analysis = song.analysis();
    double alike = 0;
    double unlike = 1;
    for (int e = 8; e + 40 < analysis.stretches(); e += 8) {
      Joint joint = new Joint(analysis.edges()[e + 33], analysis.edges()[e], -0.5, Joint.UNKNOWN);
      double likeness = song.splice(joint).score();
      alike = Math.max(alike, likeness);
      unlike = Math.min(unlike, likeness);
    }
    assertThat(unlike).isLessThan(0.38);
    assertThat(alike).isLessThan(1);
    Fit fit = Fit.of(FitMode.LOOP, 0);
    Joint found = new Joints(analysis, fit).best(1, 4L * RATE).getFirst();
    Joint byHand = new Joint(found.fromFrame(), found.toFrame(), 0, Joint.UNKNOWN);
    assertThat(song.splice(byHand).score()).isCloseTo(song.splice(found).score(), within(0.1));
  }
}
