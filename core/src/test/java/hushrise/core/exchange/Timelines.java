package hushrise.core.exchange;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import hushrise.core.Ids;
import hushrise.core.Problem;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.sound.Progress;
import hushrise.core.time.FrameRate;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Timelines as other programs write them, after the published schemas; 25 frames a second. */
public final class Timelines {

  /** Reads no file. */
  public static final OtioReader.Taker NOTHING =
      new OtioReader.Taker() {
        @Override
        public Media take(Path file, MediaKind kind, Progress progress) {
          throw new Problem(file + " is asked for");
        }

        @Override
        public MediaKind guessKind(Path file, Progress progress) {
          throw new Problem(file + " is asked for");
        }
      };

  private static final ObjectMapper MAPPER = new ObjectMapper();

  private Timelines() {}

  /**
   * Takes files by what their names begin with: film, still, voice, horn, else a song; anything
   * lasts a minute.
   */
  static OtioReader.Taker byName() {
    return new OtioReader.Taker() {
      @Override
      public Media take(Path file, MediaKind kind, Progress progress) {
        progress.at(1);
        boolean seen = guessKind(file, progress).isSeen();
        if (kind.isSeen() && !seen) {
          throw new Problem(file + " has no picture.");
        }
        MediaKind as = seen ? guessKind(file, progress) : kind;
        Optional<FrameRate> rate =
            as == MediaKind.PICTURE ? Optional.of(new FrameRate(30, 1)) : Optional.empty();
        return new Media(
            Ids.fresh("media"), file, as, 60L * 48_000, as != MediaKind.STILL, rate, "");
      }

      @Override
      public MediaKind guessKind(Path file, Progress progress) {
        String name = String.valueOf(file.getFileName());
        return name.startsWith("film")
            ? MediaKind.PICTURE
            : name.startsWith("still")
                ? MediaKind.STILL
                : name.startsWith("voice")
                    ? MediaKind.VOICE
                    : name.startsWith("horn") ? MediaKind.EFFECT : MediaKind.MUSIC;
      }
    };
  }

  static String json(Map<String, Object> node) {
    try {
      return MAPPER.writeValueAsString(node);
    } catch (JsonProcessingException e) {
      throw new IllegalStateException(e);
    }
  }

  /** A node with a schema and further entries: name, value, name, value ... */
  static Map<String, Object> node(String schema, Object... entries) {
    Map<String, Object> node = new LinkedHashMap<>();
    node.put("OTIO_SCHEMA", schema);
    for (int i = 0; i < entries.length; i += 2) {
      node.put((String) entries[i], entries[i + 1]);
    }
    return node;
  }

  static Map<String, Object> time(double frames) {
    return node("RationalTime.1", "rate", 25, "value", frames);
  }

  static Map<String, Object> range(double start, double duration) {
    return node("TimeRange.1", "start_time", time(start), "duration", time(duration));
  }

  /** A file, and its own range where that is told. */
  static Map<String, Object> file(String url, Map<String, Object> available) {
    return node("ExternalReference.1", "target_url", url, "available_range", available);
  }

  static Map<String, Object> clip(Map<String, Object> range, Map<String, Object> reference) {
    return node(
        "Clip.2",
        "name",
        "clip",
        "source_range",
        range,
        "media_references",
        Map.of("DEFAULT_MEDIA", reference),
        "active_media_reference_key",
        "DEFAULT_MEDIA");
  }

  /** A clip of a file of a minute that begins at 0. */
  static Map<String, Object> clip(double start, double duration, String url) {
    return clip(range(start, duration), file(url, range(0, 1500)));
  }

  static Map<String, Object> gap(double duration) {
    return node("Gap.1", "source_range", range(0, duration));
  }

  static Map<String, Object> turn(double in, double out) {
    return node("Transition.1", "in_offset", time(in), "out_offset", time(out));
  }

  static Map<String, Object> marker(String name, double at) {
    return node("Marker.2", "name", name, "marked_range", range(at, 1));
  }

  @SafeVarargs
  static Map<String, Object> track(String kind, String name, Map<String, Object>... children) {
    return node("Track.1", "name", name, "kind", kind, "children", List.of(children));
  }

  @SafeVarargs
  static Map<String, Object> stack(Map<String, Object>... children) {
    return node("Stack.1", "name", "", "children", List.of(children));
  }

  @SafeVarargs
  static Map<String, Object> timeline(Map<String, Object>... tracks) {
    return node("Timeline.1", "name", "Cut 3", "tracks", stack(tracks));
  }

  /** A node with one entry more, or another one. */
  static Map<String, Object> with(Map<String, Object> node, String name, Object value) {
    Map<String, Object> changed = new LinkedHashMap<>(node);
    changed.put(name, value);
    return changed;
  }
}
