package hushrise.app.listen;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import hushrise.app.job.Calm;
import hushrise.app.job.Jobs;
import hushrise.app.job.Messages;
import hushrise.app.job.NotedMessages;
import hushrise.app.session.Session;
import hushrise.core.Problem;
import hushrise.core.edit.LevelEdits;
import hushrise.core.fit.Songs;
import hushrise.core.loudness.FilmLoudness;
import hushrise.core.loudness.MeasuredFilms;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import hushrise.core.sound.SoundLibrary;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxToolkit;
import org.testfx.util.WaitForAsyncUtils;

/** The film's loudness follows edits; what each track gives is found out when nothing happens. */
class FilmMeasureTest {

  private static final int RATE = 48_000;
  private static final int SECONDS = 70;

  /** A second of each side's tone. */
  private static final float[] LEFT_TONE = tone(382);

  private static final float[] RIGHT_TONE = tone(229);

  private final AtomicLong read = new AtomicLong();
  private final SoundLibrary library = this::source;
  private Session session;
  private FilmMeasure measure;
  private final AtomicInteger told = new AtomicInteger();
  private final Kept films = new Kept();
  private final Set<String> fails = ConcurrentHashMap.newKeySet();

  private static float[] tone(int hertz) {
    float[] samples = new float[RATE];
    for (int i = 0; i < RATE; i++) {
      samples[i] = (float) Math.sin(2 * Math.PI * hertz * i / RATE);
    }
    return samples;
  }

  /** Keeps films in memory, and finds them when it is told to. */
  private static final class Kept implements MeasuredFilms {

    private final List<FilmLoudness> all = new CopyOnWriteArrayList<>();
    private volatile boolean finds;

    @Override
    public Optional<FilmLoudness> find(Project project) {
      return all.stream()
          .filter(f -> finds && f.project().equals(project))
          .findFirst()
          .flatMap(f -> FilmLoudness.of(project, f.kept()));
    }

    @Override
    public void measuring(Project project) {
      // its files never change
    }

    @Override
    public void keep(FilmLoudness film) {
      all.add(film);
    }
  }

  /** A tone that is loud in one second and soft in all others. */
  private SampleSource source(Media media, int rate) {
    if (fails.remove(media.id())) {
      throw new Problem("It cannot be read.");
    }
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
      public void read(long from, int frames, float[] left, float[] right, int offset) {
        read.addAndGet(frames);
        for (int i = 0; i < frames; i++) {
          long at = from + i;
          float level = at / RATE == 33 ? 0.5f : 0.1f;
          left[offset + i] = level * LEFT_TONE[(int) (at % RATE)];
          right[offset + i] = level * RIGHT_TONE[(int) (at % RATE)];
        }
      }
    };
  }

  private static Project twoTracks() {
    Project project = Project.empty("film");
    List<Track> tracks = new ArrayList<>();
    for (TrackKind kind : List.of(TrackKind.MUSIC, TrackKind.EFFECTS)) {
      Media media =
          new Media(
              kind.name(),
              Path.of("/nowhere", kind + ".wav"),
              MediaKind.MUSIC,
              (long) SECONDS * RATE,
              true,
              Optional.empty(),
              "");
      project = project.withMedia(media);
      tracks.add(Track.of(kind, kind.name(), List.of(Clip.whole(media, 0))));
    }
    return project.withTracks(tracks);
  }

  @BeforeEach
  void begin() throws TimeoutException {
    FxToolkit.registerPrimaryStage();
    Messages silent = new NotedMessages();
    onWindow(
        () -> {
          session = new Session(Songs.NONE, silent, (work, then) -> {});
          measure = new FilmMeasure(session, library, films, new Jobs(silent), new Calm());
          measure.nowProperty().subscribe(film -> film.ifPresent(f -> told.incrementAndGet()));
          session.open(twoTracks(), Optional.empty());
        });
  }

  @AfterEach
  void end() {
    onWindow(measure::close);
  }

  private static void onWindow(Runnable work) {
    WaitForAsyncUtils.waitForAsyncFx(10_000, work);
  }

  private static void until(Callable<Boolean> condition) {
    try {
      WaitForAsyncUtils.waitFor(30, TimeUnit.SECONDS, condition);
    } catch (TimeoutException e) {
      throw new AssertionError("Waited in vain", e);
    }
  }

  private FilmLoudness now() {
    return measure.nowProperty().get().orElseThrow();
  }

  private void assertRight() {
    FilmLoudness anew = FilmLoudness.of(session.present(), library, Progress.NONE);
    assertThat(now().integratedLufs()).isCloseTo(anew.integratedLufs(), within(0.001));
    assertThat(now().truePeakDbtp()).isCloseTo(anew.truePeakDbtp(), within(0.001));
  }

  private void turn(double levelDb) {
    Track music = session.present().tracks().getFirst();
    onWindow(() -> session.commit("turn", p -> LevelEdits.setTrackLevel(p, music.id(), levelDb)));
    until(() -> !measure.measuringProperty().get());
  }

  @Test
  void anEditBeforeWhatTheTracksGiveIsKnownIsMeasured() {
    until(() -> told.get() == 1);
    assertRight();
    turn(-3);
    assertRight();
  }

  @Test
  void onceItIsKnownATrackIsTurnedWithoutReadingMostOfIt() {
    until(() -> told.get() == 2);
    assertThat(now().isSettled()).isTrue();
    assertThat(read.getAndSet(0)).isGreaterThan(2L * SECONDS * RATE);
    turn(-3);
    assertThat(read.get()).isLessThan(10L * RATE);
    assertRight();
    onWindow(session::undo);
    until(() -> !measure.measuringProperty().get());
    assertRight();
  }

  @Test
  void whenTheFilesAreOthersNothingIsTakenFromBefore() {
    until(() -> told.get() == 1);
    read.set(0);
    onWindow(measure::forget);
    until(() -> told.get() == 2);
    assertThat(read.get()).isGreaterThan(2L * SECONDS * RATE);
  }

  @Test
  void aFilmThatWasMeasuredBeforeIsKnownWithoutReadingItAndFollowsEdits() {
    until(() -> told.get() == 2);
    assertThat(films.all).hasSize(1);
    films.finds = true;
    double lufs = now().integratedLufs();
    double peak = now().truePeakDbtp();
    read.set(0);
    onWindow(measure::forget);
    until(() -> told.get() == 3);
    assertThat(read.get()).isZero();
    assertThat(now().integratedLufs()).isEqualTo(lufs);
    assertThat(now().truePeakDbtp()).isEqualTo(peak);
    turn(-3);
    assertRight();
    until(() -> films.all.size() == 2);
  }

  @Test
  void nothingIsKeptOnceSilenceHasStoodForAFile() {
    until(() -> told.get() == 2);
    fails.add(TrackKind.EFFECTS.name());
    onWindow(measure::forget);
    until(() -> told.get() == 4);
    assertThat(fails).isEmpty();
    assertThat(films.all).hasSize(1);
    onWindow(measure::forget);
    until(() -> films.all.size() == 2);
    assertRight();
    for (FilmLoudness film : films.all) {
      assertThat(film.integratedLufs()).isCloseTo(now().integratedLufs(), within(0.001));
    }
  }
}
