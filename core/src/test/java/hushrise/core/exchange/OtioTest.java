package hushrise.core.exchange;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import hushrise.core.Problem;
import hushrise.core.loudness.FilmLoudness;
import hushrise.core.mix.Projects;
import hushrise.core.project.Marker;
import hushrise.core.project.Project;
import hushrise.core.project.UnknownFields;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.Progress;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Timelines for other programs, and back. */
class OtioTest {

  private static final ObjectMapper MAPPER = new ObjectMapper();
  private static final OtioReader.Taker NONE =
      (file, kind) -> {
        throw new Problem(file + " is asked for");
      };

  @TempDir private Path folder;

  private final Projects.Sounds sounds = new Projects.Sounds();
  private final Project rich =
      Projects.rich(sounds).withMarkers(List.of(new Marker("m1", "Ferry leaves", 96_000)));

  private Path written() throws IOException {
    return Files.write(folder.resolve("film.otio"), Otio.bytes(rich, folder.resolve("film.otio")));
  }

  @Test
  void anUntouchedTimelineGivesItsProjectBackWhole() throws IOException {
    assertThat(OtioReader.read(written(), NONE).withUnknown(UnknownFields.NONE)).isEqualTo(rich);
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
    Project read = OtioReader.read(file, NONE);
    Track music = read.firstTrack(TrackKind.MUSIC).orElseThrow();
    Track before = rich.firstTrack(TrackKind.MUSIC).orElseThrow();
    assertThat(music.line()).isEqualTo(before.line());
    assertThat(music.hushes()).isEqualTo(before.hushes());
    assertThat(music.clips().getFirst().startFrame())
        .isEqualTo(before.clips().getFirst().startFrame() + 24_000);
    assertThat(music.clips().getFirst().gainDb()).isEqualTo(before.clips().getFirst().gainDb());
  }

  @Test
  void anotherProgramsTimelineBecomesAProject() throws IOException {
    Path file =
        Files.writeString(
            folder.resolve("other.otio"),
            """
            {"OTIO_SCHEMA":"Timeline.1","name":"Other","tracks":{"OTIO_SCHEMA":"Stack.1","children":[
              {"OTIO_SCHEMA":"Track.1","name":"Voice over","kind":"Audio","children":[
                {"OTIO_SCHEMA":"Gap.1","source_range":{"start_time":{"rate":25,"value":0},"duration":{"rate":25,"value":50}}},
                {"OTIO_SCHEMA":"Clip.2","name":"take","source_range":{"start_time":{"rate":25,"value":10},"duration":{"rate":25,"value":25}},
                 "media_references":{"DEFAULT_MEDIA":{"OTIO_SCHEMA":"ExternalReference.1","target_url":"sounds/take.wav"}}}]}]}}
            """);
    Project read =
        OtioReader.read(
            file,
            (path, kind) -> {
              assertThat(path).isEqualTo(folder.resolve("sounds").resolve("take.wav"));
              return Projects.media("take", kind, 480_000);
            });
    Track track = read.tracks().getFirst();
    assertThat(track.kind()).isEqualTo(TrackKind.VOICE);
    Clip clip = track.clips().getFirst();
    assertThat(clip.startFrame()).isEqualTo(96_000);
    assertThat(clip.lengthFrames()).isEqualTo(48_000);
    assertThat(clip.mediaStartFrame()).isEqualTo(19_200);
  }

  @Test
  void whatCannotBeIsSaid() throws IOException {
    Path file = folder.resolve("x.otio");
    for (String text :
        List.of(
            "no json",
            "{}",
            "{\"OTIO_SCHEMA\":\"Timeline.1\",\"tracks\":{\"children\":[{\"children\":[{\"OTIO_SCHEMA\":\"Gap.1\",\"source_range\":{\"duration\":{\"rate\":1,\"value\":1e12}}}]}]}}",
            "{\"OTIO_SCHEMA\":\"Timeline.1\",\"tracks\":{\"children\":[{\"children\":[{\"OTIO_SCHEMA\":\"Clip.1\",\"source_range\":{\"duration\":{\"rate\":1,\"value\":1}},\"media_reference\":{\"target_url\":\"file://host/x\"}}]}]}}")) {
      Files.writeString(file, text);
      assertThatThrownBy(() -> OtioReader.read(file, NONE)).as(text).isInstanceOf(Problem.class);
    }
    assertThatThrownBy(() -> OtioReader.read(folder.resolve("none.otio"), NONE))
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
