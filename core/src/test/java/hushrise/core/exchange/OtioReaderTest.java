package hushrise.core.exchange;

import static hushrise.core.exchange.Timelines.clip;
import static hushrise.core.exchange.Timelines.file;
import static hushrise.core.exchange.Timelines.gap;
import static hushrise.core.exchange.Timelines.marker;
import static hushrise.core.exchange.Timelines.node;
import static hushrise.core.exchange.Timelines.range;
import static hushrise.core.exchange.Timelines.stack;
import static hushrise.core.exchange.Timelines.timeline;
import static hushrise.core.exchange.Timelines.track;
import static hushrise.core.exchange.Timelines.turn;
import static hushrise.core.exchange.Timelines.with;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;

import hushrise.core.Problem;
import hushrise.core.project.Marker;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.Progress;
import hushrise.core.store.ProjectFile;
import hushrise.core.time.FrameRate;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CancellationException;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Timelines that other programs wrote. */
class OtioReaderTest {

  private static final long FRAME = 1_920;

  @TempDir private Path folder;

  @BeforeEach
  void files() throws IOException {
    for (String name :
        List.of("film.mov", "film-b.mov", "still.png", "voice.wav", "my song.ogg", "horn.wav")) {
      Files.writeString(folder.resolve(name), "as good as any");
    }
  }

  private OtioReader.Reading reading(Map<String, Object> root) {
    try {
      Path file = Files.writeString(folder.resolve("cut.otio"), Timelines.json(root));
      OtioReader.Reading reading = OtioReader.read(file, Timelines.byName(), Progress.NONE);
      Path saved = folder.resolve("cut.hushrise");
      ProjectFile.save(reading.project(), saved);
      assertThat(ProjectFile.load(saved).tracks()).isEqualTo(reading.project().tracks());
      return reading;
    } catch (IOException e) {
      throw new IllegalStateException(e);
    }
  }

  /** The project, of which nothing was lost. */
  private Project project(Map<String, Object> root) {
    OtioReader.Reading reading = reading(root);
    assertThat(reading.losses()).isEmpty();
    return reading.project();
  }

  private static Track only(Project project, TrackKind kind) {
    List<Track> tracks = project.tracksOf(kind).toList();
    assertThat(tracks).as("%s", kind).hasSize(1);
    return tracks.getFirst();
  }

  /** Start, end and media start of each clip, in frames of a twenty-fifth of a second. */
  private static List<String> places(Track track) {
    return track.clips().stream()
        .map(
            c ->
                "%s-%s from %s"
                    .formatted(
                        c.startFrame() / FRAME, c.endFrame() / FRAME, c.mediaStartFrame() / FRAME))
        .toList();
  }

  @Test
  void clipsGapsAndNamesAreTaken() {
    Project read =
        project(timeline(track("Audio", "Voice over", gap(50), clip(10, 25, "voice.wav"))));
    assertThat(read.name()).isEqualTo("Cut 3");
    Track track = only(read, TrackKind.VOICE);
    assertThat(track.name()).isEqualTo("Voice over");
    assertThat(places(track)).containsExactly("50-75 from 10");
  }

  @Test
  void aClipThatIsNotCutIsAllOfItsMedia() {
    Map<String, Object> told = clip(null, file("voice.wav", range(0, 400)));
    Map<String, Object> untold = clip(null, file("voice.wav", null));
    Project read = project(timeline(track("Audio", "vo", told, untold, clip(0, 5, "voice.wav"))));
    assertThat(places(only(read, TrackKind.VOICE)))
        .containsExactly("0-400 from 0", "400-1900 from 0", "1900-1905 from 0");
  }

  @Test
  void mediaCountFromWhereTheirOwnTimeBegins() {
    double tenOClock = 10 * 3600 * 25;
    Map<String, Object> film = file("film.mov", range(tenOClock, 1500));
    Project read = project(timeline(track("Video", "V1", clip(range(tenOClock + 100, 500), film))));
    assertThat(places(only(read, TrackKind.PICTURE))).containsExactly("0-500 from 100");
    assertThat(read.pictureRate()).isEqualTo(new FrameRate(30, 1));
  }

  @Test
  void whatIsSeenOfSeveralPictureTracksIsOne() {
    Map<String, Object> title =
        clip(range(0, 50), node("GeneratorReference.1", "generator_kind", "title"));
    OtioReader.Reading reading =
        reading(
            timeline(
                track("Video", "V1", clip(0, 500, "film.mov"), clip(800, 100, "film.mov")),
                track("Video", "V2", gap(200), clip(20, 100, "film-b.mov"), title)));
    assertThat(places(only(reading.project(), TrackKind.PICTURE)))
        .containsExactly("0-200 from 0", "200-300 from 20", "300-500 from 300", "500-600 from 800");
    assertThat(reading.losses()).singleElement().asString().contains("1 clip plays no file");
  }

  @Test
  void aSoundTrackIsForWhatItsNameOrItsFilesSay() {
    Project read =
        project(
            timeline(
                track("Video", "V1", clip(0, 500, "film.mov")),
                track("Audio", "A1", clip(0, 500, "film.mov")),
                track("Audio", "A2", clip(0, 100, "voice.wav"), clip(100, 100, "voice.wav")),
                track("Audio", "A3", clip(0, 200, "my%20song.ogg")),
                track("Audio", "A4", clip(0, 100, "horn.wav")),
                track("Audio", "Interviews", clip(0, 50, "film-b.mov"))));
    assertThat(read.tracks())
        .extracting(t -> t.kind() + " " + t.name())
        .containsExactly(
            "PICTURE Picture",
            "VOICE A2",
            "VOICE Interviews",
            "MUSIC A3",
            "EFFECTS A4",
            "CAMERA A1");
    assertThat(read.shelf()).hasSize(5);
  }

  @Test
  void soundsThatCrossOverlapAndBesideSilenceTheyFade() {
    Project read =
        project(
            timeline(
                track(
                    "Audio",
                    "Music",
                    turn(0, 40),
                    clip(100, 200, "my song.ogg"),
                    turn(10, 30),
                    clip(600, 200, "my song.ogg"),
                    turn(25, 0),
                    gap(10),
                    clip(0, 50, "my song.ogg"),
                    turn(5, 5),
                    clip(2, 50, "my song.ogg"))));
    Track music = only(read, TrackKind.MUSIC);
    assertThat(places(music))
        .containsExactly("0-230 from 100", "190-400 from 590", "410-465 from 0", "458-510 from 0");
    Clip first = music.clips().getFirst();
    assertThat(first.fadeIn().lengthFrames()).isEqualTo(40 * FRAME);
    assertThat(first.fadeOut().lengthFrames()).isZero();
    assertThat(music.clips().get(1).fadeIn().lengthFrames()).isZero();
    assertThat(music.clips().get(1).fadeOut().lengthFrames()).isEqualTo(25 * FRAME);
  }

  @Test
  void stacksWithinTracksAreCutAndTheirLayersComeOutApart() {
    Map<String, Object> inner =
        stack(
            track("Audio", "low", clip(0, 300, "my song.ogg")),
            track("Audio", "high", gap(100), clip(500, 100, "my song.ogg")),
            track("Video", "seen", clip(0, 300, "film.mov")));
    Map<String, Object> cut = with(inner, "source_range", range(50, 100));
    Project read =
        project(
            timeline(
                track("Audio", "Music", gap(20), cut, clip(0, 10, "my song.ogg")),
                track("Video", "V1", gap(20), cut)));
    List<Track> music = read.tracksOf(TrackKind.MUSIC).toList();
    assertThat(music).extracting(Track::name).containsExactly("Music", "Music 2");
    assertThat(places(music.get(0))).containsExactly("20-120 from 50", "120-130 from 0");
    assertThat(places(music.get(1))).containsExactly("70-120 from 500");
    assertThat(places(only(read, TrackKind.PICTURE))).containsExactly("20-120 from 50");
  }

  @Test
  void markersOfClipsTracksAndTheWholeStandWhereTheyAreOnTheTimeline() {
    Map<String, Object> marked =
        with(
            clip(100, 200, "film.mov"),
            "markers",
            List.of(marker("smile", 150), marker("cut away", 20)));
    Map<String, Object> root =
        timeline(
            with(
                track("Video", "V1", gap(50), marked),
                "markers",
                List.of(node("Marker.1", "comment", "of the track", "marked_range", range(7, 0)))),
            track("Audio", "A1", gap(50), marked));
    Map<String, Object> stack =
        with(stackOf(root), "markers", List.of(marker("of the whole", 300)));
    Project read = project(with(root, "tracks", stack));
    assertThat(read.markers())
        .extracting(Marker::name, m -> m.frame() / FRAME)
        .containsExactly(
            tuple("of the track", 7L), tuple("smile", 100L), tuple("of the whole", 300L));
  }

  @SuppressWarnings("unchecked")
  private static Map<String, Object> stackOf(Map<String, Object> timeline) {
    return (Map<String, Object>) timeline.get("tracks");
  }

  @Test
  void whatIsOffIsLeftOutOrMuted() {
    OtioReader.Reading reading =
        reading(
            timeline(
                with(track("Audio", "Music", clip(0, 100, "my song.ogg")), "enabled", false),
                track(
                    "Audio",
                    "vo",
                    with(clip(0, 100, "voice.wav"), "enabled", false),
                    clip(0, 50, "voice.wav"))));
    assertThat(only(reading.project(), TrackKind.MUSIC).muted()).isTrue();
    Track voice = only(reading.project(), TrackKind.VOICE);
    assertThat(voice.muted()).isFalse();
    assertThat(places(voice)).containsExactly("100-150 from 0");
    assertThat(reading.losses()).singleElement().asString().contains("switched off");
  }

  @Test
  void whatAProjectCannotHoldIsSaid() {
    Map<String, Object> faster =
        with(
            clip(0, 100, "film.mov"),
            "effects",
            List.of(node("LinearTimeWarp.1", "time_scalar", 2), node("Effect.1")));
    OtioReader.Reading reading =
        reading(
            timeline(
                track("Video", "V1", faster, turn(5, 5), clip(1400, 300, "film.mov")),
                track("Video", "V2", clip(range(4000, 10), file("film-b.mov", null))),
                track("Video", "V3", clip(0, 10, "voice.wav")),
                track("Audio", "A1", clip(0, 10, "voice.wav")),
                track("Video", "V4", clip(0, 90, "still.png")),
                track("Audio", "Score", clip(0, 90, "still.png")),
                track("Subtitles", "S1"),
                track("Audio", "vo", clip(0, 10, "https://example.org/take.wav"))));
    assertThat(places(only(reading.project(), TrackKind.PICTURE)))
        .containsExactly("0-90 from 0", "90-100 from 90", "100-200 from 1400");
    assertThat(places(only(reading.project(), TrackKind.VOICE))).containsExactly("0-10 from 0");
    assertThat(reading.losses())
        .containsExactlyInAnyOrder(
            folder.resolve("voice.wav") + " has no picture.",
            "1 clip asks its file for a picture or a sound that it does not have, and is left out.",
            "1 clip is faster, slower or frozen there; here it plays as it was recorded.",
            "1 effect is not taken over.",
            "1 transition between pictures becomes a cut.",
            "1 clip is longer than its file and ends with it.",
            "1 clip lies outside its file and is left out: link its media again where it was made.",
            "1 track that is neither picture nor sound is left out.",
            "1 clip plays no file of this machine (a title, a colour, pictures one by one) and is"
                + " left out.");
  }

  @Test
  void filesThatAreNotThereAreKeptAsMissing() {
    OtioReader.Reading reading =
        reading(
            timeline(
                track(
                    "Video",
                    "V1",
                    clip(range(100, 50), file("gone/film.mov", range(0, 900))),
                    clip(range(0, 50), file("D:\\rushes\\day 2.mov", null)),
                    clip(range(400, 50), file("D:\\rushes\\day 2.mov", null)))));
    Project read = reading.project();
    // a film of that name lies beside the timeline
    assertThat(read.shelf().getFirst().file()).isEqualTo(folder.resolve("film.mov"));
    Media second = read.shelf().get(1);
    assertThat(second.title()).isEqualTo("day 2.mov");
    assertThat(second.lengthFrames()).isEqualTo(450 * FRAME);
    assertThat(second.pictureRate()).contains(FrameRate.DEFAULT);
    assertThat(places(only(read, TrackKind.PICTURE)))
        .containsExactly("0-50 from 100", "50-100 from 0", "100-150 from 400");
    assertThat(reading.losses()).singleElement().asString().contains("day 2.mov is not there");
  }

  @Test
  void stillsAreShownForAnyTimeAndAddressesMayBeCoded() {
    Project read =
        project(
            timeline(
                track(
                    "Video",
                    "V1",
                    clip(range(9000, 4000), file("still.png", range(9000, 1))),
                    clip(range(0, 25), file(FileUrl.of(folder.resolve("film.mov")), null)))));
    assertThat(places(only(read, TrackKind.PICTURE)))
        .containsExactly("0-4000 from 0", "4000-4025 from 0");
  }

  @Test
  void aThousandClipsAtAnUnevenRateEndWhereTheyShould() {
    Map<String, Object>[] clips = manyClips(1000);
    Clip last =
        only(project(timeline(track("Audio", "vo", clips))), TrackKind.VOICE).clips().getLast();
    assertThat(last.endFrame()).isEqualTo(Math.round(1000 * 7 * 1001 / 30_000.0 * 48_000));
  }

  @SuppressWarnings("unchecked")
  private static Map<String, Object>[] manyClips(int count) {
    Map<String, Object> zero = node("RationalTime.1", "rate", 29.97, "value", 0);
    Map<String, Object> seven = node("RationalTime.1", "rate", 29.97, "value", 7);
    Map<String, Object> range = node("TimeRange.1", "start_time", zero, "duration", seven);
    Map<String, Object>[] clips = new Map[count];
    Arrays.setAll(clips, i -> clip(range, file("voice.wav", null)));
    return clips;
  }

  @Test
  void ofManyFilesThatCannotBeReadAFewAreNamed() throws IOException {
    Map<String, Object>[] clips = manyClips(9);
    for (int i = 1; i < clips.length; i++) {
      String name = Files.writeString(folder.resolve("voice-" + i + ".wav"), "").getFileName() + "";
      clips[i] = clip(0, 10, name);
    }
    clips[0] = clip(0, 10, "film.mov");
    OtioReader.Reading reading = reading(timeline(track("Video", "V1", clips)));
    assertThat(reading.losses()).hasSize(4);
    assertThat(reading.losses().getLast()).isEqualTo("5 more files cannot be read.");
  }

  @Test
  void progressGoesOnFromFileToFileAndACancelEndsIt() throws IOException {
    Map<String, Object> root =
        timeline(
            track("Video", "V1", clip(0, 9, "film.mov"), clip(0, 9, "film-b.mov")),
            track("Audio", "A1", clip(0, 9, "voice.wav"), clip(0, 9, "horn.wav")));
    Path file = Files.writeString(folder.resolve("cut.otio"), Timelines.json(root));
    List<Double> told = new ArrayList<>();
    OtioReader.read(file, Timelines.byName(), told::add);
    assertThat(told).isSorted().startsWith(0.25).endsWith(1.0);
    assertThatThrownBy(
            () ->
                OtioReader.read(
                    file,
                    Timelines.byName(),
                    fraction -> {
                      throw new CancellationException();
                    }))
        .isInstanceOf(CancellationException.class);
  }

  @Test
  void theFirstTimelineOfACollectionIsRead() {
    Map<String, Object> one = timeline(track("Audio", "vo", clip(0, 10, "voice.wav")));
    OtioReader.Reading reading =
        reading(node("SerializableCollection.1", "children", List.of(node("Clip.2"), one, one)));
    assertThat(reading.project().name()).isEqualTo("Cut 3");
    assertThat(reading.losses()).containsExactly("1 more timeline in the file is left out.");
  }

  @Test
  void whereNothingCanBeHadThatIsRefused() {
    Map<String, Object> root = timeline(track("Video", "V1", clip(0, 10, "voice.wav")));
    assertThatThrownBy(() -> reading(root))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("has no picture");
  }
}
