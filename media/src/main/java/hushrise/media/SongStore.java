package hushrise.media;

import hushrise.core.fit.Song;
import hushrise.core.fit.SongAnalysis;
import hushrise.core.fit.SongAnalyzer;
import hushrise.core.fit.Songs;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
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
  private static final long KEPT = 200;

  private final Loading<FileIdentity, Song> known = new Loading<>(KEPT);
  private final Map<Path, Song> latest = new ConcurrentHashMap<>();

  public SongStore(MediaStore media, CacheFolder cache) {
    this.media = media;
    this.found = new FoundFile<>(cache, SongAnalysis.class, "-4.song");
    media.onLetGo(
        () -> {
          known.letGo();
          latest.clear();
        });
  }

  /**
   * The song that was listened to last. That the file is still the same is not asked here, as that
   * may take its time: who learns that it is not calls {@link #forget}.
   */
  @Override
  public Optional<Song> song(Media item) {
    return Optional.ofNullable(latest.get(item.file()));
  }

  /** Forgets the song of a file that has changed. */
  public void forget(Path file) {
    latest.remove(file);
  }

  /**
   * The song of a media item; listens to it when that has not been done before, which takes a
   * second or two.
   *
   * @throws Problem when it is shorter than a second, silent, or cannot be read
   */
  public Song listen(Media item, Progress progress) {
    FileIdentity file = FileIdentity.of(item.file());
    Song song =
        known.get(
            file,
            progress,
            p -> {
              SampleSource sound = media.open(item.file(), Project.DEFAULT_SAMPLE_RATE, p);
              return new Song(analysis(item, sound, p), sound);
            });
    song.sections();
    if (FileIdentity.ifThere(item.file()).filter(file::equals).isPresent()) {
      latest.put(item.file(), song);
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
