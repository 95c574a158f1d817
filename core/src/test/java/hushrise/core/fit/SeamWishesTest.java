package hushrise.core.fit;

import static hushrise.core.fit.Pieces.RATE;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import hushrise.core.Problem;
import hushrise.core.project.Project;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.FitMode;
import hushrise.core.project.timeline.Seam;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** What a person can wish of seams: a length that may be missed, a cut to lie under, long ones. */
class SeamWishesTest {

  private static Pieces.Piece piece;
  private static Song song;
  private static final Songs SONGS = media -> Optional.of(song);

  @BeforeAll
  static void listen() {
    piece = Pieces.songForm("song", 104, 21);
    song = piece.analysed();
  }

  private static Project tailored(double seconds, double leewaySeconds) {
    Project start = FitsTest.film(piece, SONGS, seconds);
    String id = FitsTest.music(start).id();
    Project exact = Fits.set(start, id, FitMode.TAILOR, SONGS);
    return leewaySeconds == 0
        ? exact
        : Fits.refine(exact, id, f -> f.withLeeway(Math.round(leewaySeconds * RATE)), SONGS);
  }

  private static double ownSeconds() {
    return (song.analysis().soundEnd() - song.analysis().soundStart()) / (double) RATE;
  }

  @Test
  void aLengthThatIsNearlyTheSongsIsMissedRatherThanJumpedFor() {
    double sooner = ownSeconds() + 3.1;
    assertThat(FitsTest.music(tailored(sooner, 0)).seams()).isNotEmpty();
    Clip ends = FitsTest.music(tailored(sooner, 4));
    assertThat(ends.seams()).isEmpty();
    assertThat(ends.endFrame() / (double) RATE).isCloseTo(sooner - 3.1, within(0.001));
    assertThat(ends.fadeOut().lengthFrames()).isZero();

    double cut = ownSeconds() - 3.1;
    Clip faded = FitsTest.music(tailored(cut, 4));
    assertThat(faded.seams()).isEmpty();
    assertThat(faded.endFrame()).isEqualTo(Math.round(cut * RATE));
    assertThat(faded.fadeOut().lengthFrames()).isEqualTo(4L * RATE);
  }

  @Test
  void leewayNeverCostsMoreThanNone() {
    for (double seconds : new double[] {31.3, 47.9, 66.6, 118.2, 203.7}) {
      double worst = worst(FitsTest.music(tailored(seconds, 0)));
      Clip free = FitsTest.music(tailored(seconds, 5));
      assertThat(worst(free)).as("%.1f s", seconds).isGreaterThanOrEqualTo(worst - 0.05);
      assertThat(free.endFrame() / (double) RATE).isBetween(seconds - 5, seconds + 1e-6);
    }
  }

  private static double worst(Clip clip) {
    return clip.seams().stream().mapToDouble(Seam::score).min().orElse(1);
  }

  @Test
  void musicThatEndsSoonerStaysAsItIsUntilThePictureChanges() {
    double seconds = ownSeconds() + 3.1;
    Project project = tailored(seconds, 4);
    Project renamed = project.withName("other");
    assertThat(FitFollow.followed(project, renamed, media -> Optional.empty()).problems())
        .isEmpty();
    String film = project.pictureClip().orElseThrow().id();
    Project longer =
        hushrise.core.edit.ClipEdits.trimEnd(project, film, Math.round((seconds - 2) * RATE));
    Clip followed = FitsTest.music(FitFollow.followed(project, longer, SONGS).project());
    assertThat(followed.endFrame() / (double) RATE).isBetween(seconds - 6, seconds - 2 + 1e-6);
    Project exact = Fits.refine(project, followed.id(), f -> f.withLeeway(0), SONGS);
    assertThat(FitsTest.music(exact).endFrame()).isEqualTo(Math.round(seconds * RATE));
  }

  @Test
  void aSeamMovesByBeatsUnderACutOfThePicture() {
    Project looped = FitsTest.film(piece, SONGS, 300);
    Clip clip = FitsTest.music(looped);
    Seam seam = clip.seams().getFirst();
    long at = clip.startFrame() + seam.atFrame();
    long beat = song.analysis().usualStretch();
    List<Long> cuts = List.of(RATE * 2L, at + 3 * beat + RATE / 20, at - 7 * beat);
    Project moved = Fits.moveSeamToCut(looped, clip.id(), 0, cuts, SONGS);
    Clip after = FitsTest.music(moved);
    assertThat(after.seams().getFirst().atFrame() + after.startFrame())
        .isCloseTo(at + 3 * beat, within(RATE * 15L / 100));
    assertThat(after.endFrame()).isEqualTo(clip.endFrame());
    List<Long> far = List.of(at + beat / 2);
    assertThatThrownBy(() -> Fits.moveSeamToCut(looped, clip.id(), 0, far, SONGS))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("No cut of the picture");
  }

  @Test
  void whereNothingComesAgainTheEndingLiesOverTheBeginning() {
    SampleSource wandering = Pieces.wandering(60, 8);
    SongAnalysis analysis = SongAnalyzer.analyze(wandering, RATE, "w", Progress.NONE);
    Songs songs = media -> Optional.of(new Song(analysis, wandering));
    Clip clip =
        FitsTest.music(FitsTest.film(new Pieces.Piece("w", wandering, new double[0]), songs, 150));
    assertThat(clip.endFrame()).isEqualTo(150L * RATE);
    assertThat(clip.seams())
        .hasSize(2)
        .allSatisfy(
            s -> {
              assertThat(s.crossfadeFrames()).isEqualTo(6L * RATE);
              assertThat(s.heard()).isEqualTo(Seam.Heard.FAINT);
              assertThat(s.fromFrame() + s.crossfadeFrames() / 2).isEqualTo(analysis.soundEnd());
            });
  }
}
