package hushrise.core.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.networknt.schema.JsonSchema;
import com.networknt.schema.JsonSchemaFactory;
import com.networknt.schema.SpecVersion;
import hushrise.core.Problem;
import hushrise.core.mix.Projects;
import hushrise.core.project.Aside;
import hushrise.core.project.Project;
import hushrise.core.project.UnknownFields;
import hushrise.core.project.level.HushNumber;
import hushrise.core.project.level.HushRule;
import hushrise.core.project.level.Turn;
import hushrise.core.project.media.Media;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Side;
import hushrise.core.project.timeline.Take;
import hushrise.core.time.Span;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class ProjectFileTest {

  private static final ObjectMapper JSON = new ObjectMapper();

  @TempDir private Path folder;
  private Project project;
  private Path file;

  @BeforeEach
  void makeProject() {
    project = Projects.rich(new Projects.Sounds());
    file = folder.resolve("film.hushrise");
  }

  private Project loaded() {
    return ProjectFile.load(file).withUnknown(UnknownFields.NONE);
  }

  /** The project with everything that drafts, passages and the Second Ear keep in it. */
  private Project drafted() {
    HushRule rule =
        HushRule.of(12)
            .withVoices(List.of("v"))
            .withDepths(-30, -2)
            .withEven(true)
            .withTurn(new Turn(-0.1, 0.2, 0.3, 1.2))
            .withRises(Optional.of(HushRule.RiseRule.USUAL));
    return project
        .withMedia(
            project.shelf().getFirst().id(),
            m -> m.withSpeech(Optional.of(List.of(new Span(5, 900), new Span(1_000, 2_000)))))
        .withEachTrack(
            t ->
                t.withRule(Optional.of(rule.withFixedDepthDb(OptionalDouble.of(-9))))
                    .withSpeaks(true)
                    .withClips(t.clips().stream().map(c -> c.withSide(Side.LEFT)).toList())
                    .withHushes(
                        t.hushes().stream()
                            .map(h -> h.setByHand(HushNumber.DEPTH, HushNumber.PLACE))
                            .toList())
                    .withRises(t.rises().stream().map(r -> r.withDrafted(true)).toList()))
        .withAsides(List.of(new Aside("track.muted:t", "meant so")))
        .withScript(Optional.of("The ferry waits.\n\nNobody is late."));
  }

  @Test
  void whatDraftsAndPassagesKeepIsSavedAndLoadedAndLaidDown() throws Exception {
    Project drafted = drafted();
    ProjectFile.save(drafted, file);
    assertThat(loaded()).isEqualTo(drafted);
    JsonSchema schema =
        JsonSchemaFactory.getInstance(SpecVersion.VersionFlag.V202012)
            .getSchema(Files.readString(Path.of("../docs/project.schema.json")));
    JsonNode tree = JSON.readTree(file.toFile());
    assertThat(schema.validate(tree)).isEmpty();
    ((ObjectNode) tree.at("/tracks/1/rule")).put("deepestDb", 3);
    assertThat(schema.validate(tree)).isNotEmpty();
  }

  @Test
  void whatIsSavedIsLoaded() {
    ProjectFile.save(project, file);
    assertThat(loaded()).isEqualTo(project);
  }

  @Test
  void aCopyOfAFileGoesByTheNameOfTheCopy() throws Exception {
    Path copy = folder.resolve("Second.hushrise");
    ProjectFile.save(project.withName("film"), file);
    assertThat(ProjectFile.load(file).name()).isEqualTo("film");
    assertThat(ProjectFile.load(Files.copy(file, copy)).name()).isEqualTo("Second");
    ProjectFile.save(project.withName("The crossing"), copy);
    assertThat(ProjectFile.load(copy).name()).as("a name of its own").isEqualTo("The crossing");
  }

  @Test
  void whatIsSavedKeepsToTheSchema() throws Exception {
    ProjectFile.save(project, file);
    JsonSchema schema =
        JsonSchemaFactory.getInstance(SpecVersion.VersionFlag.V202012)
            .getSchema(Files.readString(Path.of("../docs/project.schema.json")));
    JsonNode tree = JSON.readTree(file.toFile());
    assertThat(schema.validate(tree)).isEmpty();
    ((ObjectNode) tree.get("tracks").get(0)).put("kind", "LOUD");
    assertThat(schema.validate(tree)).isNotEmpty();
  }

  @Test
  void mediaPathsAreRelativeToTheProjectSoThatTheFolderCanMove() throws Exception {
    var media = Projects.media("take", hushrise.core.project.media.MediaKind.VOICE, 10);
    Path inside = folder.resolve("sounds/take.wav");
    Project here =
        Project.empty("p")
            .withMedia(
                new hushrise.core.project.media.Media(
                    media.id(), inside, media.kind(), 10, true, media.pictureRate(), ""));
    ProjectFile.save(here, file);
    assertThat(JSON.readTree(file.toFile()).at("/shelf/0/file").asText())
        .isEqualTo("sounds/take.wav");
    Path moved = Files.createDirectory(folder.resolve("elsewhere")).resolve("film.hushrise");
    Files.copy(file, moved);
    assertThat(ProjectFile.load(moved).shelf().getFirst().file())
        .isEqualTo(folder.resolve("elsewhere/sounds/take.wav"));
  }

  @Test
  void unknownFieldsSurviveALoadAnEditAndASave() throws Exception {
    ProjectFile.save(project, file);
    ObjectNode tree = (ObjectNode) JSON.readTree(file.toFile());
    tree.put("mood", "calm");
    ((ObjectNode) tree.at("/tracks/1")).put("pan", -0.5);
    ((ObjectNode) tree.at("/tracks/1/clips/0")).put("colour", "teal");
    JSON.writeValue(file.toFile(), tree);
    Project read = ProjectFile.load(file);
    List<hushrise.core.project.timeline.Track> reversed = read.tracks().reversed();
    ProjectFile.save(read.withTracks(reversed), file);
    JsonNode again = JSON.readTree(file.toFile());
    assertThat(again.get("mood").asText()).isEqualTo("calm");
    assertThat(again.at("/tracks/1/pan").asDouble()).isEqualTo(-0.5);
    assertThat(again.at("/tracks/1/clips/0/colour").asText()).isEqualTo("teal");
  }

  /** What a file leaves out when it is not there must not come back from how it was read. */
  @Test
  void whatWasTakenAwayAfterALoadIsNotInTheNextSave() {
    Media voice = project.media("voice").orElseThrow();
    Media second = voice.withId("second").withContent(Optional.of("digest"));
    Take other = new Take("second", 0, 10, 0, 0);
    Project stacked =
        project
            .withMedia(second)
            .withMedia("voice", m -> m.withContent(Optional.of("digest")))
            .withScript(Optional.of("Nobody is late."))
            .withEachTrack(t -> t.withClips(withOthers(t.clips(), List.of(other))));
    ProjectFile.save(stacked, file);
    Project less =
        ProjectFile.load(file)
            .withoutMedia("second")
            .withMedia("voice", m -> m.withContent(Optional.empty()))
            .withScript(Optional.empty())
            .withEachTrack(t -> t.withClips(withOthers(t.clips(), List.of())));
    ProjectFile.save(less, file);
    assertThat(loaded()).isEqualTo(less.withUnknown(UnknownFields.NONE));
  }

  private static List<Clip> withOthers(List<Clip> clips, List<Take> others) {
    return clips.stream().map(c -> c.withOtherTakes(others)).toList();
  }

  @Test
  void aProjectFromANewerVersionIsRefusedInWords() throws Exception {
    Files.writeString(file, "{\"hushrise\": 7, \"name\": \"later\"}");
    assertThatThrownBy(() -> ProjectFile.load(file))
        .isInstanceOf(Problem.class)
        .hasMessageContaining(file.toString())
        .hasMessageContaining("newer Hush Rise")
        .hasMessageContaining("update");
  }

  @Test
  void whatIsNoProjectOrDamagedOrMissingIsSaidInWords() throws Exception {
    assertThatThrownBy(() -> ProjectFile.load(file))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("There is no project");
    Files.writeString(file, "{}");
    assertThatThrownBy(() -> ProjectFile.load(file))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("is no Hush Rise project");
    Files.writeString(file, "{\"hushrise\": 1, \"name\": \"cut");
    assertThatThrownBy(() -> ProjectFile.load(file))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("damaged")
        .hasMessageContaining("line 1");
    Files.writeString(file, "{\"hushrise\": 1, \"name\": \"nothing else\"}");
    assertThatThrownBy(() -> ProjectFile.load(file))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("damaged");
  }

  @Test
  void aClipWithoutItsMediaIsDamage() throws Exception {
    ProjectFile.save(project, file);
    Files.writeString(
        file, Files.readString(file).replace("\"mediaId\" : \"voice\"", "\"mediaId\" : \"gone\""));
    assertThatThrownBy(() -> ProjectFile.load(file))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("unknown media gone");
  }

  @Test
  void savingLeavesNoPartFileAndAFailedSaveLeavesTheOldOne() throws Exception {
    ProjectFile.save(project, file);
    byte[] before = Files.readAllBytes(file);
    Path nowhere = folder.resolve("missing/film.hushrise");
    assertThatThrownBy(() -> ProjectFile.save(project, nowhere))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("does not exist");
    assertThat(Files.readAllBytes(file)).isEqualTo(before);
    try (Stream<Path> files = Files.list(folder)) {
      assertThat(files).containsExactly(file);
    }
  }
}
