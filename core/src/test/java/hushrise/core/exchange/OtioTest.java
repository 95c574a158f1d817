package hushrise.core.exchange;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import hushrise.core.Problem;
import hushrise.core.loudness.FilmLoudness;
import hushrise.core.mix.Projects;
import hushrise.core.project.Marker;
import hushrise.core.project.Project;
import hushrise.core.project.UnknownFields;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Fade;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.Progress;
import hushrise.core.store.ProjectFile;
import hushrise.core.time.FrameRate;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Timelines for other programs, and back. */
class OtioTest {

  private static final ObjectMapper MAPPER = new ObjectMapper();

  @TempDir private Path folder;

  private final Projects.Sounds sounds = new Projects.Sounds();
  private final Project rich =
      Projects.rich(sounds).withMarkers(List.of(new Marker("m1", "Ferry leaves", 96_000)));

  private Path written() throws IOException {
    return Files.write(folder.resolve("film.otio"), Otio.bytes(rich, folder.resolve("film.otio")));
  }

  private static Project read(Path file) {
    return OtioReader.read(file, Timelines.NOTHING, Progress.NONE).project();
  }

  @Test
  void anUntouchedTimelineGivesItsProjectBackWhole() throws IOException {
    assertThat(read(written()).withUnknown(UnknownFields.NONE)).isEqualTo(rich);
  }

  @Test
  void soDoesOneThatANewerLibraryHasWrittenAnew() throws IOException {
    Path file = written();
    JsonNode timeline = MAPPER.readTree(file.toFile());
    for (JsonNode track : timeline.get("tracks").get("children")) {
      for (JsonNode child : track.get("children")) {
        if (child.get("OTIO_SCHEMA").asText().equals("Clip.1")) {
          ObjectNode clip = (ObjectNode) child;
          clip.put("OTIO_SCHEMA", "Clip.2").put("active_media_reference_key", "DEFAULT_MEDIA");
          clip.putObject("media_references").set("DEFAULT_MEDIA", clip.remove("media_reference"));
        }
      }
    }
    MAPPER.writeValue(file.toFile(), timeline);
    assertThat(read(file).withUnknown(UnknownFields.NONE)).isEqualTo(rich);
  }

  @Test
  void tracksThatNobodyTouchedComeBackWholeAndACopyIsAnother() throws IOException {
    Path file = written();
    ObjectNode timeline = (ObjectNode) MAPPER.readTree(file.toFile());
    ArrayNode tracks = (ArrayNode) timeline.get("tracks").get("children");
    tracks.add(tracks.get(0).deepCopy());
    ((ObjectNode) tracks.get(1)).put("enabled", false);
    MAPPER.writeValue(file.toFile(), timeline);
    Project read = read(file);
    List<Track> before = rich.tracks();
    assertThat(read.tracks()).hasSize(before.size() + 1);
    for (int t = 0; t < before.size(); t++) {
      Track track = read.tracks().get(t);
      if (t == 1) {
        assertThat(track.muted()).isTrue();
        assertThat(track.line()).isEqualTo(before.get(1).line());
      } else {
        assertThat(track).isEqualTo(before.get(t));
      }
    }
    Track copy = read.tracks().getLast();
    assertThat(copy.kind()).isEqualTo(before.getFirst().kind());
    assertThat(copy.clips()).hasSameSizeAs(before.getFirst().clips());
    Path saved = folder.resolve("back.hushrise");
    ProjectFile.save(read, saved);
    assertThat(ProjectFile.load(saved).tracks()).isEqualTo(read.tracks());
  }

  /** A long clip with a short one within it, on one track. */
  private Project nested() {
    Track music = rich.firstTrack(TrackKind.MUSIC).orElseThrow();
    Clip outer = Clip.whole(rich.media(music.clips().getFirst().mediaId()).orElseThrow(), 0);
    Clip inner = outer.withId("inner").withExtent(9_600, 4_800, 0, List.of());
    return rich.withTrack(
        music.id(), t -> t.withLevelDb(-7).withClips(List.of(outer.withId("outer"), inner)));
  }

  private static List<String> musicIn(Project project) {
    return project
        .tracksOf(TrackKind.MUSIC)
        .map(t -> t.clips().stream().map(c -> c.startFrame() + "+" + c.lengthFrames()).toList())
        .map(Object::toString)
        .toList();
  }

  @Test
  void clipsThatLieOverOneAnotherComeBackOnTheirTrackAndTouchedOnTwo() throws IOException {
    Project nested = nested();
    Path file = folder.resolve("nested.otio");
    Files.write(file, Otio.bytes(nested, file));
    assertThat(read(file).withUnknown(UnknownFields.NONE)).isEqualTo(nested);
    ObjectNode timeline = (ObjectNode) MAPPER.readTree(file.toFile());
    ArrayNode tracks = (ArrayNode) timeline.get("tracks").get("children");
    assertThat(tracks).hasSize(rich.tracks().size() + 1);
    ((ObjectNode) timeline.get("tracks")).putArray("markers");
    MAPPER.writeValue(file.toFile(), timeline);
    assertThat(read(file).tracks()).as("with all tracks as they were").isEqualTo(nested.tracks());
    Track music = nested.firstTrack(TrackKind.MUSIC).orElseThrow();
    for (JsonNode track : tracks) {
      if (track.get("name").asText().equals(music.name() + " 2")) {
        ((ObjectNode) track.get("children").get(0).get("source_range").get("duration"))
            .put("value", 4_800); // the gap before the inner clip
      }
    }
    MAPPER.writeValue(file.toFile(), timeline);
    Project touched = read(file);
    long length = music.clips().getFirst().lengthFrames();
    assertThat(musicIn(touched)).containsExactly("[0+" + length + "]", "[4800+4800]");
    assertThat(touched.tracksOf(TrackKind.MUSIC)).allMatch(t -> t.levelDb() == -7);
  }

  @Test
  void aClipThatComesBackInRunsFadesAtItsEndsOnly() throws IOException {
    Path file = written();
    ObjectNode timeline = (ObjectNode) MAPPER.readTree(file.toFile());
    Track music = rich.firstTrack(TrackKind.MUSIC).orElseThrow();
    Clip looped =
        music.clips().stream().filter(c -> !c.seams().isEmpty()).findFirst().orElseThrow();
    for (JsonNode track : timeline.get("tracks").get("children")) {
      if (track.get("name").asText().equals(music.name())) {
        ((ObjectNode) track).put("name", "Other");
      }
    }
    MAPPER.writeValue(file.toFile(), timeline);
    List<Clip> runs =
        read(file).track(music.id()).orElseThrow().clipsInTime().stream()
            .filter(c -> c.startFrame() >= looped.startFrame() && c.endFrame() <= looped.endFrame())
            .toList();
    assertThat(runs).hasSize(looped.seams().size() + 1);
    assertThat(looped.fadeIn().lengthFrames()).isPositive();
    for (Clip run : runs) {
      assertThat(run.fadeIn()).isEqualTo(run == runs.getFirst() ? looped.fadeIn() : Fade.NONE);
      assertThat(run.fadeOut()).isEqualTo(run == runs.getLast() ? looped.fadeOut() : Fade.NONE);
    }
  }

  @Test
  void othersSeeTracksClipsGapsTransitionsAndMarkers() throws IOException {
    JsonNode timeline = MAPPER.readTree(written().toFile());
    assertThat(timeline.get("OTIO_SCHEMA").asText()).isEqualTo("Timeline.1");
    JsonNode stack = timeline.get("tracks");
    assertThat(stack.get("children")).hasSize(rich.tracks().size());
    assertThat(stack.get("markers").get(0).get("name").asText()).isEqualTo("Ferry leaves");
    for (int t = 0; t < rich.tracks().size(); t++) {
      Track track = rich.tracks().get(t);
      double end = 0;
      for (JsonNode child : stack.get("children").get(t).get("children")) {
        if (!child.get("OTIO_SCHEMA").asText().equals("Transition.1")) {
          end += child.get("source_range").get("duration").get("value").asDouble();
        }
      }
      assertThat(end).as(track.name()).isCloseTo(track.endFrame(), within(0.5));
    }
    String music = stack.get("children").toString();
    assertThat(music).contains("Gap.1", "Transition.1", "ExternalReference.1", "music.wav");
  }

  @Test
  void thePictureIsToldInItsOwnFrames() throws IOException {
    FrameRate rate = new FrameRate(30_000, 1001);
    Media film = Projects.media("film", MediaKind.PICTURE, 480_000);
    long start = rate.sampleFrameOf(100, 48_000);
    long end = rate.sampleFrameOf(251, 48_000);
    Clip clip =
        Clip.whole(film, 0)
            .withExtent(start, end - start, rate.sampleFrameOf(7, 48_000), List.of());
    Project project =
        Project.empty("ntsc")
            .withPictureRate(rate)
            .withMedia(film)
            .withTracks(List.of(Track.of(TrackKind.PICTURE, "Picture", List.of(clip))));
    Path file =
        Files.write(folder.resolve("n.otio"), Otio.bytes(project, folder.resolve("n.otio")));
    ObjectNode timeline = (ObjectNode) MAPPER.readTree(file.toFile());
    assertThat(timeline.at("/global_start_time/rate").asDouble()).isEqualTo(30_000 / 1001.0);
    JsonNode children = timeline.at("/tracks/children/0/children");
    assertThat(children.at("/0/source_range/duration/value").asDouble()).isEqualTo(100);
    assertThat(children.at("/1/source_range/duration/value").asDouble()).isEqualTo(151);
    assertThat(children.at("/1/source_range/start_time/value").asDouble()).isEqualTo(7);
    ((ObjectNode) timeline.at("/tracks/children/0")).put("name", "V1");
    MAPPER.writeValue(file.toFile(), timeline);
    Clip back = read(file).tracks().getFirst().clips().getFirst();
    assertThat(back.startFrame()).isCloseTo(start, within(1L));
    assertThat(back.endFrame()).isCloseTo(end, within(1L));
  }

  @Test
  void clipsThatWereMovedElsewhereAreTakenAndLevelsKept() throws IOException {
    Path file = written();
    ObjectNode timeline = (ObjectNode) MAPPER.readTree(file.toFile());
    for (JsonNode track : timeline.get("tracks").get("children")) {
      JsonNode first = track.get("children").get(0);
      if (first.get("OTIO_SCHEMA").asText().equals("Gap.1")) {
        ObjectNode duration = (ObjectNode) first.get("source_range").get("duration");
        duration.put("value", duration.get("value").asDouble() + 24_000);
      }
    }
    MAPPER.writeValue(file.toFile(), timeline);
    Project read = read(file);
    Track music = read.firstTrack(TrackKind.MUSIC).orElseThrow();
    Track before = rich.firstTrack(TrackKind.MUSIC).orElseThrow();
    assertThat(music.line()).isEqualTo(before.line());
    assertThat(music.hushes()).isEqualTo(before.hushes());
    assertThat(music.clips().getFirst().startFrame())
        .isEqualTo(before.clips().getFirst().startFrame() + 24_000);
    assertThat(music.clips().getFirst().gainDb()).isEqualTo(before.clips().getFirst().gainDb());
  }

  @Test
  void whatCannotBeIsSaid() throws IOException {
    Path file = folder.resolve("x.otio");
    for (String text :
        List.of(
            "no json",
            "{}",
            "{\"OTIO_SCHEMA\":\"Timeline.1\",\"tracks\":{\"children\":[{\"OTIO_SCHEMA\":\"Track.1\",\"children\":[{\"OTIO_SCHEMA\":\"Gap.1\",\"source_range\":{\"duration\":{\"rate\":1,\"value\":1e12}}}]}]}}",
            "{\"OTIO_SCHEMA\":\"Timeline.1\",\"tracks\":{\"children\":[{\"OTIO_SCHEMA\":\"Track.1\",\"children\":[{\"OTIO_SCHEMA\":\"Clip.1\",\"source_range\":{\"duration\":{\"rate\":1,\"value\":1}},\"media_reference\":{\"target_url\":\"file://host/x\"}}]}]}}")) {
      Files.writeString(file, text);
      assertThatThrownBy(() -> read(file)).as(text).isInstanceOf(Problem.class);
    }
    assertThatThrownBy(() -> read(folder.resolve("none.otio")))
        .hasMessageContaining("There is no file");
  }

  @Test
  void filesAreToldByAddressesOrByPathsBesideTheTimeline() {
    Path odd = folder.resolve("h\u00e4fen & 100% quay.wav");
    assertThat(FileUrl.of(odd)).startsWith("file:///").doesNotContain(" ", "\u00e4");
    assertThat(FileUrl.pathOf(FileUrl.of(odd), folder)).isEqualTo(odd);
    assertThat(FileUrl.pathOf("file://localhost/a/b%20c.wav", folder))
        .isEqualTo(Path.of("/a/b c.wav"));
    assertThat(FileUrl.pathOf("sounds/a.wav", folder)).isEqualTo(folder.resolve("sounds/a.wav"));
    assertThatThrownBy(() -> FileUrl.pathOf("file://elsewhere/a.wav", folder))
        .isInstanceOf(IllegalArgumentException.class);
  }

  @Test
  void figuresGoIntoTables() {
    String levels = Tables.levels(rich);
    int keyframes = rich.tracks().stream().mapToInt(t -> t.line().keyframes().size()).sum();
    assertThat(levels.lines()).hasSize(keyframes + 1);
    assertThat(levels)
        .startsWith("track,seconds,levelDb,shape\r\n")
        .contains(",2.000000,0.000,straight");
    FilmLoudness film = FilmLoudness.of(rich, sounds, Progress.NONE);
    List<String> rows = Tables.loudness(film).lines().toList();
    assertThat(rows).hasSize(film.hops() + 1);
    double first = Double.parseDouble(rows.get(30).split(",", -1)[1]);
    assertThat(first).isCloseTo(film.momentaryLufs(29), within(0.006));
  }
}
