package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import hushrise.core.Problem;
import hushrise.core.edit.ClipEdits;
import hushrise.core.edit.Placement;
import hushrise.core.fit.Songs;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.sound.Progress;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Pictures that are encoded anew in several groups at once are those of one. */
class ClosedGroupsTest extends MediaTestCase {

  private record Seen(double seconds, int grey) {}

  private static List<Seen> seen(Path film) {
    List<Seen> all = new ArrayList<>();
    try (PictureDecoder decoder = new PictureDecoder(film)) {
      while (decoder.next()) {
        int middle = decoder.frame().linesize(0) * 32 + 48;
        all.add(new Seen(decoder.frameSeconds(), decoder.frame().data(0).get(middle) & 0xFF));
      }
    }
    return all;
  }

  private static void assertSame(List<Seen> out, List<Seen> source) {
    assertThat(out).hasSameSizeAs(source);
    for (int i = 0; i < source.size(); i++) {
      assertThat(out.get(i).seconds())
          .as("picture %d", i)
          .isCloseTo(source.get(i).seconds(), within(0.002));
      assertThat(out.get(i).grey()).as("picture %d", i).isCloseTo(source.get(i).grey(), within(9));
    }
  }

  private Project of(Path film) {
    Media media = store.take(film, MediaKind.PICTURE, Progress.NONE);
    return Placement.add(Project.empty("p"), media, 0, Songs.NONE);
  }

  @ParameterizedTest(name = "{0} to {1}")
  @CsvSource({"MP4, WEBM", "MKV, WEBM", "WEBM, MOV"})
  void aLongFilmIsWholeAndInOrder(OutputFormat from, OutputFormat to) {
    Path film = film("film." + from.ending(), from, 870, true);
    Path out = folder.resolve("out." + to.ending());
    assertThat(Exporter.export(of(film), store, out, to, Progress.NONE).pictureCopied()).isFalse();
    assertSame(seen(out), seen(film));
  }

  /** Its key pictures lie 50 s apart, its pictures now and then. */
  @Test
  void aFilmOfFewKeyPicturesIsWholeAndInOrder() {
    List<Double> times = new ArrayList<>();
    IntStream.range(0, 130).forEach(i -> times.add(i + (i % 3) * 0.11));
    Path film =
        new FilmFileMaker(OutputFormat.MKV, times, 0, 0, times.get(61), new int[0])
            .write(folder.resolve("slides.mkv"));
    Path out = folder.resolve("out.webm");
    Exporter.export(of(film), store, out, OutputFormat.WEBM, Progress.NONE);
    assertSame(seen(out), seen(film));
  }

  @Test
  void aTrimmedFilmIsWholeAndInOrder() {
    Path film = film("film.mp4", OutputFormat.MP4, 700, false);
    Project project = of(film);
    project =
        ClipEdits.trimEnd(project, project.pictureClip().orElseThrow().id(), 650L * RATE / 25);
    Path out = folder.resolve("out.mp4");
    Exporter.export(project, store, out, OutputFormat.MP4, Progress.NONE);
    assertSame(seen(out), seen(film).subList(0, 650));
  }

  @Test
  void whatIsCancelledLeavesNothingBehind() {
    Path film = film("film.mp4", OutputFormat.MP4, 870, true);
    Project project = of(film);
    Path out = folder.resolve("out.webm");
    Progress cancelled =
        fraction -> {
          if (fraction > 0.1) {
            throw new CancellationException();
          }
        };
    assertThatThrownBy(() -> Exporter.export(project, store, out, OutputFormat.WEBM, cancelled))
        .isInstanceOf(CancellationException.class);
    assertThat(out).doesNotExist();
    assertThat(encoding()).isEmpty();
  }

  @Test
  void aGroupThatFailsFailsTheExport() {
    Path film = film("film.mp4", OutputFormat.MP4, 500, false);
    Path still = film("gone.mp4", OutputFormat.MP4, 50, false);
    Project project = of(film);
    project =
        Placement.add(project, store.take(still, MediaKind.PICTURE, Progress.NONE), 0, Songs.NONE);
    assertThat(still.toFile().delete()).isTrue();
    Path out = folder.resolve("out.mp4");
    Project arranged = project;
    assertThatThrownBy(() -> Exporter.export(arranged, store, out, OutputFormat.MP4, Progress.NONE))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("gone.mp4");
    assertThat(out).doesNotExist();
    assertThat(encoding()).isEmpty();
  }

  private static Stream<String> encoding() {
    return Thread.getAllStackTraces().keySet().stream()
        .map(Thread::getName)
        .filter(name -> name.startsWith("hushrise-pictures"));
  }
}
