package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.bytedeco.ffmpeg.global.avformat.avformat_close_input;
import static org.bytedeco.ffmpeg.global.avutil.av_dict_get;

import hushrise.core.export.Delivered;
import hushrise.core.project.Marker;
import hushrise.core.project.Project;
import hushrise.core.project.media.Credit;
import hushrise.core.project.media.Licence;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.Progress;
import hushrise.core.time.Span;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.assertj.core.groups.Tuple;
import org.bytedeco.ffmpeg.avformat.AVChapter;
import org.bytedeco.ffmpeg.avformat.AVFormatContext;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Markers and credits become chapters, and cue points in a WAV. */
class ChaptersTest extends MediaTestCase {

  private static final int SECONDS = 4;

  private static final Credit CREDIT =
      new Credit("Harbour Tune", "Ada Example", "", Licence.ATTRIBUTION, "");

  private record Found(double start, double end, String title) {}

  private Project project(boolean film) {
    Media music = store.take(tone(SECONDS), MediaKind.MUSIC, Progress.NONE);
    Project project =
        Project.empty("Ferry")
            .withMedia(music)
            .withTracks(List.of(Track.of(TrackKind.MUSIC, "Music", List.of(Clip.whole(music, 0)))));
    if (!film) {
      return project;
    }
    Media picture =
        store.take(
            film("plain.mkv", OutputFormat.MKV, SECONDS * 25, true),
            MediaKind.PICTURE,
            Progress.NONE);
    List<Track> tracks = new ArrayList<>(project.tracks());
    tracks.addFirst(Track.of(TrackKind.PICTURE, "Picture", List.of(Clip.whole(picture, 0))));
    return project.withMedia(picture).withTracks(tracks);
  }

  private static Project marked(Project project) {
    return project.withMarkers(
        List.of(
            new Marker("b", "Under way \u2013 \u00fcber See", 5 * RATE / 2),
            new Marker("a", "Quay", RATE),
            new Marker("late", "Afterwards", 60L * RATE)));
  }

  private static List<Found> chapters(Path file) {
    AVFormatContext input = Ffmpeg.openInput(file);
    try {
      List<Found> all = new ArrayList<>();
      for (int i = 0; i < input.nb_chapters(); i++) {
        AVChapter chapter = input.chapters(i);
        double tick = TimeZero.seconds(chapter.time_base());
        all.add(
            new Found(
                chapter.start() * tick,
                chapter.end() * tick,
                av_dict_get(chapter.metadata(), "title", null, 0)
                    .value()
                    .getString(StandardCharsets.UTF_8)));
      }
      return all;
    } finally {
      avformat_close_input(input);
    }
  }

  private Delivered export(Order order) {
    return Exporter.export(order, store, Progress.NONE);
  }

  private Path file(OutputFormat format) {
    return folder.resolve("out." + format.ending());
  }

  @ParameterizedTest
  @EnumSource
  void aChapterBeginsAtEachMarkerWhereTheFileTakesChapters(OutputFormat format) {
    Order order =
        Order.of(marked(project(format.isFilm())), file(format), format)
            .withMarkersAsChapters(true);
    Delivered delivered = export(order);
    List<Found> found = chapters(file(format));
    if (!format.takesChapters()) {
      assertThat(found).isEmpty();
      assertThat(delivered.notes()).anyMatch(n -> n.startsWith("Chapters do not go into a ."));
    } else if (!format.isPlainWav()) {
      assertThat(found)
          .extracting(Found::title)
          .containsExactly("Ferry", "Quay", "Under way \u2013 \u00fcber See");
      assertThat(found.get(0).start()).isZero();
      assertThat(found.get(1).start()).isCloseTo(1, within(0.002));
      assertThat(found.get(2).start()).isCloseTo(2.5, within(0.002));
      assertThat(delivered.notes()).allMatch(n -> n.startsWith("The picture was encoded anew"));
    }
  }

  @ParameterizedTest
  @EnumSource(names = {"WAV_24", "WAV_16", "WAV_32_FLOAT"})
  void aWavHasCuePointsWithTheMarkersNames(OutputFormat format) throws IOException {
    Path file = file(format);
    Span range = new Span(RATE / 2, SECONDS * RATE - 1);
    Delivered delivered =
        export(
            Order.of(marked(project(false)), file, format)
                .withRange(Optional.of(range))
                .withMarkersAsChapters(true));
    ByteBuffer all = ByteBuffer.wrap(Files.readAllBytes(file)).order(ByteOrder.LITTLE_ENDIAN);
    assertThat(all.getInt(4)).isEqualTo(all.limit() - 8);
    assertThat(cues(all))
        .containsExactly(
            Tuple.tuple(RATE / 2, "Quay"), Tuple.tuple(2 * RATE, "Under way \u2013 \u00fcber See"));
    assertThat(WavLayout.of(file).orElseThrow().frames()).isEqualTo(range.lengthFrames());
    assertThat(delivered.notes()).isEmpty();
  }

  /** The cue points of a WAV with their labels. */
  private static List<Tuple> cues(ByteBuffer all) {
    List<Integer> frames = new ArrayList<>();
    List<String> names = new ArrayList<>();
    for (int at = 12; at + 8 <= all.limit(); ) {
      String tag = letters(all, at, 4);
      int size = all.getInt(at + 4);
      if (tag.equals("cue ")) {
        for (int i = 0; i < all.getInt(at + 8); i++) {
          int point = at + 12 + 24 * i;
          assertThat(all.getInt(point)).isEqualTo(i + 1);
          assertThat(letters(all, point + 8, 4)).isEqualTo("data");
          frames.add(all.getInt(point + 20));
        }
      } else if (tag.equals("LIST") && letters(all, at + 8, 4).equals("adtl")) {
        for (int label = at + 12; label < at + 8 + size; ) {
          int length = all.getInt(label + 4);
          assertThat(letters(all, label, 4)).isEqualTo("labl");
          assertThat(all.getInt(label + 8)).isEqualTo(names.size() + 1);
          names.add(letters(all, label + 12, length - 5));
          label += 8 + length + (length & 1);
        }
      }
      at += 8 + size + (size & 1);
    }
    assertThat(names).hasSameSizeAs(frames);
    List<Tuple> found = new ArrayList<>();
    for (int i = 0; i < names.size(); i++) {
      found.add(Tuple.tuple(frames.get(i), names.get(i)));
    }
    return found;
  }

  private static String letters(ByteBuffer all, int at, int n) {
    byte[] bytes = new byte[n];
    all.get(at, bytes);
    return new String(bytes, StandardCharsets.UTF_8);
  }

  @Test
  void aFilmsOwnChaptersGiveWayToTheMarkersAndStayWithoutThem() {
    Path first = file(OutputFormat.MKV);
    Order order = Order.of(marked(project(true)), first, OutputFormat.MKV);
    export(order.withMarkersAsChapters(true));
    Media film = store.take(first, MediaKind.PICTURE, Progress.NONE);
    Project again =
        Project.empty("Again")
            .withMedia(film)
            .withTracks(
                List.of(
                    Track.of(TrackKind.PICTURE, "Picture", List.of(Clip.whole(film, 0))),
                    Track.of(TrackKind.CAMERA, "Camera", List.of(Clip.whole(film, 0)))))
            .withMarkers(List.of(new Marker("m", "Only", 0)));
    Path plain = folder.resolve("plain.mp4");
    Delivered kept = export(Order.of(again, plain, OutputFormat.MP4));
    assertThat(chapters(plain)).extracting(Found::title).hasSize(3).startsWith("Ferry");
    assertThat(kept.notes()).isEmpty();
    Path changed = folder.resolve("changed.mp4");
    Delivered replaced =
        export(Order.of(again, changed, OutputFormat.MP4).withMarkersAsChapters(true));
    assertThat(chapters(changed)).extracting(Found::title).containsExactly("Only");
    assertThat(replaced.notes())
        .containsExactly("The film's own chapters (3) give way to the markers.");
  }

  @Test
  void theCreditsCloseTheFilmAsAChapterOfTheirOwn() {
    Project project = marked(project(true));
    Media music = project.shelf().getFirst();
    Project credited =
        project.withShelf(
            project.shelf().stream().map(m -> m.equals(music) ? m.withCredit(CREDIT) : m).toList());
    Path file = file(OutputFormat.MP4);
    Order order = Order.of(credited, file, OutputFormat.MP4).withCreditsChapter(true);
    assertThat(export(order).notes()).isEmpty();
    List<Found> alone = chapters(file);
    assertThat(alone).hasSize(2);
    assertThat(alone.getFirst().title()).isEqualTo("Ferry");
    assertThat(alone.getLast().title()).contains("Harbour Tune", "Ada Example");
    assertThat(alone.getLast().start()).isCloseTo(SECONDS * 0.9, within(0.002));
    export(order.withMarkersAsChapters(true));
    assertThat(chapters(file)).hasSize(4);
    assertThat(chapters(file).get(2).end()).isCloseTo(SECONDS * 0.9, within(0.002));
    Path wav = file(OutputFormat.WAV_24);
    Delivered sound = export(Order.of(credited, wav, OutputFormat.WAV_24).withCreditsChapter(true));
    assertThat(sound.notes())
        .containsExactly("A .wav file has no chapter for the credits, and they are left out.");
  }

  @Test
  void thatThereIsNothingToMakeAChapterOfIsSaid() {
    Order order = Order.of(project(false), file(OutputFormat.MP3), OutputFormat.MP3);
    assertThat(export(order.withMarkersAsChapters(true)).notes())
        .containsExactly("No marker lies within what is exported, so that there is no chapter.");
    assertThat(export(order.withCreditsChapter(true)).notes())
        .containsExactly("Nothing in the film has credits, so that there is no chapter for them.");
    assertThat(chapters(order.target())).isEmpty();
  }
}
