package hushrise.core.project;

import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import hushrise.core.Problem;
import hushrise.core.edit.LevelEdits;
import hushrise.core.edit.MarkerEdits;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.Rise;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Track;
import hushrise.core.store.ProjectFile;
import hushrise.core.time.Span;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A project holds what can be read again from its file, and no more. */
class LimitsTest {

  private static final long MOST = Limits.MOST_HOURS * 3600L * Project.DEFAULT_SAMPLE_RATE;

  @TempDir Path folder;
  private final Track music = Track.of(TrackKind.MUSIC, "Music", List.of());
  private final Project project = Project.empty("film").withTracks(List.of(music));

  private Project with(Track track) {
    return project.withTracks(List.of(track));
  }

  /** What is let pass is read again from its file, and what is not is refused there too. */
  private void assertEdge(Project most, Project more, String words) {
    Path file = folder.resolve("film.hushrise");
    assertThatCode(() -> Limits.require(most)).doesNotThrowAnyException();
    ProjectFile.save(most, file);
    assertThatCode(() -> ProjectFile.load(file)).doesNotThrowAnyException();
    assertThatThrownBy(() -> Limits.require(more))
        .isInstanceOf(Problem.class)
        .hasMessageContaining(words);
    ProjectFile.save(more, file);
    assertThatThrownBy(() -> ProjectFile.load(file)).isInstanceOf(Problem.class);
  }

  @Test
  void aKeyframeOrAMarkerLiesWithinTwoDays() {
    assertEdge(
        LevelEdits.addKeyframe(project, music.id(), MOST),
        LevelEdits.addKeyframe(project, music.id(), MOST + 1),
        "48 hours");
    assertEdge(
        MarkerEdits.add(project, "there", MOST),
        MarkerEdits.add(project, "there", MOST + 1),
        "48 hours");
  }

  @Test
  void soDoHushesAndRises() {
    Span most = new Span(0, MOST);
    Span more = new Span(0, MOST + 1);
    assertEdge(
        with(music.withHushes(List.of(Hush.over(most, -6)))),
        with(music.withHushes(List.of(Hush.over(more, -6)))),
        "48 hours");
    assertEdge(
        with(music.withRises(List.of(Rise.over(most, 3)))),
        with(music.withRises(List.of(Rise.over(more, 3)))),
        "48 hours");
  }

  private static Track crowded(Track track, int count) {
    return track.withHushes(
        IntStream.range(0, count).mapToObj(i -> Hush.over(new Span(i, 1000), -6)).toList());
  }

  @Test
  void soMuchLiesOverOneAnother() {
    assertEdge(
        with(crowded(music, Limits.MOST_AT_ONCE)),
        with(crowded(music, Limits.MOST_AT_ONCE + 1)),
        "over one another on Music");
  }

  @Test
  void soManyTracksThereAre() {
    List<Track> tracks =
        IntStream.rangeClosed(0, Limits.MOST_TRACKS)
            .mapToObj(i -> Track.of(TrackKind.MUSIC, "Music", List.of()))
            .toList();
    assertEdge(
        project.withTracks(tracks.subList(1, tracks.size())),
        project.withTracks(tracks),
        "1000 tracks");
  }
}
