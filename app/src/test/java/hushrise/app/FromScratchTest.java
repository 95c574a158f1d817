package hushrise.app;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.project.TrackKind;
import javafx.scene.Node;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;

/** From an empty window to a hushed film. */
class FromScratchTest extends WindowTestCase {

  @Override
  boolean opensDemo() {
    return false;
  }

  private void add(String name) {
    int before = project().shelf().size();
    press(KeyCode.CONTROL, KeyCode.I);
    type("file-path", folder.resolve(name).toString());
    until(name + " is taken", () -> project().shelf().size() > before);
    untilQuiet();
  }

  @Test
  void anEmptyWindowSaysWhatToDoNext() {
    Node hint = robot.lookup(".empty-hint").query();
    assertThat(hint.isVisible()).isTrue();
    press(KeyCode.H);
    assertThat(status()).contains("no narration");
    press(KeyCode.CONTROL, KeyCode.D);
    assertThat(status()).contains("nothing to deliver");
  }

  @Test
  void filesBecomeAFilmWithAHushUnderTheNarration() {
    add("first-ferry.mp4");
    add("harbour-tune.mp3");
    assertThat(project().lengthFrames()).isEqualTo(96L * RATE);
    assertThat(music().clips().getFirst().endFrame()).isEqualTo(96L * RATE);
    robot.interact(() -> window.session().seek(6L * RATE));
    add("ferry-horn.flac");
    assertThat(
            project().firstTrack(TrackKind.EFFECTS).orElseThrow().clips().getFirst().startFrame())
        .isEqualTo(6L * RATE);
    robot.interact(() -> window.session().seek(20L * RATE));
    add("narration-1.flac");
    press(KeyCode.H);
    until("the hush is there", () -> music().hushes().size() == 1);
    assertThat(music().hushes().getFirst().startFrame()).isEqualTo(20L * RATE);
    assertThat(window.session().undoName()).hasValue("hush the speech");
  }
}
