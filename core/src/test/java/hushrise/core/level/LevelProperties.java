package hushrise.core.level;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import hushrise.core.Decibels;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelLine;
import hushrise.core.project.level.Rise;
import hushrise.core.project.level.SegmentShape;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.List;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.Combinators;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import net.jqwik.api.constraints.LongRange;
import net.jqwik.api.constraints.Size;

/** The compiled curve of a track against the model's sum, worked out the slow and plain way. */
class LevelProperties {

  private static final int RATE = 48_000;
  static final long END = 2_000_000;

  @Provide
  Arbitrary<Track> tracks() {
    Arbitrary<Keyframe> keyframe =
        Combinators.combine(
                Arbitraries.longs().between(0, END),
                Arbitraries.doubles().between(-60, 12),
                Arbitraries.of(SegmentShape.class))
            .as(Keyframe::new);
    Arbitrary<Hush> hush =
        Combinators.combine(
                Arbitraries.longs().between(0, END),
                Arbitraries.longs().between(0, 400_000),
                Arbitraries.doubles().between(-30, 0))
            .as((start, length, depth) -> Hush.over(Span.ofLength(start, length), depth));
    Arbitrary<Rise> rise =
        Combinators.combine(
                Arbitraries.longs().between(0, END),
                Arbitraries.longs().between(0, 400_000),
                Arbitraries.doubles().between(0, 9))
            .as((start, length, height) -> Rise.over(Span.ofLength(start, length), height));
    return Combinators.combine(
            keyframe.list().ofMaxSize(12).uniqueElements(Keyframe::frame),
            hush.list().ofMaxSize(6),
            rise.list().ofMaxSize(4),
            Arbitraries.doubles().between(-12, 6))
        .as(
            (keyframes, hushes, rises, level) ->
                Track.of(TrackKind.MUSIC, "m", List.of())
                    .withLevelDb(level)
                    .withLine(LevelLine.of(keyframes))
                    .withHushes(hushes)
                    .withRises(rises));
  }

  @Property
  void theCurveEqualsTheSumOfTheModel(
      @ForAll("tracks") Track track, @ForAll @LongRange(max = END) long frame) {
    assertThat(TrackCurve.of(track, RATE).levelDbAt(frame))
        .isCloseTo(slowDb(track, frame), within(1e-9));
  }

  @Property(tries = 200)
  void readingForwardEqualsAskingEachPlace(
      @ForAll("tracks") Track track, @ForAll @LongRange(max = END) long start) {
    TrackCurve curve = TrackCurve.of(track, RATE);
    float[] factors = new float[500];
    int interval = curve.fillFactors(start, 997, 250, factors, 0);
    float[] rest = new float[250];
    curve.fillFactors(start + 250L * 997, 997, 250, rest, interval);
    System.arraycopy(rest, 0, factors, 250, 250);
    for (int i = 0; i < factors.length; i++) {
      float expected = (float) Decibels.toFactor(curve.levelDbAt(start + 997L * i));
      assertThat(factors[i]).isEqualTo(expected);
    }
  }

  private static double slowDb(Track track, long frame) {
    double line = slowLine(track.line().keyframes(), frame);
    if (line <= Decibels.OFF_DB) {
      return Double.NEGATIVE_INFINITY;
    }
    double deepest =
        track.hushes().stream().mapToDouble(h -> h.knots(RATE).levelDbAt(frame)).min().orElse(0);
    double highest =
        track.rises().stream().mapToDouble(r -> r.knots(RATE).levelDbAt(frame)).max().orElse(0);
    return track.levelDb() + line + Math.min(0, deepest) + Math.max(0, highest);
  }

  private static double slowLine(List<Keyframe> keyframes, long frame) {
    if (keyframes.isEmpty()) {
      return 0;
    }
    Keyframe before = null;
    for (Keyframe k : keyframes) {
      if (k.frame() > frame) {
        if (before == null) {
          return k.levelDb();
        }
        double f = (frame - before.frame()) / (double) (k.frame() - before.frame());
        double shaped =
            switch (before.shape()) {
              case STRAIGHT -> f;
              case SMOOTH -> (1 - Math.cos(Math.PI * f)) / 2;
              case HOLD -> 0;
            };
        return before.levelDb() + shaped * (k.levelDb() - before.levelDb());
      }
      before = k;
    }
    return before.levelDb();
  }

  @Property(tries = 400)
  void aKeyframeAddedAnywhereChangesNothingThatIsHeard(
      @ForAll("tracks") Track track,
      @ForAll @Size(min = 1, max = 4) List<@LongRange(min = 0, max = END) Long> places,
      @ForAll @Size(60) List<@LongRange(min = 0, max = END) Long> frames) {
    LevelLine line = track.line();
    for (long place : places) {
      line = line.withPointAt(place);
      assertThat(line.at(place)).isPresent();
    }
    for (long frame : frames) {
      assertThat(line.levelDbAt(frame)).isCloseTo(track.line().levelDbAt(frame), within(1e-6));
    }
    TrackCurve curve = TrackCurve.of(track.withLine(line), RATE);
    TrackCurve before = TrackCurve.of(track, RATE);
    for (long frame : frames) {
      double was = before.levelDbAt(frame);
      double is = curve.levelDbAt(frame);
      assertThat(is == was || Math.abs(is - was) < 1e-6).as("%f was %f", is, was).isTrue();
    }
    LevelLine atOnce = line.without(at -> track.line().at(at).isEmpty());
    for (long place : places) {
      line = track.line().at(place).isPresent() ? line : line.without(at -> at == place);
    }
    assertThat(atOnce).isEqualTo(line);
    for (long frame : frames) {
      assertThat(line.levelDbAt(frame)).isCloseTo(track.line().levelDbAt(frame), within(1e-6));
    }
  }
}
