package hushrise.media;

import hushrise.core.Ids;
import hushrise.core.Problem;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.report.CreditsSheet;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import java.nio.file.Path;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;

/** Takes files in: finds out what they hold, and what they are probably for. */
final class FileTaker {

  private static final Map<Pattern, MediaKind> NAMES =
      Map.of(
          Pattern.compile("narrat|voice|speech|spoken|(^|[^a-z])(take|vo)[^a-z]"), MediaKind.VOICE,
          Pattern.compile("music|song|tune|theme|bed[^a-z]"), MediaKind.MUSIC,
          Pattern.compile("(^|[^a-z])(sfx|fx|effect|sound)[^a-z]|horn|bell"), MediaKind.EFFECT);

  /** How long a still counts as being, in seconds. */
  private static final long STILL_SECONDS = 5;

  private final Sounds sounds;

  FileTaker(Sounds sounds) {
    this.sounds = sounds;
  }

  Media take(Path file, MediaKind kind, Progress progress) {
    Path absolute = file.toAbsolutePath().normalize();
    Media media = taken(file, kind, progress);
    return media
        .withContent(Optional.of(ContentKeys.of(absolute)))
        .withCutShort(CutShort.seems(absolute) || endsEarly(absolute, media.kind()));
  }

  /** Whether a film says that it lasts longer than its pictures do. */
  private static boolean endsEarly(Path file, MediaKind kind) {
    return kind == MediaKind.PICTURE
        && Probe.of(file).picture().filter(Probe.Picture::cutShort).isPresent();
  }

  /** A picture that turns out to be a still one is taken as that. */
  private Media taken(Path file, MediaKind asked, Progress progress) {
    Path absolute = file.toAbsolutePath().normalize();
    ReadableFile.require(absolute);
    FirstLook.pass(absolute, progress);
    Probe probe = Probe.of(absolute);
    MediaKind kind = asked == MediaKind.PICTURE && probe.isStill() ? MediaKind.STILL : asked;
    int rate = Project.DEFAULT_SAMPLE_RATE;
    boolean picture = kind == MediaKind.PICTURE;
    if (kind.isSeen() && probe.picture().isEmpty()) {
      throw new Problem("%s has no picture: choose a film.".formatted(file));
    }
    if (kind == MediaKind.STILL) {
      return new Media(
          Ids.fresh("media"), absolute, kind, STILL_SECONDS * rate, false, Optional.empty(), "");
    }
    if (!picture && probe.sound().isEmpty()) {
      throw new Problem("%s has no sound: choose another file.".formatted(file));
    }
    boolean hasSound = probe.sound().isPresent();
    long soundFrames = hasSound ? sounds.open(absolute, rate, progress).lengthFrames() : 0;
    long length =
        picture ? Math.round(probe.picture().orElseThrow().seconds() * rate) : soundFrames;
    if (length < 1) {
      throw new Problem(
          "%s lasts no time at all: it may be cut short; copy it again from its source."
              .formatted(file));
    }
    Media media =
        new Media(
            Ids.fresh("media"),
            absolute,
            kind,
            length,
            hasSound,
            picture ? probe.picture().map(Probe.Picture::rate) : Optional.empty(),
            "");
    return CreditsSheet.isOwed(media) ? media.withCredit(FileTags.creditOf(absolute)) : media;
  }

  MediaKind guessKind(Path file, Progress progress) {
    ReadableFile.require(file);
    FirstLook.pass(file, progress);
    Probe probe = Probe.of(file);
    if (probe.picture().isPresent()) {
      return probe.isStill() ? MediaKind.STILL : MediaKind.PICTURE;
    }
    String name = String.valueOf(file.getFileName()).toLowerCase(Locale.ROOT);
    for (Map.Entry<Pattern, MediaKind> hint : NAMES.entrySet()) {
      if (hint.getKey().matcher(name).find()) {
        return hint.getValue();
      }
    }
    SampleSource sound = sounds.open(file, Project.DEFAULT_SAMPLE_RATE, progress);
    if (sound.channels() == 1 || isSameOnBothSides(sound)) {
      return MediaKind.VOICE;
    }
    return probe.seconds() >= 10 ? MediaKind.MUSIC : MediaKind.EFFECT;
  }

  private static boolean isSameOnBothSides(SampleSource sound) {
    int n = 4_096;
    float[] left = new float[n];
    float[] right = new float[n];
    float difference = 0;
    float loudest = 0;
    for (int place = 1; place < 16; place++) {
      sound.read(sound.lengthFrames() * place / 16, n, left, right, 0);
      for (int i = 0; i < n; i++) {
        difference = Math.max(difference, Math.abs(left[i] - right[i]));
        loudest = Math.max(loudest, Math.abs(left[i]));
      }
    }
    return loudest > 0 && difference < loudest * 1e-3;
  }
}
