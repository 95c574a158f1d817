package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import hushrise.core.Problem;
import hushrise.core.sound.Progress;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** Many who want the same at once, some of whom give up. */
class LoadingTest {

  private final ExecutorService threads = Executors.newCachedThreadPool();
  private final Loading<String, Integer> loading = new Loading<>(3);
  private final AtomicInteger loads = new AtomicInteger();

  @AfterEach
  void end() {
    threads.shutdownNow();
  }

  private static int waitFor(CountDownLatch gate, int value) {
    try {
      gate.await();
      return value;
    } catch (InterruptedException e) {
      throw new IllegalStateException(e);
    }
  }

  @Test
  void whatManyWantAtOnceIsLoadedOnce() throws Exception {
    CountDownLatch gate = new CountDownLatch(1);
    List<Future<Integer>> all = new ArrayList<>();
    for (int i = 0; i < 8; i++) {
      all.add(
          threads.submit(
              () ->
                  loading.get(
                      "a", Progress.NONE, p -> waitFor(gate, 100 + loads.incrementAndGet()))));
    }
    gate.countDown();
    for (Future<Integer> one : all) {
      assertThat(one.get(10, TimeUnit.SECONDS)).isEqualTo(101);
    }
    assertThat(loads.get()).isEqualTo(1);
  }

  @Test
  void oneThatTakesLongDoesNotHoldUpAnother() throws Exception {
    CountDownLatch gate = new CountDownLatch(1);
    Future<Integer> slow =
        threads.submit(() -> loading.get("a", Progress.NONE, p -> waitFor(gate, 1)));
    assertThat(
            threads.submit(() -> loading.get("b", Progress.NONE, p -> 2)).get(10, TimeUnit.SECONDS))
        .isEqualTo(2);
    assertThat(slow.isDone()).isFalse();
    gate.countDown();
    assertThat(slow.get(10, TimeUnit.SECONDS)).isEqualTo(1);
  }

  @Test
  void whoeverWaitsMayGiveUpWithoutEndingTheLoading() throws Exception {
    CountDownLatch gate = new CountDownLatch(1);
    CountDownLatch begun = new CountDownLatch(1);
    Future<Integer> first =
        threads.submit(
            () ->
                loading.get(
                    "a",
                    Progress.NONE,
                    p -> {
                      begun.countDown();
                      return waitFor(gate, 1);
                    }));
    begun.await();
    assertThatThrownBy(
            () ->
                loading.get(
                    "a",
                    part -> {
                      throw new CancellationException();
                    },
                    p -> 2))
        .isInstanceOf(CancellationException.class);
    gate.countDown();
    assertThat(first.get(10, TimeUnit.SECONDS)).isEqualTo(1);
  }

  @Test
  void whenTheOneWhoLoadsGivesUpTheNextOneLoads() throws Exception {
    CountDownLatch begun = new CountDownLatch(1);
    AtomicBoolean cancelled = new AtomicBoolean();
    Progress mayCancel =
        part -> {
          if (cancelled.get()) {
            throw new CancellationException();
          }
        };
    Future<Integer> first =
        threads.submit(
            () ->
                loading.get(
                    "a",
                    mayCancel,
                    progress -> {
                      begun.countDown();
                      while (true) {
                        progress.at(0.5);
                        Thread.onSpinWait();
                      }
                    }));
    begun.await();
    Future<Integer> second = threads.submit(() -> loading.get("a", Progress.NONE, p -> 2));
    cancelled.set(true);
    assertThat(second.get(10, TimeUnit.SECONDS)).isEqualTo(2);
    assertThatThrownBy(() -> first.get(10, TimeUnit.SECONDS))
        .hasCauseInstanceOf(CancellationException.class);
  }

  @Test
  void whatFailedIsTriedAgainAndAnErrorReachesEverybody() {
    assertThatThrownBy(
            () ->
                loading.get(
                    "a",
                    Progress.NONE,
                    p -> {
                      throw new Problem("a.wav cannot be read: choose another file.");
                    }))
        .isInstanceOf(Problem.class);
    assertThatThrownBy(
            () ->
                loading.get(
                    "a",
                    Progress.NONE,
                    p -> {
                      throw new OutOfMemoryError("made up");
                    }))
        .isInstanceOf(OutOfMemoryError.class);
    assertThat(loading.get("a", Progress.NONE, p -> 3)).isEqualTo(3);
  }

  @Test
  void onlySoManyAreKept() {
    for (int round = 0; round < 3; round++) {
      for (int key = 0; key < 50; key++) {
        loading.get("key " + key, Progress.NONE, p -> loads.incrementAndGet());
      }
    }
    assertThat(loads.get()).as("of 150 that were asked for").isGreaterThan(130);
  }

  @Test
  void whatWasLetGoIsLoadedAgainAndWhatIsBeingLoadedIsNot() throws Exception {
    CountDownLatch gate = new CountDownLatch(1);
    assertThat(loading.get("a", Progress.NONE, p -> loads.incrementAndGet())).isEqualTo(1);
    Future<Integer> under =
        threads.submit(() -> loading.get("b", Progress.NONE, p -> waitFor(gate, 7)));
    Future<Integer> waiting = threads.submit(() -> loading.get("b", Progress.NONE, p -> 8));
    loading.letGo();
    assertThat(loading.get("a", Progress.NONE, p -> loads.incrementAndGet())).isEqualTo(2);
    gate.countDown();
    assertThat(List.of(under.get(), waiting.get())).containsAnyOf(7, 8);
    assertThat(under.get()).isEqualTo(waiting.get());
  }
}
