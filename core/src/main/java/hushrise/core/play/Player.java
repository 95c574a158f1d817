package hushrise.core.play;

import hushrise.core.mix.Mixer;
import hushrise.core.sound.AudioOutput;
import hushrise.core.sound.OutputLost;
import hushrise.core.sound.TimeStretch;
import java.time.Duration;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicReference;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Supplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Plays what a mixer renders through an output. The position follows the frames that have sounded,
 * so a picture that follows it is in step with the ear.
 *
 * <p>What is wanted is one run in a volatile field. A thread of its own takes up whatever run
 * stands there, renders small blocks and hands them to the output, which sets the pace; it leaves a
 * run as soon as another one, or none, is wanted. So nobody ever waits for it: {@link #play} and
 * {@link #stop} return at once. In its loop nothing is allocated, no lock is taken and, as another
 * thread brings near what comes next, no file is waited for. What each block held and where it lay
 * stands in a {@link BlockLog}. A run that fails ends and is told; the thread lives on.
 */
public final class Player implements AutoCloseable {

  /** Frames handed over at once: 10.7 ms at 48 kHz. */
  static final int BLOCK = 512;

  private static final Logger LOG = LoggerFactory.getLogger(Player.class);
  private static final Duration CLOSING = Duration.ofSeconds(2);

  /** How far ahead samples are brought near, and how often that is looked at. */
  private static final double NEAR_SECONDS = 4;

  private static final long NEAR_NANOS = 250_000_000;

  /** Is told what a person should know. Both on the player's thread. */
  public interface Listener {

    /** A run has ended before its time. */
    void failed(Throwable why);

    /**
     * An output takes no more sound; another one goes on in its place.
     *
     * @param lost the name of the one that was lost
     */
    void outputLost(String lost, String now);
  }

  private final int sampleRate;
  private final Listener listener;
  private final Supplier<AudioOutput> standIn;
  private final Thread thread;
  private final Thread nearer;
  private final float[] left = new float[BLOCK];
  private final float[] right = new float[BLOCK];
  private final float[] slowLeft = new float[2 * BLOCK];
  private final float[] slowRight = new float[2 * BLOCK];
  private final BlockLog log;
  private final Monitor monitor;
  private final AtomicReference<AudioOutput> nextOutput = new AtomicReference<>();
  private final AtomicReference<Optional<TimeStretch>> nextStretch = new AtomicReference<>();
  private volatile AudioOutput output;
  private volatile Ears ears = Ears.PLAIN;
  private volatile Run wanted;
  private volatile long restFrame;
  private volatile long underRuns;
  private volatile boolean closed;

  // The rendering thread's own.
  private Optional<TimeStretch> stretch = Optional.empty();
  private long at;
  private long written;
  private long taken;
  private long ranDry;

  /**
   * @param output closed together with the player
   * @param standIn makes the output that goes on where one is lost
   */
  public Player(
      int sampleRate, AudioOutput output, Supplier<AudioOutput> standIn, Listener listener) {
    this.sampleRate = sampleRate;
    this.output = output;
    this.standIn = standIn;
    this.listener = listener;
    log = new BlockLog(sampleRate);
    monitor = new Monitor(sampleRate, BLOCK);
    thread =
        Thread.ofPlatform()
            .name("hushrise-player")
            .priority(Thread.MAX_PRIORITY)
            .daemon()
            .start(this::work);
    nearer = Thread.ofPlatform().name("hushrise-near").daemon().start(this::bringNear);
  }

  public String outputName() {
    return output.name();
  }

  /** Goes on through another output, from where the film is; the one before it is closed. */
  public void setOutput(AudioOutput next) {
    AudioOutput unused = nextOutput.getAndSet(next);
    if (unused != null) {
      unused.close();
    }
    LockSupport.unpark(thread);
  }

  /** Changes how the mix is listened to. */
  public void setEars(Ears how) {
    ears = how;
  }

  public Ears ears() {
    return ears;
  }

  /**
   * Goes on slower or faster.
   *
   * @param through closed when another takes its place; empty: at the film's own speed
   */
  public void setStretch(Optional<TimeStretch> through) {
    Optional<TimeStretch> unused = nextStretch.getAndSet(through);
    if (unused != null) {
      unused.ifPresent(TimeStretch::close);
    }
    LockSupport.unpark(thread);
  }

  /**
   * Plays a part of the film; what is playing stops.
   *
   * @param sound renders the project; used by the player alone until another run is wanted
   * @param fromFrame where to begin
   */
  public void play(Mixer sound, long fromFrame, Range range) {
    play(new Run(sound, fromFrame, range, range.loops()));
  }

  /** As {@link #play}, coming in and going softly: for a moment from the middle of something. */
  public void touchUpon(Mixer sound, Range range) {
    play(new Run(sound, range.fromFrame(), range, true));
  }

  private void play(Run run) {
    wanted = run;
    LockSupport.unpark(thread);
    LockSupport.unpark(nearer);
  }

  /**
   * Goes on with another mixer from the next block, without a jump: an edit while playing. Nothing
   * happens while nothing plays.
   *
   * @param range what is now played
   */
  public void replace(Mixer sound, Range range) {
    Run run = wanted;
    if (run != null) {
      sound.follow(run.mixer);
      run.range = range;
      run.mixer = sound;
    }
  }

  /** Stops; the position stays where it is. */
  public void stop() {
    Run run = wanted;
    if (run != null) {
      restFrame = positionOf(run);
      wanted = null;
      LockSupport.unpark(thread);
    }
  }

  public boolean isPlaying() {
    return wanted != null;
  }

  /** The frame that is sounding, or where playing stopped. */
  public long positionFrame() {
    Run run = wanted;
    return run == null ? restFrame : positionOf(run);
  }

  private long positionOf(Run run) {
    return run.begun ? log.frameAt(output.framesSounded(), run.fromFrame) : run.fromFrame;
  }

  /** The frame that sounds at this moment; -1 when nothing does yet. For any thread. */
  public long soundingFrame() {
    Run run = wanted;
    if (run == null || !run.begun) {
      return -1;
    }
    long sounded = output.framesSounded();
    return sounded > 0 ? log.frameAt(sounded, -1) : -1;
  }

  /** What was rendered, with its levels, as it sounds. */
  public BlockLog log() {
    return log;
  }

  /** Lets a reader take what has begun to sound. */
  public void takeSounded(BlockLog.Reader reader, BlockLog.Taker taker) {
    reader.take(isPlaying() ? output.framesSounded() : Long.MAX_VALUE, taker);
  }

  /** How often the output has run dry while playing, since the beginning. */
  public long underRuns() {
    return underRuns;
  }

  Thread thread() {
    return thread;
  }

  private void work() {
    while (!closed) {
      exchangeParts();
      Run run = wanted;
      if (run == null) {
        LockSupport.park(this);
      } else {
        perform(run);
      }
    }
  }

  private void bringNear() {
    while (!closed) {
      Run run = wanted;
      if (run == null) {
        LockSupport.park(this);
      } else {
        run.mixer.touch(positionOf(run), (int) (NEAR_SECONDS * sampleRate));
        if (run.range.loops()) {
          run.mixer.touch(run.range.fromFrame(), sampleRate);
        }
        LockSupport.parkNanos(NEAR_NANOS);
      }
    }
  }

  /** Takes up another output or another speed; gives whether there was one. */
  private boolean exchangeParts() {
    AudioOutput next = nextOutput.getAndSet(null);
    if (next != null) {
      AudioOutput before = output;
      output = next;
      before.close();
    }
    Optional<TimeStretch> speed = nextStretch.getAndSet(null);
    if (speed != null) {
      stretch.ifPresent(TimeStretch::close);
      stretch = speed;
    }
    return next != null || speed != null;
  }

  @SuppressWarnings("CatchingUnchecked") // the edge of the thread: it must live on
  private void perform(Run run) {
    at = run.fromFrame;
    long reached = at;
    try {
      while (!playThrough(run)) {
        exchangeParts();
      }
      reached = positionOf(run);
      output.flush();
    } catch (Throwable e) {
      LOG.error("Playing failed", e);
      reached = at;
      listener.failed(e);
    }
    if (isWanted(run)) {
      restFrame = reached;
      wanted = null;
    }
  }

  /** Plays a run to its end; false when it has to go on through another output or speed. */
  private boolean playThrough(Run run) {
    try {
      output.flush();
      log.beginRun();
      written = 0;
      taken = 0;
      if (stretch.isPresent()) {
        stretch.get().reset();
      }
      run.begun = true;
      return render(run);
    } catch (OutputLost e) {
      LOG.warn("{} is lost", output.name(), e);
      goOnFrom(run, at);
      AudioOutput lost = output;
      output = standIn.get();
      listener.outputLost(lost.name(), output.name());
      lost.close();
      return false;
    }
  }

  private void goOnFrom(Run run, long frame) {
    run.fromFrame = frame;
    run.begun = false;
    at = frame;
  }

  private boolean isWanted(Run run) {
    return run.equals(wanted) && !closed;
  }

  /** Renders until the range is over or something else is wanted; false to be begun again. */
  private boolean render(Run run) {
    while (isWanted(run)) {
      if (nextOutput.get() != null || nextStretch.get() != null) {
        goOnFrom(run, positionOf(run));
        return false;
      }
      Range range = run.range;
      if (at >= range.toFrame()) {
        if (!range.loops()) {
          break;
        }
        at = range.fromFrame();
      }
      int n = (int) Math.min(BLOCK, range.toFrame() - at);
      renderBlock(run, range, n);
      write(n);
    }
    while (isWanted(run) && output.framesSounded() < written && nextOutput.get() == null) {
      LockSupport.parkNanos(2_000_000);
    }
    return true;
  }

  private void renderBlock(Run run, Range range, int n) {
    Mixer mixer = run.mixer;
    mixer.begin();
    double speed = stretch.isPresent() ? stretch.get().speed() : 1;
    // What a stretch still holds sounds later, so what sounds now lies that much earlier.
    long heldBack = stretch.isPresent() ? Math.max(0, taken - Math.round(written * speed)) : 0;
    log.beginBlock(mixer, written, Math.max(at - heldBack, 0), n, speed);
    mixer.render(at, n, left, right, log);
    log.endBlock(left, right, n);
    if (run.softEdges()) {
      long begin = range.loops() && at >= range.fromFrame() ? range.fromFrame() : run.fromFrame;
      SoftEdges.comeIn(at - begin, left, right, n);
      SoftEdges.go(range.toFrame() - at, left, right, n);
    }
    monitor.listen(ears, left, right, n);
    at += n;
  }

  private void write(int n) {
    if (written > 0 && output.framesSounded() >= written) {
      ranDry++;
      underRuns = ranDry;
    }
    if (stretch.isEmpty()) {
      output.write(left, right, n);
      written += n;
      return;
    }
    TimeStretch slow = stretch.get();
    slow.put(left, right, n);
    taken += n;
    for (int got = slow.take(slowLeft, slowRight); got > 0; got = slow.take(slowLeft, slowRight)) {
      output.write(slowLeft, slowRight, got);
      written += got;
    }
  }

  @Override
  public void close() {
    stop();
    closed = true;
    LockSupport.unpark(thread);
    LockSupport.unpark(nearer);
    try {
      if (!thread.join(CLOSING) || !nearer.join(CLOSING)) {
        LOG.warn("The player is still busy with {}", output.name());
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
    output.close();
    stretch.ifPresent(TimeStretch::close);
  }
}
