package hushrise.core.store;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.DeserializationContext;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.JsonMappingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.SerializerProvider;
import com.fasterxml.jackson.databind.deser.std.StdDeserializer;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.module.SimpleModule;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.fasterxml.jackson.databind.ser.std.StdSerializer;
import com.fasterxml.jackson.databind.util.TokenBuffer;
import com.fasterxml.jackson.datatype.jdk8.Jdk8Module;
import hushrise.core.Problem;
import hushrise.core.project.Project;
import hushrise.core.project.UnknownFields;
import hushrise.core.project.media.Credit;
import hushrise.core.project.media.Licence;
import hushrise.core.project.media.Media;
import hushrise.core.project.timeline.Track;
import java.io.IOException;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.IdentityHashMap;
import java.util.Iterator;
import java.util.List;
import java.util.Map;

/**
 * Projects as JSON files, laid down in docs/project.schema.json. Media paths are relative to the
 * project's folder where they can be. A project that is called as its file has no name in it, so
 * that a copy of the file goes by the copy's. Fields that this version does not know survive a load
 * and a save.
 */
public final class ProjectFile {

  /** What project files are called. */
  public static final String ENDING = ".hushrise";

  /** The version that is written, and the highest that is read. */
  public static final int VERSION = 1;

  private static final String TRACKS = "tracks";
  private static final String SHELF = "shelf";
  private static final int MOST_BYTES = 256 << 20;

  /** The name under which readers and writers of paths find the project's folder. */
  private static final String FOLDER = "folder";

  private static final ObjectMapper MAPPER = mapper();

  private ProjectFile() {}

  /**
   * Reads a project.
   *
   * @throws Problem when the file is missing, no project, damaged, or from a newer version
   */
  public static Project load(Path file) {
    byte[] bytes = WholeFile.bytes(file, "project", MOST_BYTES);
    if (CollectedZip.isZip(bytes)) {
      throw new Problem(
          "%s is a zip: unpack it with \"hushrise collect %s --to FOLDER\", or open it in the window."
              .formatted(file, file));
    }
    try {
      return read(MAPPER.readTree(bytes), file);
    } catch (IOException e) {
      throw damaged(file, e);
    }
  }

  /**
   * A project from its JSON.
   *
   * @param file where it lies, from which its media are told
   * @throws Problem when it is no project, damaged, or from a newer version
   */
  public static Project read(JsonNode tree, Path file) {
    try {
      if (tree == null || !tree.isObject() || !tree.path("hushrise").isInt()) {
        throw new Problem("%s is no Hush Rise project: choose a %s file.".formatted(file, ENDING));
      }
      int version = tree.get("hushrise").intValue();
      if (version > VERSION) {
        throw new Problem(
            "The project %s was saved by a newer Hush Rise (format %d, this one reads up to %d): update Hush Rise to open it."
                .formatted(file, version, VERSION));
      }
      ProjectCheck.check(tree);
      Project project = made(tree, file);
      ProjectCheck.check(project);
      return project;
    } catch (IOException | IllegalArgumentException | NullPointerException e) {
      throw damaged(file, e);
    }
  }

  /**
   * As {@link #read}, of what this program wrote itself and told to be whole by a checksum: nothing
   * in it is looked at again.
   *
   * @throws Problem when nothing can be made of it
   */
  public static Project readOwn(JsonNode tree, Path file) {
    try {
      return made(tree, file);
    } catch (IOException | IllegalArgumentException | NullPointerException e) {
      throw damaged(file, e);
    }
  }

  /**
   * As {@link #readOwn(JsonNode, Path)}, of a tree that shares nodes with an earlier one: tracks
   * and media whose nodes are the very same are those of the earlier project.
   *
   * @param treeBefore the earlier tree
   * @param before what was made of it
   * @throws Problem when nothing can be made of it
   */
  public static Project readOwn(JsonNode tree, Path file, JsonNode treeBefore, Project before) {
    Map<JsonNode, Track> tracks = byNode(treeBefore.path(TRACKS), before.tracks());
    Map<JsonNode, Media> shelf = byNode(treeBefore.path(SHELF), before.shelf());
    ObjectNode others = JsonNodeFactory.instance.objectNode();
    tree.properties().forEach(field -> others.set(field.getKey(), field.getValue()));
    others.set(TRACKS, without(tree.path(TRACKS), tracks));
    others.set(SHELF, without(tree.path(SHELF), shelf));
    Project read = readOwn(others, file);
    return read.withTracks(together(tree.path(TRACKS), tracks, read.tracks()))
        .withShelf(together(tree.path(SHELF), shelf, read.shelf()))
        .withUnknown(new UnknownFields(tree));
  }

  private static <T> Map<JsonNode, T> byNode(JsonNode nodes, List<T> things) {
    Map<JsonNode, T> known = new IdentityHashMap<>();
    for (int i = 0; i < Math.min(nodes.size(), things.size()); i++) {
      known.put(nodes.get(i), things.get(i));
    }
    return known;
  }

  private static ArrayNode without(JsonNode nodes, Map<JsonNode, ?> known) {
    ArrayNode others = JsonNodeFactory.instance.arrayNode();
    nodes.forEach(
        node -> {
          if (!known.containsKey(node)) {
            others.add(node);
          }
        });
    return others;
  }

  private static <T> List<T> together(JsonNode nodes, Map<JsonNode, T> known, List<T> read) {
    Iterator<T> others = read.iterator();
    List<T> all = new ArrayList<>();
    nodes.forEach(node -> all.add(known.containsKey(node) ? known.get(node) : others.next()));
    return all;
  }

  private static Project made(JsonNode tree, Path file) throws IOException {
    Project project =
        MAPPER
            .readerFor(Project.class)
            .withAttribute(FOLDER, folderOf(file))
            .<Project>readValue(tree)
            .withUnknown(new UnknownFields(tree));
    return project.name().isBlank() ? project.withName(nameOf(file)) : project;
  }

  /** What a project is called that has no name of its own, wherever its file goes. */
  private static String nameOf(Path file) {
    String name = file.getFileName().toString();
    return name.substring(0, Math.max(0, name.lastIndexOf('.')));
  }

  private static Problem damaged(Path file, Exception e) {
    return new Problem(
        "The project %s is damaged (%s): go back to an earlier copy of it."
            .formatted(file, reason(e)),
        e);
  }

  /** What is wrong with a file and where in it, as part of a sentence. */
  private static String reason(Exception e) {
    if (e instanceof JsonMappingException mapping && !mapping.getPath().isEmpty()) {
      StringBuilder place = new StringBuilder();
      for (JsonMappingException.Reference step : mapping.getPath()) {
        if (step.getFieldName() == null) {
          place.append('[').append(step.getIndex()).append(']');
        } else {
          place.append(place.isEmpty() ? "" : ".").append(step.getFieldName());
        }
      }
      Throwable cause = mapping.getCause();
      return place
          + (cause instanceof IllegalArgumentException && cause.getMessage() != null
              ? ": " + cause.getMessage()
              : " has a value that cannot stand there");
    }
    boolean isRead = e instanceof JsonMappingException; // as JSON, of which no project can be made
    if (!isRead && e instanceof JsonProcessingException json && json.getLocation() != null) {
      return "line %d, column %d is no JSON"
          .formatted(json.getLocation().getLineNr(), json.getLocation().getColumnNr());
    }
    if (!isRead && e instanceof JsonProcessingException) {
      return "it nests deeper, or holds longer texts, than any project";
    }
    return e instanceof ProjectCheck.Wrong ? e.getMessage() : "something in it is missing";
  }

  /**
   * Writes a project beside {@code file} and renames it into place; an older file stays whole until
   * then.
   *
   * @throws Problem when it cannot be written
   */
  public static void save(Project project, Path file) {
    AtomicFile.write(file, bytes(project, file));
  }

  /** A project as it would be written into a file; media paths are relative to its folder. */
  public static byte[] bytes(Project project, Path file) {
    try {
      return MAPPER.writerWithDefaultPrettyPrinter().writeValueAsBytes(tree(project, file));
    } catch (JsonProcessingException e) {
      throw new IllegalStateException("A project that is no JSON", e);
    }
  }

  /** As {@link #bytes}, as the JSON that {@link #read} takes. */
  public static ObjectNode tree(Project project, Path file) {
    ObjectNode tree = MAPPER.createObjectNode();
    tree.put("hushrise", VERSION);
    try (TokenBuffer written = new TokenBuffer(MAPPER, false)) {
      MAPPER.writer().withAttribute(FOLDER, folderOf(file)).writeValue(written, project);
      tree.setAll((ObjectNode) MAPPER.<JsonNode>readTree(written.asParser()));
    } catch (IOException e) {
      throw new IllegalStateException("A project that is no JSON", e);
    }
    project.unknown().restoreInto(tree);
    tree.put("hushrise", VERSION);
    if (project.name().equals(nameOf(file))) {
      tree.put("name", "");
    }
    return tree;
  }

  private static ObjectMapper mapper() {
    SimpleModule paths = new SimpleModule();
    paths.addSerializer(Path.class, new PathWriter());
    paths.addDeserializer(Path.class, new PathReader());
    paths.addDeserializer(Credit.class, new CreditReader());
    return JsonMapper.builder()
        .addModule(paths)
        .addModule(new Jdk8Module())
        .addMixIn(Project.class, NotInFile.class)
        .addMixIn(Credit.class, NoQuestions.class)
        .disable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
        .enable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
        .disable(SerializationFeature.FAIL_ON_EMPTY_BEANS)
        .build();
  }

  private static Path folderOf(Path projectFile) {
    return projectFile.toAbsolutePath().normalize().getParent();
  }

  @JsonIgnoreProperties("unknown")
  private interface NotInFile {}

  @JsonIgnoreProperties({"empty", "onlyNote", "missingWhatItOwes"})
  private interface NoQuestions {}

  /** A credit, which in older files is a text alone. */
  private static final class CreditReader extends StdDeserializer<Credit> {
    private static final long serialVersionUID = 1;

    CreditReader() {
      super(Credit.class);
    }

    @Override
    public Credit deserialize(JsonParser in, DeserializationContext context) throws IOException {
      JsonNode tree = in.readValueAsTree();
      if (tree.isTextual()) {
        return Credit.ofNote(tree.textValue());
      }
      String licence = tree.path("licence").asText("");
      return new Credit(
          tree.path("title").asText(""),
          tree.path("author").asText(""),
          tree.path("source").asText(""),
          Arrays.stream(Licence.values())
              .filter(l -> l.name().equals(licence))
              .findFirst()
              .orElse(licence.isEmpty() ? Licence.NOT_KNOWN : Licence.OTHER),
          tree.path("note").asText(""));
    }
  }

  private static final class PathWriter extends StdSerializer<Path> {
    private static final long serialVersionUID = 1;

    PathWriter() {
      super(Path.class);
    }

    @Override
    public void serialize(Path path, JsonGenerator out, SerializerProvider provider)
        throws IOException {
      Path folder = (Path) provider.getAttribute(FOLDER);
      out.writeString(shortest(path, folder).toString().replace('\\', '/'));
    }

    private static Path shortest(Path path, Path folder) {
      try {
        return folder.relativize(path.toAbsolutePath().normalize());
      } catch (IllegalArgumentException onAnotherDrive) {
        return path;
      }
    }
  }

  private static final class PathReader extends StdDeserializer<Path> {
    private static final long serialVersionUID = 1;

    PathReader() {
      super(Path.class);
    }

    @Override
    public Path deserialize(JsonParser in, DeserializationContext context) throws IOException {
      try {
        Path folder = (Path) context.getAttribute(FOLDER);
        return folder.resolve(in.getValueAsString("")).normalize();
      } catch (InvalidPathException e) {
        throw new IOException("the media path " + in.getValueAsString() + " is none", e);
      }
    }
  }
}
