package hushrise.media;

import java.io.IOException;
import java.nio.file.FileVisitOption;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * The files of a folder and of those within, but for hidden ones. A folder within that may not be
 * opened, as a disk has some of, is passed over.
 */
public final class FolderFiles extends SimpleFileVisitor<Path> {

  private static final Logger LOG = LoggerFactory.getLogger(FolderFiles.class);

  private final Path top;
  private final int most;
  private final List<Path> files = new ArrayList<>();

  FolderFiles(Path top, int most) {
    this.top = top;
    this.most = most;
  }

  /**
   * Lists them.
   *
   * @param deepest how many levels are gone down, the folder's own files being the first
   * @param most how many files are enough
   * @return in no order
   * @throws IOException when the folder itself cannot be opened
   */
  public static List<Path> in(Path folder, int deepest, int most) throws IOException {
    Path top = folder.toAbsolutePath().normalize();
    FolderFiles found = new FolderFiles(top, most);
    Files.walkFileTree(top, EnumSet.noneOf(FileVisitOption.class), deepest, found);
    return found.files;
  }

  @Override
  public FileVisitResult preVisitDirectory(Path folder, BasicFileAttributes facts) {
    return isHidden(folder) ? FileVisitResult.SKIP_SUBTREE : FileVisitResult.CONTINUE;
  }

  @Override
  public FileVisitResult visitFile(Path file, BasicFileAttributes facts) {
    if (Files.isRegularFile(file) && !isHidden(file)) {
      files.add(file);
    }
    return files.size() < most ? FileVisitResult.CONTINUE : FileVisitResult.TERMINATE;
  }

  @Override
  public FileVisitResult visitFileFailed(Path file, IOException e) throws IOException {
    if (file.equals(top)) {
      throw e;
    }
    LOG.debug("{} is passed over", file, e);
    return FileVisitResult.CONTINUE;
  }

  @Override
  public FileVisitResult postVisitDirectory(Path folder, IOException e) {
    if (e != null) {
      LOG.debug("{} could not be read to its end", folder, e);
    }
    return FileVisitResult.CONTINUE;
  }

  private boolean isHidden(Path path) {
    return !path.equals(top) && path.getFileName().toString().startsWith(".");
  }
}
