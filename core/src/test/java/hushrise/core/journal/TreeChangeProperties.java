package hushrise.core.journal;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;

/** What makes one tree another really does. */
class TreeChangeProperties {

  private static final JsonNodeFactory NODES = JsonNodeFactory.instance;

  @Property(tries = 3000)
  void appliedToTheOneItGivesTheOther(@ForAll long seed) {
    Random random = new Random(seed);
    JsonNode before = tree(random, 3);
    JsonNode after = random.nextBoolean() ? varied(before, random) : tree(random, 3);
    JsonNode kept = before.deepCopy();
    JsonNode made =
        TreeChange.between(before, after)
            .map(change -> TreeChange.applied(before, change))
            .orElse(before);
    assertThat(made).isEqualTo(after);
    assertThat(before).as("the tree before stays as it is").isEqualTo(kept);
  }

  private static JsonNode tree(Random random, int depth) {
    return switch (random.nextInt(depth > 0 ? 6 : 3)) {
      case 0 -> NODES.numberNode(random.nextInt(4));
      case 1 -> NODES.textNode("t" + random.nextInt(4));
      case 2 -> NODES.nullNode();
      case 3 -> {
        ObjectNode object = NODES.objectNode();
        for (int i = random.nextInt(4); i > 0; i--) {
          object.set("f" + random.nextInt(5), tree(random, depth - 1));
        }
        yield object;
      }
      case 4 -> {
        ArrayNode list = NODES.arrayNode();
        for (int i = random.nextInt(5); i > 0; i--) {
          list.add(tree(random, depth - 1));
        }
        yield list;
      }
      default -> {
        ArrayNode things = NODES.arrayNode();
        for (int i = random.nextInt(5); i > 0; i--) {
          ObjectNode thing = NODES.objectNode();
          thing.put("id", "i" + random.nextInt(8));
          thing.set("x", tree(random, depth - 1));
          things.add(thing);
        }
        yield things;
      }
    };
  }

  /** A tree like another one, with something else here and there. */
  private static JsonNode varied(JsonNode from, Random random) {
    if (random.nextInt(8) == 0) {
      return tree(random, 2);
    }
    if (from instanceof ObjectNode object) {
      ObjectNode made = NODES.objectNode();
      object
          .properties()
          .forEach(
              field -> {
                if (random.nextInt(8) > 0) {
                  made.set(
                      field.getKey(),
                      field.getKey().equals("id")
                          ? field.getValue()
                          : varied(field.getValue(), random));
                }
              });
      return made;
    }
    if (from instanceof ArrayNode list) {
      ArrayNode made = NODES.arrayNode();
      list.forEach(
          thing -> {
            if (random.nextInt(6) > 0) {
              made.insert(random.nextInt(made.size() + 1), varied(thing, random));
            }
          });
      return made;
    }
    return from;
  }
}
