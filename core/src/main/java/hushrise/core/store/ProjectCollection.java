package hushrise.core.store;

import hushrise.core.Problem;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.sound.Progress;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import java.util.zip.Deflater;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/** Puts a project and all its media into one folder or zip, which opens elsewhere. */
public final class ProjectCollection {

  private static final String MEDIA = "media";
  private static final int BUFFER = 1 << 16;

  private final Project project;
  private final String name;
  private final Progress progress;
  private final Map<Path, String> names = new LinkedHashMap<>();
  private final List<String> missing = new ArrayList<>();
  private long all;
  private long done;

  /**
   * What was collected.
   *
   * @param target the folder or zip
   * @param files how many media files it holds
   * @param missing the names of those that were not there
   */
  public record Collected(Path target, int files, List<String> missing) {}

  private ProjectCollection(Project project, String name, Progress progress) {
    this.project = project;
    this.name = PortableName.of(name);
    this.progress = progress;
    Set<String> used = new HashSet<>();
    for (Media media : project.shelf()) {
      if (Files.isRegularFile(media.file())) {
        names.computeIfAbsent(
            media.file(), f -> PortableName.unique(String.valueOf(f.getFileName()), used));
      } else {
        missing.add(media.title());
      }
    }
    names.keySet().forEach(f -> all += f.toFile().length());
  }

  /**
   * Collects a project.
   *
   * @param name what the project's file is to be called, without its ending
   * @param target a folder that is new or empty, or a file that ends in .zip
   * @throws Problem when it cannot be written; nothing is left behind then
   */
  public static Collected collect(Project project, String name, Path target, Progress progress) {
    ProjectCollection collection = new ProjectCollection(project, name, progress);
    if (CollectedZip.isCalled(target)) {
      collection.zip(target);
    } else {
      collection.folder(target);
    }
    progress.at(1);
    return new Collected(target, collection.names.size(), List.copyOf(collection.missing));
  }

  /** The project as it lies in a folder with its media beside it. */
  private byte[] projectIn(Path folder) {
    Map<String, Path> moved = new HashMap<>();
    names.forEach((file, n) -> moved.put(file.toString(), folder.resolve(MEDIA).resolve(n)));
    Project there =
        project.withShelf(
            project.shelf().stream()
                .map(m -> m.withFile(moved.getOrDefault(m.file().toString(), m.file())))
                .toList());
    return ProjectFile.bytes(there, folder.resolve(name + ProjectFile.ENDING));
  }

  private void zip(Path target) {
    Path part = AtomicFile.beside(target);
    try {
      try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(part))) {
        zip.setLevel(Deflater.BEST_SPEED);
        zip.putNextEntry(new ZipEntry(name + "/" + name + ProjectFile.ENDING));
        zip.write(projectIn(target.toAbsolutePath().resolveSibling(name)));
        zip.closeEntry();
        for (Map.Entry<Path, String> media : names.entrySet()) {
          zip.putNextEntry(new ZipEntry(name + "/" + MEDIA + "/" + media.getValue()));
          copy(media.getKey(), zip);
          zip.closeEntry();
        }
      }
    } catch (IOException e) {
      AtomicFile.discard(part);
      throw unwritable(target, e);
    } catch (RuntimeException e) {
      AtomicFile.discard(part);
      throw e;
    }
    AtomicFile.moveInto(part, target);
  }

  private void folder(Path target) {
    Path folder = target.toAbsolutePath();
    requireEmpty(folder);
    List<Path> made = new ArrayList<>();
    try {
      if (!Files.exists(folder)) {
        Files.createDirectory(folder);
        made.add(folder);
      }
      Path media = folder.resolve(MEDIA);
      Files.createDirectory(media);
      made.add(media);
      for (Map.Entry<Path, String> item : names.entrySet()) {
        Path file = media.resolve(item.getValue());
        made.add(file);
        try (OutputStream out = Files.newOutputStream(file)) {
          copy(item.getKey(), out);
        }
      }
      AtomicFile.write(folder.resolve(name + ProjectFile.ENDING), projectIn(folder));
    } catch (IOException e) {
      discard(made);
      throw unwritable(target, e);
    } catch (RuntimeException e) {
      discard(made);
      throw e;
    }
  }

  /** Whether a folder can be filled: it is new or empty. */
  static void requireEmpty(Path folder) {
    if (Files.isDirectory(folder)) {
      try (Stream<Path> files = Files.list(folder)) {
        if (files.findAny().isPresent()) {
          throw new Problem(
              "The folder %s is not empty: choose a new one, or a .zip file.".formatted(folder));
        }
      } catch (IOException e) {
        throw unwritable(folder, e);
      }
    } else if (Files.exists(folder)) {
      throw new Problem(
          "%s is a file: choose a folder, or a name that ends in .zip.".formatted(folder));
    }
  }

  private static void discard(List<Path> made) {
    made.reversed().forEach(f -> f.toFile().delete());
  }

  private void copy(Path from, OutputStream out) throws IOException {
    byte[] buffer = new byte[BUFFER];
    try (InputStream in = Files.newInputStream(from)) {
      for (int n = in.read(buffer); n >= 0; n = in.read(buffer)) {
        out.write(buffer, 0, n);
        done += n;
        progress.at(done / (double) Math.max(1, all));
      }
    }
  }

  private static Problem unwritable(Path target, IOException e) {
    return new Problem(
        "%s cannot be written (%s): check that its folder is there, that the disk has room and that you may write there."
            .formatted(target, e.getMessage()),
        e);
  }
}
