package hushrise.core.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import hushrise.core.Problem;
import hushrise.core.level.LevelSum;
import hushrise.core.level.TrackCurve;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelLine;
import hushrise.core.project.level.Rise;
import hushrise.core.project.level.SegmentShape;
import hushrise.core.project.level.Turn;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** Dips and swells as objects, and groups of keyframes. */
class HushEditsTest {

  private static final int RATE = 48_000;

  private static Project with(Track track) {
    Media song =
        new Media(
            "song", Path.of("/s.wav"), MediaKind.MUSIC, 60L * RATE, true, Optional.empty(), "");
    return Project.empty("p")
        .withMedia(song)
        .withTracks(List.of(track.withClips(List.of(Clip.whole(song, 0).withId("clip")))));
  }

  private static Track music() {
    return Track.of(TrackKind.MUSIC, "m", List.of());
  }

  private static Track only(Project project) {
    return project.tracks().getFirst();
  }

  private static Hush hush(String id, double from, double to, double depth) {
    return new Hush(id, Math.round(from * RATE), Math.round(to * RATE), depth, Turn.DEFAULT);
  }

  private static Keyframe key(double seconds, double db, SegmentShape shape) {
    return new Keyframe(Math.round(seconds * RATE), db, shape);
  }

  private static void assertSameLevel(Track a, Track b) {
    TrackCurve before = TrackCurve.of(a, RATE);
    TrackCurve after = TrackCurve.of(b, RATE);
    for (long frame = 0; frame < 40L * RATE; frame += 61) {
      double was = before.levelDbAt(frame);
      double is = after.levelDbAt(frame);
      assertThat(Math.abs(was - is))
          .as("at %.4f s: %s, %s", frame / 48e3, was, is)
          .isLessThan(0.01);
    }
  }

  @Test
  void aHushOnALevelLineMeltsIntoItsFourCorners() {
    Project project = with(music().withHushes(List.of(hush("h", 10, 15, -12))));
    Project melted = HushEdits.melt(project, only(project).id(), "h");
    assertThat(only(melted).hushes()).isEmpty();
    assertThat(only(melted).line().keyframes()).hasSize(4);
    assertSameLevel(only(project), only(melted));
  }

  @Test
  void aHushOverAnyLineMeltsToTheSameLevel() {
    LevelLine line =
        LevelLine.of(
            List.of(
                key(4, 0, SegmentShape.SMOOTH),
                key(12, -6, SegmentShape.HOLD),
                key(13, -2, SegmentShape.STRAIGHT),
                key(16.2, 3, SegmentShape.SMOOTH),
                key(25, -9, SegmentShape.STRAIGHT)));
    Track track =
        music()
            .withLine(line)
            .withHushes(
                List.of(hush("h", 10, 15, -12), hush("i", 15.5, 20, -8), hush("far", 30, 33, -10)))
            .withRises(List.of(new Rise("r", 21L * RATE, 28L * RATE, 4, 1, 2)));
    Project project = with(track);
    Project melted = HushEdits.melt(project, only(project).id(), "h");
    assertThat(only(melted).hushes()).extracting(Hush::id).containsExactly("far");
    assertSameLevel(only(project), only(melted));
    Project flat = HushEdits.meltRise(melted, only(project).id(), "r");
    assertThat(only(flat).rises()).isEmpty();
    assertSameLevel(only(project), only(flat));
  }

  @Test
  void numbersAreCopiedToTheNextToTheTrackOrToAll() {
    Hush model = hush("a", 2, 4, -14).withTurn(new Turn(0.1, 0.2, 0.3, 0.4));
    Track one = music().withHushes(List.of(model, hush("b", 8, 9, -6), hush("c", 12, 13, -7)));
    Track two = music().withHushes(List.of(hush("d", 2, 3, -5)));
    Project project = with(one).withTracks(List.of(one, two));
    Project next = HushEdits.copyNumbers(project, "a", HushEdits.Reach.NEXT);
    assertThat(only(next).hush("b").orElseThrow().depthDb()).isEqualTo(-14);
    assertThat(only(next).hush("b").orElseThrow().turn()).isEqualTo(model.turn());
    assertThat(only(next).hush("c").orElseThrow().depthDb()).isEqualTo(-7);
    Project track = HushEdits.copyNumbers(project, "a", HushEdits.Reach.TRACK);
    assertThat(only(track).hushes()).allMatch(h -> h.depthDb() == -14);
    assertThat(track.tracks().get(1).hush("d").orElseThrow().depthDb()).isEqualTo(-5);
    Project all = HushEdits.copyNumbers(project, "a", HushEdits.Reach.PROJECT);
    assertThat(all.tracks().get(1).hush("d").orElseThrow().depthDb()).isEqualTo(-14);
    Project even = HushEdits.equalDepth(project, one.id(), new Span(7L * RATE, 14L * RATE));
    assertThat(only(even).hushes()).extracting(Hush::depthDb).containsExactly(-14.0, -7.0, -7.0);
  }

  @Test
  void hushesMergeAndMoveToAnotherPassage() {
    Project project =
        with(music().withHushes(List.of(hush("a", 2, 4, -10), hush("b", 4.5, 6, -12))));
    Project merged = HushEdits.mergeWithNext(project, only(project).id(), "a");
    assertThat(only(merged).hushes())
        .singleElement()
        .satisfies(
            h -> {
              assertThat(h.passage()).isEqualTo(new Span(2L * RATE, 6L * RATE));
              assertThat(h.depthDb()).isEqualTo(-12);
            });
    Project moved = HushEdits.setPassage(project, "a", new Span(20L * RATE, 22L * RATE));
    assertThat(only(moved).hush("a").orElseThrow().startFrame()).isEqualTo(20L * RATE);
  }

  @Test
  void aSpanIsLoweredByFourKeyframesWithTheTurnTimes() {
    Project project = with(music());
    Span span = new Span(10L * RATE, 14L * RATE);
    Project once = KeyframeEdits.raiseSpan(project, only(project).id(), span, Turn.DEFAULT, -8);
    assertThat(only(once).line().keyframes())
        .extracting(Keyframe::frame)
        .containsExactly(
            10L * RATE - Math.round(0.35 * RATE),
            10L * RATE,
            14L * RATE,
            14L * RATE + Math.round(0.9 * RATE));
    assertThat(only(once).line().levelDbAt(12L * RATE)).isEqualTo(-8);
    Project twice = KeyframeEdits.raiseSpan(once, only(once).id(), span, Turn.DEFAULT, -2);
    assertThat(only(twice).line().keyframes()).hasSize(4);
    assertThat(only(twice).line().levelDbAt(12L * RATE)).isEqualTo(-10);
    assertThat(only(twice).line().levelDbAt(5L * RATE)).isZero();
  }

  @Test
  void chosenKeyframesMoveTogetherAndStopAtTheirNeighbours() {
    Track track =
        music()
            .withLine(
                LevelLine.of(
                    List.of(
                        key(2, 0, SegmentShape.SMOOTH),
                        key(4, -5, SegmentShape.SMOOTH),
                        key(6, -5, SegmentShape.SMOOTH),
                        key(8, 0, SegmentShape.SMOOTH))));
    Project project = with(track);
    String id = track.id();
    Set<Long> inner = Set.of(4L * RATE, 6L * RATE);
    KeyframeEdits.Moved moved = KeyframeEdits.move(project, id, inner, 9L * RATE, -1);
    assertThat(only(moved.project()).line().keyframes())
        .extracting(Keyframe::frame)
        .containsExactly(2L * RATE, 6L * RATE - 1, 8L * RATE - 1, 8L * RATE);
    assertThat(only(moved.project()).line().keyframes().get(1).levelDb()).isEqualTo(-6);
    assertThat(
            KeyframeEdits.move(moved.project(), id, moved.frames(), -(2L * RATE - 1), 1).project())
        .isEqualTo(project);
    Project scaled =
        KeyframeEdits.scale(
            project, id, new Span(4L * RATE, 6L * RATE), new Span(4L * RATE, 5L * RATE));
    assertThat(only(scaled).line().keyframes().get(2).frame()).isEqualTo(5L * RATE);
    Project far =
        KeyframeEdits.scale(
            project, id, new Span(4L * RATE, 6L * RATE), new Span(4L * RATE, 30L * RATE));
    assertThat(only(far).line().keyframes().get(2).frame()).isEqualTo(8L * RATE - 1);
    List<Keyframe> copied = track.line().within(4L * RATE, 6L * RATE);
    Project pasted = KeyframeEdits.paste(project, id, copied, 20L * RATE);
    assertThat(only(pasted).line().keyframes()).hasSize(6);
    assertThatThrownBy(() -> KeyframeEdits.paste(project, id, copied, 59L * RATE))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("playhead earlier");
    assertThat(only(KeyframeEdits.remove(project, id, inner)).line().keyframes()).hasSize(2);
    assertThat(
            only(KeyframeEdits.removeAll(project, id, new Span(0, 5L * RATE))).line().keyframes())
        .hasSize(2);
  }

  @Test
  void theSumAtAPlaceIsToldTermByTerm() {
    Project project =
        with(music()
                .withLevelDb(-3)
                .withLine(LevelLine.of(List.of(key(0, -2, SegmentShape.HOLD))))
                .withHushes(List.of(hush("h", 10, 15, -12)))
                .withRises(List.of(new Rise("r", 11L * RATE, 14L * RATE, 4, 0, 0))))
            .withMasterDb(-1);
    project = ClipEdits.setGain(project, Set.of("clip"), 2);
    LevelSum sum = LevelSum.at(project, only(project), 12L * RATE);
    assertThat(sum).isEqualTo(new LevelSum(2, 0, -3, -2, 4, -12, -1, true));
    assertThat(sum.totalDb()).isEqualTo(-12);
  }

  @Test
  void twoVersionsOfAShapingAreSwapped() {
    Project project = with(music().withHushes(List.of(hush("h", 10, 15, -12))));
    String id = only(project).id();
    Project kept = HushEdits.keepShaping(project, id);
    Project changed = HushEdits.change(kept, "h", h -> h.withDepthDb(-6));
    Project swapped = HushEdits.swapShaping(changed, id);
    assertThat(only(swapped).hush("h").orElseThrow().depthDb()).isEqualTo(-12);
    assertThat(HushEdits.swapShaping(swapped, id)).isEqualTo(changed);
    assertThat(only(HushEdits.withoutHushes(project)).hushes()).isEmpty();
  }
}
