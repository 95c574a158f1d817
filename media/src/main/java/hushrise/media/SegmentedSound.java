package hushrise.media;

import static hushrise.media.Ffmpeg.allocated;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_clone;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_free;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.List;
import java.util.Queue;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.function.LongFunction;
import org.bytedeco.ffmpeg.avcodec.AVPacket;
import org.bytedeco.ffmpeg.avformat.AVFormatContext;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * AAC that is encoded in segments of some seconds on all cores.
 *
 * <p>A packet carries the transform of two frames' samples and is made from what the encoder heard
 * shortly before and one frame ahead. So each segment's encoder begins some frames early and hears
 * some further; of its packets only those are taken that are the segment's own. Their windows are
 * those that one encoder would have chosen, so the overlapping halves of neighbours cancel as they
 * should, and the sound joins to the sample.
 *
 * <pre>
 *   early │ segment i              │ further
 *                          early   │ segment i + 1          │ further
 * </pre>
 */
final class SegmentedSound extends SoundEncoder {

  private static final Logger LOG = LoggerFactory.getLogger(SegmentedSound.class);

  private static final int SEGMENT = 375;
  private static final int EARLY = 12;
  private static final int FURTHER = 4;

  private final LongFunction<SampleEncoder> encoders;
  private final SampleEncoder parameters;
  private final int frame;
  private final ExecutorService workers;
  private final int mostWaiting;
  private final Queue<Future<List<AVPacket>>> waiting = new ArrayDeque<>();

  /** What has come in of the segment and around it. */
  private float[][] samples;

  private int filled;

  /** The first frame of {@link #samples}, and of the segment in it. */
  private long start;

  private long segmentStart;

  /**
   * @param parameters an encoder that tells how its packets are to be read
   * @param encoders gives one that begins with a frame
   */
  SegmentedSound(
      AVFormatContext output, SampleEncoder parameters, LongFunction<SampleEncoder> encoders) {
    super(output, parameters.codec());
    this.parameters = parameters;
    this.encoders = encoders;
    frame = parameters.frameSize();
    samples = new float[2][(EARLY + SEGMENT + FURTHER) * frame];
    int cores = Runtime.getRuntime().availableProcessors();
    mostWaiting = cores + 1;
    workers =
        Executors.newFixedThreadPool(
            cores,
            Thread.ofPlatform()
                .daemon()
                .name("hushrise-encode-", 0)
                .priority(Thread.MIN_PRIORITY)
                .factory());
  }

  @Override
  void add(float[] left, float[] right, int frames, PacketSink sink) {
    for (int done = 0; done < frames; ) {
      int n = Math.min(frames - done, samples[0].length - filled);
      System.arraycopy(left, done, samples[0], filled, n);
      System.arraycopy(right, done, samples[1], filled, n);
      filled += n;
      done += n;
      if (filled == samples[0].length) {
        nextSegment(sink);
      }
    }
  }

  /** Hands a segment to the workers, and keeps what the next one needs of it. */
  private void nextSegment(PacketSink sink) {
    long until = start + filled - (long) FURTHER * frame;
    encode(filled, segmentStart, until);
    long nextStart = until - (long) EARLY * frame;
    int kept = (int) (start + filled - nextStart);
    float[][] next = new float[2][samples[0].length];
    for (int c = 0; c < 2; c++) {
      System.arraycopy(samples[c], filled - kept, next[c], 0, kept);
    }
    samples = next;
    filled = kept;
    start = nextStart;
    segmentStart = until;
    deliverFinished(mostWaiting, sink);
  }

  private void encode(int count, long from, long until) {
    float[][] heard = samples;
    long first = start;
    waiting.add(workers.submit(() -> packets(heard, count, first, from, until)));
  }

  /** The packets of a segment: those whose sound begins within it, one frame late. */
  private List<AVPacket> packets(float[][] heard, int count, long first, long from, long until) {
    List<AVPacket> packets = new ArrayList<>();
    PacketSink own =
        packet -> {
          long at = packet.pts() + frame;
          if (at >= from && at < until) {
            packets.add(allocated(av_packet_clone(packet)));
          }
        };
    try (SampleEncoder encoder = encoders.apply(first)) {
      for (int at = 0; at < count; at += frame) {
        if (Thread.currentThread().isInterrupted()) {
          throw new CancellationException();
        }
        encoder.encode(heard[0], heard[1], at, Math.min(frame, count - at), own);
      }
      encoder.finish(own);
      return packets;
    } catch (RuntimeException e) {
      packets.forEach(SegmentedSound::free);
      throw e;
    }
  }

  private static void free(AVPacket packet) {
    av_packet_free(packet);
  }

  /** Delivers what is finished, in order, until few enough segments wait. */
  private void deliverFinished(int most, PacketSink sink) {
    while (!waiting.isEmpty() && (waiting.size() > most || waiting.peek().isDone())) {
      List<AVPacket> packets = taken(waiting.poll());
      try {
        packets.forEach(packet -> deliver(packet, sink));
      } finally {
        packets.forEach(SegmentedSound::free);
      }
    }
  }

  private static List<AVPacket> taken(Future<List<AVPacket>> segment) {
    try {
      return segment.get();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new CancellationException();
    } catch (ExecutionException e) {
      throw e.getCause() instanceof RuntimeException failure
          ? failure
          : new IllegalStateException(e.getCause());
    }
  }

  @Override
  void finish(PacketSink sink) {
    encode(filled, segmentStart, Long.MAX_VALUE);
    deliverFinished(0, sink);
  }

  @Override
  public void close() {
    List<Runnable> unbegun = workers.shutdownNow();
    for (Future<List<AVPacket>> segment : waiting) {
      if (unbegun.contains((Runnable) segment)) {
        continue;
      }
      try {
        segment.get().forEach(SegmentedSound::free);
      } catch (InterruptedException e) {
        Thread.currentThread().interrupt();
      } catch (ExecutionException e) {
        LOG.debug("A segment was ended, and has freed what it had", e);
      }
    }
    waiting.clear();
    parameters.close();
  }
}
