package hushrise.core.exchange;

import com.fasterxml.jackson.databind.JsonNode;
import hushrise.core.OneLine;
import hushrise.core.project.media.TrackKind;

/** What a node of a timeline says of itself. */
final class OtioNode {

  private static final int LONGEST_TEXT = 1000;

  private OtioNode() {}

  /** Whether it is of a schema, of any version. */
  static boolean is(JsonNode node, String schema) {
    return node.path("OTIO_SCHEMA").asText("").startsWith(schema + ".");
  }

  /** A text that a person gave it; empty without one. */
  static String text(JsonNode node, String key) {
    return OneLine.of(node.path(key).asText(""), LONGEST_TEXT);
  }

  /** Whether it is to be seen or heard at all. */
  static boolean isOn(JsonNode item) {
    return item.path("enabled").asBoolean(true);
  }

  /** Whether it can hold what belongs to a kind of track. */
  static boolean carries(JsonNode composition, TrackKind kind) {
    boolean seen = text(composition, "kind").equals("Video");
    return !is(composition, "Track") || seen == (kind == TrackKind.PICTURE);
  }

  /** What says which file a clip plays; of several the one in use. */
  static JsonNode referenceOf(JsonNode clip) {
    JsonNode several = clip.path("media_references");
    return several.isObject()
        ? several.path(clip.path("active_media_reference_key").asText("DEFAULT_MEDIA"))
        : clip.path("media_reference");
  }
}
