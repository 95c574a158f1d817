package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import hushrise.core.edit.ClipEdits;
import hushrise.core.edit.Placement;
import hushrise.core.export.Delivered;
import hushrise.core.fit.Song;
import hushrise.core.fit.Songs;
import hushrise.core.picture.PictureFacts;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.sound.Progress;
import hushrise.core.time.FrameRate;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.function.IntUnaryOperator;
import java.util.stream.Stream;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Pictures of several clips, stills, cuts and fades; songs kept in the cache. */
class ArrangedPictureTest extends MediaTestCase {

  private Path still(int grey) throws IOException {
    return still(grey, "png");
  }

  private Path still(int grey, String ending) throws IOException {
    BufferedImage image = new BufferedImage(96, 64, BufferedImage.TYPE_INT_RGB);
    int[] pixels = new int[96 * 64];
    Arrays.fill(pixels, grey << 16 | grey << 8 | grey);
    image.setRGB(0, 0, 96, 64, pixels, 0, 96);
    Path file = folder.resolve("still-" + grey + "." + ending);
    assertThat(ImageIO.write(image, ending, file.toFile())).isTrue();
    return file;
  }

  /** A film whose flat grey of each picture is given. */
  private Path film(String name, int pictures, IntUnaryOperator greyOf) {
    Path file = folder.resolve(name);
    try (DrawnFilmWriter writer =
        new DrawnFilmWriter(file, OutputFormat.MP4, 96, 64, new FrameRate(25, 1), 0)) {
      int[] argb = new int[96 * 64];
      for (int i = 0; i < pictures; i++) {
        int grey = greyOf.applyAsInt(i);
        Arrays.fill(argb, 0xFF000000 | grey << 16 | grey << 8 | grey);
        writer.addPicture(argb);
      }
      writer.finish();
    }
    return file;
  }

  private static int greyAt(Path file, double seconds) {
    try (PictureReader reader = new PictureReader(file, 96, 64)) {
      return reader.at(seconds).orElseThrow().argb()[96 * 32 + 48] & 0xFF;
    }
  }

  @ParameterizedTest
  @ValueSource(strings = {"png", "jpg", "bmp", "tiff"})
  void aStillIsKnownAndShown(String ending) throws IOException {
    Path file = still(140, ending);
    assertThat(store.guessKind(file, Progress.NONE)).isEqualTo(MediaKind.STILL);
    Media media = store.take(file, MediaKind.STILL, Progress.NONE);
    assertThat(media.hasSound()).isFalse();
    Media asFilm = store.take(file, MediaKind.PICTURE, Progress.NONE);
    assertThat(asFilm.kind()).as("chosen as the film").isEqualTo(MediaKind.STILL);
    assertThat(asFilm.cutShort()).isFalse();
    assertThat(greyAt(file, 0)).isCloseTo(140, within(3));
  }

  @Test
  void aFilmOfClipsAndStillsIsEncodedAnewAsArranged() throws IOException {
    Path film = film("film.mp4", 100, i -> 60);
    Project project =
        Placement.add(
            Project.empty("p"), store.take(film, MediaKind.PICTURE, Progress.NONE), 0, Songs.NONE);
    project =
        Placement.add(
            project, store.take(still(200), MediaKind.STILL, Progress.NONE), 0, Songs.NONE);
    project =
        Placement.add(
            project, store.take(still(90), MediaKind.STILL, Progress.NONE), 0, Songs.NONE);
    Clip shown = project.pictureClip().orElseThrow();
    project = ClipEdits.trimStart(project, shown.id(), RATE);
    assertThat(project.lengthFrames()).isEqualTo(14L * RATE);
    Path out = folder.resolve("out.mp4");
    Delivered result = Exporter.export(project, store, out, OutputFormat.MP4, Progress.NONE);
    assertThat(result.pictureCopied()).isFalse();
    assertThat(Probe.of(out).picture().orElseThrow().seconds()).isCloseTo(14, within(0.05));
    assertThat(greyAt(out, 0.5)).as("before the first clip").isCloseTo(0, within(4));
    assertThat(greyAt(out, 2)).isCloseTo(60, within(5));
    assertThat(greyAt(out, 6)).as("the still").isCloseTo(200, within(5));
    assertThat(greyAt(out, 8.9)).as("its end").isCloseTo(200, within(5));
    assertThat(greyAt(out, 9.1)).as("the next one").isCloseTo(90, within(5));
    assertThat(greyAt(out, 13.9)).as("its end").isCloseTo(90, within(5));
  }

  @Test
  void cutsAndTheFadeToBlackAreFoundOnceAndKept() throws IOException {
    Path file =
        film(
            "cuts.mp4",
            150,
            i -> i < 40 ? 60 + i / 4 : i < 90 ? 150 : Math.max(0, 120 - Math.max(0, i - 110) * 4));
    Media media = store.take(file, MediaKind.PICTURE, Progress.NONE);
    CacheFolder cache = new CacheFolder(folder.resolve("cache"), 1L << 30);
    PictureFacts facts = new PictureScan(store, cache).facts(media, Progress.NONE);
    assertThat(facts.cuts()).containsExactly(40L * RATE / 25, 90L * RATE / 25);
    assertThat(facts.fadeToBlack()).isPresent();
    assertThat(facts.fadeToBlack().orElseThrow().startFrame() / (double) RATE)
        .isCloseTo(110 / 25.0, within(0.2));
    assertThat(new PictureScan(store, cache).facts(media, fraction -> fail())).isEqualTo(facts);
    Path stored = cached(".cuts");
    Files.writeString(stored, "{ damaged");
    assertThat(new PictureScan(store, cache).facts(media, Progress.NONE)).isEqualTo(facts);
  }

  private static void fail() {
    throw new AssertionError("It is looked at again");
  }

  private Path cached(String ending) throws IOException {
    try (Stream<Path> all = Files.list(folder.resolve("cache"))) {
      return all.filter(p -> p.toString().endsWith(ending)).findFirst().orElseThrow();
    }
  }

  @Test
  void aSongIsListenedToOnceAndItsAnalysisIsKept() throws IOException {
    Path file =
        new SoundFileMaker("pcm_s16le", 44_100, "stereo", 20)
            .write(
                folder.resolve("ticks.wav"),
                t -> {
                  double into = t % 0.5;
                  return 0.5 * Math.exp(-into * 60) * Math.sin(2 * Math.PI * 880 * into)
                      + 0.1 * Math.sin(2 * Math.PI * 220 * t);
                });
    Media media = store.take(file, MediaKind.MUSIC, Progress.NONE);
    CacheFolder cache = new CacheFolder(folder.resolve("cache"), 1L << 30);
    SongStore songs = new SongStore(store, cache);
    assertThat(songs.song(media)).isEmpty();
    Song song = songs.listen(media, Progress.NONE);
    assertThat(song.analysis().tempoBpm()).isCloseTo(120, within(1.0));
    assertThat(songs.song(media)).contains(song);
    Song again = new SongStore(store, cache).listen(media, fraction -> fail());
    assertThat(again.analysis().edges()).containsExactly(song.analysis().edges());
    Files.writeString(cached(".song"), "{}");
    assertThat(new SongStore(store, cache).listen(media, Progress.NONE).analysis().edges())
        .containsExactly(song.analysis().edges());
  }
}
