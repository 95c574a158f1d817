package hushrise.app.panel;

import hushrise.app.Background;
import hushrise.core.loudness.Measurement;
import hushrise.core.project.Media;
import hushrise.core.project.Project;
import hushrise.core.sound.Progress;
import hushrise.media.MediaStore;
import hushrise.media.Probe;
import java.util.HashMap;
import java.util.Map;
import java.util.OptionalDouble;
import javafx.beans.property.ReadOnlyIntegerProperty;
import javafx.beans.property.ReadOnlyIntegerWrapper;

/** Facts of files that are looked up once in the background. Used by the window's thread. */
public final class ItemFacts {

  private final MediaStore store;
  private final Background background;
  private final Map<String, String> formats = new HashMap<>();
  private final Map<String, OptionalDouble> loudness = new HashMap<>();
  private final ReadOnlyIntegerWrapper arrived = new ReadOnlyIntegerWrapper();

  public ItemFacts(MediaStore store, Background background) {
    this.store = store;
    this.background = background;
  }

  /** Changes whenever a fact has come. */
  public ReadOnlyIntegerProperty arrivedProperty() {
    return arrived.getReadOnlyProperty();
  }

  /** A file's format in a few words; empty until it is known. */
  String formatOf(Media media) {
    if (!formats.containsKey(media.id())) {
      formats.put(media.id(), "");
      background.run(
          () -> words(Probe.of(media.file())),
          words -> {
            formats.put(media.id(), words);
            arrived.set(arrived.get() + 1);
          });
    }
    return formats.get(media.id());
  }

  private static String words(Probe probe) {
    String picture =
        probe.picture().map(p -> p.width() + "\u00d7" + p.height() + " " + p.codec()).orElse("");
    String sound =
        probe
            .sound()
            .map(
                s ->
                    "%s %.1f kHz %s"
                        .formatted(
                            s.codec(),
                            s.sampleRate() / 1000.0,
                            s.channels() == 1
                                ? "mono"
                                : s.channels() == 2 ? "stereo" : s.channels() + " ch"))
            .orElse("");
    return picture.isEmpty() ? sound : picture;
  }

  /** A sound's integrated loudness in LUFS; empty until it is known. */
  OptionalDouble loudnessOf(Media media) {
    if (!loudness.containsKey(media.id()) && media.hasSound()) {
      loudness.put(media.id(), OptionalDouble.empty());
      background.run(
          () ->
              Measurement.of(
                      store.samples(media, Project.DEFAULT_SAMPLE_RATE),
                      Project.DEFAULT_SAMPLE_RATE,
                      Progress.NONE)
                  .integratedLufs(),
          lufs -> {
            loudness.put(media.id(), OptionalDouble.of(lufs));
            arrived.set(arrived.get() + 1);
          });
    }
    return loudness.getOrDefault(media.id(), OptionalDouble.empty());
  }
}
