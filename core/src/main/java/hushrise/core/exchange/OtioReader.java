package hushrise.core.exchange;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import hushrise.core.Ids;
import hushrise.core.Problem;
import hushrise.core.project.Marker;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Fade;
import hushrise.core.project.timeline.Track;
import hushrise.core.store.ProjectFile;
import hushrise.core.store.WholeFile;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Reads OpenTimelineIO JSON. One that this program wrote and nobody changed gives its project back
 * whole; where its clips were changed elsewhere, these are taken, and what the tracks had besides,
 * their levels and hushes, is kept.
 */
public final class OtioReader {

  private static final ObjectMapper MAPPER = new ObjectMapper();
  private static final int MOST_BYTES = 256 << 20;
  private static final long MOST_SECONDS = 200_000;
  private static final int MOST_CHILDREN = 100_000;

  /** Looks at a media file. */
  @FunctionalInterface
  public interface Taker {

    /**
     * A file as an item of the Shelf.
     *
     * @throws Problem when it cannot be read
     */
    Media take(Path file, MediaKind kind);
  }

  private final Path file;
  private final Taker taker;
  private final int rate = Project.DEFAULT_SAMPLE_RATE;
  private final Map<Path, Media> shelf = new HashMap<>();
  private final List<Media> order = new ArrayList<>();
  private Optional<Project> known = Optional.empty();
  private final Set<String> usedIds = new HashSet<>();
  private int children;

  private OtioReader(Path file, Taker taker) {
    this.file = file.toAbsolutePath().normalize();
    this.taker = taker;
  }

  /**
   * Reads a timeline.
   *
   * @throws Problem when it is none, is damaged, or its media cannot be read
   */
  public static Project read(Path file, Taker taker) {
    byte[] bytes = WholeFile.bytes(file, "file", MOST_BYTES);
    try {
      return new OtioReader(file, taker).timeline(MAPPER.readTree(bytes));
    } catch (IOException e) {
      throw new Problem(
          "%s is no OpenTimelineIO file, or is damaged: export it again.".formatted(file), e);
    }
  }

  private Project timeline(JsonNode timeline) {
    JsonNode stack = timeline.path("tracks");
    if (!timeline.path("OTIO_SCHEMA").asText().startsWith("Timeline.") || !stack.isObject()) {
      throw new Problem(
          "%s holds no timeline: export one as OpenTimelineIO (.otio) again.".formatted(file));
    }
    JsonNode ours = timeline.path("metadata").path(Otio.KEY);
    if (ours.path("project").isObject()) {
      known = Optional.of(ProjectFile.read(ours.get("project"), file));
      if (ours.path("sum").asText().equals(Otio.sumOf(stack))) {
        return known.get();
      }
      known.get().shelf().forEach(m -> keep(m.file(), m));
    }
    List<Track> tracks = new ArrayList<>();
    for (JsonNode track : stack.path("children")) {
      tracks.add(track(track));
    }
    Project base = known.orElseGet(() -> Project.empty(timeline.path("name").asText()));
    return base.withShelf(order).withTracks(tracks).withMarkers(markers(stack));
  }

  private Media keep(Path path, Media media) {
    shelf.put(path.toAbsolutePath().normalize(), media);
    order.add(media);
    return media;
  }

  private List<Marker> markers(JsonNode stack) {
    List<Marker> markers = new ArrayList<>();
    for (JsonNode marker : stack.path("markers")) {
      long frame = frames(marker.path("marked_range").path("start_time"));
      markers.add(new Marker(Ids.fresh("marker"), marker.path("name").asText(), frame));
    }
    return markers;
  }

  private Track track(JsonNode node) {
    Optional<Track> before =
        known.flatMap(p -> p.track(node.path("metadata").path(Otio.KEY).path("id").asText()));
    String name = node.path("name").asText();
    TrackKind kind = before.map(Track::kind).orElseGet(() -> kindOf(node, name));
    List<Clip> clips = new ArrayList<>();
    long at = 0;
    long overlap = 0;
    for (JsonNode child : node.path("children")) {
      requireBelievable(++children <= MOST_CHILDREN);
      String schema = child.path("OTIO_SCHEMA").asText();
      long length = frames(child.path("source_range").path("duration"));
      if (schema.startsWith("Transition.")) {
        overlap = frames(child.path("in_offset")) + frames(child.path("out_offset"));
        if (!clips.isEmpty()) {
          Clip last = clips.removeLast();
          clips.add(last.withLengthFrames(last.lengthFrames() + frames(child.path("out_offset"))));
        }
        continue;
      }
      if (schema.startsWith("Clip.") && length > 0) {
        long earlier = Math.min(overlap / 2, at);
        clip(child, kind, at - earlier, length + earlier, earlier).ifPresent(clips::add);
      }
      overlap = 0;
      at += length;
    }
    Track track = before.orElseGet(() -> Track.of(kind, name, List.of()));
    return track.withClips(clips);
  }

  private static TrackKind kindOf(JsonNode node, String name) {
    String ours = node.path("metadata").path(Otio.KEY).path("kind").asText();
    for (TrackKind kind : TrackKind.values()) {
      if (kind.name().equals(ours)) {
        return kind;
      }
    }
    if (node.path("kind").asText().equals("Video")) {
      return TrackKind.PICTURE;
    }
    String words = name.toLowerCase(Locale.ROOT);
    if (words.matches(".*(voice|narrat|speech|dialog|vo\\b).*")) {
      return TrackKind.VOICE;
    }
    return words.matches(".*(effect|sfx|fx).*") ? TrackKind.EFFECTS : TrackKind.MUSIC;
  }

  /**
   * A clip, with what an untouched one of its name had besides.
   *
   * @param earlier how much of its media lies before its own start, as the one before crosses over
   */
  private Optional<Clip> clip(
      JsonNode node, TrackKind kind, long start, long length, long earlier) {
    JsonNode reference =
        node.has("media_reference")
            ? node.get("media_reference")
            : node.path("media_references").path("DEFAULT_MEDIA");
    String url = reference.path("target_url").asText();
    if (url.isEmpty()) {
      return Optional.empty();
    }
    Media media = mediaOf(url, kind);
    long mediaStart = frames(node.path("source_range").path("start_time"));
    String id = node.path("metadata").path(Otio.KEY).path("id").asText();
    Optional<Clip> before = known.flatMap(p -> p.clip(id));
    Clip clip =
        before
            .orElseGet(() -> Clip.whole(media, 0))
            .withId(before.isPresent() && firstOf(id) ? id : Ids.fresh("clip"))
            .withMediaId(media.id())
            .withFit(Optional.empty());
    return Optional.of(
        clip.withExtent(start, length, Math.max(0, mediaStart - earlier), List.of())
            .withFadeIn(before.map(Clip::fadeIn).orElse(Fade.NONE))
            .withFittingFades());
  }

  private boolean firstOf(String id) {
    return usedIds.add(id);
  }

  private Media mediaOf(String url, TrackKind kind) {
    Path path;
    try {
      path = FileUrl.pathOf(url, file.getParent());
    } catch (IllegalArgumentException e) {
      throw new Problem(
          "%s refers to %s, which is no file here: link its media again where it was made."
              .formatted(file, url),
          e);
    }
    Path found = path.toAbsolutePath().normalize();
    Media there = shelf.get(found);
    return there == null ? keep(found, taker.take(found, mediaKind(kind))) : there;
  }

  private static MediaKind mediaKind(TrackKind kind) {
    return switch (kind) {
      case PICTURE, CAMERA -> MediaKind.PICTURE;
      case VOICE -> MediaKind.VOICE;
      case MUSIC -> MediaKind.MUSIC;
      case EFFECTS -> MediaKind.EFFECT;
    };
  }

  /** A time in sample frames, whatever its own rate. */
  private long frames(JsonNode time) {
    double value = time.path("value").asDouble(0);
    double own = time.path("rate").asDouble(rate);
    double seconds = value / own;
    requireBelievable(own > 0 && seconds >= 0 && seconds <= MOST_SECONDS);
    return Math.round(seconds * rate);
  }

  private void requireBelievable(boolean fine) {
    if (!fine) {
      throw new Problem("%s has times or counts that cannot be: export it again.".formatted(file));
    }
  }
}
