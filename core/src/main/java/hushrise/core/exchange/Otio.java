package hushrise.core.exchange;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import hushrise.core.project.Marker;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Track;
import hushrise.core.store.AtomicFile;
import hushrise.core.store.ProjectFile;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.LongFunction;
import java.util.zip.CRC32;

/**
 * Writes a project as OpenTimelineIO JSON (schemas Timeline.1, Stack.1, Track.1, Clip.1, Gap.1,
 * Transition.1, Marker.2, ExternalReference.1).
 *
 * <p>Other readers get tracks, clips, gaps, transitions and markers; a clip that jumps in its media
 * becomes one clip for each run, and a track on which clips lie over one another becomes several.
 * Everything else lies whole under our own key, with a sum over what the others see: as long as
 * that is untouched, all of it comes back.
 */
public final class Otio {

  /** What the names of such files end in. */
  public static final String ENDING = ".otio";

  /** Our key in a timeline's metadata. */
  static final String KEY = "hushrise";

  /** Which of a track's layers a track of the timeline is, of those above the first. */
  static final String LAYER = "layer";

  /** Times this near to a whole picture are meant to be there. */
  private static final double SAME_PICTURES = 0.01;

  private static final ObjectMapper MAPPER = new ObjectMapper();

  private final Project project;
  private final Path folder;

  private Otio(Project project, Path folder) {
    this.project = project;
    this.folder = folder;
  }

  /**
   * A project's timeline.
   *
   * @param file where it goes; media are told relative to its folder where they can be
   */
  public static byte[] bytes(Project project, Path file) {
    try {
      Path absolute = file.toAbsolutePath();
      ObjectNode timeline = new Otio(project, absolute.getParent()).timeline();
      ObjectNode ours = MAPPER.createObjectNode();
      ours.put("sum", sumOf(timeline.get("tracks")));
      ours.set("project", MAPPER.readTree(ProjectFile.bytes(project, absolute)));
      ((ObjectNode) timeline.get("metadata")).set(KEY, ours);
      return MAPPER.writerWithDefaultPrettyPrinter().writeValueAsBytes(timeline);
    } catch (java.io.IOException e) {
      throw new IllegalStateException("A timeline that is no JSON", e);
    }
  }

  /** Whether a file is called as a timeline. */
  public static boolean isCalled(Path file) {
    return file.toString().toLowerCase(Locale.ROOT).endsWith(ENDING);
  }

  /**
   * Writes a project's timeline.
   *
   * @return the file
   * @throws hushrise.core.Problem when it cannot be written; what was there is still there then
   */
  public static Path write(Project project, Path file) {
    AtomicFile.write(file, bytes(project, file));
    return file;
  }

  /** A track as it is written into a timeline: its layers, of which there is mostly one. */
  static List<JsonNode> tracks(Project project, Track track, Path file) {
    return new Otio(project, file.toAbsolutePath().getParent()).tracks(track);
  }

  /** A sum over what other programs see of the tracks: names, kinds, times and media. */
  static String sumOf(JsonNode stack) {
    StringBuilder seen = new StringBuilder();
    collect(stack, seen);
    CRC32 sum = new CRC32();
    sum.update(seen.toString().getBytes(StandardCharsets.UTF_8));
    return Long.toHexString(sum.getValue());
  }

  private static void collect(JsonNode node, StringBuilder seen) {
    if (node.isArray()) {
      node.forEach(n -> collect(n, seen.append('[')));
    } else if (node.isObject()) {
      for (String key : new String[] {"name", "kind", "value", "target_url"}) {
        JsonNode value = node.get(key);
        if (value != null && value.isNumber()) {
          seen.append(Math.round(value.doubleValue())).append(';');
        } else if (value != null && value.isTextual()) {
          seen.append(value.textValue()).append(';');
        }
      }
      for (String key :
          new String[] {
            "children",
            "markers",
            "source_range",
            "marked_range",
            "start_time",
            "duration",
            "in_offset",
            "out_offset"
          }) {
        JsonNode inner = node.get(key);
        if (inner != null) {
          collect(inner, seen.append(key).append(':'));
        }
      }
      JsonNode reference = OtioNode.referenceOf(node); // newer libraries hold it in another place
      if (!reference.isMissingNode()) {
        collect(reference, seen.append("media_reference:"));
      }
      if (!OtioNode.isOn(node)) {
        seen.append("off;");
      }
    }
  }

  private static ObjectNode schema(String schema, String name) {
    ObjectNode node = MAPPER.createObjectNode();
    node.put("OTIO_SCHEMA", schema);
    node.put("name", name);
    node.putObject("metadata");
    return node;
  }

  private ObjectNode timeline() {
    ObjectNode timeline = schema("Timeline.1", project.name());
    timeline.set("global_start_time", pictureTime(0));
    ObjectNode stack = schema("Stack.1", "tracks");
    stack.putNull("source_range");
    stack.putArray("effects");
    ArrayNode markers = stack.putArray("markers");
    project.markers().forEach(m -> markers.add(marker(m)));
    ArrayNode tracks = stack.putArray("children");
    project.tracks().forEach(t -> tracks.addAll(tracks(t)));
    timeline.set("tracks", stack);
    return timeline;
  }

  private ObjectNode marker(Marker marker) {
    ObjectNode node = schema("Marker.2", marker.name());
    node.put("color", "GREEN");
    node.set("marked_range", range(marker.frame(), 0, this::time));
    return node;
  }

  private static ObjectNode time(double rate, double value) {
    ObjectNode time = MAPPER.createObjectNode();
    time.put("OTIO_SCHEMA", "RationalTime.1");
    time.put("rate", rate);
    time.put("value", value);
    return time;
  }

  /** A time of sound, in its samples. */
  private ObjectNode time(long frames) {
    return time(project.sampleRate(), frames);
  }

  /** A time of the picture, in its own frames; others take their timeline's rate from it. */
  private ObjectNode pictureTime(long frames) {
    double rate = project.pictureRate().perSecond();
    double value = frames * rate / project.sampleRate();
    double whole = Math.rint(value);
    return time(rate, Math.abs(value - whole) < SAME_PICTURES ? whole : value);
  }

  private static ObjectNode range(long start, long length, LongFunction<ObjectNode> time) {
    ObjectNode range = MAPPER.createObjectNode();
    range.put("OTIO_SCHEMA", "TimeRange.1");
    range.set("start_time", time.apply(start));
    range.set("duration", time.apply(length));
    return range;
  }

  private List<JsonNode> tracks(Track track) {
    List<List<OtioRun>> layers = OtioRun.layers(track);
    List<JsonNode> nodes = new ArrayList<>();
    for (int layer = 0; layer < layers.size(); layer++) {
      nodes.add(layer(track, layer, layers.get(layer)));
    }
    return nodes;
  }

  private ObjectNode layer(Track track, int layer, List<OtioRun> runs) {
    ObjectNode node =
        schema("Track.1", layer == 0 ? track.name() : track.name() + " " + (layer + 1));
    node.put("kind", track.kind() == TrackKind.PICTURE ? "Video" : "Audio");
    ObjectNode ours = ((ObjectNode) node.get("metadata")).putObject(KEY);
    ours.put("id", track.id());
    ours.put("kind", track.kind().name());
    if (layer > 0) {
      ours.put(LAYER, layer);
    }
    node.put("enabled", !track.muted());
    node.putNull("source_range");
    node.putArray("effects");
    node.putArray("markers");
    ArrayNode children = node.putArray("children");
    LongFunction<ObjectNode> time =
        track.kind() == TrackKind.PICTURE ? this::pictureTime : this::time;
    long at = 0;
    for (OtioRun run : runs) {
      if (run.start() > at) {
        ObjectNode gap = schema("Gap.1", "");
        gap.set("source_range", range(0, run.start() - at, time));
        gap.putArray("effects");
        gap.putArray("markers");
        children.add(gap);
      }
      children.add(clip(run, time));
      if (run.overlapAfter() > 0) {
        children.add(transition(run, time));
      }
      at = run.end();
    }
    return node;
  }

  private ObjectNode clip(OtioRun run, LongFunction<ObjectNode> time) {
    Media media = project.media(run.clip().mediaId()).orElseThrow();
    ObjectNode node = schema("Clip.1", media.title());
    ((ObjectNode) node.get("metadata")).putObject(KEY).put("id", run.clip().id());
    node.set("source_range", range(run.mediaStart(), run.length(), time));
    node.putArray("effects");
    node.putArray("markers");
    ObjectNode reference = schema("ExternalReference.1", "");
    reference.put("target_url", url(media.file()));
    reference.set("available_range", range(0, media.lengthFrames(), time));
    node.set("media_reference", reference);
    return node;
  }

  /** A file relative to the timeline's folder where it can be, else whole. */
  private String url(Path file) {
    try {
      Path near = folder.relativize(file.toAbsolutePath().normalize());
      return near.toString().replace('\\', '/');
    } catch (IllegalArgumentException onAnotherDrive) {
      return FileUrl.of(file);
    }
  }

  private static ObjectNode transition(OtioRun run, LongFunction<ObjectNode> time) {
    ObjectNode node = schema("Transition.1", "");
    node.put("transition_type", "SMPTE_Dissolve");
    node.set("in_offset", time.apply(run.overlapToItsEnd()));
    node.set("out_offset", time.apply(run.overlapFromItsEnd()));
    return node;
  }
}
