package hushrise.core.store;

import hushrise.core.Problem;
import hushrise.core.sound.Progress;
import java.io.EOFException;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipInputStream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Unpacks a zip that {@link ProjectCollection} has made, or that somebody has packed the like of.
 * It may come from anybody: what lies in it lands within one new folder or nowhere, and takes no
 * more room than such a zip can need.
 */
public final class CollectedZip {

  private static final Logger LOG = LoggerFactory.getLogger(CollectedZip.class);
  private static final String ENDING = ".zip";
  private static final int BUFFER = 1 << 16;
  private static final int MOST_FILES = 10_000;
  private static final int MOST_NAME = 1_000;

  /** Sound, pictures and text all take more room in a zip than this part of what they are. */
  private static final long MOST_TIMES = 100;

  /** What any zip may unpack to, as a sound that is silent packs to next to nothing. */
  private static final long ANY_BYTES = 256L << 20;

  /** What is left free on the disk. */
  private static final long RESERVE_BYTES = 64L << 20;

  /** What no name within a folder has: control characters, and parts that lead elsewhere. */
  private static final Pattern BAD_NAME = Pattern.compile("\\p{Cntrl}|(^|/)\\.{0,2}(/|$)");

  private final Path zip;
  private final Path folder;
  private final Progress progress;
  private long packed;
  private long read;
  private long written;
  private long most;

  private CollectedZip(Path zip, Path folder, Progress progress) {
    this.zip = zip;
    this.folder = folder;
    this.progress = progress;
  }

  /** Whether a file is called like a zip. */
  public static boolean isCalled(Path file) {
    return file.toString().toLowerCase(Locale.ROOT).endsWith(ENDING);
  }

  /** Whether a file is one by its first bytes. */
  static boolean isZip(byte[] bytes) {
    return bytes.length > 3 && bytes[0] == 'P' && bytes[1] == 'K' && bytes[2] == 3 && bytes[3] == 4;
  }

  /**
   * Unpacks one.
   *
   * @param target the folder to make; one that is there must be empty. A folder in the zip that
   *     everything lies in becomes this one
   * @return the project's file in it
   * @throws Problem when it is none, holds no project or more than one, names places outside of
   *     itself, takes more room than is believable or there, or cannot be read or written; nothing
   *     is left behind then
   */
  public static Path unpack(Path zip, Path target, Progress progress) {
    ProjectCollection.requireEmpty(target);
    if (!Files.isRegularFile(zip)) {
      throw new Problem("There is no file %s: check its name and folder.".formatted(zip));
    }
    Path part = AtomicFile.folderBeside(target);
    try {
      Path project = new CollectedZip(zip, part, progress).unpack();
      Path all = withoutOuterFolders(part);
      Files.deleteIfExists(target);
      AtomicFile.moveInto(all, target);
      AtomicFile.discard(part);
      progress.at(1);
      return target.resolve(all.relativize(project).toString());
    } catch (IOException e) {
      AtomicFile.discard(part);
      throw new Problem(
          "%s cannot be unpacked into %s (%s): check that the disk has room and that you may write there."
              .formatted(zip, target, e.getMessage()),
          e);
    } catch (RuntimeException e) {
      AtomicFile.discard(part);
      throw e;
    }
  }

  /** The innermost folder that everything lies in. */
  private static Path withoutOuterFolders(Path folder) throws IOException {
    try (Stream<Path> files = Files.list(folder)) {
      List<Path> first = files.limit(2).toList();
      return first.size() == 1 && Files.isDirectory(first.getFirst())
          ? withoutOuterFolders(first.getFirst())
          : folder;
    }
  }

  private Path unpack() throws IOException {
    packed = Files.size(zip);
    long usable = Files.getFileStore(folder).getUsableSpace();
    long room = usable > 0 ? usable - RESERVE_BYTES : Long.MAX_VALUE; // not every disk tells
    most = Math.min(room, Math.max(ANY_BYTES, MOST_TIMES * packed));
    int files = 0;
    try (ZipInputStream in = new ZipInputStream(counted(Files.newInputStream(zip)))) {
      for (ZipEntry entry = in.getNextEntry(); entry != null; entry = in.getNextEntry()) {
        if (++files > MOST_FILES) {
          throw new Problem(
              "%s holds over %d files, which no project does.".formatted(zip, MOST_FILES));
        }
        if (!entry.isDirectory() && !isOfTheSystem(entry.getName())) {
          write(in, place(entry.getName()));
        }
      }
    } catch (EOFException | ZipException e) {
      throw new Problem(
          "%s is damaged or cut short: copy it again from its source.".formatted(zip), e);
    }
    return project();
  }

  private InputStream counted(InputStream in) {
    return new FilterInputStream(in) {
      @Override
      public int read() throws IOException {
        int next = in.read();
        read += next < 0 ? 0 : 1;
        return next;
      }

      @Override
      public int read(byte[] into, int offset, int length) throws IOException {
        int n = in.read(into, offset, length);
        read += Math.max(0, n);
        progress.at(0.99 * read / Math.max(1, packed));
        return n;
      }
    };
  }

  /** What file managers add of their own when they pack. */
  private static boolean isOfTheSystem(String name) {
    return name.startsWith("__MACOSX/") || name.endsWith("/.DS_Store") || name.equals(".DS_Store");
  }

  private Path place(String name) {
    if (name.length() <= MOST_NAME && !BAD_NAME.matcher(name).find()) {
      try {
        Path place = folder.resolve(name);
        if (place.normalize().equals(place) && place.startsWith(folder)) {
          return place;
        }
      } catch (InvalidPathException e) {
        LOG.debug("No name here", e);
      }
    }
    throw new Problem(
        "%s holds a file called \"%s\", which is no name within a folder: nothing of it was unpacked."
            .formatted(
                zip, name.substring(0, Math.min(80, name.length())).replaceAll("\\p{Cntrl}", "?")));
  }

  private void write(InputStream in, Path file) throws IOException {
    Files.createDirectories(file.getParent());
    byte[] buffer = new byte[BUFFER];
    try (OutputStream out = Files.newOutputStream(file, StandardOpenOption.CREATE_NEW)) {
      for (int n = in.read(buffer); n >= 0; n = in.read(buffer)) {
        written += n;
        if (written > most) {
          throw new Problem(
              "%s unpacks to over %d MB, which is more than a project of its size holds or the disk has room for."
                  .formatted(zip, most >> 20));
        }
        out.write(buffer, 0, n);
      }
    } catch (FileAlreadyExistsException e) {
      throw new Problem(
          "%s holds %s twice: nothing of it was unpacked.".formatted(zip, folder.relativize(file)),
          e);
    }
  }

  private Path project() throws IOException {
    try (Stream<Path> all = Files.walk(folder)) {
      List<Path> projects =
          all.filter(f -> f.toString().endsWith(ProjectFile.ENDING))
              .filter(Files::isRegularFile)
              .toList();
      if (projects.size() != 1) {
        throw new Problem(
            projects.isEmpty()
                ? "%s holds no project (.hushrise): choose a zip that a project was collected into."
                    .formatted(zip)
                : "%s holds %d projects: unpack it and open one of them."
                    .formatted(zip, projects.size()));
      }
      return projects.getFirst();
    }
  }
}
