package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.project.Project;
import hushrise.core.project.media.TrackKind;
import java.util.concurrent.atomic.AtomicBoolean;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** The window uses itself, for Java to learn from, and comes to an end. */
@Tag(WindowTestCase.ANY_PLATFORM)
class TrialRunTest extends WindowTestCase {

  @Test
  void itChangesTheFilmPlaysItAndEndsWithNothingOpen() {
    untilOpen();
    Project before = project();
    AtomicBoolean played = new AtomicBoolean();
    AtomicBoolean ended = new AtomicBoolean();
    window.transport().playingProperty().subscribe(now -> played.compareAndSet(false, now));
    robot.interact(() -> new TrialRun(window, () -> ended.set(true)).begin());
    until("it has ended", ended::get);
    for (TrackKind kind : new TrackKind[] {TrackKind.MUSIC, TrackKind.VOICE}) {
      assertThat(project().firstTrack(kind)).isNotEqualTo(before.firstTrack(kind));
    }
    assertThat(played).isTrue();
    assertThat(window.transport().playingProperty().get()).isFalse();
    assertThat(robot.lookup(".sheet-title").tryQuery()).isEmpty();
  }
}
