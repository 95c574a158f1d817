package hushrise.app.listen;

import static hushrise.app.words.Texts.text;

import hushrise.app.job.Jobs;
import hushrise.app.job.LateAnswers;
import hushrise.app.words.Texts;
import hushrise.core.loudness.Measurement;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.sound.Progress;
import hushrise.media.MediaStore;
import hushrise.media.Probe;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.concurrent.Callable;
import java.util.concurrent.Executor;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyIntegerProperty;
import javafx.beans.property.ReadOnlyIntegerWrapper;

/** Facts of files that are looked up once in the background. Used by the window's thread. */
public final class ItemFacts {

  private final MediaStore store;
  private final Jobs jobs;
  private final Executor latestFirst;
  private final LateAnswers late = new LateAnswers();
  private final Map<Path, String> formats = new HashMap<>();
  private final Map<Path, OptionalDouble> loudness = new HashMap<>();
  private final ReadOnlyIntegerWrapper arrived = new ReadOnlyIntegerWrapper();

  public ItemFacts(MediaStore store, Jobs jobs) {
    this.store = store;
    this.jobs = jobs;
    this.latestFirst = jobs.latestFirst();
  }

  /** Changes whenever a fact has come. */
  public ReadOnlyIntegerProperty arrivedProperty() {
    return arrived.getReadOnlyProperty();
  }

  /** A file's format in a few words; empty until it is known. */
  public String formatOf(Media media) {
    if (!formats.containsKey(media.file())) {
      formats.put(media.file(), "");
      look(
          media.file(),
          () -> words(Probe.of(media.file())),
          late.unlessForgotten(
              media.file(),
              words -> {
                formats.put(media.file(), words);
                arrived.set(arrived.get() + 1);
              }));
    }
    return formats.get(media.file());
  }

  private <T> void look(Path file, Callable<T> up, Consumer<T> then) {
    jobs.run(
        latestFirst,
        () -> Jobs.ifThere(file, progress -> up.call()).call(Progress.NONE),
        then,
        () -> {});
  }

  private static String words(Probe probe) {
    return probe
        .picture()
        .map(p -> "%d\u00d7%d, %s".formatted(p.width(), p.height(), coding(p.codec())))
        .or(() -> probe.sound().map(ItemFacts::words))
        .orElse("");
  }

  private static String words(Probe.Sound sound) {
    String channels =
        sound.channels() > 2
            ? text("channels.many", sound.channels())
            : text(sound.channels() == 1 ? "channels.mono" : "channels.stereo");
    return "%s, %s kHz, %s"
        .formatted(
            coding(sound.codec()),
            "%.1f".formatted(sound.sampleRate() / 1000.0).replace(".0", ""),
            channels);
  }

  /** A coding as people call it: {@code pcm_s24le} is 24 bits, uncompressed. */
  private static String coding(String codec) {
    if (codec.startsWith("pcm_")) {
      String bits = codec.replaceAll("^pcm_[a-z]+(\\d+).*", "$1");
      return bits.matches("\\d+") ? text("coding.pcm", bits) : text("coding.plain");
    }
    return Texts.has("coding." + codec)
        ? text("coding." + codec)
        : codec.toUpperCase(Locale.ROOT).replace('_', ' ');
  }

  /** Forgets what is known of a file, as the file has changed. */
  public void forget(Path file) {
    late.forget(file);
    formats.remove(file);
    loudness.remove(file);
  }

  /** A sound's integrated loudness in LUFS; empty until it is known. */
  public OptionalDouble loudnessOf(Media media) {
    if (!loudness.containsKey(media.file()) && media.hasSound()) {
      loudness.put(media.file(), OptionalDouble.empty());
      look(
          media.file(),
          () ->
              Measurement.of(
                      store.samples(media, Project.DEFAULT_SAMPLE_RATE),
                      Project.DEFAULT_SAMPLE_RATE,
                      Progress.NONE)
                  .integratedLufs(),
          late.unlessForgotten(
              media.file(),
              lufs -> {
                loudness.put(media.file(), OptionalDouble.of(lufs));
                arrived.set(arrived.get() + 1);
              }));
    }
    return loudness.getOrDefault(media.file(), OptionalDouble.empty());
  }
}
