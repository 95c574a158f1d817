package hushrise.app.timeline;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import org.junit.jupiter.api.Test;

class ScalesTest {

  private static final long FILM = 7_200L * 48_000;

  @Property
  void zoomingKeepsThePlaceUnderThePointerUnlessTheFilmsEndsStopIt(
      @ForAll @DoubleRange(min = 0, max = 1100) double x,
      @ForAll @DoubleRange(min = 0.2, max = 0.95) double factor) {
    TimeAxis axis = TimeAxis.fitting(FILM, 1_100);
    double frame = axis.startFrame() + x * axis.framesPerPixel();
    TimeAxis closer = axis.zoomed(factor, x, FILM, 1_100);
    assertThat(closer.framesPerPixel()).isCloseTo(axis.framesPerPixel() * factor, within(1e-6));
    assertThat(closer.xOf(frame)).isCloseTo(x, within(0.01));
  }

  @Test
  void theTimelineNeverScrollsOutOfTheFilm() {
    TimeAxis axis = TimeAxis.fitting(FILM, 1_100).zoomed(0.01, 500, FILM, 1_100);
    assertThat(axis.scrolled(-1e9, FILM, 1_100).startFrame()).isZero();
    TimeAxis end = axis.scrolled(1e9, FILM, 1_100);
    assertThat(end.xOf(FILM)).isBetween(0.0, 1_100.0);
    TimeAxis widest = axis.zoomed(1e9, 500, FILM, 1_100);
    assertThat(widest.framesPerPixel()).isEqualTo(TimeAxis.fitting(FILM, 1_100).framesPerPixel());
    assertThat(widest.startFrame()).isCloseTo(0, within(1e-3));
  }

  @Test
  void aFrameOutOfViewIsBroughtIn() {
    TimeAxis axis = new TimeAxis(0, 100);
    assertThat(axis.showing(50_000, FILM, 1_100)).isSameAs(axis);
    assertThat(axis.showing(900_000, FILM, 1_100).xOf(900_000)).isCloseTo(110, within(0.01));
  }

  @Property
  void levelsAndHeightsAreInverse(@ForAll @DoubleRange(min = -60, max = 12) double db) {
    LevelScale scale = new LevelScale(196);
    assertThat(scale.dbAt(scale.yOf(db))).isCloseTo(db, within(1e-9));
  }

  @Test
  void louderIsHigher() {
    LevelScale scale = new LevelScale(196);
    assertThat(scale.yOf(12)).isLessThan(scale.yOf(0));
    assertThat(scale.yOf(0)).isLessThan(scale.yOf(-36));
    assertThat(scale.yOf(-36)).isLessThan(scale.yOf(-60));
    assertThat(scale.yOf(-90)).isEqualTo(scale.yOf(-60));
  }
}
