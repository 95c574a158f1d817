package hushrise.media;

import com.fasterxml.jackson.databind.ObjectMapper;
import hushrise.core.Problem;
import hushrise.core.fit.Song;
import hushrise.core.fit.SongAnalysis;
import hushrise.core.fit.SongAnalyzer;
import hushrise.core.fit.Songs;
import hushrise.core.project.Media;
import hushrise.core.project.Project;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import hushrise.core.store.AtomicFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** Songs with their analyses, which are kept in the cache. Safe for any number of threads. */
public final class SongStore implements Songs {

  private static final Logger LOG = LoggerFactory.getLogger(SongStore.class);

  /** Part of the cache's keys: an analysis of another version is made anew. */
  private static final String VERSION = "1";

  private final MediaStore media;
  private final CacheFolder cache;
  private final ObjectMapper json = new ObjectMapper();
  private final Map<Path, Song> known = new ConcurrentHashMap<>();

  public SongStore(MediaStore media, CacheFolder cache) {
    this.media = media;
    this.cache = cache;
  }

  @Override
  public Optional<Song> song(Media item) {
    return Optional.ofNullable(known.get(item.file()));
  }

  /**
   * The song of a media item; listens to it when that has not been done before, which takes a
   * second or two.
   *
   * @throws Problem when it is shorter than a second, silent, or cannot be read
   */
  public Song listen(Media item, Progress progress) {
    Song song = known.get(item.file());
    if (song == null) {
      SampleSource sound = media.open(item.file(), Project.DEFAULT_SAMPLE_RATE, progress);
      song = new Song(analysis(item, sound, progress), sound);
      known.put(item.file(), song);
    }
    return song;
  }

  private SongAnalysis analysis(Media item, SampleSource sound, Progress progress) {
    Path stored = cache.file(media.key(item.file()), "-" + VERSION + ".song");
    if (Files.exists(stored)) {
      try {
        SongAnalysis found = json.readValue(stored.toFile(), SongAnalysis.class);
        if (found.lengthFrames() == sound.lengthFrames() && found.edges().length > 1) {
          cache.touch(stored);
          return found;
        }
      } catch (IOException e) {
        LOG.debug("{} is damaged and made anew", stored, e);
        AtomicFile.discard(stored);
      }
    }
    SongAnalysis made =
        SongAnalyzer.analyze(sound, Project.DEFAULT_SAMPLE_RATE, item.title(), progress);
    Path part = cache.part();
    try {
      json.writeValue(part.toFile(), made);
      cache.keep(part, stored);
    } catch (IOException e) {
      AtomicFile.discard(part);
      throw new Problem(
          "The cache folder %s cannot be written (is the disk full?): free some space, or set HUSHRISE_CACHE to another folder."
              .formatted(part.getParent()),
          e);
    }
    return made;
  }
}
