package hushrise.core.report;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import java.util.function.Function;

/** One JSON object; a number that could not be measured becomes null. */
public final class Report {

  private static final ObjectMapper MAPPER = new ObjectMapper();
  private static final double ROUNDING = 1e6;

  private final ObjectNode node = MAPPER.createObjectNode();

  public Report put(String key, double value) {
    if (Double.isFinite(value)) {
      node.put(key, Math.round(value * ROUNDING) / ROUNDING);
    } else {
      node.putNull(key);
    }
    return this;
  }

  public Report put(String key, String value) {
    node.put(key, value);
    return this;
  }

  public Report put(String key, int value) {
    node.put(key, value);
    return this;
  }

  public Report put(String key, boolean value) {
    node.put(key, value);
    return this;
  }

  public <T> Report put(String key, List<T> items, Function<T, Report> each) {
    ArrayNode array = node.putArray(key);
    items.forEach(item -> array.add(each.apply(item).node));
    return this;
  }

  public Report put(String key, Report inner) {
    node.set(key, inner.node);
    return this;
  }

  public Report put(String key, List<String> values) {
    ArrayNode array = node.putArray(key);
    values.forEach(array::add);
    return this;
  }

  public String json() {
    try {
      return MAPPER.writeValueAsString(node);
    } catch (JsonProcessingException e) {
      throw new IllegalStateException("A report that is no JSON", e);
    }
  }
}
