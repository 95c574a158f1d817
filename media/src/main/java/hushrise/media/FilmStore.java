package hushrise.media;

import com.fasterxml.jackson.databind.node.ObjectNode;
import hushrise.core.Problem;
import hushrise.core.loudness.FilmLoudness;
import hushrise.core.loudness.KeptLoudness;
import hushrise.core.loudness.MeasuredFilms;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.store.ContentDigest;
import hushrise.core.store.ProjectFile;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Stream;

/**
 * The loudness of whole films, kept in the cache by what is heard: the tracks, and the contents of
 * the files on them. Safe for any number of threads.
 */
public final class FilmStore implements MeasuredFilms {

  /** Where a project lies makes no difference to its sound. */
  private static final Path NOWHERE = Path.of("/project.hushrise");

  private final MediaStore store;
  private final FoundFile<KeptLoudness> found;

  /** The files as they were when they were measured. */
  private volatile Map<Path, FileIdentity> seen = new ConcurrentHashMap<>();

  public FilmStore(MediaStore store, CacheFolder cache) {
    this.store = store;
    this.found = new FoundFile<>(cache, KeptLoudness.class, "-1.film");
  }

  @Override
  public Optional<FilmLoudness> find(Project project) {
    seen = new ConcurrentHashMap<>();
    measuring(project);
    return key(project).flatMap(found::read).flatMap(kept -> FilmLoudness.of(project, kept));
  }

  @Override
  public void measuring(Project project) {
    Map<Path, FileIdentity> files = seen;
    heard(project)
        .filter(file -> !files.containsKey(file))
        .forEach(file -> FileIdentity.ifThere(file).ifPresent(is -> files.put(file, is)));
  }

  @Override
  public void keep(FilmLoudness film) {
    key(film.project())
        .filter(key -> found.read(key).isEmpty() && isAsMeasured(film.project()))
        .ifPresent(key -> found.write(key, film.kept()));
  }

  private boolean isAsMeasured(Project project) {
    Map<Path, FileIdentity> files = seen;
    return heard(project)
        .allMatch(file -> FileIdentity.ifThere(file).equals(Optional.ofNullable(files.get(file))));
  }

  private static Stream<Path> heard(Project project) {
    return project.shelf().stream()
        .filter(m -> m.hasSound() && project.isUsed(m.id()))
        .map(Media::file);
  }

  private Optional<String> key(Project project) {
    ObjectNode heard = ProjectFile.tree(project, NOWHERE);
    heard.retain("hushrise", "sampleRate", "tracks", "masterDb");
    try {
      for (Media media : project.shelf()) {
        if (media.hasSound() && project.isUsed(media.id())) {
          heard.put("sound of " + media.id(), store.key(media.file()));
        }
      }
    } catch (Problem e) {
      return Optional.empty();
    }
    return Optional.of(ContentDigest.of(heard.toString().getBytes(StandardCharsets.UTF_8)));
  }
}
