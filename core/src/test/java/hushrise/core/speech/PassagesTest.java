package hushrise.core.speech;

import static hushrise.core.mix.Projects.RATE;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import hushrise.core.mix.Projects;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Seam;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class PassagesTest {

  private final Media take =
      Projects.media("take", MediaKind.VOICE, 20L * RATE)
          .withSpeech(Optional.of(List.of(span(2, 5), span(8, 12))));

  private static Span span(double from, double to) {
    return new Span(Math.round(from * RATE), Math.round(to * RATE));
  }

  private Project with(Media media, Clip... clips) {
    return Project.empty("p")
        .withMedia(media)
        .withTracks(List.of(Track.of(TrackKind.VOICE, "v", List.of(clips))));
  }

  @Test
  void passagesLieWhereTheClipPlaysThem() {
    assertThat(Passages.of(with(take, Clip.whole(take, 10L * RATE))))
        .containsExactly(span(12, 15), span(18, 22));
  }

  @Test
  void aTrimmedClipPlaysPartsOfThem() {
    Clip trimmed = Clip.whole(take, 0).withExtent(RATE, 8L * RATE, 3L * RATE, List.of());
    List<Passages.Passage> each = Passages.each(with(take, trimmed), t -> true);
    assertThat(each).extracting(Passages.Passage::span).containsExactly(span(1, 3), span(6, 9));
    assertThat(each.getFirst().inMedia()).isEqualTo(span(2, 5));
  }

  @Test
  void beyondASeamTheMediaGoesOnElsewhere() {
    Seam back = new Seam(6L * RATE, 6L * RATE, RATE, 480, 0.5);
    Clip looped = Clip.whole(take, 0).withContent(12L * RATE, List.of(back));
    assertThat(Passages.of(with(take, looped))).containsExactly(span(2, 5), span(7, 10));
  }

  @Test
  void anyTwoTakesThatSpeakAtOnceAreFoundWhereTheyFirstDo() {
    Media talk =
        Projects.media("talk", MediaKind.VOICE, 60L * RATE)
            .withSpeech(Optional.of(List.of(span(0, 50))));
    Clip under = Clip.whole(talk, 0);
    Clip first = Clip.whole(take, 8L * RATE); // speaks 10 to 13 and 16 to 20
    Clip second = Clip.whole(take, 27L * RATE); // 29 to 32, 35 to 39
    Clip touching = Clip.whole(take, Math.round(47.8 * RATE)); // 49.8 on
    Project project = with(talk, touching, second, first, under).withMedia(take);
    List<Passages.Overlap> found = Passages.atOnce(project);
    assertThat(found)
        .extracting(o -> o.before().clipId(), o -> o.after().clipId(), Passages.Overlap::span)
        .containsExactly(
            tuple(under.id(), first.id(), span(10, 13)),
            tuple(under.id(), second.id(), span(29, 32)));
    assertThat(Passages.atOnce(with(take, first, second))).isEmpty();
  }

  @Test
  void aClipThatNobodyHasLookedThroughCountsAsAWhole() {
    Media unknown = take.withSpeech(Optional.empty());
    assertThat(Passages.of(with(unknown, Clip.whole(unknown, RATE)))).containsExactly(span(1, 21));
    Media silent = take.withSpeech(Optional.of(List.of()));
    assertThat(Passages.of(with(silent, Clip.whole(silent, 0)))).isEmpty();
  }

  @Test
  void mutedVoicesDoNotCountAndTouchingOnesAreOne() {
    Project two = with(take, Clip.whole(take, 0), Clip.whole(take, 3L * RATE));
    assertThat(Passages.of(two)).containsExactly(span(2, 15));
    Project muted = two.withEachTrack(t -> t.withMuted(true));
    assertThat(Passages.of(muted)).isEmpty();
    assertThat(Span.joined(List.of(span(1, 2), span(2.5, 3)), RATE / 2))
        .containsExactly(span(1, 3));
  }
}
