package hushrise.core.project;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.MissingNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.lang.reflect.ParameterizedType;
import java.lang.reflect.RecordComponent;
import java.lang.reflect.Type;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;

/**
 * Fields of a project file that this version does not know. They are kept beside the project and
 * put back into their places when it is saved: objects in lists are found again by their {@code
 * id}. What this version knows and does not write has been taken away, and stays away.
 *
 * @param tree the file as it was read
 */
public record UnknownFields(JsonNode tree) {

  public static final UnknownFields NONE = new UnknownFields(MissingNode.getInstance());

  /** The parts that a record is written with, by name; none of anything else. */
  private static final ClassValue<Map<String, Type>> PARTS =
      new ClassValue<>() {
        @Override
        protected Map<String, Type> computeValue(Class<?> type) {
          return !type.isRecord()
              ? Map.of()
              : Arrays.stream(type.getRecordComponents())
                  .collect(
                      Collectors.toMap(RecordComponent::getName, RecordComponent::getGenericType));
        }
      };

  /** Adds to {@code written} every field of the read file that no project has. */
  public void restoreInto(JsonNode written) {
    restore(Project.class, tree, written);
  }

  private static void restore(Type type, JsonNode read, JsonNode written) {
    if (read instanceof ObjectNode from && written instanceof ObjectNode to) {
      Map<String, Type> parts = partsOf(type);
      from.properties()
          .forEach(
              field -> {
                Optional<Type> part = Optional.ofNullable(parts.get(field.getKey()));
                if (to.has(field.getKey())) {
                  restore(part.orElse(Object.class), field.getValue(), to.get(field.getKey()));
                } else if (part.isEmpty()) {
                  to.set(field.getKey(), field.getValue());
                }
              });
    } else if (read instanceof ArrayNode from && written instanceof ArrayNode to) {
      Type entry = within(type);
      Map<JsonNode, JsonNode> sources = byId(from);
      to.forEach(
          target ->
              restore(
                  entry,
                  sources.getOrDefault(target.path("id"), MissingNode.getInstance()),
                  target));
    }
  }

  private static Map<JsonNode, JsonNode> byId(ArrayNode list) {
    Map<JsonNode, JsonNode> found = new HashMap<>();
    for (JsonNode entry : list) {
      if (entry.hasNonNull("id")) {
        found.putIfAbsent(entry.get("id"), entry);
      }
    }
    return found;
  }

  private static Map<String, Type> partsOf(Type type) {
    return switch (type) {
      case Class<?> plain -> PARTS.get(plain);
      case ParameterizedType of when of.getRawType().equals(Optional.class) ->
          partsOf(within(type));
      default -> Map.of();
    };
  }

  /** What a list or an optional is of. */
  private static Type within(Type type) {
    return type instanceof ParameterizedType of && of.getActualTypeArguments().length == 1
        ? of.getActualTypeArguments()[0]
        : Object.class;
  }
}
