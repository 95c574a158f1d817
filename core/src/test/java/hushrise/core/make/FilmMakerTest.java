package hushrise.core.make;

import static hushrise.core.mix.Projects.RATE;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import hushrise.core.Problem;
import hushrise.core.edit.EvenVoices;
import hushrise.core.edit.LoudMusic;
import hushrise.core.fit.Songs;
import hushrise.core.hush.HushDrafter;
import hushrise.core.mix.Projects;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Seam;
import hushrise.core.project.timeline.Track;
import hushrise.core.separation.Energies;
import hushrise.core.separation.PassageLoudness;
import hushrise.core.speech.Passages;
import hushrise.core.time.FrameRate;
import hushrise.core.time.Span;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalLong;
import org.junit.jupiter.api.Test;

class FilmMakerTest {

  private final Projects.Sounds sounds = new Projects.Sounds();
  private final Media take = sounds.add("take", MediaKind.VOICE, Projects.noise(1, 5 * RATE, 0.2));
  private final Media song =
      sounds.add(
          "song",
          MediaKind.MUSIC,
          Projects.noise(2, 12 * RATE, 0.3),
          Projects.noise(3, 12 * RATE, 0.3));

  private Media film(int seconds, boolean withSound) {
    Media sound = sounds.add("film", MediaKind.PICTURE, Projects.noise(4, seconds * RATE, 0.05));
    return new Media(
        "film",
        Path.of("/film.mp4"),
        MediaKind.PICTURE,
        sound.lengthFrames(),
        withSound,
        Optional.of(new FrameRate(25, 1)),
        "");
  }

  private FilmPlan plan(Media film, List<FilmPlan.Placed> voices) {
    return FilmPlan.of(Optional.of(film), voices, List.of(FilmPlan.Placed.at(song, 0)));
  }

  private static FilmPlan.Placed at(Media media, double seconds) {
    return FilmPlan.Placed.at(media, Math.round(seconds * RATE));
  }

  @Test
  void everyPassageStandsTenLuAboveAllThatLiesUnderIt() {
    Project project =
        new FilmMaker(
                plan(film(30, true), List.of(at(take, 4), at(take, 17))),
                sounds,
                sounds,
                Songs.NONE)
            .make("p");
    List<PassageLoudness> measured = PassageLoudness.measure(project, sounds, Passages.of(project));
    assertThat(measured).hasSize(2);
    assertThat(measured).allSatisfy(p -> assertThat(p.separationLu()).isCloseTo(10, within(0.1)));
    assertThat(project.firstTrack(TrackKind.CAMERA).orElseThrow().hushes()).isEmpty();
    assertThat(project.firstTrack(TrackKind.MUSIC).orElseThrow().hushes()).hasSize(2);
  }

  @Test
  void oneSongGivesWayToTheNextWithACrossfadeUnlessItEndsByItself() {
    Media other = sounds.add("other", MediaKind.MUSIC, Projects.noise(5, 30 * RATE, 0.3));
    assertThat(musicEnds(at(song, 0), at(other, 8))).containsExactly(10L * RATE, 30L * RATE);
    assertThat(musicEnds(at(song, 0), at(other, 20))).containsExactly(22L * RATE, 30L * RATE);
    FilmPlan.Placed after = new FilmPlan.Placed(other, OptionalLong.empty());
    assertThat(musicEnds(at(song, 0), after)).containsExactly(12L * RATE, 30L * RATE);
  }

  private List<Long> musicEnds(FilmPlan.Placed... songs) {
    FilmPlan plan = FilmPlan.of(Optional.of(film(30, true)), List.of(at(take, 4)), List.of(songs));
    return new FilmMaker(plan, sounds, sounds, Songs.NONE)
        .placed("p").firstTrack(TrackKind.MUSIC).orElseThrow().clips().stream()
            .map(Clip::endFrame)
            .toList();
  }

  @Test
  void passagesCloserThanTheUsualGapShareAHush() {
    Project near =
        new FilmMaker(
                plan(film(30, false), List.of(at(take, 4), at(take, 11.1))),
                sounds,
                sounds,
                Songs.NONE)
            .make("p");
    assertThat(near.firstTrack(TrackKind.MUSIC).orElseThrow().hushes())
        .singleElement()
        .satisfies(
            h -> {
              assertThat(h.startFrame()).isEqualTo(4L * RATE);
              assertThat(h.endFrame()).isEqualTo(Math.round(16.1 * RATE));
            });
    Project apart =
        new FilmMaker(
                plan(film(30, false), List.of(at(take, 4), at(take, 11.2))),
                sounds,
                sounds,
                Songs.NONE)
            .make("p");
    assertThat(apart.firstTrack(TrackKind.MUSIC).orElseThrow().hushes()).hasSize(2);
  }

  @Test
  void takesThatLieApartAreBroughtToOneLoudness() {
    Media soft = sounds.add("soft take", MediaKind.VOICE, Projects.noise(6, 5 * RATE, 0.05));
    FilmPlan plan = plan(film(30, false), List.of(at(take, 4), at(soft, 17)));
    Project even = new FilmMaker(plan, sounds, sounds, Songs.NONE).make("p");
    List<Double> loudness = List.copyOf(EvenVoices.loudness(Energies.of(even, sounds)).values());
    assertThat(loudness.get(0)).isCloseTo(loudness.get(1), within(0.01));
    FilmPlan asTheyAre = plan.withEvensVoices(false);
    Project apart = new FilmMaker(asTheyAre, sounds, sounds, Songs.NONE).make("p");
    assertThat(EvenVoices.apart(EvenVoices.loudness(Energies.of(apart, sounds)))).isGreaterThan(9);
  }

  @Test
  void songsThatFollowOneAnotherAreBroughtToTheLoudnessOfTheFirst() {
    Media loud = sounds.add("loud", MediaKind.MUSIC, Projects.noise(11, 12 * RATE, 0.3));
    Media soft = sounds.add("soft song", MediaKind.MUSIC, Projects.noise(12, 12 * RATE, 0.03));
    Media alike = sounds.add("alike", MediaKind.MUSIC, Projects.noise(13, 12 * RATE, 0.25));
    FilmPlan plan =
        FilmPlan.of(
            Optional.of(film(30, false)),
            List.of(at(take, 4)),
            List.of(at(loud, 0), at(soft, 10), at(alike, 20)));
    Project made = new FilmMaker(plan, sounds, sounds, Songs.NONE).make("p");
    List<Double> gains =
        made.firstTrack(TrackKind.MUSIC).orElseThrow().clipsInTime().stream()
            .map(Clip::gainDb)
            .toList();
    assertThat(gains.get(0)).isZero();
    assertThat(gains.get(1)).isCloseTo(20, within(0.2));
    assertThat(gains.get(2)).isZero();
  }

  @Test
  void aQuietVoiceIsRaisedAndLoudMusicBroughtToItsLoudness() {
    Media soft = sounds.add("soft take", MediaKind.VOICE, Projects.noise(6, 5 * RATE, 0.02));
    Media loud = sounds.add("loud", MediaKind.MUSIC, Projects.noise(11, 30 * RATE, 0.9));
    FilmPlan plan =
        FilmPlan.of(
            Optional.of(film(30, false)), List.of(at(soft, 4), at(soft, 17)), List.of(at(loud, 0)));
    Project made = new FilmMaker(plan, sounds, sounds, Songs.NONE).make("p");
    LoudMusic.Standing standing = LoudMusic.of(Energies.of(made, sounds), sounds).orElseThrow();
    assertThat(standing.voiceLufs()).isCloseTo(-20, within(0.1));
    assertThat(standing.louderLu()).isCloseTo(0, within(0.1));
    assertThat(made.firstTrack(TrackKind.MUSIC).orElseThrow().levelDb()).isBetween(-25.0, -6.0);
    assertThat(PassageLoudness.measure(made, sounds, Passages.of(made)))
        .allSatisfy(p -> assertThat(p.separationLu()).isCloseTo(10, within(0.1)));
    Project usual =
        new FilmMaker(plan(film(30, false), List.of(at(take, 4))), sounds, sounds, Songs.NONE)
            .make("p");
    assertThat(usual.firstTrack(TrackKind.MUSIC).orElseThrow().levelDb()).isZero();
    assertThat(usual.firstTrack(TrackKind.VOICE).orElseThrow().clips().getFirst().gainDb())
        .isZero();
  }

  @Test
  void aQuietVoiceIsRaisedWhereItNeverRestsToo() {
    Media soft = sounds.add("soft take", MediaKind.VOICE, Projects.noise(6, 20 * RATE, 0.02));
    FilmPlan plan =
        FilmPlan.of(Optional.of(film(20, false)), List.of(at(soft, 0)), List.of(at(song, 0)));
    Project made = new FilmMaker(plan, sounds, sounds, Songs.NONE).make("p");
    LoudMusic.Standing standing = LoudMusic.of(Energies.of(made, sounds), sounds).orElseThrow();
    assertThat(standing.voiceLufs()).isCloseTo(-20, within(0.1));
    assertThat(standing.isTooLoud()).isFalse();
    assertThat(made.firstTrack(TrackKind.MUSIC).orElseThrow().levelDb()).isZero();
  }

  @Test
  void quietMusicNeedsNoHush() {
    Media soft = sounds.add("soft", MediaKind.MUSIC, Projects.noise(8, 12 * RATE, 0.01));
    FilmPlan plan =
        FilmPlan.of(Optional.of(film(20, false)), List.of(at(take, 4)), List.of(at(soft, 0)));
    assertThat(
            new FilmMaker(plan, sounds, sounds, Songs.NONE)
                .make("p")
                .firstTrack(TrackKind.MUSIC)
                .orElseThrow()
                .hushes())
        .isEmpty();
  }

  @Test
  void theDepthIsTheFormulaOfMeasuredLoudness() {
    assertThat(new PassageLoudness(new Span(0, 1), -18, -20).depthForDb(10)).isEqualTo(-8);
    assertThat(new PassageLoudness(new Span(0, 1), -18, -40).depthForDb(10)).isZero();
    assertThat(new PassageLoudness(new Span(0, 1), -18, Double.NEGATIVE_INFINITY).depthForDb(10))
        .isZero();
  }

  @Test
  void anEffectOverAPassageIsMadeUpForByTheMusic() {
    Media horn = sounds.add("horn", MediaKind.EFFECT, Projects.noise(9, 5 * RATE, 0.045));
    FilmPlan plan =
        FilmPlan.of(Optional.of(film(20, false)), List.of(at(take, 4)), List.of(at(song, 0)))
            .withEffects(List.of(at(horn, 4)));
    Project project = new FilmMaker(plan, sounds, sounds, Songs.NONE).make("p");
    PassageLoudness measured =
        PassageLoudness.measure(project, sounds, Passages.of(project)).getFirst();
    assertThat(measured.separationLu()).isCloseTo(10, within(0.1));
  }

  @Test
  void musicIsRepeatedToThePicturesEndWithoutEnteringTheMediasOutside() {
    Project project =
        new FilmMaker(plan(film(30, false), List.of(at(take, 4))), sounds, sounds, Songs.NONE)
            .placed("p");
    Clip music = project.firstTrack(TrackKind.MUSIC).orElseThrow().clips().getFirst();
    assertThat(music.lengthFrames()).isEqualTo(30L * RATE);
    assertThat(music.seams()).hasSize(2);
    for (Seam seam : music.seams()) {
      assertThat(seam.fromFrame() + seam.crossfadeFrames() / 2)
          .isLessThanOrEqualTo(song.lengthFrames());
      assertThat(seam.toFrame() - seam.crossfadeFrames() / 2).isGreaterThanOrEqualTo(0);
      assertThat(music.mediaFrameAt(seam.atFrame() - 1)).isEqualTo(seam.fromFrame() - 1);
      assertThat(music.mediaFrameAt(seam.atFrame())).isEqualTo(seam.toFrame());
    }
    assertThat(music.mediaFrameAt(music.lengthFrames() - 1)).isLessThan(song.lengthFrames());
  }

  @Test
  void longMusicIsCutAndFaded() {
    Project project =
        new FilmMaker(plan(film(9, false), List.of(at(take, 1))), sounds, sounds, Songs.NONE)
            .placed("p");
    Clip music = project.firstTrack(TrackKind.MUSIC).orElseThrow().clips().getFirst();
    assertThat(music.lengthFrames()).isEqualTo(9L * RATE);
    assertThat(music.seams()).isEmpty();
    assertThat(music.fadeIn().lengthFrames()).isEqualTo(2L * RATE);
    assertThat(music.fadeOut().lengthFrames()).isEqualTo(3L * RATE);
  }

  @Test
  void withoutNarrationThePicturesOwnSoundIsTheVoice() {
    Project project =
        new FilmMaker(plan(film(20, true), List.of()), sounds, sounds, Songs.NONE).make("p");
    assertThat(project.firstTrack(TrackKind.CAMERA)).isEmpty();
    assertThat(Passages.of(project)).containsExactly(new Span(0, 20L * RATE));
    assertThat(
            PassageLoudness.measure(project, sounds, Passages.of(project))
                .getFirst()
                .separationLu())
        .isCloseTo(10, within(0.1));
  }

  @Test
  void whatCannotServeIsSaidInWords() {
    Media silent = sounds.add("silent", MediaKind.VOICE, new float[2 * RATE]);
    assertProblem(plan(film(20, false), List.of(at(silent, 1))), "silent.wav is silent");
    assertProblem(plan(film(20, false), List.of()), "no narration was given");
    Media blip = sounds.add("blip", MediaKind.MUSIC, Projects.noise(1, RATE / 2, 0.3));
    assertProblem(
        FilmPlan.of(Optional.of(film(20, false)), List.of(at(take, 1)), List.of(at(blip, 0))),
        "shorter than a second");
    assertProblem(
        FilmPlan.of(Optional.of(film(5, false)), List.of(at(take, 0)), List.of(at(song, 0)))
            .withFadeInSeconds(OptionalDouble.of(4))
            .withFadeOutSeconds(OptionalDouble.of(4)),
        "fades of the music are longer");
    assertProblem(
        FilmPlan.of(Optional.of(film(5, false)), List.of(at(take, 0)), List.of(at(song, 7))),
        "place it earlier");
  }

  private void assertProblem(FilmPlan plan, String words) {
    assertThatThrownBy(() -> new FilmMaker(plan, sounds, sounds, Songs.NONE).make("p"))
        .isInstanceOf(Problem.class)
        .hasMessageContaining(words);
  }

  @Test
  void aStillPictureIsShownFromTheBeginningToTheEndOfTheSound() {
    Media still =
        new Media(
            "still",
            Path.of("/cover.png"),
            MediaKind.STILL,
            5L * RATE,
            false,
            Optional.empty(),
            "");
    FilmPlan plan = podcast(List.of(at(take, 4), at(take, 17))).withPicture(Optional.of(still));
    Project made = new FilmMaker(plan, sounds, sounds, Songs.NONE).make("p");
    assertThat(made.firstTrack(TrackKind.PICTURE).orElseThrow().clips())
        .singleElement()
        .satisfies(c -> assertThat(c.span()).isEqualTo(new Span(0, 26L * RATE)));
    assertThat(made.lengthFrames()).isEqualTo(26L * RATE);
    assertThat(made.firstTrack(TrackKind.CAMERA)).isEmpty();
    Project asked =
        new FilmMaker(plan.withEndFrame(OptionalLong.of(40L * RATE)), sounds, sounds, Songs.NONE)
            .make("p");
    assertThat(asked.pictureEndFrame()).hasValue(40L * RATE);
  }

  @Test
  void soundWithoutAPictureEndsWithTheMusicsFadeAfterTheLastWord() {
    FilmPlan plan = podcast(List.of(at(take, 4), at(take, 17)));
    Project made = new FilmMaker(plan, sounds, sounds, Songs.NONE).make("p");
    assertThat(made.tracks().stream().map(Track::kind))
        .containsExactly(TrackKind.VOICE, TrackKind.MUSIC);
    assertThat(made.lengthFrames()).isEqualTo(26L * RATE); // spoken to 22 s, faded for 4
    Clip music = made.firstTrack(TrackKind.MUSIC).orElseThrow().clips().getFirst();
    assertThat(music.endFrame()).isEqualTo(26L * RATE);
    assertThat(music.fadeOut().lengthFrames()).isEqualTo(4L * RATE);
    assertThat(PassageLoudness.measure(made, sounds, Passages.of(made)))
        .hasSize(2)
        .allSatisfy(p -> assertThat(p.separationLu()).isCloseTo(10, within(0.1)));
  }

  @Test
  void soundWithoutAPictureIsAsLongAsAskedForAndNoShorterThanWhatIsSpoken() {
    FilmPlan plan = podcast(List.of(at(take, 4), at(take, 17)));
    FilmPlan longer = plan.withEndFrame(OptionalLong.of(40L * RATE));
    assertThat(new FilmMaker(longer, sounds, sounds, Songs.NONE).placed("p").lengthFrames())
        .isEqualTo(40L * RATE);
    assertProblem(plan.withEndFrame(OptionalLong.of(21L * RATE)), "goes on to 22.0 s");
    assertProblem(podcast(List.of()), "There is no narration");
  }

  private FilmPlan podcast(List<FilmPlan.Placed> voices) {
    return FilmPlan.of(Optional.empty(), voices, List.of(at(song, 0)));
  }

  @Test
  void aMixThatWouldPassMinusOneIsLowered() {
    Project loud = Project.empty("p");
    assertThat(FilmMaker.withinPeak(loud, 2.5).masterDb()).isEqualTo(-3.5);
    assertThat(FilmMaker.withinPeak(loud, -3).masterDb()).isZero();
  }

  @Test
  void planningAgainReplacesTheHushesAndGivesTheSame() {
    Project once =
        new FilmMaker(plan(film(30, false), List.of(at(take, 4))), sounds, sounds, Songs.NONE)
            .make("p");
    Project twice = HushDrafter.draft(once, sounds).after();
    List<Hush> a = once.firstTrack(TrackKind.MUSIC).map(Track::hushes).orElseThrow();
    List<Hush> b = twice.firstTrack(TrackKind.MUSIC).map(Track::hushes).orElseThrow();
    assertThat(a).hasSize(1);
    assertThat(b).isEqualTo(a);
  }

  @Test
  void everythingUnderTheVoiceTogetherReachesWhatWasAskedFor() {
    for (double asked : new double[] {12, 15, 20, 26}) {
      FilmPlan plan =
          FilmPlan.of(
                  Optional.of(film(30, true)),
                  List.of(at(take, 4), at(take, 17)),
                  List.of(FilmPlan.Placed.at(song, 0)))
              .withSeparationLu(asked);
      Project project = new FilmMaker(plan, sounds, sounds, Songs.NONE).make("p");
      assertThat(PassageLoudness.measure(project, sounds, Passages.of(project)))
          .as("asked for %.0f LU", asked)
          .hasSize(2)
          .allSatisfy(p -> assertThat(p.separationLu()).isGreaterThan(asked - 0.1));
    }
  }

  @Test
  void narrationPastThePicturesEndCountsOnlyAsFarAsItIsHeard() {
    Project project =
        new FilmMaker(
                plan(film(30, false), List.of(at(take, 4), at(take, 28), at(take, 40))),
                sounds,
                sounds,
                Songs.NONE)
            .make("p");
    List<PassageLoudness> measured = PassageLoudness.measure(project, sounds, Passages.of(project));
    assertThat(measured)
        .extracting(p -> p.passage().endFrame())
        .containsExactly(9L * RATE, 30L * RATE);
    assertThat(measured).allSatisfy(p -> assertThat(p.separationLu()).isFinite());
  }
}
