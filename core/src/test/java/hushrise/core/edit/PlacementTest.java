package hushrise.core.edit;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.fit.FitFollow;
import hushrise.core.fit.Songs;
import hushrise.core.mix.Projects;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.FitMode;
import hushrise.core.time.Span;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.Test;

/** More music than one piece, and narration where there is some: nothing lands on anything. */
class PlacementTest {

  private static final int RATE = 48_000;

  private final Media film = Projects.film("film", 90, false, 25);
  private final Media song = Projects.media("song", MediaKind.MUSIC, 40L * RATE);
  private final Media other = Projects.media("other", MediaKind.MUSIC, 200L * RATE);

  private static Project with(Project project, Media media, double seconds) {
    return Placement.add(project, media, Math.round(seconds * RATE), Songs.NONE);
  }

  private Project underFilm() {
    return with(with(Project.empty("p"), film, 0), song, 0);
  }

  private static Clip of(Project project, String media) {
    return project.firstTrack(TrackKind.MUSIC).orElseThrow().clips().stream()
        .filter(c -> c.mediaId().equals(media))
        .findFirst()
        .orElseThrow();
  }

  private static Span seconds(double from, double to) {
    return new Span(Math.round(from * RATE), Math.round(to * RATE));
  }

  @Test
  void aSecondSongTakesOverFromTheFirst() {
    Project project = with(underFilm(), other, 50);
    assertThat(of(project, "song").span()).isEqualTo(seconds(0, 52));
    assertThat(of(project, "song").fadeOut().lengthFrames()).isZero();
    assertThat(of(project, "song").fit()).isEmpty();
    assertThat(of(project, "other").span()).isEqualTo(seconds(50, 90));
    assertThat(of(project, "other").fadeIn().lengthFrames()).isZero();
    assertThat(of(project, "other").fadeOut().lengthFrames()).isEqualTo(4L * RATE);
  }

  @Test
  void aSongThatEndsByItselfJustThenEndsSo() {
    Project alone = with(Project.empty("p"), song, 0);
    assertThat(of(with(alone, other, 39), "song").span()).isEqualTo(seconds(0, 40));
    assertThat(of(with(alone, other, 30), "song").span()).isEqualTo(seconds(0, 32));
  }

  @Test
  void aSongPlacedBeforeAnotherGivesWayToIt() {
    Project late = with(with(Project.empty("p"), film, 0), other, 60);
    Project project = with(late, song, 10);
    Clip first = of(project, "song");
    assertThat(first.span()).isEqualTo(seconds(10, 62));
    assertThat(first.fadeIn().lengthFrames()).isEqualTo(2L * RATE);
    assertThat(first.fadeOut().lengthFrames()).isZero();
    assertThat(of(project, "other").span()).isEqualTo(seconds(60, 90));
    assertThat(of(project, "other").fadeIn().lengthFrames()).isZero();
  }

  @Test
  void aSongThatEndsBeforeTheNextIsNotStretchedWithoutAFilm() {
    Project project = with(with(Project.empty("p"), other, 60), song, 10);
    assertThat(of(project, "song").span()).isEqualTo(seconds(10, 50));
    assertThat(of(project, "song").fadeOut().lengthFrames()).isEqualTo(4L * RATE);
    assertThat(of(project, "other").fadeIn().lengthFrames()).isEqualTo(2L * RATE);
  }

  @Test
  void whatGaveWayKeepsToThePlaceWhateverTheFilmDoes() {
    Project first = with(with(Project.empty("p"), film, 0), other, 0);
    Project project = with(first, song, 50);
    assertThat(of(project, "other").fit().orElseThrow().mode()).isEqualTo(FitMode.TRIM);
    assertThat(of(project, "other").fit().orElseThrow().untilFrame()).hasValue(52L * RATE);
    assertThat(of(project, "other").span()).isEqualTo(seconds(0, 52));
  }

  @Test
  void narrationGoesWhereThereIsRoomForIt() {
    Media take = Projects.media("take", MediaKind.VOICE, 10L * RATE);
    Project project = with(with(Project.empty("p"), take, 5), take.withId("later"), 30);
    assertThat(roomFrom(project, 4, 0)).isZero();
    assertThat(roomFrom(project, 4, 6)).isEqualTo(16L * RATE);
    assertThat(roomFrom(project, 10, 0)).isEqualTo(16L * RATE);
    assertThat(roomFrom(project, 20, 0)).isEqualTo(41L * RATE);
    assertThat(roomFrom(Project.empty("p"), 20, 7)).isEqualTo(7L * RATE);
    assertThat(roomFrom(project, 2, 40.5)).isEqualTo(Math.round(40.5 * RATE));
  }

  private static long roomFrom(Project project, double length, double from) {
    return Placement.roomFrom(
        project, TrackKind.VOICE, Math.round(length * RATE), Math.round(from * RATE));
  }

  private static Project followed(Project before, UnaryOperator<Project> edit) {
    Project edited = SongFollow.followed(before, edit.apply(before));
    return FitFollow.followed(before, edited, Songs.NONE).project();
  }

  @Test
  void musicThatCameFirstFollowsTheNarrationAndThenTheFilm() {
    Media take = Projects.media("take", MediaKind.VOICE, 30L * RATE);
    Project alone = with(Project.empty("p"), other, 0);
    assertThat(of(alone, "other").span()).isEqualTo(seconds(0, 200));
    Project spoken = followed(alone, p -> with(p, take, 5));
    assertThat(of(spoken, "other").span()).isEqualTo(seconds(0, 39));
    assertThat(of(spoken, "other").fadeOut().lengthFrames()).isEqualTo(4L * RATE);
    Project longer = followed(spoken, p -> with(p, take, 40));
    assertThat(of(longer, "other").span()).isEqualTo(seconds(0, 74));
    Project filmed = followed(longer, p -> with(p, film, 0));
    assertThat(of(filmed, "other").span()).isEqualTo(seconds(0, 90));
  }

  @Test
  void aSongThatIsOverBeforeAnotherStartsDoesNotGoOnWithTheFilm() {
    Project two = with(with(Project.empty("p"), song, 0), other, 40);
    Project filmed = followed(two, p -> with(p, film, 0));
    assertThat(of(filmed, "song").span()).isEqualTo(seconds(0, 40));
    assertThat(of(filmed, "other").span()).isEqualTo(seconds(40, 90));
  }

  @Test
  void aPictureOfStillsIsShownForAsLongAsSomebodySpeaksAndMusicFades() {
    Media cover = Projects.media("cover", MediaKind.STILL, 5L * RATE);
    Media take = Projects.media("take", MediaKind.VOICE, 20L * RATE);
    Media more = Projects.media("more", MediaKind.VOICE, 10L * RATE);
    Project covered = with(Project.empty("p"), cover, 0);
    assertThat(covered.lengthFrames()).isEqualTo(5L * RATE);

    Project spoken = with(covered, take, 3);
    assertThat(spoken.pictureEndFrame()).hasValue(27L * RATE);
    assertThat(with(with(Project.empty("p"), take, 3), cover, 0).pictureEndFrame())
        .hasValue(27L * RATE);
    assertThat(with(spoken, cover, 0).pictureEndFrame()).as("a second one").hasValue(32L * RATE);

    Project full = with(spoken, other, 0);
    Project longer = FitFollow.followed(full, with(full, more, 40), Songs.NONE).project();
    assertThat(of(full, "other").span()).isEqualTo(seconds(0, 27));
    assertThat(longer.pictureEndFrame()).hasValue(54L * RATE);
    assertThat(of(longer, "other").span()).isEqualTo(seconds(0, 54));

    Project titled = with(with(Project.empty("p"), film, 0), cover, 0);
    assertThat(with(titled, take, 80).pictureEndFrame()).as("with a film").hasValue(95L * RATE);
  }
}
