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
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

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

  /** What a hand does, which comes early or late, never quite back, and is not still in between. */
  private static final class Rider {

    private final Random random;
    private final boolean turnsUnderSpeech;
    private final List<Span> speech = new ArrayList<>();
    private final List<Keyframe> line = new ArrayList<>();
    private double around;

    Rider(long seed, boolean turnsUnderSpeech) {
      random = new Random(seed);
      this.turnsUnderSpeech = turnsUnderSpeech;
      double base = -random.nextInt(6);
      around = base;
      line.add(at(0, around));
      double start = between(2, 5);
      for (double free = 0; start < 60; start = free + between(0.2, 6)) {
        double end = speaks(start);
        free = dips(free, start, end, base + between(-1.5, 1.5));
        free = Math.max(free, end);
      }
    }

    private double between(double least, double most) {
      return least + random.nextDouble() * (most - least);
    }

    /** One passage, or some with short pauses; until when. */
    private double speaks(double start) {
      double end = start + between(1.5, 9.5);
      speech.add(new Span(at(start, 0).frame(), at(end, 0).frame()));
      while (turnsUnderSpeech && random.nextBoolean()) {
        double next = end + between(0.2, 2.2);
        end = next + between(0.6, 4.6);
        speech.add(new Span(at(next, 0).frame(), at(end, 0).frame()));
      }
      return end;
    }

    /** Goes down and up; when it is back. */
    private double dips(double free, double start, double end, double back) {
      double down = Math.max(free + 0.1, start - between(0, 1.8));
      double floorStart = Math.max(down + 0.2, start - between(-0.3, 0.5));
      double floorEnd = Math.max(floorStart + 0.3, end + between(-0.2, 0.6));
      double floor = around - between(4, 16);
      line.add(at(down, around + between(-0.3, 0.3)));
      line.add(at(floorStart, floor));
      for (double s = floorStart + 0.8; s < floorEnd - 0.5; s += between(0.7, 2.7)) {
        boolean turns = turnsUnderSpeech && random.nextInt(5) == 0;
        floor = turns ? Math.min(around, floor + between(-6, 6)) : floor;
        line.add(at(s, floor + between(-0.7, 0.7)));
      }
      line.add(at(floorEnd, floor + between(-0.3, 0.3)));
      around = back;
      double up = floorEnd + between(0.5, 2);
      line.add(at(up, around));
      return up;
    }

    Project project() {
      Media voice = Projects.media("voice", MediaKind.VOICE, 120L * RATE);
      Media song = Projects.media("song", MediaKind.MUSIC, 120L * RATE);
      return Project.empty("p")
          .withMedia(voice.withSpeech(Optional.of(speech)))
          .withMedia(song)
          .withTracks(
              List.of(
                  Track.of(TrackKind.VOICE, "v", List.of(Clip.whole(voice, 0))),
                  Track.of(TrackKind.MUSIC, "m", List.of(Clip.whole(song, 0)))
                      .withLine(LevelLine.of(line))));
    }
  }

  /** A hand goes straight where a hush is curved: that is up to a tenth of a dip. */
  @ParameterizedTest
  @ValueSource(booleans = {false, true})
  void whateverAHandDidIsHeardAsItDidIt(boolean turnsUnderSpeech) {
    int hushes = 0;
    for (long seed = 0; seed < 100; seed++) {
      Project project = new Rider(seed, turnsUnderSpeech).project();
      LevelLine was = music(project).line();
      Track made = music(RideHushes.of(project, music(project).id()));
      hushes += made.hushes().size();
      List<Hush.Knots> knots = made.hushes().stream().map(h -> h.knots(RATE)).toList();
      for (long frame = 0; frame < 110L * RATE; frame += 480) {
        long at = frame;
        double hush = knots.stream().mapToDouble(k -> k.levelDbAt(at)).min().orElse(0);
        assertThat(made.line().levelDbAt(frame) + hush)
            .as("seed %d, %.2f s", seed, project.seconds(frame))
            .isCloseTo(was.levelDbAt(frame), within(4.0));
      }
    }
    assertThat(hushes).as("hushes").isGreaterThan(300);
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
