package hushrise.media;

import hushrise.core.Problem;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.sound.Progress;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Finds files again that were moved or renamed: by their content first, else by their name when
 * they last as long, preferably in a folder that is called as theirs was.
 */
final class FileFinder {

  private static final Logger LOG = LoggerFactory.getLogger(FileFinder.class);

  private static final int DEEPEST = 8;
  private static final int MOST_FILES = 50_000;

  /** How many files of the same ending are looked into, as that reads each of them. */
  private static final int MOST_READ = 500;

  /** By how much of its length a file of the same name may differ. */
  private static final double MOST_DIFFERENCE = 0.01;

  /**
   * Looks for files in folders and those within.
   *
   * @param missing what is looked for
   * @param folders where
   * @return by the ids of the media, those that were found
   */
  Map<String, Path> find(List<Media> missing, List<Path> folders, Progress progress) {
    List<Path> all = new ArrayList<>();
    folders.forEach(folder -> collect(folder, all));
    Map<String, Path> found = new HashMap<>();
    for (int i = 0; i < missing.size(); i++) {
      progress.at(i / (double) missing.size());
      Media media = missing.get(i);
      sameContent(media, all)
          .or(() -> sameName(media, all))
          .ifPresent(file -> found.put(media.id(), file));
    }
    progress.at(1);
    return found;
  }

  private static void collect(Path folder, List<Path> all) {
    try {
      all.addAll(FolderFiles.in(folder, DEEPEST, MOST_FILES - all.size()));
    } catch (IOException e) {
      LOG.debug("{} cannot be looked through", folder, e);
    }
  }

  private Optional<Path> sameContent(Media media, List<Path> all) {
    if (media.content().isEmpty()) {
      return Optional.empty();
    }
    String name = nameOf(media.file());
    List<Path> named = all.stream().filter(f -> nameOf(f).equals(name)).toList();
    List<Path> alike =
        all.stream().filter(f -> endingOf(f).equals(endingOf(media.file()))).toList();
    return Stream.concat(named.stream(), alike.stream().limit(MOST_READ))
        .filter(f -> hasContent(f, media.content().get()))
        .findFirst();
  }

  private boolean hasContent(Path file, String content) {
    try {
      return ContentKeys.of(file).equals(content);
    } catch (Problem e) {
      return false;
    }
  }

  private static Optional<Path> sameName(Media media, List<Path> all) {
    String name = nameOf(media.file());
    String folder = folderOf(media.file());
    List<Path> named =
        all.stream().filter(f -> nameOf(f).equals(name) && lastsAsLong(f, media)).toList();
    return named.stream()
        .filter(f -> folderOf(f).equals(folder))
        .findFirst()
        .or(() -> named.stream().findFirst());
  }

  private static boolean lastsAsLong(Path file, Media media) {
    try {
      double seconds = media.lengthFrames() / (double) Project.DEFAULT_SAMPLE_RATE;
      return Math.abs(Probe.of(file).seconds() - seconds)
          <= Math.max(0.1, seconds * MOST_DIFFERENCE);
    } catch (Problem e) {
      return false;
    }
  }

  private static String nameOf(Path file) {
    return String.valueOf(file.getFileName()).toLowerCase(Locale.ROOT);
  }

  private static String endingOf(Path file) {
    String name = nameOf(file);
    return name.substring(Math.max(0, name.lastIndexOf('.')));
  }

  private static String folderOf(Path file) {
    Path folder = file.getParent();
    return folder == null ? "" : nameOf(folder);
  }
}
