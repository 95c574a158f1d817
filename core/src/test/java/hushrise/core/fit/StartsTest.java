package hushrise.core.fit;

import static hushrise.core.fit.Pieces.RATE;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import hushrise.core.Problem;
import hushrise.core.edit.HushEdits;
import hushrise.core.fit.Sections.Section;
import hushrise.core.mix.Mixer;
import hushrise.core.project.Project;
import hushrise.core.project.level.Rise;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Fit;
import hushrise.core.project.timeline.FitMode;
import hushrise.core.project.timeline.Seam;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Random;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/**
 * Where music starts: with a section, with its build on a time; and where its beats carry rises.
 */
class StartsTest {

  private static final double BEAT = 60 / 104.0;
  private static final double SECTION = 32 * BEAT;

  private static Pieces.Piece piece;
  private static Song song;
  private static final Songs SONGS = media -> Optional.of(song);

  @BeforeAll
  static void listen() {
    piece = Pieces.songForm("song", 104, 21);
    song = piece.analysed();
  }

  private static Project project(double pictureSeconds) {
    return FitsTest.film(piece, SONGS, pictureSeconds);
  }

  @Test
  void theSectionsOfASongAreFoundAndThoseThatComeAgainAreNamedAlike() {
    List<Section> sections = song.sections();
    assertThat(sections.getFirst().startFrame()).isEqualTo(song.analysis().soundStart());
    assertThat(sections.getLast().endFrame()).isEqualTo(song.analysis().soundEnd());
    for (int i = 1; i < sections.size(); i++) {
      assertThat(sections.get(i).startFrame()).isEqualTo(sections.get(i - 1).endFrame());
    }
    for (int edge = 1; edge <= 3; edge++) {
      double wanted = edge * SECTION;
      double nearest =
          sections.stream()
              .mapToDouble(s -> Math.abs(s.startFrame() / (double) RATE - wanted))
              .min()
              .orElseThrow();
      assertThat(nearest).as("edge %d", edge).isLessThan(2.5);
    }
    assertThat(at(sections, 0.5).kind()).isEqualTo(at(sections, 2.5).kind());
    assertThat(at(sections, 0.5).kind()).isNotEqualTo(at(sections, 1.5).kind());
    assertThat(at(sections, 0.5).letter()).isEqualTo("A");
  }

  private static Section at(List<Section> all, double sections) {
    long frame = Math.round(sections * SECTION * RATE);
    return all.stream()
        .filter(s -> s.startFrame() <= frame && frame < s.endFrame())
        .findFirst()
        .orElseThrow();
  }

  @Test
  void musicStartsWithASectionAndStillEndsWhereItDid() {
    long second = song.sections().get(1).startFrame();
    for (FitMode mode : FitMode.values()) {
      Project start = project(30);
      Project fitted = Fits.set(start, FitsTest.music(start).id(), mode, SONGS);
      Clip moved = FitsTest.music(Starts.at(fitted, FitsTest.music(fitted).id(), second, SONGS));
      assertThat(moved.mediaStartFrame())
          .as("%s", mode)
          .isCloseTo(second, within(Math.round(BEAT * RATE)));
      assertThat(moved.endFrame()).as("%s", mode).isEqualTo(30L * RATE);
    }
    Project free = Fits.remove(project(30), FitsTest.music(project(30)).id());
    String id = FitsTest.music(free).id();
    assertThat(FitsTest.music(Starts.at(free, id, second, SONGS)).mediaStartFrame())
        .isEqualTo(second);
    assertThatThrownBy(() -> Starts.at(free, id, piece.sound().lengthFrames() - 9, SONGS))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("is over there");
  }

  @Test
  void theBuildOfASongLandsOnATime() {
    float[] building = new float[60 * RATE];
    Random random = new Random(4);
    for (int i = 0; i < building.length; i++) {
      double loud = i < 40 * RATE ? 0.02 : 0.4;
      building[i] = (float) (loud * random.nextGaussian() / 3);
    }
    SampleSource sound = SampleSource.of(building);
    Song other = new Song(SongAnalyzer.analyze(sound, RATE, "b", Progress.NONE), sound);
    assertThat(Starts.peakFrame(other.analysis()) / (double) RATE).isCloseTo(40, within(0.3));
    for (double at : new double[] {12, 25, 55}) {
      Project start = project(70);
      Clip clip = FitsTest.music(start);
      long frame = Math.round(at * RATE);
      Clip slid =
          FitsTest.music(Starts.peakAt(start, clip.id(), frame, media -> Optional.of(other)));
      assertThat(slid.mediaFrameAt(frame - slid.startFrame()) / (double) RATE)
          .as("at %.0f s", at)
          .isCloseTo(40, within(0.3));
      assertThat(slid.startFrame()).isNotNegative();
    }
    Project tailored = project(50);
    String id = FitsTest.music(tailored).id();
    Project own = Fits.set(tailored, id, FitMode.TAILOR, SONGS);
    assertThatThrownBy(() -> Starts.peakAt(own, id, RATE, SONGS))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("keeps its own beginning");
  }

  @Test
  void aRiseReachesItsHeightOnADownbeat() {
    Project start = project(60);
    Track track = start.firstTrack(TrackKind.MUSIC).orElseThrow();
    long top = Math.round(20.3 * RATE);
    OptionalLong beat = Starts.downbeatNear(start, track, SONGS, top, 3L * RATE);
    double bars = beat.orElseThrow() / (double) RATE / (4 * BEAT);
    assertThat(bars).isCloseTo(Math.rint(bars), within(0.02));
    assertThat(Math.abs(beat.getAsLong() - top)).isLessThanOrEqualTo(Math.round(2.1 * BEAT * RATE));
    Rise rise = Rise.over(new Span(19L * RATE, 30L * RATE), 4);
    Project swelling = HushEdits.addRise(start, track.id(), rise);
    Rise landed =
        HushEdits.landRise(swelling, rise.id(), beat.getAsLong())
            .track(track.id())
            .orElseThrow()
            .rise(rise.id())
            .orElseThrow();
    assertThat(landed.knots(RATE).floorStart()).isCloseTo(beat.getAsLong(), within(2L));
    assertThat(landed.endFrame()).isEqualTo(rise.endFrame());
    Project silent = Fits.remove(project(10), FitsTest.music(project(10)).id());
    assertThat(Starts.downbeatNear(silent, track, media -> Optional.empty(), top, RATE)).isEmpty();
  }

  @Test
  void seamsLieWhereSomebodySpeaksWhenThatCostsNoMore() {
    long wanted = 3L * piece.sound().lengthFrames();
    Fit fit = Fit.of(FitMode.LOOP, 0);
    Arrangement open = LoopFit.arrange(song, new Song.Wish(fit, 0, wanted), "song");
    List<Span> spoken = new ArrayList<>();
    for (long at = 10; at * RATE < wanted; at += 40) {
      spoken.add(new Span(at * RATE, (at + 15) * RATE));
    }
    Arrangement covered = LoopFit.arrange(song, new Song.Wish(fit, 0, wanted, spoken), "song");
    assertThat(share(covered, spoken)).isGreaterThanOrEqualTo(share(open, spoken));
    Fit tailor = Fit.of(FitMode.TAILOR, 0);
    Arrangement plain = TailorFit.arrange(song, new Song.Wish(tailor, 0, wanted), "song");
    Arrangement under = TailorFit.arrange(song, new Song.Wish(tailor, 0, wanted, spoken), "song");
    assertThat(share(under, spoken)).isGreaterThan(share(plain, spoken));
    assertThat(share(under, spoken)).isGreaterThan(0.5);
  }

  private static double share(Arrangement made, List<Span> spoken) {
    long under =
        made.seams().stream()
            .filter(
                s -> spoken.stream().anyMatch(p -> p.contains(made.pauseFrames() + s.atFrame())))
            .count();
    return under / (double) made.seams().size();
  }

  @Test
  void aStepInLevelIsEvenedOverTheSeamAndGoesAway() {
    float[] steady = new float[8 * RATE];
    java.util.Arrays.fill(steady, 0.25f);
    Seam seam =
        new Seam(
            3L * RATE,
            3L * RATE,
            RATE,
            480,
            0.8,
            1,
            Optional.of(new Seam.Evening(-1.5, 2L * RATE)));
    Project start = project(60);
    Media media = start.media(FitsTest.music(start).mediaId()).orElseThrow();
    Clip clip = Clip.whole(media, 0).withContent(6L * RATE, List.of(seam));
    Project one = start.withTracks(List.of(Track.of(TrackKind.MUSIC, "Music", List.of(clip))));
    float[] left = new float[6 * RATE];
    Mixer.of(one, (m, rate) -> SampleSource.of(steady))
        .render(0, left.length, left, new float[left.length]);
    assertThat(db(left, 2.9)).isCloseTo(0, within(0.01));
    assertThat(db(left, 3.005)).isCloseTo(-1.5, within(0.03));
    assertThat(db(left, 4.005)).isCloseTo(-0.75, within(0.03));
    assertThat(db(left, 5.1)).isCloseTo(0, within(0.01));
  }

  private static double db(float[] samples, double seconds) {
    return 20 * Math.log10(samples[(int) Math.round(seconds * RATE)] / 0.25);
  }

  @Test
  void whatNeverComesAgainIsKnown() {
    assertThat(song.analysis().echoes().repeats()).isTrue();
    SongAnalysis analysis = SongAnalyzer.analyze(Pieces.wandering(60, 8), RATE, "w", Progress.NONE);
    assertThat(analysis.echoes().repeats()).isFalse();
  }
}
