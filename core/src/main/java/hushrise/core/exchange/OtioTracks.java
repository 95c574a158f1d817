package hushrise.core.exchange;

import com.fasterxml.jackson.databind.JsonNode;
import hushrise.core.project.media.TrackKind;
import java.util.EnumMap;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Pattern;

/**
 * What another program's sound tracks are for: their names say it, or the files that lie on them.
 */
final class OtioTracks {

  private static final Pattern VOICE =
      Pattern.compile("voice|narrat|speech|dialog|comment|interview|\\bv\\.?o\\b");

  private static final Pattern EFFECTS = Pattern.compile("effect|foley|ambien|atmo|\\bs?fx\\b");

  private static final Pattern MUSIC = Pattern.compile("music|song|score|soundtrack");

  private OtioTracks() {}

  /** What a sound track is for; music where nothing tells. */
  static TrackKind kindOf(JsonNode track, OtioShelf shelf) {
    String ours = track.path("metadata").path(Otio.KEY).path("kind").asText("");
    for (TrackKind kind : TrackKind.values()) {
      if (kind.sounds() && kind.name().equals(ours)) {
        return kind;
      }
    }
    String words = OtioNode.text(track, "name").toLowerCase(Locale.ROOT);
    if (VOICE.matcher(words).find()) {
      return TrackKind.VOICE;
    }
    if (EFFECTS.matcher(words).find()) {
      return TrackKind.EFFECTS;
    }
    return MUSIC.matcher(words).find() ? TrackKind.MUSIC : kindOfFiles(track, shelf);
  }

  private static TrackKind kindOfFiles(JsonNode track, OtioShelf shelf) {
    Map<TrackKind, Integer> clips = new EnumMap<>(TrackKind.class);
    count(track, shelf, clips);
    return clips.entrySet().stream()
        .max(Map.Entry.comparingByValue())
        .map(Map.Entry::getKey)
        .orElse(TrackKind.MUSIC);
  }

  private static void count(JsonNode node, OtioShelf shelf, Map<TrackKind, Integer> clips) {
    if (OtioNode.is(node, "Clip")) {
      shelf.kindOf(node).ifPresent(kind -> clips.merge(kind, 1, Integer::sum));
    }
    node.path("children").forEach(child -> count(child, shelf, clips));
  }

  static String nameOf(JsonNode track, TrackKind kind) {
    String name = OtioNode.text(track, "name");
    if (!name.isEmpty()) {
      return name;
    }
    return switch (kind) {
      case PICTURE -> "Picture";
      case VOICE -> "Narration";
      case MUSIC -> "Music";
      case EFFECTS -> "Effects";
      case CAMERA -> "Camera sound";
    };
  }
}
