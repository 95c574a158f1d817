package hushrise.app.play;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.job.Jobs;
import hushrise.app.job.NotedMessages;
import hushrise.app.session.Session;
import hushrise.core.Problem;
import hushrise.core.fit.Songs;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.AudioOutput;
import hushrise.core.sound.SampleSource;
import hushrise.core.sound.SoundLibrary;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Predicate;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxToolkit;
import org.testfx.util.WaitForAsyncUtils;

/** Playing while the sound of files comes when it likes, in any order. */
class TransportTest {

  private static final int RATE = 48_000;
  private static final long PACE_NANOS = 2_000_000;

  /** Sounds faster than real time, and keeps the last sample it was given. */
  private static final class Output implements AudioOutput {
    private final AtomicLong written = new AtomicLong();
    private volatile float level;

    @Override
    public String name() {
      return "a test";
    }

    @Override
    public void write(float[] left, float[] right, int frames) {
      written.addAndGet(frames);
      level = left[frames - 1];
      LockSupport.parkNanos(PACE_NANOS);
    }

    @Override
    public long framesSounded() {
      return written.get();
    }

    @Override
    public void flush() {
      written.set(0);
      level = 0;
    }

    @Override
    public void close() {}
  }

  /** Gives a file's sound, an even level, once its gate is open. */
  private static final class Library implements SoundLibrary {
    private final Map<String, CountDownLatch> gates = new ConcurrentHashMap<>();
    private final Map<String, Float> levels = new ConcurrentHashMap<>();

    void add(String title, float level) {
      gates.put(title, new CountDownLatch(1));
      levels.put(title, level);
    }

    void open(String title) {
      gates.get(title).countDown();
    }

    @Override
    public SampleSource samples(Media media, int sampleRate) {
      try {
        gates.get(media.title()).await();
      } catch (InterruptedException e) {
        throw new IllegalStateException(e);
      }
      float level = levels.get(media.title());
      return new SampleSource() {
        @Override
        public int channels() {
          return 2;
        }

        @Override
        public long lengthFrames() {
          return media.lengthFrames();
        }

        @Override
        public void read(long frame, int frames, float[] left, float[] right, int offset) {
          Arrays.fill(left, offset, offset + frames, level);
          Arrays.fill(right, offset, offset + frames, level);
        }
      };
    }
  }

  private final Output output = new Output();
  private final Library library = new Library();
  private final NotedMessages messages = new NotedMessages();
  private final List<String> said = messages.said();
  private Session session;
  private Jobs jobs;
  private Transport transport;

  @BeforeEach
  void begin() throws TimeoutException {
    FxToolkit.registerPrimaryStage();
    library.add("a.wav", 0.25f);
    library.add("b.wav", 0.5f);
    onWindow(
        () -> {
          jobs = new Jobs(messages);
          session = new Session(Songs.NONE, messages, (work, then) -> {});
          transport = new Transport(session, library, jobs, messages, speaker());
        });
  }

  private Loudspeaker speaker() {
    return new Loudspeaker(
        jobs,
        messages,
        output,
        Output::new,
        (rate, speed) -> {
          throw new Problem("No other speed here.");
        });
  }

  @AfterEach
  void end() {
    library.open("a.wav");
    library.open("b.wav");
    onWindow(transport::close);
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

  private static Project of(String file, int seconds) {
    Media media =
        new Media(
            file,
            Path.of("/nowhere", file),
            MediaKind.MUSIC,
            60L * RATE,
            true,
            Optional.empty(),
            "");
    Clip clip = Clip.whole(media, 0).withContent((long) seconds * RATE, List.of());
    Project empty = Project.empty("").withMedia(media);
    Track track = Track.of(TrackKind.MUSIC, "Music", List.of(clip));
    return empty.withTracks(List.of(track));
  }

  private void untilIdle() {
    until(() -> jobs.pendingProperty().get() == 0);
    WaitForAsyncUtils.waitForFxEvents();
  }

  private void untilSounding(float level) {
    until(() -> Math.abs(output.level - level) < 1e-3);
  }

  private boolean isPlaying() {
    return transport.playingProperty().get();
  }

  @Test
  void aSoundThatComesAfterAStopDoesNotPlay() {
    onWindow(() -> session.open(of("a.wav", 60), Optional.empty()));
    onWindow(transport::toggle);
    onWindow(transport::stop);
    library.open("a.wav");
    untilIdle();
    assertThat(isPlaying()).isFalse();
    assertThat(transport.player().isPlaying()).isFalse();
    assertThat(output.written.get()).isZero();
  }

  @Test
  void ofTwoWishesTheLaterIsHeardThoughItsSoundComesFirst() {
    onWindow(() -> session.open(of("a.wav", 60), Optional.empty()));
    onWindow(transport::toggle);
    Predicate<Track> all = track -> true;
    onWindow(() -> transport.audition(of("b.wav", 30), all, 0, 30L * RATE));
    library.open("b.wav");
    untilSounding(0.5f);
    library.open("a.wav");
    untilIdle();
    untilSounding(0.5f);
    assertThat(isPlaying()).isFalse();
    assertThat(transport.auditioningProperty().get()).isTrue();
    onWindow(transport::stop);
    assertThat(transport.player().isPlaying()).isFalse();
  }

  @Test
  void aFilmThatGrowsWhileItPlaysPlaysToItsNewEnd() {
    library.open("a.wav");
    onWindow(() -> session.open(of("a.wav", 1), Optional.empty()));
    onWindow(transport::toggle);
    untilSounding(0.25f);
    onWindow(() -> session.commit("longer", p -> of("a.wav", 3)));
    untilIdle();
    until(() -> !isPlaying());
    WaitForAsyncUtils.waitForFxEvents();
    assertThat(session.playhead()).isEqualTo(3L * RATE);
  }

  @Test
  void anEditBeforeTheSoundHasComeIsWhatPlays() {
    onWindow(() -> session.open(of("a.wav", 60), Optional.empty()));
    onWindow(transport::toggle);
    onWindow(() -> session.commit("other", p -> of("b.wav", 60)));
    library.open("b.wav");
    untilSounding(0.5f);
    library.open("a.wav");
    untilIdle();
    untilSounding(0.5f);
    assertThat(isPlaying()).isTrue();
  }

  @Test
  void whatCannotBeReadIsSaidAndTheRestPlays() {
    Transport broken =
        WaitForAsyncUtils.waitForAsyncFx(
            10_000,
            () ->
                new Transport(
                    session,
                    (media, rate) -> {
                      throw new Problem("a.wav is not there: put it back.");
                    },
                    jobs,
                    messages,
                    speaker()));
    onWindow(() -> session.open(of("a.wav", 60), Optional.empty()));
    onWindow(broken::toggle);
    until(() -> output.written.get() > 0);
    until(() -> said.contains("a.wav is not there: put it back."));
    onWindow(broken::close);
  }
}
