package hushrise.media;

import static org.bytedeco.ffmpeg.global.avcodec.av_packet_clone;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_free;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_rescale_ts;

import java.util.Optional;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.RejectedExecutionException;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import org.bytedeco.ffmpeg.avcodec.AVPacket;
import org.bytedeco.ffmpeg.avformat.AVFormatContext;
import org.bytedeco.ffmpeg.avformat.AVStream;
import org.bytedeco.ffmpeg.avutil.AVRational;

/**
 * Pictures that are encoded in closed groups of some seconds on all cores: each group by an encoder
 * of its own, which begins with a key picture. The packets come out in order. A group that is slow
 * is handed over while it is made, and the others run no further ahead than a few groups.
 */
final class ClosedGroups implements PictureFeed {

  /** How long a group is to be, in seconds, where the pictures allow it. */
  static final double SECONDS = 10;

  /** Pictures from a place on that need none before them. For one thread. */
  interface Stretch extends AutoCloseable {

    /** The time of its first picture, in ticks of the encoder's clock. */
    long startTick();

    /** Opens the one some seconds on; empty when this one goes to the end. */
    Optional<? extends Stretch> following();

    /**
     * Encodes all pictures before a time, or all.
     *
     * @param sink takes packets stamped in the encoder's clock
     */
    void encode(Optional<Long> endTick, PacketSink sink);

    @Override
    void close();
  }

  /** How many decoded pictures a worker may have about it, and what all of them may take. */
  private static final long PICTURES_OF_WORKER = 20;

  private static final long MOST_BYTES = 300L << 20;
  private static final int MOST_PACKETS = 1_000;

  /** What one stretch gives. An empty packet ends it. */
  private final class Group implements Runnable {
    private final Stretch stretch;
    private final BlockingQueue<Optional<AVPacket>> packets =
        new LinkedBlockingQueue<>(MOST_PACKETS);
    private volatile Optional<Group> following = Optional.empty();
    private volatile Optional<Throwable> failure = Optional.empty();

    Group(Stretch stretch) {
      this.stretch = stretch;
    }

    @Override
    public void run() {
      try {
        try (stretch) {
          ahead.acquire();
          Optional<? extends Stretch> next = stretch.following();
          next.ifPresent(this::follow);
          stretch.encode(next.map(Stretch::startTick), this::put);
        } catch (RuntimeException | Error e) {
          failure = Optional.of(e); // whatever it is, nobody waits here for ever
        }
        packets.put(Optional.empty());
      } catch (InterruptedException e) {
        Thread.currentThread().interrupt(); // the feed is closed
      }
    }

    private void follow(Stretch next) {
      Group group = new Group(next);
      try {
        workers.execute(group);
        following = Optional.of(group);
      } catch (RejectedExecutionException e) {
        next.close(); // the feed is closed
        throw e;
      }
    }

    private void put(AVPacket packet) {
      AVPacket kept = Ffmpeg.allocated(av_packet_clone(packet));
      try {
        packets.put(Optional.of(kept));
      } catch (InterruptedException e) {
        Thread.currentThread().interrupt();
        av_packet_free(kept);
        throw new CancellationException();
      }
    }

    /** Its next packet; empty at its end. */
    private Optional<AVPacket> take() {
      try {
        return packets.take();
      } catch (InterruptedException e) {
        Thread.currentThread().interrupt();
        throw new CancellationException();
      }
    }

    private void discard() {
      for (Optional<AVPacket> next = packets.poll(); next != null; next = packets.poll()) {
        next.ifPresent(packet -> av_packet_free(packet));
      }
    }
  }

  private final AVStream stream;
  private final AVRational clock;
  private final ExecutorService workers;
  private final Semaphore ahead;
  private Optional<Group> current;
  private Optional<AVPacket> waiting = Optional.empty();

  /**
   * @param description an encoder as those of the stretches, which tells what its packets are
   * @param first the first stretch, which is closed with the others
   */
  ClosedGroups(AVFormatContext output, VideoEncoder description, Stretch first) {
    stream = description.addStreamTo(output);
    clock = description.clock();
    int threads = threads(description.width(), description.height());
    ahead = new Semaphore(2 * threads);
    workers =
        Executors.newFixedThreadPool(
            threads,
            Thread.ofPlatform()
                .daemon()
                .name("hushrise-pictures-", 0)
                .priority(Thread.MIN_PRIORITY)
                .factory());
    Group group = new Group(first);
    current = Optional.of(group);
    workers.execute(group);
  }

  private static int threads(int width, int height) {
    long bytes = PICTURES_OF_WORKER * Math.max(1, width * height * 3L / 2);
    int cores = Runtime.getRuntime().availableProcessors();
    return (int) Math.clamp(MOST_BYTES / bytes, 1, cores);
  }

  @Override
  public boolean copies() {
    return false;
  }

  @Override
  public void writeUntil(double seconds, PacketSink sink) {
    while (waiting.isPresent() || takeNext()) {
      AVPacket packet = waiting.orElseThrow();
      if (packet.pts() * TimeZero.seconds(clock) > seconds) {
        return;
      }
      waiting = Optional.empty();
      try {
        packet.stream_index(stream.index());
        av_packet_rescale_ts(packet, clock, stream.time_base());
        sink.write(packet);
      } finally {
        av_packet_free(packet);
      }
    }
  }

  /** Waits for the next packet; false after the last. */
  private boolean takeNext() {
    while (current.isPresent()) {
      waiting = current.get().take();
      if (waiting.isPresent()) {
        return true;
      }
      current.get().failure.ifPresent(ClosedGroups::fail);
      current = current.get().following;
      ahead.release();
    }
    return false;
  }

  private static void fail(Throwable why) {
    if (why instanceof Error error) {
      throw error;
    }
    throw (RuntimeException) why;
  }

  @Override
  public void close() {
    workers.shutdownNow().forEach(group -> ((Group) group).stretch.close());
    try {
      // What encodes uses memory of FFmpeg's that nobody else may let go.
      while (!workers.awaitTermination(1, TimeUnit.SECONDS)) {
        current.ifPresent(Group::discard);
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
    waiting.ifPresent(packet -> av_packet_free(packet));
    waiting = Optional.empty();
    for (Optional<Group> group = current; group.isPresent(); group = group.get().following) {
      group.get().discard();
    }
    current = Optional.empty();
  }
}
