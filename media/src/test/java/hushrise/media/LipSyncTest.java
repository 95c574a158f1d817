package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import hushrise.core.edit.Placement;
import hushrise.core.edit.TrackEdits;
import hushrise.core.export.Delivered;
import hushrise.core.fit.Songs;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Sound and picture stand as in the source, whichever of them starts first and at what rate. */
class LipSyncTest extends MediaTestCase {

  private static final double WITHIN_MILLIS = 15;
  private static final double FLASH = 2.4;

  /** When a film is read here: the flash and the click, both counted from zero. */
  private double readApartMillis(Path film) {
    double flash = Double.NaN;
    try (PictureDecoder decoder = new PictureDecoder(film)) {
      while (Double.isNaN(flash) && decoder.next()) {
        int middle =
            decoder.frame().linesize(0) * (decoder.frame().height() / 2)
                + decoder.frame().width() / 2;
        if ((decoder.frame().data(0).get(middle) & 0xFF) > 150) {
          flash = decoder.frameSeconds();
        }
      }
    }
    return (firstClick(open(film)) / (double) RATE - flash) * 1000;
  }

  /** The first loud sample. */
  private static long firstClick(SampleSource sound) {
    for (long from = 0; from < sound.lengthFrames(); from += RATE) {
      float[] second = read(sound, from, RATE);
      for (int i = 0; i < RATE; i++) {
        if (Math.abs(second[i]) >= 0.25f) {
          return from + i;
        }
      }
    }
    throw new AssertionError("nothing clicks");
  }

  private Project of(Path film) {
    Media media = store.take(film, MediaKind.PICTURE, Progress.NONE);
    return Placement.add(Project.empty("p"), media, 0, Songs.NONE);
  }

  private void staysInStep(Path film, OutputFormat to, boolean copied) {
    double source = SyncMeter.of(film).apartMillis();
    assertThat(readApartMillis(film)).as("as read").isCloseTo(source, within(WITHIN_MILLIS));
    Path out = folder.resolve("out." + to.ending());
    Delivered result = Exporter.export(of(film), store, out, to, Progress.NONE);
    assertThat(result.pictureCopied()).isEqualTo(copied);
    assertThat(SyncMeter.of(out).apartMillis())
        .as("as exported")
        .isCloseTo(source, within(WITHIN_MILLIS));
  }

  @ParameterizedTest(name = "{0}: picture at {1} s, sound at {2} s")
  @CsvSource({
    "MP4,  0,     0",
    "MP4,  0.48,  0",
    "MP4,  0,     0.48",
    "MP4,  0.033, 0",
    "MOV,  0.48,  0",
    "MOV,  0,     0.25",
    "MKV,  0,     0",
    "MKV,  0.48,  0",
    "MKV,  0,     0.48",
    "MKV,  1.0,   1.3",
    "WEBM, 0,     0",
    "WEBM, 0.48,  0",
    "WEBM, 0,     0.48",
  })
  void eitherMayStartFirst(OutputFormat format, double picture, double sound) {
    Path film =
        new FilmFileMaker(
                format, FilmFileMaker.steady(picture, 25, 4), sound, 4, picture + FLASH, new int[0])
            .write(folder.resolve("film." + format.ending()));
    staysInStep(film, format, true);
  }

  /** Pictures as a screen recorder or a phone writes them: when something happened. */
  private static List<Double> unsteady(double seconds) {
    List<Double> times = new ArrayList<>();
    double at = 0;
    for (int i = 0; at < seconds; i++) {
      times.add(at);
      at += i % 17 == 3 ? 0.41 : i % 5 == 0 ? 0.0167 : 0.0333;
    }
    return times;
  }

  @ParameterizedTest(name = "{0} to {1}")
  @CsvSource({
    "MP4, MP4, true",
    "MKV, MKV, true",
    "MP4, MKV, true",
    "MP4, WEBM, false",
    "WEBM, MOV, false"
  })
  void filmsOfVariableRate(OutputFormat from, OutputFormat to, boolean copied) {
    List<Double> times = unsteady(5);
    double flash = times.stream().filter(t -> t > FLASH).findFirst().orElseThrow();
    Path film =
        new FilmFileMaker(from, times, 0, 4.5, flash, new int[0])
            .write(folder.resolve("film." + from.ending()));
    staysInStep(film, to, copied);
  }

  private static double perSecond(String rate) {
    String[] parts = rate.split("/");
    double whole = Double.parseDouble(parts[0]);
    return parts.length == 1 ? whole : whole / Double.parseDouble(parts[1]);
  }

  /** As above to the end of a long film: two hours with {@code -Dfilm.minutes=120}. */
  @ParameterizedTest(name = "{0} to {1}, {2} pictures a second")
  @CsvSource({
    "MP4, MP4, 24000/1001, true",
    "MOV, MKV, 24, true",
    "MKV, MP4, 25, true",
    "MP4, MOV, 30000/1001, true",
    "MP4, MP4, 50, true",
    "MP4, MP4, 60000/1001, true",
    "MKV, MKV, 60, true",
    "MP4, MP4, variable, true",
    "MP4, WEBM, 30000/1001, false"
  })
  void toTheEndOfALongFilm(OutputFormat from, OutputFormat to, String rate, boolean copied) {
    double seconds = 60 * Double.parseDouble(System.getProperty("film.minutes", "0.5"));
    List<Double> times =
        rate.equals("variable")
            ? unsteady(seconds)
            : FilmFileMaker.steady(0, perSecond(rate), seconds);
    double flash = times.stream().filter(t -> t > seconds - 1).findFirst().orElseThrow();
    Path film =
        new FilmFileMaker(from, times, 0, seconds, flash, new int[0])
            .write(folder.resolve("film." + from.ending()));
    staysInStep(film, to, copied);
  }

  @Test
  void soundWithAGapInItStaysInStep() {
    Path film =
        new FilmFileMaker(
                OutputFormat.MKV, FilmFileMaker.steady(0.48, 25, 4), 0, 4, 0.48 + FLASH, new int[0])
            .write(folder.resolve("film.mkv"));
    SampleSource sound = open(film);
    assertThat(sound.lengthFrames() / (double) RATE).isCloseTo(4, within(0.05));
    Media media = store.take(film, MediaKind.PICTURE, Progress.NONE);
    assertThat(media.lengthFrames() / (double) RATE).isCloseTo(4.48, within(0.05));
  }

  @ParameterizedTest
  @CsvSource({"mp4, mp4", "mov, mov", "matroska, mkv", "mpegts, ts"})
  void soundThatPausesIsWholeAndStaysInStep(String muxer, String ending) {
    Path film =
        new FilmFileMaker(OutputFormat.MP4, FilmFileMaker.steady(0, 25, 6), 0, 6, 4, new int[0])
            .write(folder.resolve("steady.mp4"));
    Path paused = new FilmRemux(muxer, 1, 3.5).write(film, folder.resolve("paused." + ending));
    assertThat(open(paused).lengthFrames() / (double) RATE).isCloseTo(6, within(0.1));
    staysInStep(paused, OutputFormat.MP4, true);
  }

  @ParameterizedTest
  @CsvSource({"matroska, mkv", "mpegts, ts", "mp4, mp4"})
  void soundThatBeginsLongAfterThePictureIsFound(String muxer, String ending) {
    Path film =
        new FilmFileMaker(OutputFormat.MKV, FilmFileMaker.steady(0, 25, 12), 9, 3, 10, new int[0])
            .write(folder.resolve("steady.mkv"));
    Path late = FilmRemux.into(muxer).write(film, folder.resolve("late." + ending));
    assertThat(open(late).lengthFrames() / (double) RATE).isCloseTo(12, within(0.1));
    staysInStep(late, OutputFormat.MP4, true);
  }

  @ParameterizedTest
  @CsvSource({"matroska, mkv", "mpegts, ts", "mp4, mp4"})
  void aPictureThatBeginsLongAfterTheSoundIsFound(String muxer, String ending) {
    Path film =
        new FilmFileMaker(OutputFormat.MKV, FilmFileMaker.steady(9, 25, 3), 0, 12, 10, new int[0])
            .write(folder.resolve("steady.mkv"));
    Path late = FilmRemux.into(muxer).write(film, folder.resolve("late." + ending));
    assertThat(Probe.of(late).picture().orElseThrow().width()).isEqualTo(FilmFileMaker.WIDTH);
    staysInStep(late, OutputFormat.MP4, true);
  }

  @Test
  void nothingOfSoundThatStartsBeforeThePictureIsLost() {
    Path film =
        new FilmFileMaker(OutputFormat.MP4, FilmFileMaker.steady(1, 25, 3), 0, 4, 0.2, new int[0])
            .write(folder.resolve("film.mp4"));
    assertThat(firstClick(open(film)) / (double) RATE).isCloseTo(0.2, within(0.01));
  }

  @Test
  void aPictureThatStartsLaterIsShownFromTheStart() {
    Path film =
        new FilmFileMaker(
                OutputFormat.MP4, FilmFileMaker.steady(0.48, 25, 3), 0, 3.4, 9, new int[0])
            .write(folder.resolve("film.mp4"));
    try (PictureReader reader = new PictureReader(film, 96, 64)) {
      assertThat(reader.at(0)).isPresent();
      assertThat(reader.at(0.2)).isPresent();
    }
    assertThat(TrackEdits.areCamerasMuted(of(film))).isFalse();
  }
}
