package hushrise.core.store;

import com.fasterxml.jackson.databind.ObjectMapper;
import hushrise.core.Problem;
import hushrise.core.project.Project;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Earlier versions of project files, as they lay there before they were replaced. Each is a file
 * called by its time in a folder of its project. Where the project lies and what it holds is noted
 * beside them, so that they are found again when it was moved or renamed meanwhile.
 */
public final class Versions {

  private static final Logger LOG = LoggerFactory.getLogger(Versions.class);

  private static final String NOTE = "project.txt";

  private static final DateTimeFormatter TIME =
      DateTimeFormatter.ofPattern("yyyy-MM-dd'T'HH-mm-ss.SSS").withZone(ZoneOffset.UTC);

  /**
   * One of them.
   *
   * @param file where it is kept
   * @param savedAt when it had been saved
   */
  public record Version(Path file, Instant savedAt) {}

  private final Path folder;

  /**
   * @param folder where they are kept, of all projects
   */
  public Versions(Path folder) {
    this.folder = folder;
  }

  /**
   * Keeps a project file as it is now, before it is replaced.
   *
   * @param most how many are kept of this project; the oldest go
   * @throws Problem when it cannot be kept
   */
  public void keep(Path project, int most) {
    if (!Files.isRegularFile(project) || most <= 0) {
      return;
    }
    try {
      Path own = Files.createDirectories(ownFolder(project));
      Instant savedAt = Files.getLastModifiedTime(project).toInstant();
      AtomicFile.write(
          own.resolve(TIME.format(savedAt) + ProjectFile.ENDING), Files.readAllBytes(project));
      // What seems to be saved later than this was stamped by a clock that was wrong.
      Comparator<Version> age =
          Comparator.comparing(v -> v.savedAt().isAfter(savedAt) ? Instant.MIN : v.savedAt());
      for (Version old : of(project).stream().sorted(age.reversed()).skip(most).toList()) {
        Files.deleteIfExists(old.file());
      }
    } catch (IOException e) {
      throw new Problem(
          "What %s held before cannot be kept in %s: free some space there."
              .formatted(project, folder),
          e);
    }
  }

  /**
   * Notes where a project lies and what it holds, after it was opened or saved. Versions of one
   * that held the same and is no more where it was become this one's.
   */
  public void note(Path project) {
    Path own = ownFolder(project);
    try {
      Optional<String> content = ContentDigest.ofFile(project);
      if (content.isEmpty()) {
        return;
      }
      if (!Files.isDirectory(own)) {
        Optional<Path> moved = folderOf(content.get());
        if (moved.isEmpty()) {
          return;
        }
        Files.move(moved.get(), own);
      }
      String noted = project.toAbsolutePath().normalize() + "\n" + content.get() + "\n";
      AtomicFile.write(own.resolve(NOTE), noted);
    } catch (IOException | Problem e) {
      LOG.warn("The earlier versions of {} will not be found once it is moved", project, e);
    }
  }

  /** The folder of a project that held this and is not there any more. */
  private Optional<Path> folderOf(String content) throws IOException {
    if (!Files.isDirectory(folder)) {
      return Optional.empty();
    }
    try (Stream<Path> all = Files.list(folder)) {
      return all.filter(own -> isOfLost(own.resolve(NOTE), content)).findFirst();
    }
  }

  private static boolean isOfLost(Path note, String content) {
    try {
      List<String> lines = Files.isRegularFile(note) ? Files.readAllLines(note) : List.of();
      return lines.size() == 2
          && lines.get(1).equals(content)
          && !Files.exists(Path.of(lines.getFirst()));
    } catch (IOException | InvalidPathException e) {
      LOG.debug("{} does not say which project it is of", note, e);
      return false;
    }
  }

  /** Those of a project, the latest first. */
  public List<Version> of(Path project) {
    Path own = ownFolder(project);
    if (!Files.isDirectory(own)) {
      return List.of();
    }
    try (Stream<Path> all = Files.list(own)) {
      return all.filter(f -> f.toString().endsWith(ProjectFile.ENDING))
          .flatMap(Versions::version)
          .sorted(Comparator.comparing(Version::savedAt).reversed())
          .toList();
    } catch (IOException e) {
      throw new Problem(
          "The earlier versions of %s in %s cannot be read.".formatted(project, own), e);
    }
  }

  private static Stream<Version> version(Path file) {
    String name = file.getFileName().toString();
    try {
      String time = name.substring(0, name.length() - ProjectFile.ENDING.length());
      return Stream.of(new Version(file, Instant.from(TIME.parse(time))));
    } catch (DateTimeParseException e) {
      return Stream.empty();
    }
  }

  /**
   * Reads one; its media are looked for from where the project lies.
   *
   * @throws Problem as {@link ProjectFile#load}
   */
  public static Project load(Version version, Path project) {
    try {
      return ProjectFile.read(new ObjectMapper().readTree(version.file().toFile()), project);
    } catch (IOException e) {
      throw new Problem(
          "The earlier version %s cannot be read: choose another.".formatted(version.file()), e);
    }
  }

  private Path ownFolder(Path project) {
    Path absolute = project.toAbsolutePath().normalize();
    return folder.resolve(
        absolute.getFileName() + "-" + ContentDigest.shortOf(absolute.toString()));
  }
}
