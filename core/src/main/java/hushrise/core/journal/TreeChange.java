package hushrise.core.journal;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * What makes one JSON tree another, as a JSON tree. Objects are changed field by field, lists of
 * things with an {@code id} thing by thing, other lists between the beginning and the end that
 * stay.
 *
 * <p>A change has one of these forms: {@code {"is": value}}; {@code {"fields": {name: change},
 * "gone": [name]}}; {@code {"things": {id: change}, "order": [id]}}, where {@code order} is left
 * out while it stays; {@code {"from": n, "out": n, "in": [value]}}.
 */
final class TreeChange {

  private static final String IS = "is";
  private static final String FIELDS = "fields";
  private static final String GONE = "gone";
  private static final String THINGS = "things";
  private static final String ORDER = "order";
  private static final String FROM = "from";
  private static final String OUT = "out";
  private static final String IN = "in";

  private static final JsonNodeFactory NODES = JsonNodeFactory.instance;

  private TreeChange() {}

  /** What makes {@code before} {@code after}; empty when they are equal. */
  static Optional<ObjectNode> between(JsonNode before, JsonNode after) {
    if (before.equals(after)) {
      return Optional.empty();
    }
    if (before instanceof ObjectNode from && after instanceof ObjectNode to) {
      return Optional.of(ofFields(from, to));
    }
    if (before instanceof ArrayNode from && after instanceof ArrayNode to) {
      Optional<Map<String, JsonNode>> old = byId(from);
      Optional<Map<String, JsonNode>> now = byId(to);
      return Optional.of(
          old.isPresent() && now.isPresent() ? ofThings(old.get(), now.get()) : ofList(from, to));
    }
    return Optional.of(whole(after));
  }

  private static ObjectNode whole(JsonNode value) {
    return NODES.objectNode().set(IS, value);
  }

  private static ObjectNode ofFields(ObjectNode from, ObjectNode to) {
    ObjectNode fields = NODES.objectNode();
    to.properties()
        .forEach(
            field ->
                change(from.get(field.getKey()), field.getValue())
                    .ifPresent(c -> fields.set(field.getKey(), c)));
    ObjectNode change = NODES.objectNode();
    change.set(FIELDS, fields);
    ArrayNode gone = NODES.arrayNode();
    from.fieldNames()
        .forEachRemaining(
            name -> {
              if (!to.has(name)) {
                gone.add(name);
              }
            });
    if (!gone.isEmpty()) {
      change.set(GONE, gone);
    }
    return change;
  }

  private static Optional<ObjectNode> change(JsonNode from, JsonNode to) {
    return from == null ? Optional.of(whole(to)) : between(from, to);
  }

  private static ObjectNode ofThings(Map<String, JsonNode> from, Map<String, JsonNode> to) {
    ObjectNode things = NODES.objectNode();
    to.forEach((id, thing) -> change(from.get(id), thing).ifPresent(c -> things.set(id, c)));
    ObjectNode change = NODES.objectNode();
    change.set(THINGS, things);
    if (!List.copyOf(from.keySet()).equals(List.copyOf(to.keySet()))) {
      ArrayNode order = NODES.arrayNode();
      to.keySet().forEach(order::add);
      change.set(ORDER, order);
    }
    return change;
  }

  private static ObjectNode ofList(ArrayNode from, ArrayNode to) {
    int most = Math.min(from.size(), to.size());
    int head = 0;
    while (head < most && from.get(head).equals(to.get(head))) {
      head++;
    }
    int tail = 0;
    while (tail < most - head
        && from.get(from.size() - 1 - tail).equals(to.get(to.size() - 1 - tail))) {
      tail++;
    }
    ArrayNode in = NODES.arrayNode();
    for (int i = head; i < to.size() - tail; i++) {
      in.add(to.get(i));
    }
    ObjectNode change = NODES.objectNode();
    change.put(FROM, head);
    change.put(OUT, from.size() - tail - head);
    change.set(IN, in);
    return change;
  }

  /** Things by their ids, in their order; empty when any has none, or two have the same. */
  private static Optional<Map<String, JsonNode>> byId(ArrayNode list) {
    Map<String, JsonNode> things = new LinkedHashMap<>();
    for (JsonNode thing : list) {
      if (!thing.path("id").isTextual() || things.put(thing.get("id").textValue(), thing) != null) {
        return Optional.empty();
      }
    }
    return Optional.of(things);
  }

  /**
   * The tree that a change makes of {@code before}, which stays as it is.
   *
   * @throws IllegalArgumentException when it is no change of that tree
   */
  static JsonNode applied(JsonNode before, JsonNode change) {
    if (change.has(IS)) {
      return change.get(IS);
    }
    if (change.path(FIELDS) instanceof ObjectNode fields && before instanceof ObjectNode from) {
      return withFields(from, fields, change.path(GONE));
    }
    if (change.path(THINGS) instanceof ObjectNode things && before instanceof ArrayNode from) {
      return withThings(from, things, change.path(ORDER));
    }
    if (change.path(IN) instanceof ArrayNode in && before instanceof ArrayNode from) {
      return spliced(from, change.path(FROM).asInt(-1), change.path(OUT).asInt(-1), in);
    }
    throw new IllegalArgumentException("no change of this tree");
  }

  private static JsonNode withFields(ObjectNode from, ObjectNode fields, JsonNode gone) {
    ObjectNode made = NODES.objectNode();
    made.setAll(from);
    gone.forEach(name -> made.remove(name.asText()));
    fields
        .properties()
        .forEach(f -> made.set(f.getKey(), made(from.get(f.getKey()), f.getValue())));
    return made;
  }

  private static JsonNode withThings(ArrayNode from, ObjectNode things, JsonNode order) {
    Map<String, JsonNode> all =
        byId(from).orElseThrow(() -> new IllegalArgumentException("things without ids"));
    List<String> ids = new ArrayList<>();
    if (order.isArray()) {
      order.forEach(id -> ids.add(id.asText()));
    } else {
      ids.addAll(all.keySet());
    }
    ArrayNode made = NODES.arrayNode();
    for (String id : ids) {
      JsonNode thing = things.has(id) ? made(all.get(id), things.get(id)) : all.get(id);
      if (thing == null) {
        throw new IllegalArgumentException("no thing " + id);
      }
      made.add(thing);
    }
    return made;
  }

  private static JsonNode made(JsonNode before, JsonNode change) {
    return applied(before == null ? NODES.nullNode() : before, change);
  }

  private static JsonNode spliced(ArrayNode before, int from, int out, ArrayNode in) {
    if (from < 0 || out < 0 || from + out > before.size()) {
      throw new IllegalArgumentException("no such part of a list");
    }
    ArrayNode made = NODES.arrayNode();
    for (int i = 0; i < from; i++) {
      made.add(before.get(i));
    }
    made.addAll(in);
    for (int i = from + out; i < before.size(); i++) {
      made.add(before.get(i));
    }
    return made;
  }
}
