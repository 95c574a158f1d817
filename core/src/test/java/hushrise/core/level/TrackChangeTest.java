package hushrise.core.level;

import static hushrise.core.mix.Projects.RATE;
import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.edit.ClipEdits;
import hushrise.core.edit.FadeEdits;
import hushrise.core.edit.HushEdits;
import hushrise.core.edit.LevelEdits;
import hushrise.core.mix.Projects;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelLine;
import hushrise.core.project.level.SegmentShape;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

class TrackChangeTest {

  private static Keyframe at(double seconds, double db) {
    return new Keyframe(Math.round(seconds * RATE), db, SegmentShape.SMOOTH);
  }

  private static final Track TRACK =
      Track.of(TrackKind.MUSIC, "m", List.of())
          .withLine(LevelLine.of(List.of(at(1, 0), at(2, -3), at(4, -6), at(7, 0))))
          .withHushes(
              List.of(
                  Hush.over(new Span(3L * RATE, 5L * RATE), -8),
                  Hush.over(new Span(8L * RATE, 9L * RATE), -8)));

  private static Optional<Span> change(Track now) {
    return TrackChange.between(TRACK, now, RATE);
  }

  @Test
  void whatCannotBeHeardIsNoChange() {
    assertThat(change(TRACK)).isEmpty();
    assertThat(change(TRACK.withName("Bed").withMuted(true))).isEmpty();
  }

  @Test
  void aKeyframeChangesTheLineBetweenItsNeighbours() {
    Track moved = TRACK.withLine(LevelLine.of(List.of(at(1, 0), at(2, -4), at(4, -6), at(7, 0))));
    assertThat(change(moved)).contains(new Span(RATE, 4L * RATE + 1));
    Track last = TRACK.withLine(LevelLine.of(List.of(at(1, 0), at(2, -3), at(4, -6), at(7, 1))));
    assertThat(change(last).orElseThrow().endFrame()).isEqualTo(Long.MAX_VALUE);
  }

  @Test
  void aHushChangesWhereItWasAndWhereItIs() {
    Hush first = TRACK.hushes().getFirst();
    Hush later = first.withPassage(new Span(4L * RATE, 6L * RATE));
    Track moved = TRACK.withHushes(List.of(later, TRACK.hushes().get(1)));
    assertThat(change(moved))
        .contains(new Span(first.knots(RATE).start(), later.knots(RATE).end()));
  }

  @Test
  void aTracksLevelChangesAllOfIt() {
    assertThat(change(TRACK.withLevelDb(-1)).orElseThrow()).isEqualTo(new Span(0, Long.MAX_VALUE));
  }

  /** Whatever is done to a track, outside the change its level and its clips are the same. */
  @Property(tries = 60)
  void outsideTheChangeNothingDiffers(@ForAll long seed) {
    Random random = new Random(seed);
    Project before = Projects.rich(new Projects.Sounds());
    Project after = before;
    String music = before.tracks().get(1).id();
    for (int i = 0; i < 3; i++) {
      after = edited(after, music, random);
    }
    Track was = before.track(music).orElseThrow();
    Track is = after.track(music).orElseThrow();
    Optional<Span> change = TrackChange.between(was, is, RATE);
    TrackCurve wasCurve = TrackCurve.of(was, RATE);
    TrackCurve isCurve = TrackCurve.of(is, RATE);
    for (int i = 0; i < 400; i++) {
      long frame = random.nextLong(12L * RATE);
      if (change.filter(s -> s.contains(frame)).isEmpty()) {
        assertThat(isCurve.levelDbAt(frame))
            .as("at %d", frame)
            .isEqualTo(wasCurve.levelDbAt(frame));
        assertThat(is.clips().stream().filter(c -> c.span().contains(frame)).toList())
            .as("clips at %d", frame)
            .isEqualTo(was.clips().stream().filter(c -> c.span().contains(frame)).toList());
      }
    }
  }

  private static Project edited(Project project, String music, Random random) {
    long at = random.nextLong(9L * RATE);
    return switch (random.nextInt(5)) {
      case 0 -> LevelEdits.addKeyframe(project, music, at);
      case 1 -> HushEdits.add(project, music, Hush.over(new Span(at, at + RATE / 2), -5));
      case 2 -> ClipEdits.move(project, Set.of("song"), random.nextLong(RATE), false);
      case 3 -> FadeEdits.setOut(project, "song", 1 + random.nextLong(RATE));
      default -> LevelEdits.moveKeyframe(project, music, 0, at, -3);
    };
  }
}
