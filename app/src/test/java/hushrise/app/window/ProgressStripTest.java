package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.job.Job;
import hushrise.app.job.Jobs;
import hushrise.app.job.NotedMessages;
import java.util.List;
import java.util.concurrent.TimeoutException;
import java.util.stream.IntStream;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.CustomMenuItem;
import javafx.scene.control.MenuButton;
import javafx.stage.Stage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxToolkit;
import org.testfx.util.WaitForAsyncUtils;

/** What is under way, be it nothing or hundreds of things. */
class ProgressStripTest {

  private final Jobs jobs = new Jobs(new NotedMessages());
  private Stage stage;
  private ProgressStrip strip;
  private List<Job> begun;

  @BeforeEach
  void begin() throws TimeoutException {
    stage = FxToolkit.registerPrimaryStage();
    onWindow(
        () -> {
          strip = new ProgressStrip(jobs);
          stage.setScene(new Scene(strip, 700, 60));
          stage.show();
          begun = IntStream.range(0, 300).mapToObj(i -> jobs.begin("Reading " + i)).toList();
        });
  }

  @AfterEach
  void end() {
    onWindow(stage::hide);
    jobs.close();
  }

  private static void onWindow(Runnable work) {
    WaitForAsyncUtils.waitForAsyncFx(10_000, work);
    WaitForAsyncUtils.waitForFxEvents();
  }

  private MenuButton others() {
    return (MenuButton) strip.lookup("#job-more");
  }

  private List<String> listed() {
    return others().getItems().stream()
        .filter(CustomMenuItem.class::isInstance)
        .map(i -> ((CustomMenuItem) i).getContent().lookup(".label"))
        .map(label -> ((javafx.scene.control.Label) label).getText())
        .toList();
  }

  @Test
  void ofHundredsOnlyTheFirstIsDrawnUntilSomebodyAsksForTheOthers() {
    Node first = strip.lookup("#job-cancel");
    assertThat(strip.lookupAll(".progress-bar")).hasSize(1);
    assertThat(others().getText()).contains("299");
    assertThat(others().getItems()).isEmpty();
    onWindow(() -> jobs.end(begun.get(7)));
    assertThat(strip.lookup("#job-cancel")).isSameAs(first);
    onWindow(() -> others().show());
    assertThat(listed()).hasSize(15).startsWith("Reading 1", "Reading 2");
    assertThat(others().getItems().getLast().getText()).contains("283");
  }

  @Test
  void theListOfTheOthersFollowsWhatBeginsAndEnds() {
    onWindow(() -> others().show());
    Node kept = ((CustomMenuItem) others().getItems().get(2)).getContent();
    onWindow(() -> jobs.end(begun.getFirst()));
    assertThat(listed()).hasSize(15).startsWith("Reading 2", "Reading 3").endsWith("Reading 16");
    assertThat(((CustomMenuItem) others().getItems().get(1)).getContent()).isSameAs(kept);
    onWindow(() -> begun.subList(1, 290).forEach(jobs::end));
    assertThat(listed()).hasSize(9);
    assertThat(others().getItems()).hasSize(9);
    assertThat(others().isShowing()).as("it stays open").isTrue();
    onWindow(() -> begun.subList(290, 299).forEach(jobs::end));
    assertThat(others().isVisible()).isFalse();
    assertThat(others().isShowing()).isFalse();
    assertThat(strip.lookupAll(".progress-bar")).hasSize(1);
    onWindow(() -> jobs.end(begun.getLast()));
    assertThat(strip.lookupAll(".progress-bar")).isEmpty();
  }
}
