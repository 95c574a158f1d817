package hushrise.media;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.nio.file.Path;

/** Keys of files' contents, worked out once in a process for each file as it is. */
final class ContentKeys {

  private static final long KEPT = 2_000;

  private static final Cache<FileIdentity, String> KNOWN =
      Caffeine.newBuilder().maximumSize(KEPT).build();

  private ContentKeys() {}

  /**
   * The key of a file's content.
   *
   * @throws hushrise.core.Problem when it cannot be read
   */
  static String of(FileIdentity file) {
    return KNOWN.get(file, f -> CacheFolder.keyOf(f.path()));
  }

  /** As {@link #of(FileIdentity)}, for whatever lies under a name now. */
  static String of(Path file) {
    return of(FileIdentity.of(file));
  }

  /** Takes the key of a file from somebody who has worked it out. */
  static void learn(FileIdentity file, String key) {
    KNOWN.put(file, key);
  }
}
