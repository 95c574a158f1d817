package hushrise.core.project;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.edit.LevelEdits;
import hushrise.core.edit.MarkerEdits;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.Rise;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.List;
import org.junit.jupiter.api.Test;

/** A project is too long when anything in it lies beyond what its file may hold. */
class LongestProjectTest {

  private static final long MOST = Project.MOST_HOURS * 3600L * Project.DEFAULT_SAMPLE_RATE;

  private final Track music = Track.of(TrackKind.MUSIC, "Music", List.of());
  private final Project project = Project.empty("film").withTracks(List.of(music));

  @Test
  void byAKeyframe() {
    assertThat(LevelEdits.addKeyframe(project, music.id(), MOST).isTooLong()).isFalse();
    assertThat(LevelEdits.addKeyframe(project, music.id(), MOST + 1).isTooLong()).isTrue();
  }

  @Test
  void byAMarker() {
    assertThat(MarkerEdits.add(project, "there", MOST).isTooLong()).isFalse();
    assertThat(MarkerEdits.add(project, "there", MOST + 1).isTooLong()).isTrue();
  }

  @Test
  void byAHushOrARise() {
    for (long end : new long[] {MOST, MOST + 1}) {
      Span span = new Span(0, end);
      Track hushed = music.withHushes(List.of(Hush.over(span, -6)));
      Track risen = music.withRises(List.of(Rise.over(span, 3)));
      assertThat(project.withTracks(List.of(hushed)).isTooLong()).isEqualTo(end > MOST);
      assertThat(project.withTracks(List.of(risen)).isTooLong()).isEqualTo(end > MOST);
    }
  }
}
