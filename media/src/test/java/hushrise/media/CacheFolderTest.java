package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class CacheFolderTest {

  private static final int BYTES = 100;

  @TempDir private Path folder;

  private Path keep(CacheFolder cache, String key) throws IOException {
    Path part = cache.part();
    Files.write(part, new byte[BYTES]);
    cache.keep(part, cache.file(key, ".x"));
    return cache.file(key, ".x");
  }

  @Test
  void whatWasUsedLongestAgoGoesFirst() throws IOException {
    CacheFolder cache = new CacheFolder(folder, 4 * BYTES - 1);
    Path first = keep(cache, "first");
    Path second = keep(cache, "second");
    Path third = keep(cache, "third");
    Files.setLastModifiedTime(first, FileTime.fromMillis(1_000));
    Files.setLastModifiedTime(second, FileTime.fromMillis(2_000));
    Files.setLastModifiedTime(third, FileTime.fromMillis(3_000));
    cache.touch(first);
    assertThat(keep(cache, "fourth")).exists();
    assertThat(first).exists();
    assertThat(second).doesNotExist();
    assertThat(third).exists();
  }

  /** Other threads and other processes use and remove files while room is made. */
  @Test
  void roomIsMadeWhileOthersUseTheFiles() throws IOException, InterruptedException {
    int files = 300;
    CacheFolder cache = new CacheFolder(folder, (files + 6) * BYTES);
    for (int i = 0; i < files; i++) {
      keep(cache, "old" + i);
    }
    Thread others =
        Thread.ofPlatform()
            .start(
                () -> {
                  Random random = new Random(5);
                  while (!Thread.currentThread().isInterrupted()) {
                    Path file = cache.file("old" + random.nextInt(files), ".x");
                    try {
                      Files.setLastModifiedTime(file, FileTime.fromMillis(random.nextInt(1 << 20)));
                    } catch (IOException e) {
                      Thread.onSpinWait(); // it is gone, as it may be
                    }
                  }
                });
    try {
      for (int i = 0; i < 60; i++) {
        assertThat(keep(cache, "new" + i)).exists();
      }
    } finally {
      others.interrupt();
      others.join();
    }
    try (Stream<Path> left = Files.list(folder)) {
      assertThat(left).hasSizeBetween(files - 1, files + 6);
    }
  }

  /** A folder of tens of thousands of files is not looked through for each that is kept. */
  @Test
  void whatOthersPutThereIsFoundOnceAsMuchWasKeptAsIsLeftFree() throws IOException {
    CacheFolder cache = new CacheFolder(folder, 64 * 3 * BYTES);
    keep(cache, "first");
    Path others = Files.write(cache.file("others", ".x"), new byte[64 * 3 * BYTES]);
    Files.setLastModifiedTime(others, FileTime.fromMillis(1_000));
    for (int i = 0; i < 3; i++) {
      keep(cache, "next" + i);
      assertThat(others).exists();
    }
    Path last = keep(cache, "last");
    assertThat(others).doesNotExist();
    assertThat(last).exists();
  }
}
