package hushrise.core.fit;

import static hushrise.core.fit.FitsTest.music;
import static hushrise.core.fit.Pieces.RATE;
import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.edit.Renewal;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Fade;
import hushrise.core.project.timeline.FitMode;
import hushrise.core.project.timeline.Seam;
import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** Another song in the place of one: it is fitted as that was. */
class RenewedSongTest {

  private static Pieces.Piece tried;
  private static Pieces.Piece bought;
  private static Pieces.Piece scrap;
  private static Map<String, Song> songs;
  private static final Songs SONGS = m -> Optional.ofNullable(songs.get(m.title()));

  @BeforeAll
  static void listen() {
    tried = Pieces.songForm("tried", 104, 21);
    bought = Pieces.steady("bought", 96, 4, 12, 3);
    scrap = new Pieces.Piece("scrap", Pieces.wandering(3, 8), new double[0]);
    songs =
        Map.of(
            "song.wav", tried.analysed(),
            "bought.wav", bought.analysed(),
            "scrap.wav", scrap.analysed());
  }

  private static Project film(FitMode mode, double seconds) {
    Project start = FitsTest.film(tried, SONGS, seconds);
    return Fits.set(start, music(start).id(), mode, SONGS);
  }

  private static Clip with(Project project, Pieces.Piece piece, String file) {
    Media old = project.media("song").orElseThrow();
    Media fresh = old.withFile(Path.of("/" + file)).withLengthFrames(piece.sound().lengthFrames());
    return music(Renewal.of(project, "song", fresh, SONGS));
  }

  @Test
  void itKeepsItsFitAndItsEnd() {
    for (FitMode mode : FitMode.values()) {
      Clip clip = with(film(mode, 24), bought, "bought.wav");
      assertThat(clip.fit().orElseThrow().mode()).isEqualTo(mode);
      assertThat(clip.endFrame()).as("%s", mode).isEqualTo(24L * RATE);
      assertThat(clip.seams())
          .allMatch(s -> Math.max(s.fromFrame(), s.toFrame()) < bought.sound().lengthFrames());
    }
  }

  @Test
  void aTrimmedSongIsLoopedWhereTheNewOneIsTooShort() {
    double seconds = bought.sound().lengthFrames() / (double) RATE + 15;
    Clip clip = with(film(FitMode.TRIM, seconds), bought, "bought.wav");
    assertThat(clip.fit().orElseThrow().mode()).isEqualTo(FitMode.LOOP);
    assertThat(clip.endFrame()).isEqualTo(Math.round(seconds * RATE));
  }

  @Test
  void aSongThatTookOverGetsNoFadeWhereItHadNone() {
    Project film = film(FitMode.TRIM, bought.sound().lengthFrames() / (double) RATE + 15);
    Project joined =
        film.withEachTrack(t -> t.withClip(music(film).id(), c -> c.withFadeIn(Fade.NONE)));
    Clip clip = with(joined, bought, "bought.wav");
    assertThat(clip.fit().orElseThrow().mode()).isEqualTo(FitMode.LOOP);
    assertThat(clip.fadeIn()).isEqualTo(Fade.NONE);
    assertThat(clip.fadeOut()).isEqualTo(music(joined).fadeOut());
  }

  @Test
  void whatCannotBeTailoredStillEndsWhereItHasTo() {
    Clip clip = with(film(FitMode.TAILOR, 24), scrap, "scrap.wav");
    assertThat(clip.fit().orElseThrow().mode()).isNotEqualTo(FitMode.TAILOR);
    assertThat(clip.endFrame()).isEqualTo(24L * RATE);
    assertThat(clip.fadeOut().lengthFrames()).isPositive();
  }

  @Test
  void theSameSongFromAnotherFileKeepsWhatWasChosen() {
    Project looped = film(FitMode.LOOP, 300);
    Seam first = music(looped).seams().getFirst();
    Project chosen = Fits.rejectSeam(looped, music(looped).id(), 0, SONGS);
    Clip clip = with(chosen, tried, "song.wav");
    assertThat(clip.fit()).isEqualTo(music(chosen).fit());
    assertThat(clip.seams()).isEqualTo(music(chosen).seams()).doesNotContain(first);
  }

  @Test
  void seamsWithoutAFitGoWhenTheyMeanNothingAnyMore() {
    Project looped = film(FitMode.LOOP, 300);
    Project kept = Fits.remove(looped, music(looped).id());
    Clip other = with(kept, bought, "bought.wav");
    assertThat(other.seams()).isEmpty();
    assertThat(other.lengthFrames()).isEqualTo(bought.sound().lengthFrames());
    assertThat(with(kept, tried, "song.wav").seams()).isEqualTo(music(kept).seams());
  }
}
