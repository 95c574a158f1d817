package hushrise.media;

import hushrise.core.fit.Song;
import hushrise.core.fit.SongAnalysis;
import hushrise.core.fit.SongAnalyzer;
import hushrise.core.fit.Songs;
import hushrise.core.project.Media;
import hushrise.core.project.Project;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;

/** Songs with their analyses, which are kept in the cache. Safe for any number of threads. */
public final class SongStore implements Songs {

  private final MediaStore media;
  private final FoundFile<SongAnalysis> found;
  private final Map<Path, Song> known = new ConcurrentHashMap<>();

  public SongStore(MediaStore media, CacheFolder cache) {
    this.media = media;
    this.found = new FoundFile<>(cache, SongAnalysis.class, "-1.song");
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
    String key = media.key(item.file());
    return found
        .read(key)
        .filter(a -> a.lengthFrames() == sound.lengthFrames() && a.edges().length > 1)
        .orElseGet(
            () -> {
              SongAnalysis made =
                  SongAnalyzer.analyze(sound, Project.DEFAULT_SAMPLE_RATE, item.title(), progress);
              found.write(key, made);
              return made;
            });
  }
}
