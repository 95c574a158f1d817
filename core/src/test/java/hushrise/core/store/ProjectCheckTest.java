package hushrise.core.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import hushrise.core.Problem;
import hushrise.core.mix.Projects;
import hushrise.core.project.Project;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A project file is believed only when everything in it can be. */
class ProjectCheckTest {

  private static final ObjectMapper JSON = new ObjectMapper();

  @TempDir private Path folder;
  private Path file;
  private String whole;

  @BeforeEach
  void makeFile() {
    file = folder.resolve("film.hushrise");
    Project project = Projects.rich(new Projects.Sounds());
    whole = new String(ProjectFile.bytes(project, file), StandardCharsets.UTF_8);
  }

  private ObjectNode tree() throws IOException {
    return (ObjectNode) JSON.readTree(whole);
  }

  private void assertRefused(String text, String... words) throws IOException {
    Files.writeString(file, text);
    assertThatThrownBy(() -> ProjectFile.load(file))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("film.hushrise")
        .hasMessageContainingAll(words)
        .hasMessageNotContainingAny("Exception", "hushrise.core", "line -1");
  }

  @ParameterizedTest
  @CsvSource({
    "1e999, masterDb",
    "400, masterDb",
    "'\"NaN\"', masterDb",
    "1e999, levelDb",
    "400, levelDb",
    "'\"NaN\"', pan",
    "7, pan",
    "0, sampleRate",
    "-1, sampleRate",
    "1000000000, sampleRate",
    "48000.5, sampleRate",
    "9223372036854775807, startFrame",
    "1000000000000, lengthFrames",
    "0.5, startFrame",
    "1e30, startFrame",
    "'\"long\"', lengthFrames",
    "0, numerator",
    "2000000000, numerator",
    "-3, lengthFrames"
  })
  void numbersThatNobodyMeansAreRefusedWithTheirPlace(String value, String name)
      throws IOException {
    String changed =
        whole.replaceFirst("\"" + name + "\" : [^,}\\n]+", "\"" + name + "\" : " + value);
    assertThat(changed).isNotEqualTo(whole);
    assertRefused(changed, name.equals("numerator") ? "ictureRate" : name);
  }

  @Test
  void aPlaceIsToldByItsPath() throws IOException {
    ObjectNode tree = tree();
    ((ObjectNode) tree.get("tracks").get(1)).put("levelDb", 99);
    assertRefused(tree.toString(), "tracks[1].levelDb", "99", "-1000 and 24 dB");
    tree = tree();
    ((ObjectNode) tree.get("tracks").get(0)).put("kind", "TRUMPET");
    assertRefused(tree.toString(), "tracks[0].kind");
    tree = tree();
    ((ArrayNode) tree.get("tracks")).addNull();
    assertRefused(tree.toString(), "is empty");
    tree = tree();
    tree.putNull("tracks");
    assertRefused(tree.toString(), "something in it is missing");
    tree = tree();
    ArrayNode tracks = (ArrayNode) tree.get("tracks");
    tracks.add(tracks.get(0).deepCopy());
    assertRefused(tree.toString(), "another has too");
  }

  @Test
  void moreOverOneAnotherThanAnybodyLaysThereIsRefused() throws IOException {
    ObjectNode tree = tree();
    ObjectNode track = (ObjectNode) tree.get("tracks").get(0);
    JsonNode clip = track.get("clips").get(0);
    ArrayNode clips = track.putArray("clips");
    for (int i = 0; i < 300; i++) {
      ObjectNode one = clip.deepCopy();
      one.put("id", "c" + i).put("startFrame", i * 10).put("lengthFrames", 48_000);
      clips.add(one);
    }
    assertRefused(tree.toString(), "tracks[0].clips", "more than 256");
    for (int i = 0; i < 300; i++) {
      ((ObjectNode) clips.get(i)).put("startFrame", i * 48_000);
    }
    Files.writeString(file, tree.toString());
    assertThat(ProjectFile.load(file).tracks().getFirst().clips()).hasSize(300);
  }

  @Test
  void brokenTextIsToldByLineAndColumn() throws IOException {
    assertRefused(whole.substring(0, whole.length() / 2), "line ", "column ", "is no JSON");
    assertRefused("{\"hushrise\": 1,\n \"name\": }", "line 2");
    assertRefused("[1]", "no Hush Rise project");
    assertRefused("[".repeat(100_000), "nests deeper");
    assertRefused(
        "{\"hushrise\":1,\"x\":" + "{\"x\":".repeat(200) + "1" + "}".repeat(201), "deeper");
    assertRefused(
        "{\"hushrise\":1,\"name\":\"" + "n".repeat(200_000) + "\"}", "a text of 200000 characters");
  }

  @Test
  void whateverIsChangedItLoadsOrSaysWhy() throws IOException {
    Map<Integer, String> values =
        Map.of(
            0,
            "null",
            1,
            "-1",
            2,
            "1e308",
            3,
            "\"x\"",
            4,
            "[]",
            5,
            "{}",
            6,
            "9e18",
            7,
            "true",
            8,
            "0",
            9,
            "-9223372036854775808");
    for (int seed = 0; seed < 3000; seed++) {
      Random random = new Random(seed);
      ObjectNode tree = tree();
      for (int i = random.nextInt(3); i >= 0; i--) {
        change(tree, random, values);
      }
      Files.writeString(file, tree.toString());
      try {
        Project project = ProjectFile.load(file);
        assertThat(project.lengthFrames()).isBetween(0L, 2 * 48L * 3600 * 192_000);
        ProjectFile.save(project, folder.resolve("again.hushrise"));
      } catch (Problem e) {
        assertThat(e).as("seed " + seed).hasMessageContaining("film.hushrise");
        assertThat(e.getMessage())
            .as("seed " + seed)
            .doesNotContain("Exception", "hushrise.core.", "line -1");
      }
    }
  }

  /** Puts something else in the place of one value anywhere in a tree. */
  private static void change(JsonNode tree, Random random, Map<Integer, String> values)
      throws IOException {
    JsonNode at = tree;
    while (true) {
      if (at instanceof ObjectNode object && !object.isEmpty()) {
        String name =
            object.properties().stream()
                .skip(random.nextInt(object.size()))
                .findFirst()
                .orElseThrow()
                .getKey();
        if (random.nextInt(4) == 0 || !object.get(name).isContainerNode()) {
          object.set(name, JSON.readTree(values.get(random.nextInt(values.size()))));
          return;
        }
        at = object.get(name);
      } else if (at instanceof ArrayNode list && !list.isEmpty()) {
        int index = random.nextInt(list.size());
        if (random.nextInt(4) == 0 || !list.get(index).isContainerNode()) {
          list.set(index, JSON.readTree(values.get(random.nextInt(values.size()))));
          return;
        }
        at = list.get(index);
      } else {
        return;
      }
    }
  }
}
