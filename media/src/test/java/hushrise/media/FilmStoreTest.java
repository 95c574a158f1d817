package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.edit.LevelEdits;
import hushrise.core.loudness.FilmLoudness;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.Progress;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** A film's loudness is known again for the same sound, and for no other. */
class FilmStoreTest extends MediaTestCase {

  private static final int SECONDS = 7;

  private Path tone(String name, double level) {
    Path file = folder.resolve(name);
    float[] samples = new float[SECONDS * RATE];
    for (int i = 0; i < samples.length; i++) {
      samples[i] = (float) (level * Math.sin(0.05 * i) * Math.sin(1e-5 * i));
    }
    try (FileMixWriter writer = FileMixWriter.ofSound(file, OutputFormat.WAV_24, RATE)) {
      writer.write(samples, samples, samples.length);
      writer.finish();
    }
    return file;
  }

  private Project project(Path file) {
    Media media = store.take(file, MediaKind.MUSIC, Progress.NONE).withId("tone");
    Clip clip = Clip.whole(media, 0).withId("clip");
    return Project.empty("p")
        .withMedia(media)
        .withTracks(List.of(Track.of(TrackKind.MUSIC, "Music", List.of(clip)).withId("track")));
  }

  private CacheFolder cache() {
    return new CacheFolder(folder.resolve("films"), 1 << 20);
  }

  private FilmStore films() {
    return new FilmStore(store, cache());
  }

  /** Measures a film and keeps it. */
  private FilmLoudness kept(Project project) {
    return kept(project, () -> {});
  }

  private FilmLoudness kept(Project project, Runnable meanwhile) {
    FilmStore films = films();
    assertThat(films.find(project)).isEmpty();
    FilmLoudness film = FilmLoudness.of(project, store, Progress.NONE);
    meanwhile.run();
    films.keep(film);
    return film;
  }

  @Test
  void theSameFilmIsKnownAgainWhereverItsFilesLieAndWhateverItIsCalled() throws IOException {
    Path file = tone("tone.wav", 0.5);
    Project project = project(file);
    FilmLoudness film = kept(project);
    Path elsewhere = Files.createDirectory(folder.resolve("elsewhere")).resolve("other.wav");
    Project moved = project(Files.copy(file, elsewhere)).withName("q");
    FilmLoudness again = films().find(moved).orElseThrow();
    assertThat(again.project()).isEqualTo(moved);
    assertThat(again.integratedLufs()).isEqualTo(film.integratedLufs());
    assertThat(again.loudnessRangeLu()).isEqualTo(film.loudnessRangeLu());
    assertThat(again.truePeakDbtp()).isEqualTo(film.truePeakDbtp());
    assertThat(again.truePeakPlace()).isEqualTo(film.truePeakPlace());
  }

  @Test
  void anotherLevelOrAnotherSoundUnderTheSameNameIsNotKnown() throws IOException {
    Path file = tone("tone.wav", 0.5);
    Project project = project(file);
    kept(project);
    assertThat(films().find(LevelEdits.setTrackLevel(project, "track", -3))).isEmpty();
    assertThat(films().find(project.withMasterDb(-1))).isEmpty();
    moveOver(tone("louder.wav", 0.6), file);
    assertThat(films().find(project)).isEmpty();
    Files.delete(file);
    assertThat(films().find(project)).isEmpty();
    kept(project(tone("third.wav", 0.2)));
    assertThat(filesOf(cache())).hasSize(2);
  }

  @Test
  void nothingIsKeptOfFilesThatChangeWhileTheyAreMeasured() throws IOException {
    Path file = tone("tone.wav", 0.5);
    Path louder = tone("louder.wav", 0.6);
    Project project = project(file);
    kept(project, () -> moveOver(louder, file));
    assertThat(filesOf(cache())).isEmpty();
    assertThat(films().find(project)).isEmpty();
  }

  @Test
  void whatComesWithAnEditCountsAsItIsThen() {
    Project project = project(tone("tone.wav", 0.5));
    FilmStore films = films();
    assertThat(films.find(project)).isEmpty();
    Project more = project(tone("other.wav", 0.3)).withName("other");
    films.keep(FilmLoudness.of(more, store, Progress.NONE));
    assertThat(films().find(more)).isEmpty();
    films.measuring(more);
    films.keep(FilmLoudness.of(more, store, Progress.NONE));
    assertThat(films().find(more)).isPresent();
  }

  private static void moveOver(Path from, Path to) {
    try {
      Files.move(from, to, StandardCopyOption.REPLACE_EXISTING);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  @Test
  void whatIsDamagedOrOfAnotherLengthIsMeasuredAnew() throws IOException {
    Project project = project(tone("tone.wav", 0.5));
    kept(project);
    Path kept = filesOf(cache()).getFirst();
    for (String json :
        List.of("{\"energies\":[0.1],\"peaks\":[0.1]}", "{\"energies\":[0.1", "{}", "null")) {
      Files.writeString(kept, json);
      assertThat(films().find(project)).as(json).isEmpty();
    }
    kept(project);
    assertThat(films().find(project)).isPresent();
  }

  private static List<Path> filesOf(CacheFolder cache) throws IOException {
    try (Stream<Path> files = Files.list(cache.folder())) {
      return files.toList();
    }
  }
}
