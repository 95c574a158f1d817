package hushrise.media;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.datatype.jdk8.Jdk8Module;
import hushrise.core.store.AtomicFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * What was found out about a file, kept in the cache as JSON. A damaged one is made anew; one that
 * cannot be written is not kept.
 */
final class FoundFile<T> {

  private static final Logger LOG = LoggerFactory.getLogger(FoundFile.class);

  private final CacheFolder cache;
  private final Class<T> type;
  private final String ending;
  private final ObjectMapper json = new ObjectMapper().registerModule(new Jdk8Module());

  /**
   * @param ending what its name ends in, with the version of how it was found
   */
  FoundFile(CacheFolder cache, Class<T> type, String ending) {
    this.cache = cache;
    this.type = type;
    this.ending = ending;
  }

  Optional<T> read(String key) {
    Path stored = cache.file(key, ending);
    if (!Files.exists(stored)) {
      return Optional.empty();
    }
    try {
      T found = json.readValue(stored.toFile(), type);
      cache.touch(stored);
      return Optional.ofNullable(found);
    } catch (IOException e) {
      LOG.debug("{} is damaged and made anew", stored, e);
      AtomicFile.discard(stored);
      return Optional.empty();
    }
  }

  void write(String key, T found) {
    Path part = cache.part();
    try {
      json.writeValue(part.toFile(), found);
      cache.keep(part, cache.file(key, ending));
    } catch (IOException e) {
      LOG.warn("What was found out about a file could not be kept in {}", part.getParent(), e);
      AtomicFile.discard(part);
    }
  }
}
