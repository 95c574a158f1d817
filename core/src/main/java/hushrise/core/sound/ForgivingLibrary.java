package hushrise.core.sound;

import hushrise.core.Problem;
import hushrise.core.project.media.Media;
import java.nio.file.Path;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Consumer;

/**
 * Silence in place of what cannot be read, so that the rest can be heard. Each such file is told
 * once, and again when it has been readable in between.
 */
public final class ForgivingLibrary implements SoundLibrary {

  private static final SampleSource SILENCE = SampleSource.of(new float[1]);

  private final SoundLibrary library;
  private final Consumer<String> tell;
  private final Set<Path> told = ConcurrentHashMap.newKeySet();

  /**
   * @param tell is told why a file cannot be read; on any thread
   */
  public ForgivingLibrary(SoundLibrary library, Consumer<String> tell) {
    this.library = library;
    this.tell = tell;
  }

  /** Counts files as told, as somebody else tells that they are gone. */
  public void countAsTold(Set<Path> gone) {
    told.addAll(gone);
  }

  /** Whether silence stands for a file, as it could not be read when it was wanted last. */
  public boolean isSilent(Media media) {
    return told.contains(media.file());
  }

  @Override
  public SampleSource samples(Media media, int sampleRate) {
    try {
      SampleSource source = library.samples(media, sampleRate);
      told.remove(media.file());
      return source;
    } catch (Problem e) {
      if (told.add(media.file())) {
        tell.accept(e.getMessage());
      }
      return SILENCE;
    }
  }
}
