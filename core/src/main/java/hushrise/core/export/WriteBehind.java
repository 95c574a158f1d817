package hushrise.core.export;

import hushrise.core.sound.MixWriter;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;

/**
 * Writes on a thread of its own, so that rendering and encoding use two cores. A few blocks go
 * round between two queues; a failure of the writer comes out of the next call.
 */
final class WriteBehind implements MixWriter {

  private static final int BLOCKS = 6;

  @SuppressWarnings("ArrayRecordComponent") // working space, never compared by content
  private record Block(float[][] planar, int[] frames) {}

  private static final Block END = new Block(new float[0][], new int[1]);

  private final MixWriter writer;
  private final BlockingQueue<Block> free = new ArrayBlockingQueue<>(BLOCKS);
  private final BlockingQueue<Block> full = new ArrayBlockingQueue<>(BLOCKS + 1);
  private final Thread thread;
  private volatile Throwable failure;

  /**
   * @param writer used by the other thread until {@link #finish} or {@link #close} returns
   * @param blockFrames the most frames of a call
   */
  WriteBehind(MixWriter writer, int blockFrames) {
    this.writer = writer;
    for (int i = 0; i < BLOCKS; i++) {
      free.add(new Block(new float[2][blockFrames], new int[1]));
    }
    thread = Thread.ofPlatform().daemon().name("hushrise-writer").start(this::run);
  }

  private void run() {
    try {
      for (Block block = full.take(); !block.equals(END); block = full.take()) {
        if (failure == null) {
          write(block);
        }
        free.put(block);
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  @SuppressWarnings("CatchingUnchecked") // the edge of the thread: the next call tells
  private void write(Block block) {
    try {
      writer.write(block.planar()[0], block.planar()[1], block.frames()[0]);
    } catch (Throwable e) {
      failure = e;
    }
  }

  @Override
  public void write(float[] left, float[] right, int frames) {
    throwFailure();
    try {
      Block block = free.take();
      System.arraycopy(left, 0, block.planar()[0], 0, frames);
      System.arraycopy(right, 0, block.planar()[1], 0, frames);
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

  /** Waits until all is written, and throws what went wrong; the writer itself stays open. */
  void drain() {
    close();
    throwFailure();
  }

  @Override
  public void finish() {
    drain();
    writer.finish();
  }

  /** Waits until what was handed over is written; the writer itself stays open. */
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
