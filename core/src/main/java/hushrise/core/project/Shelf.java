package hushrise.core.project;

import hushrise.core.project.media.Media;
import java.util.AbstractList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.RandomAccess;

/** A project's media in their order, each found by its id at once: every clip asks for its own. */
final class Shelf extends AbstractList<Media> implements RandomAccess {

  private final List<Media> items;
  private final Map<String, Media> byId;

  private Shelf(List<Media> items) {
    this.items = List.copyOf(items);
    byId = HashMap.newHashMap(items.size());
    items.forEach(m -> byId.putIfAbsent(m.id(), m));
  }

  static Shelf of(List<Media> items) {
    return items instanceof Shelf shelf ? shelf : new Shelf(items);
  }

  Optional<Media> item(String id) {
    return Optional.ofNullable(byId.get(id));
  }

  @Override
  public Media get(int index) {
    return items.get(index);
  }

  @Override
  public int size() {
    return items.size();
  }
}
