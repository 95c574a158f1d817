package hushrise.media;

import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import hushrise.core.speech.SpeechFinder;
import hushrise.core.speech.SpeechModel;
import hushrise.core.time.Span;
import java.nio.file.Path;
import java.util.List;
import java.util.function.Supplier;

/**
 * Where somebody speaks in media files; what was found is kept in the cache. The model is loaded
 * when it is first needed. Safe for any number of threads.
 */
public final class SpeechStore {

  /** What the cache keeps of a file. */
  record Found(List<Span> spans) {}

  private final MediaStore media;
  private final FoundFile<Found> found;
  private final Supplier<SpeechModel> load;
  private SpeechModel model;

  public SpeechStore(MediaStore media, CacheFolder cache) {
    this(media, cache, SileroModel::new);
  }

  SpeechStore(MediaStore media, CacheFolder cache, Supplier<SpeechModel> load) {
    this.media = media;
    this.load = load;
    this.found = new FoundFile<>(cache, Found.class, "-3.speech");
  }

  /**
   * Where somebody speaks in a media item, in its frames; possibly nowhere.
   *
   * @throws hushrise.core.Problem when it cannot be read or the model cannot be used
   */
  public List<Span> listen(Media item, Progress progress) {
    int rate = Project.DEFAULT_SAMPLE_RATE;
    return listen(item.file(), media.open(item.file(), rate, progress), progress);
  }

  /** As {@link #listen(Media, Progress)}, for a file that is open. */
  public List<Span> listen(Path file, SampleSource sound, Progress progress) {
    String key = media.key(file);
    return found
        .read(key)
        .map(Found::spans)
        .orElseGet(
            () -> {
              int rate = Project.DEFAULT_SAMPLE_RATE;
              SpeechModel listening = model();
              float[] heard = listening.probabilities(sound, rate, progress);
              List<Span> spans = SpeechFinder.find(sound, rate, heard, listening.frameSeconds());
              found.write(key, new Found(spans));
              return spans;
            });
  }

  private synchronized SpeechModel model() {
    if (model == null) {
      model = load.get();
    }
    return model;
  }
}
