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
import java.util.Set;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.Test;

/** A song that gave way ends where the next one starts, wherever that goes. */
class SongFollowTest {

  private static final int RATE = 48_000;

  private final Project project = project();

  private static Project project() {
    Media film = Projects.film("film", 90, false, 25);
    Project under = Placement.add(Project.empty("p"), film, 0, Songs.NONE);
    for (String song : new String[] {"first", "second"}) {
      Media media = Projects.media(song, MediaKind.MUSIC, 200L * RATE);
      under = Placement.add(under, media, song.equals("first") ? 0 : 50L * RATE, Songs.NONE);
    }
    return under;
  }

  private static Clip of(Project project, String media) {
    return project.firstTrack(TrackKind.MUSIC).orElseThrow().clips().stream()
        .filter(c -> c.mediaId().equals(media))
        .findFirst()
        .orElseThrow();
  }

  private Project edited(UnaryOperator<Project> edit) {
    Project followed = SongFollow.followed(project, edit.apply(project));
    return FitFollow.followed(project, followed, Songs.NONE).project();
  }

  private Project moved(String media, double seconds) {
    return edited(
        p -> ClipEdits.move(p, Set.of(of(p, media).id()), Math.round(seconds * RATE), false));
  }

  private static Span seconds(double from, double to) {
    return new Span(Math.round(from * RATE), Math.round(to * RATE));
  }

  @Test
  void itsEndGoesWithTheStartOfTheNext() {
    for (double by : new double[] {10, -12.5}) {
      assertThat(of(moved("second", by), "first").span()).isEqualTo(seconds(0, 52 + by));
      assertThat(of(moved("second", by), "second").span()).isEqualTo(seconds(50 + by, 90));
    }
    Project trimmed = edited(p -> ClipEdits.trimStart(p, of(p, "second").id(), 55L * RATE));
    assertThat(of(trimmed, "first").span()).isEqualTo(seconds(0, 57));
  }

  @Test
  void itsEndStaysWhenItselfIsMovedAndBothGoTogether() {
    assertThat(of(moved("first", 5), "first").span()).isEqualTo(seconds(5, 52));
    Project both =
        edited(
            p ->
                ClipEdits.move(
                    p, Set.of(of(p, "first").id(), of(p, "second").id()), 4L * RATE, false));
    assertThat(of(both, "first").span()).isEqualTo(seconds(4, 56));
    assertThat(of(both, "second").span()).isEqualTo(seconds(54, 90));
  }

  @Test
  void aSongThatDoesNotLastThatLongIsLooped() {
    Project brief = project.withMedia("first", m -> m.withLengthFrames(55L * RATE));
    Clip second = of(brief, "second");
    Project later =
        SongFollow.followed(brief, ClipEdits.move(brief, Set.of(second.id()), 10L * RATE, false));
    assertThat(of(later, "first").fit().orElseThrow().mode()).isEqualTo(FitMode.LOOP);
    Project soon =
        SongFollow.followed(brief, ClipEdits.move(brief, Set.of(second.id()), RATE, false));
    assertThat(of(soon, "first").fit().orElseThrow().mode()).isEqualTo(FitMode.TRIM);
  }

  @Test
  void anEndThatIsSetByHandStaysSo() {
    String first = of(project, "first").id();
    Project shorter = edited(p -> ClipEdits.trimEnd(p, first, 45L * RATE));
    assertThat(of(shorter, "first").span()).isEqualTo(seconds(0, 45));
  }

  @Test
  void withoutTheNextItPlaysOnInItsPlace() {
    Clip second = of(project, "second");
    Project alone = edited(p -> ClipRemoval.delete(p, Set.of(second.id()), false, false));
    assertThat(of(alone, "first").span()).isEqualTo(seconds(0, 90));
    assertThat(of(alone, "first").fadeOut()).isEqualTo(second.fadeOut());
    assertThat(of(alone, "first").fit().orElseThrow().untilFrame()).isEmpty();
  }

  @Test
  void anotherSongThatIsPlacedThereTakesOverAsTheOneBeforeDid() {
    Media third = Projects.media("third", MediaKind.MUSIC, 200L * RATE);
    Clip second = of(project, "second");
    Project instead =
        edited(
            p ->
                Placement.add(
                    ClipRemoval.delete(p, Set.of(second.id()), false, false),
                    third,
                    50L * RATE,
                    Songs.NONE));
    assertThat(of(instead, "first").span()).isEqualTo(seconds(0, 52));
    assertThat(of(instead, "third").span()).isEqualTo(seconds(50, 90));
  }
}
