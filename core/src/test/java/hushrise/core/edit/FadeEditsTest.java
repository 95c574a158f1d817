package hushrise.core.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import hushrise.core.Problem;
import hushrise.core.mix.Projects;
import hushrise.core.project.Project;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Fade;
import hushrise.core.project.timeline.FadeShape;
import java.util.Set;
import org.junit.jupiter.api.Test;

class FadeEditsTest {

  private static final int RATE = Projects.RATE;

  private final Project rich = Projects.rich(new Projects.Sounds());

  private static Clip song(Project project) {
    return project.clip("song").orElseThrow();
  }

  @Test
  void fadesAreSetShapedAndGivenToBothEnds() {
    Project set = FadeEdits.setIn(rich, "song", 3L * RATE);
    assertThat(song(set).fadeIn()).isEqualTo(new Fade(3L * RATE, FadeShape.SMOOTH));
    Project shaped =
        FadeEdits.setOutShape(
            FadeEdits.setInShape(set, "song", FadeShape.S), "song", FadeShape.STRAIGHT);
    assertThat(song(shaped).fadeOut().shape()).isEqualTo(FadeShape.STRAIGHT);
    Project both = FadeEdits.sameOnBothEnds(shaped, "song");
    assertThat(song(both).fadeOut()).isEqualTo(new Fade(3L * RATE, FadeShape.S));
  }

  @Test
  void aFadeOutFromAPlaceReachesTheClipsEnd() {
    Project faded = FadeEdits.outFrom(rich, Set.of("song"), song(rich).endFrame() - 7_000);
    assertThat(song(faded).fadeOut().lengthFrames()).isEqualTo(7_000);
    assertThatThrownBy(() -> FadeEdits.outFrom(rich, Set.of("song"), 0))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("playhead");
  }

  @Test
  void fadesThatWouldOverlapAreRefused() {
    assertThatThrownBy(() -> FadeEdits.setIn(rich, "song", 8L * RATE))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("10.00 s")
        .hasMessageContaining("9.00 s");
  }

  @Test
  void everyShapeLeavesSilenceAndArrivesAtFull() {
    for (FadeShape shape : FadeShape.values()) {
      assertThat(shape.factorAt(0)).as("%s", shape).isLessThanOrEqualTo(0.001);
      assertThat(shape.factorAt(1)).as("%s", shape).isCloseTo(1, within(1e-12));
      for (double at = 0.05; at <= 1; at += 0.05) {
        assertThat(shape.factorAt(at)).isGreaterThan(shape.factorAt(at - 0.05));
      }
    }
    assertThat(FadeShape.SMOOTH.factorAt(0.5)).isCloseTo(Math.pow(10, -1.5), within(1e-9));
    assertThat(FadeShape.S.factorAt(0.5)).isCloseTo(0.5, within(1e-9));
  }
}
