package hushrise.media;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.nio.file.Path;

/** Keys of files' contents, worked out once for each file as it is. */
final class ContentKeys {

  private static final long KEPT = 2_000;

  private final Cache<FileIdentity, String> known = Caffeine.newBuilder().maximumSize(KEPT).build();

  /**
   * The key of a file's content.
   *
   * @throws hushrise.core.Problem when it cannot be read
   */
  String of(FileIdentity file) {
    return known.get(file, f -> CacheFolder.keyOf(f.path()));
  }

  /** As {@link #of(FileIdentity)}, for whatever lies under a name now. */
  String of(Path file) {
    return of(FileIdentity.of(file));
  }
}
