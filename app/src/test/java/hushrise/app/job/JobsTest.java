package hushrise.app.job;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.Problem;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxToolkit;
import org.testfx.util.WaitForAsyncUtils;

/** Work in the background that ends well, badly, or not at all. */
class JobsTest {

  private final NotedMessages messages = new NotedMessages();
  private final List<String> complaints = messages.complaints();
  private final AtomicInteger failures = new AtomicInteger();
  private Jobs jobs;

  @BeforeEach
  void begin() throws TimeoutException {
    FxToolkit.registerPrimaryStage();
    jobs = new Jobs(messages);
  }

  private static void until(Callable<Boolean> condition) {
    try {
      WaitForAsyncUtils.waitFor(20, TimeUnit.SECONDS, condition);
    } catch (TimeoutException e) {
      throw new AssertionError("Waited in vain", e);
    }
  }

  private static void onWindow(Runnable work) {
    WaitForAsyncUtils.waitForAsyncFx(10_000, work);
  }

  private static void awaitOrEnd(CountDownLatch gate) {
    try {
      gate.await();
    } catch (InterruptedException e) {
      throw new AssertionError("Waited in vain", e);
    }
  }

  private void untilIdle() {
    until(() -> jobs.pendingProperty().get() == 0);
    WaitForAsyncUtils.waitForFxEvents();
  }

  @Test
  void aProblemIsSaidAndAnErrorDoesNotStopTheWorkers() {
    List<Integer> results = new ArrayList<>();
    onWindow(
        () -> {
          jobs.run(
              () -> {
                throw new Problem("tune.mp3 cannot be read: choose another file.");
              },
              r -> results.add(0),
              failures::incrementAndGet);
          for (int i = 0; i < 20; i++) {
            jobs.run(
                () -> {
                  throw new StackOverflowError("too deep");
                },
                r -> results.add(0),
                failures::incrementAndGet);
          }
        });
    untilIdle();
    assertThat(failures.get()).isEqualTo(21);
    assertThat(complaints).contains("tune.mp3 cannot be read: choose another file.").hasSize(21);
    onWindow(() -> jobs.run(() -> 7, results::add));
    untilIdle();
    assertThat(results).containsExactly(7);
  }

  @Test
  void aFailureInWhatFollowsDoesNotLeaveTheWindowBusy() {
    onWindow(
        () ->
            jobs.run(
                () -> 1,
                r -> {
                  throw new IllegalStateException("what follows fails");
                }));
    untilIdle();
    assertThat(jobs.pendingProperty().get()).isZero();
    WaitForAsyncUtils.clearExceptions();
  }

  @Test
  void whatTakesLongerThanAMomentIsSaidAndThatItHasEnded() {
    CountDownLatch gate = new CountDownLatch(1);
    List<String> ended = new ArrayList<>();
    onWindow(() -> jobs.runSaying("goes on", "over", () -> {}, () -> ended.add("soon")));
    untilIdle();
    assertThat(messages.said()).isEmpty();
    onWindow(
        () ->
            jobs.runSaying(
                "goes on",
                "over",
                () -> {
                  awaitOrEnd(gate);
                  throw new Problem("tune.mp3 is gone: put it back.");
                },
                () -> ended.add("late")));
    until(() -> messages.said().contains("goes on"));
    assertThat(ended).containsExactly("soon");
    gate.countDown();
    untilIdle();
    assertThat(messages.said())
        .containsExactly("goes on", "over", "tune.mp3 is gone: put it back.");
    assertThat(ended).containsExactly("soon", "late");
    assertThat(complaints).containsExactly("tune.mp3 is gone: put it back.");
  }

  @Test
  void whatWasSaidWhileItLastedIsTakenBackWhereNothingElseIsToBeSaid() {
    CountDownLatch gate = new CountDownLatch(1);
    List<Integer> results = new ArrayList<>();
    onWindow(
        () ->
            jobs.runSaying(
                "goes on",
                "",
                () -> {
                  awaitOrEnd(gate);
                  return 7;
                },
                results::add,
                failures::incrementAndGet));
    until(() -> messages.said().contains("goes on"));
    gate.countDown();
    untilIdle();
    assertThat(messages.said()).containsExactly("goes on", "not any more: goes on");
    assertThat(results).containsExactly(7);
    assertThat(failures.get()).isZero();
  }

  @Test
  void whatEndsAfterTheWindowHasClosedIsToldNobody() {
    CountDownLatch gate = new CountDownLatch(1);
    List<Integer> results = new ArrayList<>();
    onWindow(
        () -> {
          jobs.run(
              () -> {
                awaitOrEnd(gate);
                return 7;
              },
              results::add);
          jobs.run(
              () -> {
                awaitOrEnd(gate);
                throw new Problem("tune.mp3 is gone: put it back.");
              },
              r -> results.add(0),
              failures::incrementAndGet);
          jobs.close();
        });
    gate.countDown();
    untilIdle();
    assertThat(results).isEmpty();
    assertThat(failures.get()).isZero();
    assertThat(complaints).isEmpty();
  }

  @Test
  void cancellingOneJobLeavesTheOthersAlone() {
    CountDownLatch begun = new CountDownLatch(2);
    CountDownLatch gate = new CountDownLatch(1);
    List<String> ended = new ArrayList<>();
    onWindow(
        () -> {
          for (String name : List.of("first", "second")) {
            jobs.run(
                name,
                progress -> {
                  begun.countDown();
                  gate.await();
                  progress.at(0.5);
                  return name;
                },
                ended::add,
                () -> ended.add(name + " failed"));
          }
        });
    until(() -> begun.getCount() == 0);
    assertThat(jobs.shown()).extracting(Job::words).containsExactly("first", "second");
    onWindow(() -> jobs.shown().getFirst().cancel());
    gate.countDown();
    untilIdle();
    assertThat(ended).containsExactlyInAnyOrder("first failed", "second");
    assertThat(jobs.shown()).isEmpty();
    assertThat(complaints).as("who cancelled knows").isEmpty();
  }

  @Test
  void aJobTellsHowFarItIsAndGuessesWhatIsLeft() {
    CountDownLatch gate = new CountDownLatch(1);
    onWindow(
        () ->
            jobs.run(
                "half",
                progress -> {
                  progress.at(0.1);
                  Thread.sleep(60); // is shown twenty times a second
                  progress.at(0.5);
                  gate.await();
                  return 1;
                },
                r -> {}));
    Job job = jobs.shown().getFirst();
    until(() -> job.fractionProperty().get() == 0.5);
    assertThat(job.secondsLeft().orElseThrow()).isPositive().isLessThan(60);
    gate.countDown();
    untilIdle();
  }
}
