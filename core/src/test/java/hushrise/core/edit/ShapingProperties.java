package hushrise.core.edit;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.level.TrackCurve;
import hushrise.core.mix.Projects;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelLine;
import hushrise.core.project.level.Rise;
import hushrise.core.project.level.SegmentShape;
import hushrise.core.project.level.Turn;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;

/** What holds for any line, hush and edit. */
class ShapingProperties {

  private static final int RATE = 48_000;
  private static final long LENGTH = 20L * RATE;
  private static final List<SegmentShape> SHAPES = List.of(SegmentShape.values());

  private static Track track(long seed, int keyframes) {
    Random random = new Random(seed);
    List<Keyframe> points = new ArrayList<>();
    long frame = random.nextLong(RATE);
    for (int i = 0; i < keyframes; i++) {
      SegmentShape shape = SHAPES.get(random.nextInt(3));
      points.add(new Keyframe(frame, -30 + 36 * random.nextDouble(), shape));
      frame += 1 + random.nextLong(3L * RATE);
    }
    List<Hush> hushes = new ArrayList<>();
    for (int i = 0; i < 3; i++) {
      long start = random.nextLong(LENGTH);
      Turn turn =
          new Turn(
              random.nextDouble() - 0.5,
              atOnceOr(random.nextDouble(), random),
              random.nextDouble() - 0.5,
              atOnceOr(2 * random.nextDouble(), random));
      hushes.add(
          new Hush(
              "h" + i, start, start + random.nextLong(3L * RATE), -20 * random.nextDouble(), turn));
    }
    long from = random.nextLong(LENGTH);
    Rise rise =
        new Rise("r", from, from + random.nextLong(5L * RATE), 6 * random.nextDouble(), 1, 0.5);
    return Track.of(TrackKind.MUSIC, "m", List.of())
        .withLine(LevelLine.of(points))
        .withHushes(hushes)
        .withRises(List.of(rise));
  }

  private static double atOnceOr(double seconds, Random random) {
    return random.nextInt(4) == 0 ? 0 : seconds;
  }

  /** The sum as the model words it, without any preparation. */
  private static double slowly(Track track, long frame) {
    double hush =
        track.hushes().stream().mapToDouble(h -> h.knots(RATE).levelDbAt(frame)).min().orElse(0);
    double rise =
        track.rises().stream().mapToDouble(r -> r.knots(RATE).levelDbAt(frame)).max().orElse(0);
    return track.levelDb() + track.line().levelDbAt(frame) + Math.max(0, rise) + Math.min(0, hush);
  }

  @Property(tries = 60)
  void theCurveIsTheSumAtAnyTime(@ForAll long seed, @ForAll @IntRange(max = 12) int keyframes) {
    Track track = track(seed, keyframes);
    TrackCurve curve = TrackCurve.of(track, RATE);
    Random random = new Random(seed + 1);
    for (int i = 0; i < 300; i++) {
      long frame = random.nextLong(LENGTH + 5L * RATE);
      assertThat(Math.abs(curve.levelDbAt(frame) - slowly(track, frame))).isLessThan(1e-9);
    }
  }

  @Property(tries = 1_000)
  void meltingAHushChangesNoLevel(@ForAll long seed, @ForAll @IntRange(max = 8) int keyframes) {
    Track track = track(seed, keyframes);
    Project project = Project.empty("p").withTracks(List.of(track));
    Track melted = HushEdits.melt(project, track.id(), "h1").tracks().getFirst();
    assertThat(melted.hush("h1")).isEmpty();
    TrackCurve before = TrackCurve.of(track, RATE);
    TrackCurve after = TrackCurve.of(melted, RATE);
    for (long frame : telling(track, melted, new Random(seed + 2))) {
      double was = before.levelDbAt(frame);
      if (was > -59) {
        assertThat(Math.abs(was - after.levelDbAt(frame))).as("at %d", frame).isLessThan(0.01);
      }
    }
  }

  /** Frames anywhere, and those on both sides of every place where either level bends. */
  private static List<Long> telling(Track track, Track melted, Random random) {
    List<Long> bends = new ArrayList<>();
    track.line().keyframes().forEach(k -> bends.add(k.frame()));
    melted.line().keyframes().forEach(k -> bends.add(k.frame()));
    for (Hush hush : track.hushes()) {
      Hush.Knots k = hush.knots(RATE);
      bends.addAll(List.of(k.start(), k.floorStart(), k.floorEnd(), k.end()));
    }
    List<Long> frames = new ArrayList<>();
    random.longs(500, 0, LENGTH + 8L * RATE).forEach(frames::add);
    for (long bend : bends) {
      for (long beside = Math.max(0, bend - 2); beside <= bend + 2; beside++) {
        frames.add(beside);
      }
    }
    return frames;
  }

  @Property(tries = 40)
  void undoOfAnyEditIsTheProjectBefore(@ForAll long seed) {
    Random random = new Random(seed);
    Project start = Projects.rich(new Projects.Sounds());
    History history = new History(start);
    List<Project> states = new ArrayList<>(List.of(start));
    String music = start.tracks().get(1).id();
    for (int i = 0; i < 12; i++) {
      Project now = history.present();
      long at = random.nextLong(9L * RATE);
      Span span = new Span(at, at + 1 + random.nextLong(RATE));
      Project edited =
          switch (random.nextInt(6)) {
            case 0 -> KeyframeEdits.raiseSpan(now, music, span, Turn.DEFAULT, -3);
            case 1 -> HushEdits.add(now, music, Hush.over(span, -7));
            case 2 -> ClipEdits.move(now, Set.of("song"), random.nextLong(RATE), true);
            case 3 -> ClipEdits.trimEnd(now, "song", at + RATE);
            case 4 -> TrackEdits.setPan(now, music, random.nextDouble());
            default -> LevelEdits.addKeyframe(now, music, at);
          };
      history.commit("edit", edited);
      if (!edited.equals(states.getLast())) {
        states.add(edited);
      }
    }
    for (int i = states.size() - 1; i > 0; i--) {
      assertThat(history.present()).isEqualTo(states.get(i));
      history.undo();
    }
    assertThat(history.present()).isEqualTo(start);
  }

  @Property(tries = 60)
  void aMovedClipCarriesItsKeyframesThereAndBack(@ForAll @IntRange(min = 1, max = 400_000) int by) {
    Project start = Projects.rich(new Projects.Sounds());
    Project there = ClipEdits.move(start, Set.of("song"), by, true);
    assertThat(there.tracks().get(1).line().keyframes())
        .extracting(k -> k.frame() - by)
        .containsExactlyElementsOf(
            start.tracks().get(1).line().keyframes().stream().map(Keyframe::frame).toList());
    assertThat(ClipEdits.move(there, Set.of("song"), -by, true)).isEqualTo(start);
  }
}
