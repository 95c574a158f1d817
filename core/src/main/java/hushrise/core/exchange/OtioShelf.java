package hushrise.core.exchange;

import com.fasterxml.jackson.databind.JsonNode;
import hushrise.core.Ids;
import hushrise.core.Problem;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.sound.Progress;
import hushrise.core.time.FrameRate;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** The media that a timeline refers to. Those that are not there are kept as missing. */
final class OtioShelf {

  /** So many files that cannot be read are told of one by one. */
  private static final int MOST_TOLD = 3;

  private final OtioTimes times;
  private final OtioReader.Taker taker;
  private final Progress progress;
  private final Map<Path, Media> byFile = new LinkedHashMap<>();
  private final Set<Path> missing = new LinkedHashSet<>();
  private final Set<Path> expected = new HashSet<>();
  private final Set<Path> done = new HashSet<>();
  private final Map<Asked, String> refused = new LinkedHashMap<>();

  /** A file that was asked for its picture or its sound. */
  private record Asked(Path file, boolean seen) {}

  OtioShelf(OtioTimes times, OtioReader.Taker taker, Progress progress) {
    this.times = times;
    this.taker = taker;
    this.progress = progress;
  }

  /** Puts an item on it that is known already. */
  void keep(Media media) {
    byFile.put(normal(media.file()), media);
  }

  /** Counts the files that will be asked for, for the progress. */
  void expect(JsonNode composition) {
    if (OtioNode.is(composition, "Clip")) {
      fileOf(composition).filter(f -> !byFile.containsKey(f)).ifPresent(expected::add);
    }
    composition.path("children").forEach(this::expect);
  }

  /** The progress of one file. */
  private Progress part() {
    double before = done.size();
    return fraction -> progress.at(Math.min(1, (before + fraction) / expected.size()));
  }

  List<Media> items() {
    return List.copyOf(byFile.values());
  }

  /** What could not be had, in sentences. */
  List<String> sentences() {
    List<String> sentences = new ArrayList<>(refused.values().stream().limit(MOST_TOLD).toList());
    int untold = refused.size() - sentences.size();
    if (untold > 0) {
      sentences.add("%d more files cannot be read.".formatted(untold));
    }
    if (!missing.isEmpty()) {
      Path first = missing.iterator().next();
      int more = missing.size() - 1;
      sentences.add(
          more == 0
              ? "%s is not there, and is silent until it is found again.".formatted(first)
              : "%s and %d more files are not there, and are silent until they are found again."
                  .formatted(first, more));
    }
    return sentences;
  }

  /**
   * What a clip plays; empty where that is no file, or one that cannot be read.
   *
   * @param kind the kind of track that it lies on
   */
  Optional<Media> mediaOf(JsonNode clip, TrackKind kind) {
    Optional<Path> named = fileOf(clip);
    if (named.isEmpty()) {
      return Optional.empty();
    }
    Path file = named.get();
    if (missing.contains(file) || !(Files.exists(file) || byFile.containsKey(file))) {
      missing.add(file);
      byFile.put(file, away(file, clip, mediaKind(kind)));
    } else if (!byFile.containsKey(file)) {
      take(file, mediaKind(kind));
    }
    return Optional.ofNullable(byFile.get(file));
  }

  private void take(Path file, MediaKind kind) {
    Asked asked = new Asked(file, kind.isSeen());
    if (refused.containsKey(asked)) {
      return;
    }
    try {
      byFile.put(file, taker.take(file, kind, part()));
    } catch (Problem e) {
      refused.put(asked, e.getMessage());
    }
    done.add(file);
  }

  /** What the timeline alone says of a file: it lasts at least as long as its clips need it to. */
  private Media away(Path file, JsonNode clip, MediaKind kind) {
    JsonNode whole = OtioNode.referenceOf(clip).path("available_range");
    JsonNode used = clip.path("source_range");
    double least =
        times
            .range(whole)
            .map(OtioTimes.Range::length)
            .or(() -> times.range(used).map(OtioTimes.Range::end))
            .orElse(0.0);
    long length = Math.round(Math.clamp(least, 1, times.most()));
    Media known = byFile.get(file);
    if (known != null) {
      return known.withLengthFrames(Math.max(known.lengthFrames(), length));
    }
    Optional<FrameRate> rate =
        kind == MediaKind.PICTURE
            ? OtioTimes.pictureRate(used).or(() -> Optional.of(FrameRate.DEFAULT))
            : Optional.empty();
    return new Media(Ids.fresh("media"), file, kind, length, true, rate, "");
  }

  /** The kind of track that a clip's file asks for; empty where that cannot be told. */
  Optional<TrackKind> kindOf(JsonNode clip) {
    Optional<Path> file = fileOf(clip);
    Optional<Media> known = file.map(byFile::get);
    if (known.isPresent()) {
      return known.map(m -> heardAs(m.kind()));
    }
    try {
      return file.filter(Files::exists).map(f -> heardAs(taker.guessKind(f, part())));
    } catch (Problem e) {
      return Optional.empty(); // said when it is taken
    }
  }

  private static TrackKind heardAs(MediaKind kind) {
    return kind.isSeen() ? TrackKind.CAMERA : kind.trackKind();
  }

  private static MediaKind mediaKind(TrackKind kind) {
    return switch (kind) {
      case PICTURE, CAMERA -> MediaKind.PICTURE;
      case VOICE -> MediaKind.VOICE;
      case MUSIC -> MediaKind.MUSIC;
      case EFFECTS -> MediaKind.EFFECT;
    };
  }

  /** The file that a clip names; empty where it names none of this machine. */
  Optional<Path> fileOf(JsonNode clip) {
    String url = OtioNode.referenceOf(clip).path("target_url").asText("");
    return url.isEmpty() ? Optional.empty() : FileUrl.find(url, times.file().getParent());
  }

  private static Path normal(Path file) {
    return file.toAbsolutePath().normalize();
  }
}
