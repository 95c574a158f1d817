package hushrise.core.ride;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import hushrise.core.hush.HushFollow;
import hushrise.core.mix.Projects;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelLine;
import hushrise.core.project.level.SegmentShape;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** Dips that a hand has ridden become hushes. */
class RideHushesTest {

  private static final int RATE = 48_000;

  private static Project ridden(LevelLine line) {
    Media voice =
        Projects.media("voice", MediaKind.VOICE, 40L * RATE)
            .withSpeech(
                Optional.of(
                    List.of(
                        new Span(5L * RATE, 9L * RATE),
                        new Span(9L * RATE + 30_000, 12L * RATE),
                        new Span(22L * RATE, 27L * RATE))));
    Media song = Projects.media("song", MediaKind.MUSIC, 40L * RATE);
    return Project.empty("p")
        .withMedia(voice)
        .withMedia(song)
        .withTracks(
            List.of(
                Track.of(TrackKind.VOICE, "v", List.of(Clip.whole(voice, 0))),
                Track.of(TrackKind.MUSIC, "m", List.of(Clip.whole(song, 0))).withLine(line)));
  }

  private static Keyframe at(double seconds, double db) {
    return new Keyframe(Math.round(seconds * RATE), db, SegmentShape.STRAIGHT);
  }

  private static final LevelLine TWO_DIPS =
      LevelLine.of(
          List.of(
              at(1, -2),
              at(4.4, -2),
              at(5.1, -13),
              at(8, -12.6),
              at(12.2, -13),
              at(13.4, -1),
              at(18, -1),
              at(21.5, -1),
              at(22.3, -16),
              at(26.8, -16),
              at(28.8, -3),
              at(35, -3)));

  private static Track music(Project project) {
    return project.firstTrack(TrackKind.MUSIC).orElseThrow();
  }

  @Test
  void theLevelStaysWithinOneDbOfWhatWasRidden() {
    Project project = ridden(TWO_DIPS);
    Project made = RideHushes.of(project, music(project).id());
    assertThat(music(made).hushes()).hasSize(2);
    Hush first = music(made).hushes().getFirst();
    assertThat(first.passage()).isEqualTo(new Span(5L * RATE, 12L * RATE));
    assertThat(first.depthDb()).isCloseTo(-11.3, within(0.7));
    assertThat(first.turn().fallSeconds()).isBetween(0.4, 0.9);
    assertThat(music(made).hushes().get(1).turn().recoverySeconds()).isBetween(1.3, 2.1);
    for (double s : new double[] {0.5, 3, 7, 10, 11.5, 15, 17, 20, 24, 26, 30, 33}) {
      long frame = Math.round(s * RATE);
      double was = TWO_DIPS.levelDbAt(frame);
      double hush =
          music(made).hushes().stream()
              .mapToDouble(h -> h.knots(RATE).levelDbAt(frame))
              .min()
              .orElse(0);
      assertThat(music(made).line().levelDbAt(frame) + hush)
          .as("%s s", s)
          .isCloseTo(was, within(1.0));
    }
  }

  @Test
  void theyFollowTheSpeechFromThenOn() {
    Project project = ridden(TWO_DIPS);
    Project made = RideHushes.of(project, music(project).id());
    Project moved =
        made.withTrack(
            made.firstTrack(TrackKind.VOICE).orElseThrow().id(),
            t -> t.withClips(t.clips().stream().map(c -> c.withStartFrame(2L * RATE)).toList()));
    Project followed = HushFollow.followed(made, moved);
    assertThat(music(followed).hushes().getFirst().startFrame()).isEqualTo(7L * RATE);
  }

  @Test
  void aLineWithoutDipsAndPassagesThatHaveAHushStayAsTheyAre() {
    Project flat = ridden(LevelLine.of(List.of(at(0, -4), at(30, -4.5))));
    assertThat(RideHushes.of(flat, music(flat).id())).isSameAs(flat);
    Project project = ridden(TWO_DIPS);
    Project made = RideHushes.of(project, music(project).id());
    assertThat(RideHushes.of(made, music(made).id())).isSameAs(made);
  }
}
