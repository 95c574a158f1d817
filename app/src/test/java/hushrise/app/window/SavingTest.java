package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assumptions.assumeThat;

import hushrise.app.command.CommandId;
import hushrise.core.store.ProjectFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.Labeled;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/**
 * Saving goes on beside the work. What is done in one go on the window's thread is done before a
 * save that was begun there can have ended.
 */
@Tag(WindowTestCase.ANY_PLATFORM)
class SavingTest extends WindowTestCase {

  private Path file;

  @BeforeEach
  void open() {
    file = folder.resolve("first-ferry.hushrise");
    untilOpen();
  }

  /** Lets go whoever still waits for a disk that does not answer. */
  @AfterEach
  void answer() throws IOException {
    if (Files.exists(file) && !Files.isRegularFile(file)) {
      Files.write(file, new byte[] {1});
    }
  }

  private void lower(double db) {
    window.session().commit("Lower the mix", p -> p.withMasterDb(db));
  }

  private double saved() {
    return ProjectFile.load(file).masterDb();
  }

  private boolean isAsked(String words) {
    Node sheet = window.root().lookup("#sheet");
    return sheet.isVisible()
        && sheet.lookupAll(".label").stream().anyMatch(l -> ((Labeled) l).getText().equals(words));
  }

  private ButtonBase button(String words) {
    return window.root().lookup("#sheet").lookupAll(".button").stream()
        .map(ButtonBase.class::cast)
        .filter(b -> b.getText().equals(words))
        .findFirst()
        .orElseThrow();
  }

  /** A disk that does not answer: reading a pipe waits until somebody writes into it. */
  private void letTheDiskFallAsleep() throws IOException, InterruptedException {
    Files.delete(file);
    Process made = new ProcessBuilder("mkfifo", file.toString()).start();
    assumeThat(made.waitFor()).isZero();
  }

  @Test
  void whatIsDoneWhileItIsSavedIsNotSavedYet() {
    robot.interact(
        () -> {
          lower(-1);
          window.run(CommandId.SAVE);
          lower(-2);
        });
    untilQuiet();
    assertThat(saved()).isEqualTo(-1);
    assertThat(window.session().hasUnsavedChanges()).isTrue();
    robot.interact(() -> window.session().undo());
    assertThat(window.session().hasUnsavedChanges()).isFalse();
  }

  @Test
  void oneSaveComesAfterTheOther() {
    robot.interact(
        () -> {
          lower(-1);
          window.run(CommandId.SAVE);
          lower(-2);
          window.run(CommandId.SAVE);
          window.run(CommandId.SAVE);
        });
    untilQuiet();
    assertThat(saved()).isEqualTo(-2);
    assertThat(window.session().hasUnsavedChanges()).isFalse();
    assertThat(isAsked("The file was changed by somebody else")).isFalse();
  }

  @Test
  void whatLeadsAwayWaitsForTheSaveAndAsksNothing() {
    robot.interact(
        () -> {
          lower(-1);
          window.run(CommandId.SAVE);
          window.run(CommandId.NEW);
        });
    until("another project is begun", () -> window.session().file().isEmpty());
    assertThat(saved()).isEqualTo(-1);
    assertThat(project().shelf()).isEmpty();
  }

  @Test
  void itAsksAgainAboutWhatIsDoneAfterSomebodyAnsweredToSave() {
    robot.interact(
        () -> {
          lower(-1);
          window.run(CommandId.NEW);
        });
    robot.interact(
        () -> {
          button("Save").fire();
          lower(-2);
        });
    until("it asks again", () -> isAsked("The project has changes that are not saved"));
    assertThat(saved()).isEqualTo(-1);
    answer("Do not save");
    until("another project is begun", () -> window.session().file().isEmpty());
  }

  @Test
  void theWindowGoesOnWhileADiskIsAsleepAndNobodyHasToWait() throws Exception {
    letTheDiskFallAsleep();
    robot.interact(
        () -> {
          lower(-1);
          window.run(CommandId.SAVE);
        });
    until("that is said", () -> status().contains("is being saved"));
    robot.interact(() -> lower(-3));
    assertThat(project().masterDb()).isEqualTo(-3);
    until(
        "it takes long",
        () -> {
          window.run(CommandId.NEW);
          return isAsked("The project is still being saved");
        });
    answer("Do not wait for it");
    answer("Do not save");
    until("another project is begun", () -> window.session().file().isEmpty());
  }

  @Test
  void whileADiskIsAsleepItIsSavedElsewhere() throws Exception {
    letTheDiskFallAsleep();
    Path elsewhere = folder.resolve("elsewhere.hushrise");
    chosen.next(elsewhere);
    robot.interact(
        () -> {
          lower(-1);
          window.run(CommandId.SAVE);
          window.run(CommandId.SAVE_AS);
        });
    until("it is saved", () -> window.session().file().equals(Optional.of(elsewhere)));
    assertThat(ProjectFile.load(elsewhere).masterDb()).isEqualTo(-1);
    assertThat(window.session().hasUnsavedChanges()).isFalse();
  }
}
