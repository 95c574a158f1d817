package hushrise.core.store;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import hushrise.core.project.Limits;
import hushrise.core.project.Project;
import hushrise.core.project.UnknownFields;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.LevelLine;
import hushrise.core.project.level.Rise;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Take;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.FrameRate;
import java.lang.reflect.RecordComponent;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.function.ToLongFunction;

/**
 * Whether the JSON of a project can be believed: every number in the range of its unit, which its
 * name ends in, lists of a size that people make, ids that are there once and refer to something.
 * Files come from strangers, and what gets past here is trusted by everything after.
 */
final class ProjectCheck {

  /** The most that anything is turned up, in dB. */
  static final double MOST_DB = 24;

  private static final double LEAST_DB = -1000;

  /** A difference this large stands for one that is never reached. */
  private static final double MOST_LU = 1000;

  private static final int LEAST_RATE = 8_000;
  private static final int MOST_RATE = 192_000;
  private static final double MOST_SECONDS = 3600;
  private static final int LONGEST_TEXT = 100_000;
  private static final int LONGEST_ID = 200;

  private static final int LONGEST_LIST = 1_000_000;
  private static final int DEEPEST = 32;

  /** The parts of each kind of record; asking for them anew takes most of a check. */
  private static final ClassValue<RecordComponent[]> PARTS =
      new ClassValue<>() {
        @Override
        protected RecordComponent[] computeValue(Class<?> type) {
          return type.getRecordComponents();
        }
      };

  private final long mostFrames;

  private ProjectCheck(long mostFrames) {
    this.mostFrames = mostFrames;
  }

  /** What is wrong, and where; becomes part of a sentence. */
  static final class Wrong extends IllegalArgumentException {
    Wrong(String what) {
      super(what);
    }
  }

  /**
   * Checks the file's tree before anything is made of it.
   *
   * @throws Wrong with the place, when something cannot be believed
   */
  static void check(JsonNode tree) {
    JsonNode rate = tree.path("sampleRate");
    if (!rate.isMissingNode()
        && !(rate.isIntegralNumber()
            && rate.canConvertToInt()
            && rate.intValue() >= LEAST_RATE
            && rate.intValue() <= MOST_RATE)) {
      throw new Wrong(
          "sampleRate is %s, which is no rate from %d to %d Hz"
              .formatted(shown(rate), LEAST_RATE, MOST_RATE));
    }
    if (tree.path("tracks").size() > Limits.MOST_TRACKS) {
      throw new Wrong("there are %d tracks".formatted(tree.path("tracks").size()));
    }
    long framesASecond = rate.asLong(Project.DEFAULT_SAMPLE_RATE);
    new ProjectCheck(Limits.MOST_HOURS * 3600L * framesASecond).object((ObjectNode) tree, "", 0);
  }

  private void value(String name, JsonNode value, String place, int depth) {
    if (depth > DEEPEST) {
      throw new Wrong(place + " lies deeper than anything in a project");
    }
    if (value instanceof ObjectNode object) {
      object(object, place + ".", depth);
    } else if (value instanceof ArrayNode list) {
      list(name, list, place, depth);
    } else if (value.isTextual() && value.textValue().length() > longest(name)) {
      throw new Wrong("%s is a text of %d characters".formatted(place, value.textValue().length()));
    } else if (!value.isNull()) {
      number(name, value, place);
    }
  }

  private static int longest(String name) {
    return switch (name) {
      case "script" -> Project.LONGEST_SCRIPT;
      default -> name.equals("id") || name.endsWith("Id") ? LONGEST_ID : LONGEST_TEXT;
    };
  }

  private void object(ObjectNode object, String place, int depth) {
    object
        .properties()
        .forEach(
            field -> value(field.getKey(), field.getValue(), place + field.getKey(), depth + 1));
    if (object.has("numerator") && object.has("denominator")) {
      double rate = object.get("numerator").asDouble() / object.get("denominator").asDouble();
      if (!(rate >= FrameRate.SLOWEST && rate <= FrameRate.FASTEST)) {
        throw new Wrong(
            String.format(
                Locale.ROOT,
                "%s is no rate from %s to %.0f pictures a second",
                place.substring(0, Math.max(0, place.length() - 1)),
                FrameRate.SLOWEST,
                FrameRate.FASTEST));
      }
    }
  }

  private void list(String name, ArrayNode list, String place, int depth) {
    if (list.size() > LONGEST_LIST) {
      throw new Wrong("%s has %d entries".formatted(place, list.size()));
    }
    Set<String> ids = new HashSet<>();
    for (int i = 0; i < list.size(); i++) {
      JsonNode entry = list.get(i);
      String at = "%s[%d]".formatted(place, i);
      if (entry.isNull()) {
        throw new Wrong(at + " is empty");
      }
      if (entry.path("id").isTextual() && !ids.add(entry.get("id").textValue())) {
        throw new Wrong(
            "%s has the id %s, which another has too".formatted(at, shown(entry.get("id"))));
      }
      value(name, entry, at, depth + 1);
    }
  }

  private void number(String name, JsonNode value, String place) {
    if (name.endsWith("Db")) {
      between(value, place, LEAST_DB, MOST_DB, "dB");
    } else if (name.endsWith("Lu")) {
      between(value, place, -MOST_LU, MOST_LU, "LU");
    } else if (name.endsWith("Frame") || name.endsWith("Frames") || name.equals("frame")) {
      if (!value.isIntegralNumber() || !value.canConvertToLong()) {
        throw new Wrong("%s is %s, which is no number of frames".formatted(place, shown(value)));
      }
      if (name.endsWith("Frames") && value.longValue() < 0) {
        throw new Wrong("%s is %s, which is no length".formatted(place, shown(value)));
      }
      if (value.longValue() > mostFrames || value.longValue() < -mostFrames) {
        throw new Wrong(
            "%s is %s frames, more than %d hours"
                .formatted(place, value.longValue(), Limits.MOST_HOURS));
      }
    } else if (name.endsWith("Seconds")) {
      between(value, place, -MOST_SECONDS, MOST_SECONDS, "seconds");
    } else if (name.equals("pan")) {
      between(value, place, -1, 1, "(left to right)");
    } else if (value.isNumber() && !Double.isFinite(value.doubleValue())) {
      throw new Wrong(place + " is no number");
    }
  }

  private static void between(
      JsonNode value, String place, double least, double most, String unit) {
    if (!value.isNumber() || !(value.doubleValue() >= least && value.doubleValue() <= most)) {
      throw new Wrong(
          String.format(
              Locale.ROOT,
              "%s is %s, which is not between %.0f and %.0f %s",
              place,
              shown(value),
              least,
              most,
              unit));
    }
  }

  private static String shown(JsonNode value) {
    String text = value.toString();
    return text.length() <= 40 ? text : text.substring(0, 40) + "...";
  }

  /**
   * Checks what was made of the tree: nothing is missing, and what refers to something else finds
   * it.
   *
   * @throws Wrong with the place, when it is not there
   */
  static void check(Project project) {
    requireWhole(project, "");
    for (int t = 0; t < project.tracks().size(); t++) {
      Track track = project.tracks().get(t);
      String place = "tracks[" + t + "]";
      requireFewAtOnce(track.clips(), Clip::startFrame, Clip::endFrame, place + ".clips");
      requireFewAtOnce(track.hushes(), Hush::startFrame, Hush::endFrame, place + ".hushes");
      requireFewAtOnce(track.rises(), Rise::startFrame, Rise::endFrame, place + ".rises");
    }
    Set<String> media = new HashSet<>();
    project.shelf().forEach(item -> media.add(item.id()));
    List<Track> tracks = project.tracks();
    for (int t = 0; t < tracks.size(); t++) {
      for (Clip clip : tracks.get(t).clips()) {
        if (!media.contains(clip.mediaId())) {
          throw new Wrong(
              "the clip %s of tracks[%d] plays unknown media %s"
                  .formatted(clip.id(), t, clip.mediaId()));
        }
        for (Take take : clip.otherTakes()) {
          if (!media.contains(take.mediaId())) {
            throw new Wrong(
                "the clip %s of tracks[%d] has a take of unknown media %s"
                    .formatted(clip.id(), t, take.mediaId()));
          }
        }
      }
    }
  }

  /** Lets a list pass of which no more lie over one another than anybody lays there. */
  private static <T> void requireFewAtOnce(
      List<T> list, ToLongFunction<T> start, ToLongFunction<T> end, String place) {
    OptionalLong crowd = Limits.crowd(list, start, end);
    if (crowd.isPresent()) {
      throw new Wrong(
          "%s: more than %d of them lie over one another at frame %d"
              .formatted(place, Limits.MOST_AT_ONCE, crowd.getAsLong()));
    }
  }

  /** Lets a record pass in which nothing is missing, nor in anything within it. */
  private static void requireWhole(Object value, String place) {
    switch (value) {
      case null -> throw new Wrong(place + " is missing");
      case UnknownFields unknown -> {}
      case Record whole -> {
        for (RecordComponent part : PARTS.get(whole.getClass())) {
          requireWhole(
              partOf(whole, part), place.isEmpty() ? part.getName() : place + "." + part.getName());
        }
      }
      case LevelLine line -> requireWhole(line.keyframes(), place);
      case List<?> list -> {
        for (int i = 0; i < list.size(); i++) {
          requireWhole(list.get(i), "%s[%d]".formatted(place, i));
        }
      }
      case Optional<?> optional -> optional.ifPresent(inner -> requireWhole(inner, place));
      default -> {}
    }
  }

  private static Object partOf(Record whole, RecordComponent part) {
    try {
      return part.getAccessor().invoke(whole);
    } catch (ReflectiveOperationException e) {
      throw new IllegalStateException("A record that cannot be read", e);
    }
  }
}
