package hushrise.media;

import com.github.benmanes.caffeine.cache.AsyncCache;
import com.github.benmanes.caffeine.cache.Caffeine;
import hushrise.core.sound.Progress;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.Function;

/**
 * Things that take long to load, kept while there is room. Whoever asks first for one loads it on
 * its own thread; others who ask meanwhile wait for that, and may be cancelled while they wait.
 * What failed or was cancelled is not kept: the next one who asks tries again. Different keys never
 * wait for one another.
 */
final class Loading<K, V> {

  private static final long LOOK_MILLIS = 40;

  private final AsyncCache<K, V> cache;

  /**
   * @param most how many are kept
   */
  Loading(long most) {
    cache = Caffeine.newBuilder().maximumSize(most).executor(Runnable::run).buildAsync();
  }

  /**
   * What belongs to a key; loaded when it is not there.
   *
   * @param progress hears how far it is, and may cancel the loading or the waiting
   */
  V get(K key, Progress progress, Function<Progress, V> load) {
    CompletableFuture<V> mine = new CompletableFuture<>();
    while (true) {
      CompletableFuture<V> first = cache.asMap().putIfAbsent(key, mine);
      if (first == null) {
        return load(mine, progress, load);
      }
      try {
        return await(first, progress);
      } catch (CancelledElsewhere again) {
        cache.asMap().remove(key, first);
      }
    }
  }

  @SuppressWarnings("CatchingUnchecked") // whoever waits has to learn of it, whatever it is
  private V load(CompletableFuture<V> mine, Progress progress, Function<Progress, V> load) {
    try {
      V loaded = load.apply(progress);
      mine.complete(loaded);
      return loaded;
    } catch (Throwable e) {
      mine.completeExceptionally(e);
      throw e;
    }
  }

  /** Keeps none of what is loaded any longer; whoever has one keeps it. */
  void letGo() {
    cache.asMap().values().removeIf(CompletableFuture::isDone);
  }

  private static <V> V await(CompletableFuture<V> first, Progress progress) {
    while (true) {
      try {
        return first.get(LOOK_MILLIS, TimeUnit.MILLISECONDS);
      } catch (TimeoutException stillLoading) {
        progress.at(0);
      } catch (InterruptedException e) {
        Thread.currentThread().interrupt();
        throw new CancellationException();
      } catch (CancellationException e) {
        throw new CancelledElsewhere(e);
      } catch (ExecutionException e) {
        switch (e.getCause()) {
          case CancellationException c -> throw new CancelledElsewhere(c);
          case RuntimeException r -> throw r;
          case Error r -> throw r;
          default -> throw new IllegalStateException(e.getCause());
        }
      }
    }
  }

  /** The one who loaded gave up; whoever waits may try. */
  private static final class CancelledElsewhere extends RuntimeException {
    private static final long serialVersionUID = 1;

    CancelledElsewhere(Throwable cause) {
      super(cause);
    }
  }
}
