package hushrise.core.edit;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.fit.FitFollow;
import hushrise.core.fit.Songs;
import hushrise.core.hush.HushFollow;
import hushrise.core.mix.Projects;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.media.Credit;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Take;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.FrameRate;
import hushrise.core.time.Span;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** What was set stays, whatever a file holds from now on. */
class RenewalTest {

  private static final int RATE = 48_000;

  private final Media film = Projects.film("film", 90, true, 25);
  private final Media credits = Projects.film("credits", 10, false, 25);
  private final Media line = Projects.media("line", MediaKind.VOICE, 20L * RATE);
  private final Media song = Projects.media("song", MediaKind.MUSIC, 200L * RATE);

  private static Project with(Project project, Media media, double seconds) {
    return Placement.add(project, media, Math.round(seconds * RATE), Songs.NONE);
  }

  private static Project renewed(Project project, String mediaId, Media fresh) {
    Project edited = Renewal.of(project, mediaId, fresh, Songs.NONE);
    return FitFollow.followed(project, edited, Songs.NONE).project();
  }

  private static List<Span> spans(Project project, TrackKind kind) {
    return project.tracksOf(kind).flatMap(t -> t.clipsInTime().stream()).map(Clip::span).toList();
  }

  private static Span seconds(double from, double to) {
    return new Span(Math.round(from * RATE), Math.round(to * RATE));
  }

  @Test
  void theNextCutOfAFilmTakesItsPlaceWithAllThatComesAfterIt() {
    Project project = with(with(with(Project.empty("p"), film, 0), credits, 0), song, 0);
    Project shorter = renewed(project, "film", Projects.film("cut 2", 70, true, 30));
    assertThat(shorter.media("film").orElseThrow().title()).isEqualTo("cut 2.mp4");
    assertThat(shorter.pictureRate()).isEqualTo(new FrameRate(30, 1));
    assertThat(spans(shorter, TrackKind.PICTURE)).containsExactly(seconds(0, 70), seconds(70, 80));
    assertThat(spans(shorter, TrackKind.CAMERA)).containsExactly(seconds(0, 70));
    assertThat(spans(shorter, TrackKind.MUSIC)).containsExactly(seconds(0, 80));
    Project longer = renewed(project, "film", Projects.film("cut 3", 95, true, 25));
    assertThat(spans(longer, TrackKind.PICTURE)).containsExactly(seconds(0, 95), seconds(95, 105));
    assertThat(spans(longer, TrackKind.MUSIC)).containsExactly(seconds(0, 105));
  }

  @Test
  void aFilmsOwnSoundGoesWithItAndComesWithIt() {
    Project project = with(Project.empty("p"), film, 0);
    Project silent = renewed(project, "film", Projects.film("silent", 90, false, 25));
    assertThat(spans(silent, TrackKind.CAMERA)).isEmpty();
    Project again = renewed(silent, "film", Projects.film("loud", 80, true, 25));
    assertThat(spans(again, TrackKind.CAMERA)).containsExactly(seconds(0, 80));
    assertThat(again.firstTrack(TrackKind.CAMERA).orElseThrow().clips().getFirst().mediaId())
        .isEqualTo("film");
  }

  @Test
  void aVoiceThatIsThePicturesOwnStaysWithIt() {
    Media talk = Projects.film("talk", 30, true, 25);
    Project placed = with(with(Project.empty("p"), film, 0), talk, 0);
    Project spoken =
        placed.withEachTrack(t -> t.kind() == TrackKind.CAMERA ? t.withKind(TrackKind.VOICE) : t);
    Project shorter = renewed(spoken, "film", Projects.film("cut 2", 70, true, 25));
    assertThat(spans(shorter, TrackKind.VOICE)).containsExactly(seconds(0, 70), seconds(70, 100));
    assertThat(spans(shorter, TrackKind.PICTURE)).containsExactly(seconds(0, 70), seconds(70, 100));
  }

  @Test
  void aPartOfAVoiceStaysThatPartAndNothingGoesOnAfterTheNewEnd() {
    Project whole = with(Project.empty("p"), line, 5);
    String id = whole.firstTrack(TrackKind.VOICE).orElseThrow().clips().getFirst().id();
    Project project = ClipEdits.split(whole, Set.of(id), 13L * RATE);
    Project longer = renewed(project, "line", line.withLengthFrames(30L * RATE));
    assertThat(spans(longer, TrackKind.VOICE)).containsExactly(seconds(5, 13), seconds(13, 35));
    Project shorter = renewed(project, "line", line.withLengthFrames(6L * RATE));
    assertThat(spans(shorter, TrackKind.VOICE).getFirst()).isEqualTo(seconds(5, 11));
    assertThat(shorter.tracks().stream().flatMap(t -> t.clips().stream()))
        .allMatch(c -> c.mediaStartFrame() + c.lengthFrames() <= 6L * RATE);
  }

  @Test
  void takesThatAreNotThereAnyMoreGo() {
    Media take = Projects.media("take", MediaKind.VOICE, 8L * RATE);
    Project project =
        with(Project.empty("p").withMedia(take), line, 5)
            .withEachTrack(
                t ->
                    t.withClips(
                        t.clips().stream()
                            .map(
                                c ->
                                    c.withOtherTakes(
                                        List.of(
                                            new Take("take", 5L * RATE, 8L * RATE, 0, 0),
                                            new Take("take", 9L * RATE, RATE, 7L * RATE, 0))))
                            .toList()));
    Project shorter = renewed(project, "take", take.withLengthFrames(3L * RATE));
    assertThat(shorter.firstTrack(TrackKind.VOICE).orElseThrow().clips().getFirst().otherTakes())
        .containsExactly(new Take("take", 5L * RATE, 3L * RATE, 0, 0));
  }

  @Test
  void hushesFollowWhereTheNewVoiceSpeaks() {
    Media spoken = line.withSpeech(Optional.of(List.of(seconds(1, 6), seconds(12, 18))));
    Project placed = with(with(with(Project.empty("p"), film, 0), spoken, 10), song, 0);
    Track music = placed.firstTrack(TrackKind.MUSIC).orElseThrow();
    Project project =
        placed.withTrack(music.id(), t -> t.withHushes(List.of(Hush.over(seconds(11, 16), -9))));
    Media cleaned =
        line.withFile(Path.of("/cleaned.wav"))
            .withSpeech(Optional.of(List.of(seconds(2, 6.5), seconds(12, 18))));
    Project followed = HushFollow.followed(project, renewed(project, "line", cleaned));
    Hush hush = followed.track(music.id()).orElseThrow().hushes().getFirst();
    assertThat(hush.passage()).isEqualTo(seconds(12, 16.5));
    assertThat(hush.depthDb()).isEqualTo(-9);
  }

  @Test
  void anotherFileBringsItsOwnCreditAndLeavesNoSecondItem() {
    Credit own = Credit.ofNote("Music: A");
    Project project =
        with(Project.empty("p"), song.withCredit(own), 0)
            .withMedia(song.withId("bought").withFile(Path.of("/bought.wav")));
    Project credited = ShelfEdits.setCredit(project, "bought", "Music: B");
    Media bought = song.withId("x").withFile(Path.of("/bought.wav")).withCredit(Credit.NONE);
    Project renewed = renewed(credited, "song", bought);
    assertThat(renewed.shelf()).extracting(Media::id).containsExactly("song");
    assertThat(renewed.media("song").orElseThrow().credit()).isEqualTo(Credit.ofNote("Music: B"));
    Media anew = song.withLengthFrames(RATE).withCredit(Credit.NONE);
    assertThat(renewed(project, "song", anew).media("song").orElseThrow().credit()).isEqualTo(own);
  }

  @Test
  void itIsHeardAsLoudAsBefore() {
    Project project = with(Project.empty("p"), song, 0);
    String id = project.firstTrack(TrackKind.MUSIC).orElseThrow().clips().getFirst().id();
    Project gained = ClipEdits.setGain(project, Set.of(id), -2);
    Project louder = Renewal.louder(gained, "song", -3.5);
    assertThat(louder.clip(id).orElseThrow().gainDb()).isEqualTo(-5.5);
  }
}
