package hushrise.core.project;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import hushrise.core.project.level.Hush;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelLine;
import hushrise.core.project.level.LevelText;
import hushrise.core.project.level.Rise;
import hushrise.core.project.level.SegmentShape;
import hushrise.core.project.level.Turn;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.timeline.Fade;
import hushrise.core.time.Span;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class ModelTest {

  private static Keyframe at(long frame, double db) {
    return new Keyframe(frame, db, SegmentShape.STRAIGHT);
  }

  @Test
  void aLineHoldsItsOuterLevels() {
    LevelLine line = LevelLine.of(List.of(at(100, -6), at(200, -12)));
    assertThat(line.levelDbAt(0)).isEqualTo(-6);
    assertThat(line.levelDbAt(150)).isEqualTo(-9);
    assertThat(line.levelDbAt(5_000)).isEqualTo(-12);
  }

  @Test
  void theTitleOfAFileIsOneLineWhateverItsName() {
    Path file = Path.of("day", "the\nferry\tsong.wav");
    Media odd = new Media("m", file, MediaKind.MUSIC, 9, true, Optional.empty(), "");
    assertThat(odd.title()).isEqualTo("the ferry song.wav");
  }

  @Test
  void twoKeyframesNeverLieAtOneInstant() {
    assertThatThrownBy(() -> LevelLine.of(List.of(at(5, 0), at(5, -3))))
        .isInstanceOf(IllegalArgumentException.class);
    assertThat(LevelLine.of(List.of(at(5, 0))).with(at(5, -3)).keyframes())
        .containsExactly(at(5, -3));
  }

  @Test
  void aMovedKeyframeStopsAtItsNeighbours() {
    LevelLine line = LevelLine.of(List.of(at(10, 0), at(20, -3), at(30, 0)));
    assertThat(line.moved(1, 500, -3).keyframes().get(1).frame()).isEqualTo(29);
    assertThat(line.moved(1, -500, -3).keyframes().get(1).frame()).isEqualTo(11);
    assertThat(line.moved(0, -500, 0).keyframes().getFirst().frame()).isZero();
    assertThat(line.moved(1, 20, 99).keyframes().get(1).levelDb()).isEqualTo(12);
    assertThat(line.moved(1, 20, -99).keyframes().get(1).levelDb()).isEqualTo(-60);
  }

  @Test
  void aHoldStepsAtTheNextKeyframe() {
    LevelLine line = LevelLine.of(List.of(new Keyframe(0, 0, SegmentShape.HOLD), at(100, -20)));
    assertThat(line.levelDbAt(99)).isZero();
    assertThat(line.levelDbAt(100)).isEqualTo(-20);
  }

  @Test
  void aHushFallsHoldsAndRecoversAsTheDesignDrawsIt() {
    Hush.Knots k = Hush.over(new Span(480_000, 960_000), -10).knots(48_000);
    assertThat(k.start()).isEqualTo(480_000 - 2_400 - 16_800);
    assertThat(k.floorStart()).isEqualTo(480_000 - 2_400);
    assertThat(k.floorEnd()).isEqualTo(960_000 + 4_800);
    assertThat(k.end()).isEqualTo(960_000 + 4_800 + 43_200);
    assertThat(k.levelDbAt(k.start() - 1)).isZero();
    assertThat(k.levelDbAt((k.start() + k.floorStart()) / 2)).isCloseTo(-5, within(0.01));
    assertThat(k.levelDbAt(700_000)).isEqualTo(-10);
    assertThat(k.levelDbAt(k.end())).isZero();
  }

  @Test
  void negativeLeadAndTailTurnUnderTheSpeech() {
    Hush hush = new Hush("h", 48_000, 96_000, -6, new Turn(-0.1, 0.2, -0.1, 0.5));
    assertThat(hush.knots(48_000).floorStart()).isEqualTo(52_800);
    assertThat(hush.knots(48_000).floorEnd()).isEqualTo(91_200);
  }

  @Test
  void aRiseThatIsTooShortForItsTurnsShortensThemAlike() {
    Hush.Knots k = new Rise("r", 0, 48_000, 4, 3, 1).knots(48_000);
    assertThat(k.floorStart()).isEqualTo(36_000);
    assertThat(k.floorEnd()).isEqualTo(36_000);
  }

  @Test
  void noFadeMeansFullLevelToTheVeryEnds() {
    assertThat(Fade.NONE.factorAt(-20)).isEqualTo(1);
    assertThat(Fade.ofLength(100).factorAt(0)).isZero();
    assertThat(Fade.ofLength(100).factorAt(50)).isCloseTo(Math.sqrt(0.5), within(1e-9));
    assertThat(Fade.ofLength(100).factorAt(100)).isEqualTo(1);
  }

  @ParameterizedTest
  @CsvSource({
    "-9.5, -9.5",
    "'-9,5 dB', -9.5",
    "+3, 3",
    "0, 0",
    "off, -60",
    "-90, -60",
    "100%, 0",
    "50 %, -6.02",
    "0 %, -60",
    "\u22123.5 dB, -3.5",
    "12 DB, 12"
  })
  void levelsAreTypedInDecibelsOrPercent(String typed, double db) {
    assertThat(LevelText.parse(typed).orElseThrow()).isCloseTo(db, within(0.005));
  }

  @ParameterizedTest
  @ValueSource(strings = {"", "loud", "--3", "3 dBx", "-50 %", "1e5"})
  void whatIsNoLevelIsNotTaken(String typed) {
    assertThat(LevelText.parse(typed)).isEmpty();
  }

  @Test
  void levelsAreShownWithATenth() {
    assertThat(LevelText.format(-11.63)).isEqualTo("\u221211.6 dB");
    assertThat(LevelText.format(2.5)).isEqualTo("+2.5 dB");
    assertThat(LevelText.format(-0.04)).isEqualTo("0.0 dB");
    assertThat(LevelText.format(-60)).isEqualTo("off");
  }
}
