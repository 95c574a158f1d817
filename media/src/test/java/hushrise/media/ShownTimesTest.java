package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import hushrise.core.edit.Placement;
import hushrise.core.fit.Songs;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.sound.Progress;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Films whose packets do not say when they are shown are copied in the order of the pictures. */
class ShownTimesTest extends MediaTestCase {

  private static final double FRAME = 1.0 / ReorderedFilmMaker.RATE;

  /** How light a film's pictures are and when they are shown, as any other program decodes them. */
  private record Shown(List<Integer> greys, List<Double> seconds) {

    static Shown in(Path film) {
      List<Integer> greys = new ArrayList<>();
      List<Double> seconds = new ArrayList<>();
      try (PictureDecoder decoder = new PictureDecoder(film)) {
        while (decoder.next()) {
          int middle = decoder.frame().linesize(0) * 32 + 48;
          greys.add(decoder.frame().data(0).get(middle) & 0xFF);
          seconds.add(decoder.frameSeconds());
        }
      }
      return new Shown(greys, seconds);
    }
  }

  @ParameterizedTest(name = "{1} in {0}, {2} between, packed {3}, to {4}")
  @CsvSource({
    "avi,  mpeg4,      2, false, MP4",
    "avi,  mpeg4,      2, false, MKV",
    "avi,  mpeg4,      1, true,  MP4",
    "avi,  mpeg4,      1, true,  MKV",
    "avi,  mpeg4,      0, false, MKV",
    "avi,  mpeg2video, 2, false, MOV",
    "vob,  mpeg2video, 2, false, MP4",
    "vob,  mpeg2video, 2, false, MKV",
    "mpeg, mpeg1video, 2, false, MKV",
    "matroska, mpeg4,  2, false, MP4",
    "avi,  libopenh264, 0, false, MP4",
  })
  void picturesAreCopiedInOrder(
      String muxer, String encoder, int between, boolean packed, OutputFormat to) {
    Path film =
        new ReorderedFilmMaker(muxer, encoder, between, packed).write(folder.resolve("film.avi"));
    Shown source = Shown.in(film);
    Media media = store.take(film, MediaKind.PICTURE, Progress.NONE);
    Project project = Placement.add(Project.empty("p"), media, 0, Songs.NONE);
    Path out = folder.resolve("out." + to.ending());

    assertThat(Exporter.export(project, store, out, to, Progress.NONE).pictureCopied()).isTrue();

    Shown copied = Shown.in(out);
    assertThat(copied.greys).isSorted().hasSize(ReorderedFilmMaker.PICTURES);
    assertThat(copied.greys).isEqualTo(source.greys);
    for (int i = 0; i < copied.seconds.size(); i++) {
      assertThat(copied.seconds.get(i) - copied.seconds.getFirst())
          .as("picture %d", i)
          .isCloseTo(i * FRAME, within(0.0011));
    }
    // one that starts later than the sound is counted from where the sound starts
    assertThat(source.seconds.getFirst()).isBetween(0.0, 2 * FRAME);
    assertThat(copied.seconds.getFirst()).isBetween(0.0, 2 * FRAME);
  }
}
