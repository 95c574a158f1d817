package hushrise.media;

import hushrise.core.exchange.OtioReader;
import hushrise.core.loudness.LoudnessLibrary;
import hushrise.core.loudness.LoudnessSteps;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.sound.Peaks;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import hushrise.core.sound.SoundLibrary;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CopyOnWriteArrayList;

/**
 * Everything that is known of the sound of media files: their samples, peaks and loudness, each
 * kept by a part of its own. A file that is written anew is another file. Safe for any number of
 * threads.
 */
public final class MediaStore implements SoundLibrary, LoudnessLibrary, OtioReader.Taker {

  private final PeakFiles peaks;
  private final Sounds sounds;
  private final LoudnessFiles loudness;
  private final FileTaker taker;
  private final FileFinder finder;
  private final List<Runnable> others = new CopyOnWriteArrayList<>();

  public MediaStore(CacheFolder cache) {
    peaks = new PeakFiles(cache);
    sounds = new Sounds(cache, peaks);
    loudness = new LoudnessFiles(cache, sounds);
    taker = new FileTaker(sounds);
    finder = new FileFinder();
  }

  /**
   * Takes a file in: finds out what it holds and makes its sound ready.
   *
   * @param kind what it is for; a picture must have a picture, anything else must have sound
   * @throws hushrise.core.Problem when the file does not serve
   */
  @Override
  public Media take(Path file, MediaKind kind, Progress progress) {
    return taker.take(file, kind, progress);
  }

  /**
   * What a file is probably for: a picture or a still when it has one; else what its name says,
   * such as "narration" or "music"; else a voice when its sound is the same on both sides, music
   * when it lasts ten seconds or more, and an effect when it is shorter.
   *
   * @throws hushrise.core.Problem when it cannot be read
   */
  @Override
  public MediaKind guessKind(Path file, Progress progress) {
    return taker.guessKind(file, progress);
  }

  /**
   * Looks for files that are not where they were: by their content, else by name and length.
   *
   * @param folders where, with all folders within
   * @return by the ids of the media, those that were found
   */
  public Map<String, Path> find(List<Media> missing, List<Path> folders, Progress progress) {
    return finder.find(missing, folders, progress);
  }

  @Override
  public SampleSource samples(Media media, int sampleRate) {
    return open(media.file(), sampleRate, Progress.NONE);
  }

  @Override
  public LoudnessSteps steps(Media media) {
    return steps(media, Progress.NONE);
  }

  /**
   * As {@link #steps(Media)}.
   *
   * @throws hushrise.core.Problem when the sound cannot be read
   */
  public LoudnessSteps steps(Media item, Progress progress) {
    return loudness.of(item.file(), progress);
  }

  /**
   * A file's sound at a rate; decodes it when it is not in the cache.
   *
   * @throws hushrise.core.Problem when it cannot be read
   */
  public SampleSource open(Path file, int sampleRate, Progress progress) {
    return sounds.open(file, sampleRate, progress);
  }

  /**
   * The peaks of a file's sound at the project's rate; made when they are not in the cache.
   *
   * @throws hushrise.core.Problem when the sound cannot be read
   */
  public Peaks peaks(Path file) {
    SampleSource sound = sounds.open(file, Project.DEFAULT_SAMPLE_RATE, Progress.NONE);
    return peaks.of(FileIdentity.of(file), sound);
  }

  /**
   * What tells a file's content from any other.
   *
   * @throws hushrise.core.Problem when it cannot be read
   */
  public String contentOf(Path file) {
    return key(file);
  }

  /** Whether a file seems to end before its end; false where that cannot be told. */
  public boolean seemsCutShort(Path file) {
    return CutShort.seems(file);
  }

  /**
   * Lets go of what is in memory, as other files will be used from now on. What somebody still uses
   * stays, and all is there again when it is asked for.
   */
  public void letGo() {
    sounds.letGo();
    loudness.letGo();
    others.forEach(Runnable::run);
  }

  /** Has something else let go, too. */
  void onLetGo(Runnable also) {
    others.add(also);
  }

  String key(Path file) {
    return ContentKeys.of(file);
  }
}
