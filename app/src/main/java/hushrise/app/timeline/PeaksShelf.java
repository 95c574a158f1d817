package hushrise.app.timeline;

import hushrise.app.Background;
import hushrise.core.project.Media;
import hushrise.core.project.Project;
import hushrise.core.sound.Peaks;
import hushrise.media.MediaStore;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Fetches peaks once for each media item, however many lanes ask. Used by the window's thread. */
public final class PeaksShelf {

  private final MediaStore store;
  private final Background background;
  private final Map<String, Peaks> known = new HashMap<>();
  private final Map<String, List<Runnable>> waiting = new HashMap<>();

  public PeaksShelf(MediaStore store, Background background) {
    this.store = store;
    this.background = background;
  }

  /**
   * The peaks of a media item; empty while they are being made.
   *
   * @param onArrival called once when they were empty and have come
   */
  public Optional<Peaks> get(Media media, Runnable onArrival) {
    Peaks peaks = known.get(media.id());
    if (peaks != null || !media.hasSound()) {
      return Optional.ofNullable(peaks);
    }
    List<Runnable> others = waiting.get(media.id());
    if (others != null) {
      others.add(onArrival);
      return Optional.empty();
    }
    waiting.put(media.id(), new ArrayList<>(List.of(onArrival)));
    background.run(
        () -> store.peaks(media.file(), Project.DEFAULT_SAMPLE_RATE),
        made -> {
          known.put(media.id(), made);
          waiting.remove(media.id()).forEach(Runnable::run);
        });
    return Optional.empty();
  }
}
