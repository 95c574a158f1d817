package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.command.CommandId;
import hushrise.app.session.Selection;
import hushrise.core.project.Project;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.media.OutputFormat;
import java.io.IOException;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.atomic.AtomicReference;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.ComboBox;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/**
 * A disk may be asleep, busy, or away in a network: the window's thread asks none where films,
 * sounds and projects lie.
 */
@Tag(WindowTestCase.ANY_PLATFORM)
class DiskTest extends SurveyTestCase {

  /** They lead out of the project. */
  private static final Set<CommandId> LEADING_AWAY =
      EnumSet.of(CommandId.NEW, CommandId.OPEN, CommandId.OPEN_DEMO, CommandId.QUIT);

  /**
   * What asks all the same: before and after a dialog of the system, which asks there itself; a
   * take, which is written as it is spoken; and what lies among the program's own settings.
   */
  private static final String ALLOWED =
      "(FileNames\\.free|Questions\\.withEnding"
          + "|TakeFiles\\.|TakeWriter\\."
          + "|Safekeeping\\.|ProjectLock\\.|Presets\\.|Versions\\.of|Diagnostics\\.).*";

  @Test
  void theWindowWaitsForNoDisk() throws IOException {
    AtomicReference<Thread> drawing = new AtomicReference<>();
    robot.interact(() -> drawing.set(Thread.currentThread()));
    try (DiskCalls disk = new DiskCalls(drawing.get(), folder.resolve("calls.jfr"))) {
      robot.interact(() -> window.open(folder.resolve("first-ferry.hushrise")));
      untilQuiet();
      dragHolding(Held.NOTHING, "lane-music", on(60, 0), on(63, -6));
      dragHolding(Held.NOTHING, "lane-music", on(60, -40), on(50, -40));
      untilQuiet();
      Project whole = project();
      for (Selection selection : someOfAll()) {
        robot.interact(() -> runAll(selection, whole));
        untilQuiet();
      }
      everywhere(view -> export());
      Map<String, Integer> made = disk.made();
      made.keySet().removeIf(chain -> chain.matches(ALLOWED));
      assertThat(made).isEmpty();
    }
  }

  private List<Selection> someOfAll() {
    Track music = music();
    String song = music.clips().getFirst().id();
    Track voice = project().firstTrack(TrackKind.VOICE).orElseThrow();
    Clip take = voice.clips().getFirst();
    return List.of(
        new Selection.OfClip(music.id(), song),
        new Selection.OfSeam(music.id(), song, 0),
        new Selection.OfHush(music.id(), music.hushes().getFirst().id()),
        new Selection.OfPassage(voice.id(), take.id(), take.mediaId(), 0));
  }

  private void runAll(Selection selection, Project whole) {
    for (CommandId command : CommandId.values()) {
      if (!LEADING_AWAY.contains(command)) {
        window.session().commit("whole", p -> whole);
        window.session().select(selection);
        window.run(command);
        window.closeSheet();
      }
    }
  }

  /** Presses Export where there is such a button; the sound alone, which takes but a moment. */
  private void export() {
    if (robot.lookup("#export-start").tryQuery().isPresent()) {
      robot.interact(
          () -> {
            this.<ComboBox<OutputFormat>>find("export-format").setValue(OutputFormat.WAV_24);
            this.<ButtonBase>find("export-start").fire();
          });
      untilQuiet();
    }
  }
}
