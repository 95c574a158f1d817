package hushrise.core.hush;

import static hushrise.core.hush.Talk.at;
import static hushrise.core.mix.Projects.RATE;
import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.Rise;
import hushrise.core.project.level.Turn;
import hushrise.core.time.Span;
import java.util.List;
import org.junit.jupiter.api.Test;

/** What a rise fills that is put where nobody speaks. */
class RiseGapsTest {

  private final Talk talk = new Talk(60, new double[] {2, 4}, new double[] {12, 14});

  private Project hushed(Hush... hushes) {
    return talk.project.withTrack(talk.music().id(), t -> t.withHushes(List.of(hushes)));
  }

  private Rise rise(Project project, double seconds) {
    return new RiseGaps(project, talk.music().id()).rise(at(seconds), 3).orElseThrow();
  }

  private boolean isNone(Project project, double seconds) {
    return new RiseGaps(project, talk.music().id()).rise(at(seconds), 3).isEmpty();
  }

  @Test
  void itGoesFromRecoveryToFall() {
    Turn slow = Turn.DEFAULT.withRecovery(2);
    Project project =
        hushed(
            Hush.over(new Span(at(2), at(4)), -10).withTurn(slow),
            Hush.over(new Span(at(12), at(14)), -12));
    Rise rise = rise(project, 8);
    assertThat(rise.startFrame()).isEqualTo(at(4.10));
    assertThat(rise.endFrame()).isEqualTo(at(11.95));
    assertThat(rise.swellSeconds()).isEqualTo(2);
    assertThat(rise.returnSeconds()).isEqualTo(Turn.DEFAULT.fallSeconds());
    assertThat(rise.heightDb()).isEqualTo(3);
    assertThat(isNone(project, 3)).isTrue();
    assertThat(isNone(project, 90)).isTrue();
    assertThat(rise(project, 40).endFrame()).isEqualTo(60L * RATE);
  }

  @Test
  void itEndsAtSpeechThatHasNoHush() {
    Project project = hushed(Hush.over(new Span(at(2), at(4)), -10));
    assertThat(rise(project, 8).span()).isEqualTo(new Span(at(4.10), at(11.95)));
    assertThat(rise(project, 40).span()).isEqualTo(new Span(at(14.10), at(60)));
    assertThat(isNone(project, 13)).isTrue();
    Project mute = project.withTrack(talk.voice().id(), t -> t.withMuted(true));
    assertThat(rise(mute, 13).span()).isEqualTo(new Span(at(4.10), at(60)));
  }
}
