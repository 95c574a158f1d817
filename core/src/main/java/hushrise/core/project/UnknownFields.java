package hushrise.core.project;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;

/**
 * Fields of a project file that this version does not know. They are kept beside the project and
 * put back into their places when it is saved: objects in lists are found again by their {@code
 * id}.
 *
 * @param tree the file as it was read
 */
public record UnknownFields(JsonNode tree) {

  public static final UnknownFields NONE =
      new UnknownFields(com.fasterxml.jackson.databind.node.MissingNode.getInstance());

  /** Adds to {@code written} every field of the read file that it lacks. */
  public void restoreInto(JsonNode written) {
    restore(tree, written);
  }

  private static void restore(JsonNode read, JsonNode written) {
    if (read instanceof ObjectNode from && written instanceof ObjectNode to) {
      from.properties()
          .forEach(
              field -> {
                if (!to.has(field.getKey())) {
                  to.set(field.getKey(), field.getValue());
                } else {
                  restore(field.getValue(), to.get(field.getKey()));
                }
              });
    } else if (read instanceof ArrayNode from && written instanceof ArrayNode to) {
      to.forEach(target -> from.forEach(source -> restoreWhereSame(source, target)));
    }
  }

  private static void restoreWhereSame(JsonNode source, JsonNode target) {
    if (source.hasNonNull("id") && source.get("id").equals(target.get("id"))) {
      restore(source, target);
    }
  }
}
