package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.command.CommandId;
import hushrise.core.project.Project;
import hushrise.core.store.ProjectFile;
import hushrise.core.store.ProjectLock;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import javafx.scene.Node;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.Labeled;
import javafx.scene.input.Clipboard;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import org.testfx.util.WaitForAsyncUtils;

/** What is done is not lost: crashes, versions, two windows, files that others change. */
class NothingLostTest extends WindowTestCase {

  private Path file() {
    return folder.resolve("first-ferry.hushrise");
  }

  private Path journals() {
    return folder.resolve("work/journals");
  }

  private void lower(double db) {
    robot.interact(() -> window.session().commit("Lower the mix", p -> p.withMasterDb(db)));
  }

  private double masterDb() {
    return project().masterDb();
  }

  /** What a crash would leave now: the journal, which nobody writes. */
  private void crash() throws IOException, InterruptedException {
    List<Path> before;
    long end = System.nanoTime() + 10_000_000_000L;
    do {
      Thread.sleep(50);
      try (Stream<Path> all = Files.list(Files.createDirectories(journals()))) {
        before = all.toList();
      }
    } while (before.isEmpty() && System.nanoTime() < end);
    assertThat(before).hasSize(1);
    Thread.sleep(1000); // within which every step is on the disk
    Files.copy(before.getFirst(), journals().resolve("left.journal"));
  }

  private void fire(String id) {
    robot.interact(() -> this.<ButtonBase>find(id).fire());
  }

  private String sheetWords() {
    StringBuilder words = new StringBuilder();
    for (Node node : window.root().lookup("#sheet").lookupAll(".label")) {
      words.append(((Labeled) node).getText()).append('\n');
    }
    return words.toString();
  }

  @Test
  void aCrashGivesTheWorkBackWithAllThatCanBeUndone() throws Exception {
    untilOpen();
    lower(-1);
    lower(-2);
    lower(-3);
    robot.interact(() -> window.session().undo());
    crash();
    robot.interact(() -> window.run(CommandId.SAVE));
    robot.interact(() -> window.session().commit("Rename", p -> p.withName("Another")));
    robot.interact(() -> window.run(CommandId.SAVE));
    robot.interact(() -> window.offerWhatWasLeft());
    until("it is offered", () -> window.root().lookup("#recover-go-0") != null);
    assertThat(sheetWords()).contains("First Ferry", "4 steps", file().toString());
    press(KeyCode.ENTER);
    until("it is back", () -> project().name().equals("First Ferry"));
    assertThat(masterDb()).isEqualTo(-2);
    assertThat(window.session().hasUnsavedChanges()).isTrue();
    assertThat(window.session().file()).contains(file());
    press(KeyCode.CONTROL, KeyCode.Z);
    until("it can be undone", () -> masterDb() == -1);
    press(KeyCode.CONTROL, KeyCode.Y);
    press(KeyCode.CONTROL, KeyCode.Y);
    until("what was undone can be done again", () -> masterDb() == -3);
    try (Stream<Path> all = Files.list(journals())) {
      assertThat(all)
          .as("it goes on in the same journal")
          .containsExactly(journals().resolve("left.journal"));
    }
  }

  @Test
  void whatIsThrownAwayIsGoneAfterAQuestion() throws Exception {
    untilOpen();
    lower(-1);
    crash();
    robot.interact(() -> window.offerWhatWasLeft());
    until("it is offered", () -> window.root().lookup("#recover-drop-0") != null);
    fire("recover-drop-0");
    answer("Cancel");
    assertThat(window.root().lookup("#recover-go-0")).as("it is offered still").isNotNull();
    fire("recover-drop-0");
    answer("Throw it away");
    until("it is gone", () -> !Files.exists(journals().resolve("left.journal")));
    assertThat(masterDb()).isEqualTo(-1);
  }

  @Test
  void anEarlierVersionComesBackAsAStep() {
    untilOpen();
    double first = masterDb();
    lower(-5);
    press(KeyCode.CONTROL, KeyCode.S);
    until("it is saved", () -> !window.session().hasUnsavedChanges());
    robot.interact(() -> window.run(CommandId.VERSIONS));
    until("a version is shown", () -> !find("version-go").isDisabled());
    assertThat(this.<Labeled>find("version-facts").getText()).contains("clips");
    press(KeyCode.ENTER);
    until("it is back", () -> masterDb() == first);
    assertThat(ProjectFile.load(file()).masterDb()).as("the file stays").isEqualTo(-5);
    press(KeyCode.CONTROL, KeyCode.Z);
    until("undo takes it back", () -> masterDb() == -5);
  }

  @Test
  void whereEarlierVersionsCannotBeKeptTheProjectIsSavedAllTheSame() throws IOException {
    untilOpen();
    Files.createDirectories(folder.resolve("work"));
    Files.createFile(folder.resolve("work/versions"));
    lower(-8);
    press(KeyCode.CONTROL, KeyCode.S);
    until("it is saved", () -> !window.session().hasUnsavedChanges());
    assertThat(ProjectFile.load(file()).masterDb()).isEqualTo(-8);
    assertThat(status()).contains("cannot be kept in");
  }

  @Test
  void aFileThatSomebodyElseChangedIsNotReplacedUnasked() {
    untilOpen();
    Project theirs = ProjectFile.load(file()).withName("Theirs");
    ProjectFile.save(theirs, file());
    lower(-4);
    press(KeyCode.CONTROL, KeyCode.S);
    until("it asks", () -> sheetWords().contains("was changed since you opened it"));
    assertThat(ProjectFile.load(file()).name()).isEqualTo("Theirs");
    answer("Replace it");
    until("it is saved", () -> !window.session().hasUnsavedChanges());
    assertThat(ProjectFile.load(file()).masterDb()).isEqualTo(-4);
    lower(-6);
    press(KeyCode.CONTROL, KeyCode.S);
    until("now it does not ask", () -> !window.session().hasUnsavedChanges());
  }

  @Test
  void aProjectWhoseFolderIsGoneIsSavedElsewhere() throws IOException {
    Path lent = Files.createDirectories(folder.resolve("lent"));
    Path there = lent.resolve("there.hushrise");
    untilOpen();
    robot.interact(() -> window.session().saved(window.session().snapshot(), there));
    ProjectFile.save(project(), there);
    lower(-7);
    Files.delete(there);
    Files.delete(lent);
    Path elsewhere = folder.resolve("elsewhere.hushrise");
    chosen.next(elsewhere);
    press(KeyCode.CONTROL, KeyCode.S);
    until("it says so", () -> sheetWords().contains("could not be saved"));
    assertThat(window.session().hasUnsavedChanges()).isTrue();
    answer("Save it elsewhere");
    until("it is saved", () -> !window.session().hasUnsavedChanges());
    assertThat(ProjectFile.load(elsewhere).masterDb()).isEqualTo(-7);
  }

  @Test
  void aReportTellsStepsAndTheLogAndOfPathsOnlyTheNamesOfFiles() {
    untilOpen();
    lower(-3);
    robot.interact(() -> window.run(CommandId.REPORT));
    String report =
        WaitForAsyncUtils.waitForAsyncFx(5_000, () -> Clipboard.getSystemClipboard().getString());
    assertThat(report).contains("Hush Rise ", "Java 2", "Lower the mix", "5 tracks");
    assertThat(report).doesNotContain(folder.toString());
    assertThat(
            Diagnostics.withoutFolders(
                "in /home/ann lee/Films/a b.mp4: check C:\\Users\\x\\y.wav, 1/2"))
        .isEqualTo("in a b.mp4: check y.wav, 1/2");
  }

  @Test
  void aProjectThatIsOpenInAnotherWindowIsSaid() throws IOException {
    untilOpen();
    Path second = Files.copy(file(), folder.resolve("second.hushrise"));
    try (ProjectLock held = ProjectLock.take(folder.resolve("work/open"), second).orElseThrow()) {
      assertThat(held).isNotNull();
      robot.interact(() -> window.open(second));
      until("it asks", () -> sheetWords().contains("is open in another window"));
      assertThat(ProjectLock.take(folder.resolve("work/open"), file()))
          .as("what is open stays locked while it asks")
          .isEmpty();
      assertThat(window.session().file()).contains(file());
      answer("Open it here too");
      until("it is open", () -> window.session().file().filter(second::equals).isPresent());
    }
  }
}
