package hushrise.media;

import hushrise.core.loudness.LoudnessGoal;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/**
 * A kind of export to choose by its name.
 *
 * @param name in words
 * @param film what a film is to be; empty for presets of sound alone
 * @param sound what sound alone is to be
 * @param kbps of its sound; 0: the usual ones
 * @param goal the loudness asked for; empty: as it is
 */
public record Preset(
    String name,
    Optional<OutputFormat> film,
    Optional<OutputFormat> sound,
    int kbps,
    Optional<LoudnessGoal> goal) {

  /** What places of each kind usually ask for. */
  public static final List<Preset> SHIPPED =
      List.of(
          new Preset(
              "Web video",
              Optional.of(OutputFormat.MP4),
              Optional.of(OutputFormat.AAC),
              256,
              Optional.of(LoudnessGoal.of(-14))),
          new Preset(
              "Podcast",
              Optional.empty(),
              Optional.of(OutputFormat.MP3),
              160,
              Optional.of(LoudnessGoal.of(-16))),
          new Preset(
              "Broadcast (EBU R 128)",
              Optional.of(OutputFormat.MOV_PCM),
              Optional.of(OutputFormat.WAV_24),
              0,
              Optional.of(LoudnessGoal.of(-23))),
          new Preset(
              "Phone",
              Optional.of(OutputFormat.MP4),
              Optional.of(OutputFormat.AAC),
              128,
              Optional.of(new LoudnessGoal(-14, -1.5, 9))),
          new Preset(
              "Archive",
              Optional.of(OutputFormat.MKV_FLAC),
              Optional.of(OutputFormat.FLAC),
              0,
              Optional.empty()));

  /** The shortest name that asks for it on the command line. */
  public String word() {
    return wordOf(name);
  }

  /** A name without what is in brackets, in small letters, words joined by hyphens. */
  public static String wordOf(String name) {
    return name.replaceAll("\\(.*\\)", "")
        .strip()
        .toLowerCase(Locale.ROOT)
        .replaceAll("[^\\p{L}\\p{N}]+", "-");
  }

  /** Its format for a file of a format's kind: its own where the endings agree. */
  public OutputFormat formatFor(OutputFormat byEnding) {
    return film.filter(f -> f.ending().equals(byEnding.ending()))
        .or(() -> sound.filter(f -> f.ending().equals(byEnding.ending())))
        .orElse(byEnding);
  }

  /** Its kilobits per second where a format has any to choose, else 0. */
  public int kbpsFor(OutputFormat format) {
    return format.coding().takes(kbps) ? kbps : 0;
  }
}
