package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import hushrise.core.Problem;
import hushrise.core.edit.Placement;
import hushrise.core.fit.Songs;
import hushrise.core.loudness.Measurement;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.sound.Progress;
import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Films as phones, screen recorders and other programs write them. */
class ForeignFilmTest extends MediaTestCase {

  private static final int W = FilmFileMaker.WIDTH;
  private static final int H = FilmFileMaker.HEIGHT;

  private Path turned(String name, OutputFormat format, int... matrix) {
    return new FilmFileMaker(format, FilmFileMaker.steady(0, 25, 2), 0, 2, 9, matrix)
        .write(folder.resolve(name));
  }

  private static int corner(PictureReader.Picture picture, boolean right, boolean bottom) {
    int x = right ? picture.width() - 6 : 5;
    int y = bottom ? picture.height() - 6 : 5;
    return picture.argb()[y * picture.width() + x] & 0xFF;
  }

  /** The light corner lies upper left in the pixels; turned it lies where the matrix puts it. */
  @ParameterizedTest(name = "{0} {1} {2} {3}: right {4}, bottom {5}")
  @CsvSource({
    " 1, 0, 0, 1, false, false",
    " 0, 1,-1, 0, true,  false",
    "-1, 0, 0,-1, true,  true",
    " 0,-1, 1, 0, false, true",
    "-1, 0, 0, 1, true,  false",
  })
  void aFilmThatLiesOnItsSideIsShownUpright(
      int a, int b, int c, int d, boolean right, boolean bottom) {
    Path film = turned("phone.mp4", OutputFormat.MP4, a, b, c, d);
    boolean lying = a == 0;
    Probe.Picture probed = Probe.of(film).picture().orElseThrow();
    assertThat(probed.width()).isEqualTo(lying ? H : W);
    assertThat(probed.height()).isEqualTo(lying ? W : H);
    lightCornerLies(film, right, bottom);
  }

  private static void lightCornerLies(Path film, boolean right, boolean bottom) {
    Probe.Picture probed = Probe.of(film).picture().orElseThrow();
    try (PictureReader reader = new PictureReader(film, 96, 96)) {
      PictureReader.Picture picture = reader.at(1).orElseThrow();
      assertThat(picture.width() > picture.height()).isEqualTo(probed.width() > probed.height());
      for (boolean r : new boolean[] {false, true}) {
        for (boolean bt : new boolean[] {false, true}) {
          boolean light = r == right && bt == bottom;
          assertThat(corner(picture, r, bt)).isBetween(light ? 85 : 0, light ? 135 : 50);
        }
      }
    }
  }

  @Test
  void aTurnedFilmStaysUprightWhetherCopiedOrEncodedAnewOrArranged() {
    Path film = turned("phone.mp4", OutputFormat.MP4, 0, 1, -1, 0);
    Media media = store.take(film, MediaKind.PICTURE, Progress.NONE);
    Project project = Placement.add(Project.empty("p"), media, 0, Songs.NONE);
    Path copied = folder.resolve("copied.mp4");
    assertThat(
            Exporter.export(project, store, copied, OutputFormat.MP4, Progress.NONE)
                .pictureCopied())
        .isTrue();
    lightCornerLies(copied, true, false);
    Path anew = folder.resolve("anew.webm");
    assertThat(
            Exporter.export(project, store, anew, OutputFormat.WEBM, Progress.NONE).pictureCopied())
        .isFalse();
    lightCornerLies(anew, true, false);
    Project twice = Placement.add(project, media, 0, Songs.NONE);
    Path arranged = folder.resolve("arranged.mp4");
    Exporter.export(twice, store, arranged, OutputFormat.MP4, Progress.NONE);
    lightCornerLies(arranged, true, false);
  }

  @Test
  void aFilmOfVariableRateNeverShowsAPictureFromTheFuture() {
    List<Double> times = List.of(0.0, 0.04, 1.5, 1.54, 3.0, 3.04);
    Path film =
        new FilmFileMaker(OutputFormat.MKV, times, 0, 3.5, 1.5, new int[0])
            .write(folder.resolve("slides.mkv"));
    for (boolean backwards : new boolean[] {false, true}) {
      try (PictureReader reader = new PictureReader(film, 96, 64)) {
        for (int i = 0; i < 33; i++) {
          double at = (backwards ? 32 - i : i) / 10.0;
          int grey = reader.at(at).orElseThrow().argb()[96 * 40 + 70] & 0xFF;
          boolean flash = at >= 1.5 && at < 3.0;
          assertThat(grey > 150).as("at %.1f s", at).isEqualTo(flash);
        }
      }
    }
  }

  @ParameterizedTest
  @CsvSource({"mp4", "mkv"})
  void aFilmThatCannotBeReadToItsEndFailsTheExport(String ending) throws IOException {
    OutputFormat format = OutputFormat.of(Path.of("x." + ending));
    Path film =
        new FilmFileMaker(format, FilmFileMaker.steady(0, 25, 20), 0, 0, 9, new int[0])
            .write(folder.resolve("film." + ending));
    Media media = store.take(film, MediaKind.PICTURE, Progress.NONE);
    Project project = Placement.add(Project.empty("p"), media, 0, Songs.NONE);
    try (FileChannel channel = FileChannel.open(film, StandardOpenOption.WRITE)) {
      channel.truncate(Files.size(film) / 2);
    }
    for (OutputFormat to : new OutputFormat[] {OutputFormat.MP4, OutputFormat.WEBM}) {
      Path out = folder.resolve("out." + to.ending());
      assertThatThrownBy(() -> Exporter.export(project, store, out, to, Progress.NONE))
          .isInstanceOf(Problem.class)
          .hasMessageContaining("copy");
      assertThat(out).doesNotExist();
    }
  }

  private double dbOf(Path file) {
    return 20 * Math.log10(rms(read(open(file), RATE / 2, RATE)));
  }

  @Test
  void surroundIsFoldedByTheStandardAndNotMadeSofter() {
    Path surround =
        new SoundFileMaker("flac", RATE, "5.1", 2)
            .write(folder.resolve("s.flac"), t -> 0.4 * Math.sin(2 * Math.PI * 1000 * t));
    Path stereo =
        new SoundFileMaker("flac", RATE, "stereo", 2)
            .write(folder.resolve("m.flac"), t -> 0.4 * Math.sin(2 * Math.PI * 1000 * t));
    double gain = 20 * Math.log10(1 + Math.sqrt(0.5) + Math.sqrt(0.5));
    assertThat(dbOf(surround) - dbOf(stereo)).isCloseTo(gain, within(0.02));
    float highest = 0;
    for (float sample : read(open(surround), RATE / 2, RATE)) {
      highest = Math.max(highest, sample);
    }
    assertThat((double) highest).isCloseTo(0.4 * (1 + 2 * Math.sqrt(0.5)), within(0.01));
  }

  /** One channel at a time would be better still; all alike sum up to 1+1+1+1.41+1.41. */
  @ParameterizedTest
  @CsvSource({"5.1, 5.82", "5.1(side), 5.82", "7.1, 7.82", "quad, 4.82", "stereo, 2", "mono, 1"})
  void measuringWeighsEachChannelOfTheFile(String layout, double weights) {
    Path file =
        new SoundFileMaker("pcm_s24le", RATE, layout, 4)
            .write(folder.resolve("m.wav"), t -> 0.1 * Math.sin(2 * Math.PI * 997 * t));
    Measurement m = FileLoudness.of(file, store, Progress.NONE);
    double alone = -3.01 - 20;
    assertThat(m.integratedLufs()).isCloseTo(alone + 10 * Math.log10(weights), within(0.05));
    assertThat(m.samplePeakDbfs()).isCloseTo(-20, within(0.02));
    assertThat(m.durationSeconds()).isCloseTo(4, within(0.001));
  }

  @Test
  void windowsMediaIsRead() {
    Path file =
        new SoundFileMaker("wmav2", 44_100, "stereo", 3)
            .write(folder.resolve("old.wma"), t -> 0.4 * Math.sin(2 * Math.PI * 1000 * t));
    assertThat(open(file).lengthFrames() / (double) RATE).isCloseTo(3, within(0.1));
    assertThat(frequency(read(open(file), RATE / 2, RATE))).isBetween(999, 1001);
  }
}
