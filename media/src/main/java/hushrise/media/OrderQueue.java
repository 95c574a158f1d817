package hushrise.media;

import hushrise.core.export.Delivered;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SoundLibrary;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;

/**
 * Carries out orders one after another on a thread of its own; a failure ends only the order that
 * it befalls. (One at a time, as each uses all cores where it can.)
 */
public final class OrderQueue implements AutoCloseable {

  /** How an order stands. */
  public enum State {
    WAITING,
    RUNNING,
    DONE,
    FAILED,
    CANCELLED;

    /** Whether nothing more will happen. */
    public boolean isOver() {
      return this == DONE || this == FAILED || this == CANCELLED;
    }
  }

  /** An order in the queue. Safe for any number of threads. */
  public static final class Ticket {
    private final Order order;
    private final Progress heard;
    private final CompletableFuture<Delivered> result = new CompletableFuture<>();
    private volatile State state = State.WAITING;
    private volatile boolean cancelled;
    private volatile double fraction;
    private volatile long startNanos;
    private volatile Throwable failure;

    private Ticket(Order order, Progress heard) {
      this.order = order;
      this.heard = heard;
    }

    public Order order() {
      return order;
    }

    public State state() {
      return state;
    }

    /** How far it is, 0 to 1. */
    public double fraction() {
      return fraction;
    }

    /** How long it will take still, in seconds; empty while that cannot be told. */
    public Optional<Double> secondsLeft() {
      double done = fraction;
      if (state != State.RUNNING || done < 0.01) {
        return Optional.empty();
      }
      return Optional.of((System.nanoTime() - startNanos) / 1e9 * (1 - done) / done);
    }

    /** What was delivered, once it is. */
    public Optional<Delivered> delivered() {
      return state == State.DONE ? Optional.of(result.join()) : Optional.empty();
    }

    /** What went wrong. */
    public Optional<Throwable> failure() {
      return Optional.ofNullable(failure);
    }

    /** Ends it at once; an older file of its name stays. */
    public void cancel() {
      cancelled = true;
      if (state == State.WAITING) {
        end(State.CANCELLED);
      }
    }

    /**
     * Waits until it is over, or for a while.
     *
     * @return whether it is over
     */
    public boolean await(long millis) {
      try {
        result.get(millis, TimeUnit.MILLISECONDS);
      } catch (TimeoutException e) {
        return false;
      } catch (ExecutionException | CancellationException e) {
        return true;
      } catch (InterruptedException e) {
        Thread.currentThread().interrupt();
        cancel();
        return false;
      }
      return true;
    }

    /** Runs something once it is over, on the thread that ended it. */
    public void whenOver(Runnable then) {
      result.whenComplete((delivered, e) -> then.run());
    }

    private synchronized void end(State how) {
      if (!state.isOver()) {
        state = how;
        result.completeExceptionally(
            failure == null ? new CancellationException(String.valueOf(order.target())) : failure);
      }
    }

    private synchronized boolean begin() {
      if (state != State.WAITING) {
        return false;
      }
      startNanos = System.nanoTime();
      state = State.RUNNING;
      return true;
    }

    private void progress(double done) {
      heard.at(done);
      if (cancelled) {
        throw new CancellationException();
      }
      fraction = done;
    }

    @SuppressWarnings("CatchingUnchecked") // the edge of the thread: the ticket tells
    private void carryOut(SoundLibrary library) {
      if (!begin()) {
        return;
      }
      try {
        Delivered delivered = Exporter.export(order, library, this::progress);
        synchronized (this) {
          fraction = 1;
          state = State.DONE;
        }
        result.complete(delivered);
      } catch (CancellationException e) {
        end(State.CANCELLED);
      } catch (Throwable e) {
        failure = e;
        end(State.FAILED);
      }
    }
  }

  private final SoundLibrary library;
  private final ExecutorService worker =
      Executors.newSingleThreadExecutor(
          Thread.ofPlatform()
              .daemon()
              .name("hushrise-export")
              .priority(Thread.MIN_PRIORITY)
              .factory());

  public OrderQueue(SoundLibrary library) {
    this.library = library;
  }

  /** Puts an order at the end of the queue. */
  public Ticket add(Order order) {
    return add(order, Progress.NONE);
  }

  /**
   * Puts an order at the end of the queue.
   *
   * @param heard hears how far it is, and may end it
   */
  public Ticket add(Order order, Progress heard) {
    Ticket ticket = new Ticket(order, heard);
    worker.execute(() -> ticket.carryOut(library));
    return ticket;
  }

  /** Takes no more orders; the one that runs is ended by its ticket. */
  @Override
  public void close() {
    worker.shutdown();
  }
}
