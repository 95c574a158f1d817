package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.play.Part;
import hushrise.app.play.TransportState;
import hushrise.app.session.Selection;
import hushrise.core.edit.HushEdits;
import hushrise.core.play.Ears;
import hushrise.core.project.level.Hush;
import java.util.concurrent.atomic.AtomicLong;
import javafx.scene.Node;
import javafx.scene.control.ListView;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;

/** The ways of listening, by keys and mouse. */
class ListeningTest extends WindowTestCase {

  private double seconds() {
    return window.session().playhead() / (double) RATE;
  }

  private TransportState state() {
    return window.transport().stateProperty().get();
  }

  @Test
  void aroundThePlayheadIsPlayedAndThePlayheadGoesBack() {
    untilOpen();
    robot.interact(() -> window.session().seek(10L * RATE));
    press(KeyCode.B);
    until("it plays before the place", () -> seconds() > 7.9 && seconds() < 11.9);
    until("it is over", () -> state().isStopped());
    assertThat(window.session().playhead()).isEqualTo(10L * RATE);
  }

  @Test
  void aHushIsHeardInALoopThatFollowsItsChangesUntilTheKeyEndsIt() {
    untilOpen();
    Hush hush = music().hushes().getFirst();
    robot.interact(
        () -> {
          window.session().select(new Selection.OfHush(music().id(), hush.id()));
          // Short, so that the loop comes round soon.
          window
              .session()
              .commit(
                  "short",
                  p ->
                      HushEdits.setPassage(
                          p,
                          hush.id(),
                          hushrise.core.time.Span.ofLength(hush.startFrame(), RATE / 4)));
        });
    press(KeyCode.O);
    until("it loops", () -> state().part().filter(Part::loops).isPresent());
    AtomicLong highest = new AtomicLong();
    until(
        "it has come round",
        () -> {
          long at = window.session().playhead();
          boolean back = at < highest.get() - RATE;
          highest.set(Math.max(highest.get(), at));
          return back;
        });
    long end = hush.startFrame();
    robot.interact(
        () ->
            window
                .session()
                .commit("later", p -> HushEdits.change(p, hush.id(), h -> h.movedBy(4L * RATE))));
    until("it plays where the hush is now", () -> window.session().playhead() > end + 4L * RATE);
    assertThat(state().part().filter(Part::loops)).isPresent();
    press(KeyCode.O);
    assertThat(state().isStopped()).isTrue();
  }

  @Test
  void theSelectionIsPlayedOnceAndWithoutOneSomethingIsSaid() {
    untilOpen();
    press(KeyCode.ESCAPE);
    press(KeyCode.SHIFT, KeyCode.SPACE);
    assertThat(status()).contains("Select something");
    robot.interact(
        () ->
            window
                .session()
                .select(
                    new Selection.OfSpan(
                        music().id(), hushrise.core.time.Span.ofLength(50L * RATE, 4L * RATE))));
    press(KeyCode.SHIFT, KeyCode.SPACE);
    until("it plays there", () -> seconds() >= 50);
    until("it is over", () -> state().isStopped());
    assertThat(seconds()).isLessThan(50);
  }

  @Test
  void passagesArePlayedOneAfterTheOther() {
    untilOpen();
    press(KeyCode.HOME);
    press(KeyCode.SHIFT, KeyCode.PAGE_DOWN);
    long first = window.session().playhead();
    until("it plays", () -> state().part().isPresent());
    press(KeyCode.SHIFT, KeyCode.PAGE_DOWN);
    assertThat(window.session().playhead()).isGreaterThan(first + 5L * RATE);
    press(KeyCode.SHIFT, KeyCode.PAGE_UP);
    assertThat(window.session().playhead()).isBetween(first - RATE / 2, first + RATE);
    press(KeyCode.SPACE);
    assertThat(state().isStopped()).isTrue();
  }

  @Test
  void speedEarsAndOneTrackAloneChangeWhatIsHeardAndNothingElse() {
    untilOpen();
    var before = window.session().present();
    press(KeyCode.ALT, KeyCode.COMMA);
    assertThat(window.transport().loudspeaker().speedProperty().get()).isEqualTo(0.9);
    press(KeyCode.HOME);
    press(KeyCode.SPACE);
    until("it plays slower", () -> seconds() > 0.8);
    press(KeyCode.ALT, KeyCode.SLASH);
    assertThat(window.transport().loudspeaker().speedProperty().get()).isEqualTo(1);
    press(KeyCode.T);
    assertThat(window.transport().player().ears().through()).isEqualTo(Ears.Through.SMALL_SPEAKER);
    press(KeyCode.T);
    press(KeyCode.ALT, KeyCode.DOWN);
    assertThat(window.transport().player().ears()).isEqualTo(new Ears(-3, Ears.Through.STEREO));
    press(KeyCode.ALT, KeyCode.UP);
    robot.press(KeyCode.S);
    until(
        "only the music sounds",
        () ->
            status().contains("Only Music")
                && window.meters().track(music().id()).db(0) > -50
                && window.meters().momentaryLufs() > -60);
    robot.release(KeyCode.S);
    assertThat(status()).contains("Everything");
    press(KeyCode.SPACE);
    assertThat(window.session().present()).isEqualTo(before);
  }

  @Test
  void anotherOutputIsChosenWhileTheFilmPlays() {
    untilOpen();
    press(KeyCode.HOME);
    press(KeyCode.SPACE);
    until("it plays", () -> seconds() > 0.2);
    robot.interact(() -> window.run(hushrise.app.command.CommandId.OUTPUT_CHOOSE));
    ListView<String> outputs = find("outputs");
    assertThat(outputs.getItems()).contains("silent output");
    robot.doubleClickOn(robot.from(outputs).lookup("silent output").<Node>query());
    double then = seconds();
    until("it goes on", () -> seconds() > then + 0.3);
    assertThat(status()).contains("silent output");
  }
}
