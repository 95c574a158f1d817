package hushrise.core.export;

import hushrise.core.sound.Blocks;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;

/**
 * Has something done with what is rendered on a thread of its own, so that rendering, encoding and
 * measuring use several cores. A few blocks go round between two queues; a failure there comes out
 * of the next call here.
 */
final class Behind implements AutoCloseable {

  private static final int BLOCKS = 6;

  /** What is done with a block, of planar samples. */
  @FunctionalInterface
  interface Work {
    void take(float[][] planar, int frames);
  }

  @SuppressWarnings("ArrayRecordComponent") // working space, never compared by content
  private record Block(float[][] planar, int[] frames) {}

  private static final Block END = new Block(new float[0][], new int[1]);

  private final Work work;
  private final BlockingQueue<Block> free = new ArrayBlockingQueue<>(BLOCKS);
  private final BlockingQueue<Block> full = new ArrayBlockingQueue<>(BLOCKS + 1);
  private final Thread thread;
  private volatile Throwable failure;

  /**
   * @param name of the thread
   * @param work done by the other thread until {@link #drain} or {@link #close} returns
   */
  Behind(String name, Work work) {
    this.work = work;
    for (int i = 0; i < BLOCKS; i++) {
      free.add(new Block(new float[2][Blocks.FRAMES], new int[1]));
    }
    thread = Thread.ofPlatform().daemon().name(name).start(this::run);
  }

  private void run() {
    try {
      for (Block block = full.take(); !block.equals(END); block = full.take()) {
        if (failure == null) {
          take(block);
        }
        free.put(block);
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  @SuppressWarnings("CatchingUnchecked") // the edge of the thread: the next call tells
  private void take(Block block) {
    try {
      work.take(block.planar(), block.frames()[0]);
    } catch (Throwable e) {
      failure = e;
    }
  }

  /**
   * Hands over a block.
   *
   * @param planar left and right
   * @param frames how many of them count, at most {@link Blocks#FRAMES}
   */
  void hand(float[][] planar, int frames) {
    throwFailure();
    try {
      Block block = free.take();
      System.arraycopy(planar[0], 0, block.planar()[0], 0, frames);
      System.arraycopy(planar[1], 0, block.planar()[1], 0, frames);
      block.frames()[0] = frames;
      full.put(block);
    } catch (InterruptedException e) {
      throw interrupted(e);
    }
  }

  private void throwFailure() {
    switch (failure) {
      case null -> {}
      case RuntimeException e -> throw e;
      case Error e -> throw e;
      default -> throw new IllegalStateException(failure);
    }
  }

  private static IllegalStateException interrupted(InterruptedException e) {
    Thread.currentThread().interrupt();
    return new IllegalStateException("Writing was interrupted", e);
  }

  /** Waits until all is done, and throws what went wrong. */
  void drain() {
    close();
    throwFailure();
  }

  /** Waits until what was handed over is done. */
  @Override
  public void close() {
    try {
      if (thread.isAlive()) {
        full.put(END);
        thread.join();
      }
    } catch (InterruptedException e) {
      throw interrupted(e);
    }
  }
}
