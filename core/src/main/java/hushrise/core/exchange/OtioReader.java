package hushrise.core.exchange;

import com.fasterxml.jackson.core.json.JsonReadFeature;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import hushrise.core.Ids;
import hushrise.core.Problem;
import hushrise.core.edit.TrackEdits;
import hushrise.core.project.Marker;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Fade;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.Progress;
import hushrise.core.store.ProjectFile;
import hushrise.core.store.WholeFile;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Reads OpenTimelineIO JSON, as this program and others write it.
 *
 * <p>A timeline that this program wrote and nobody changed gives its project back whole. Where one
 * was changed elsewhere, the tracks that are as they were come back whole, of the others the clips
 * are taken, and what the tracks had besides, their levels and hushes, is kept.
 *
 * <p>Of a timeline that another program wrote, what is seen of its picture tracks becomes one
 * track; each sound track becomes one of the kind that its name or its files ask for. Media count
 * from where they begin in their own time, as from a camera's timecode.
 */
public final class OtioReader {

  private static final JsonMapper MAPPER =
      JsonMapper.builder().enable(JsonReadFeature.ALLOW_NON_NUMERIC_NUMBERS).build();

  private static final int MOST_BYTES = 256 << 20;
  private static final int MOST_TRACKS = 900;

  /** Looks at media files. */
  public interface Taker {

    /**
     * A file as an item of the Shelf.
     *
     * @throws Problem when it cannot be read
     */
    Media take(Path file, MediaKind kind, Progress progress);

    /**
     * What a file is probably for.
     *
     * @throws Problem when it cannot be read
     */
    MediaKind guessKind(Path file, Progress progress);
  }

  /**
   * A timeline as a project.
   *
   * @param losses what could not be taken over, in sentences
   */
  public record Reading(Project project, List<String> losses) {}

  private final Path file;
  private final OtioTimes times;
  private final OtioLosses losses = new OtioLosses();
  private final OtioShelf shelf;
  private final OtioWalk walk;
  private Optional<Project> known = Optional.empty();
  private final Map<JsonNode, Track> untouched = new IdentityHashMap<>();

  /** The further layers of those. */
  private final Set<JsonNode> furtherLayers = Collections.newSetFromMap(new IdentityHashMap<>());

  private final Set<String> usedIds = new HashSet<>();

  private OtioReader(Path file, Taker taker, Progress progress) {
    this.file = file.toAbsolutePath().normalize();
    times = new OtioTimes(this.file, Project.DEFAULT_SAMPLE_RATE);
    shelf = new OtioShelf(times, taker, progress);
    walk = new OtioWalk(times, shelf, losses);
  }

  /**
   * Reads a timeline.
   *
   * @param progress of all its files
   * @throws Problem when it is none, is damaged, or none of its media can be read
   */
  public static Reading read(Path file, Taker taker, Progress progress) {
    byte[] bytes = WholeFile.bytes(file, "file", MOST_BYTES);
    try {
      return new OtioReader(file, taker, progress).reading(MAPPER.readTree(bytes));
    } catch (IOException e) {
      throw new Problem(
          "%s is no OpenTimelineIO file, or is damaged: export it again.".formatted(file), e);
    }
  }

  private Reading reading(JsonNode root) {
    JsonNode timeline = timelineOf(root);
    JsonNode stack = timeline.path("tracks");
    JsonNode ours = timeline.path("metadata").path(Otio.KEY);
    if (ours.path("project").isObject()) {
      known = Optional.of(ProjectFile.read(ours.get("project"), file));
      if (ours.path("sum").asText().equals(Otio.sumOf(stack))) {
        return new Reading(known.get(), List.of());
      }
      known.get().shelf().forEach(shelf::keep);
    }
    shelf.expect(stack);
    List<Track> tracks = tracks(stack);
    List<String> sentences = new ArrayList<>(shelf.sentences());
    sentences.addAll(losses.sentences());
    if (tracks.stream().allMatch(t -> t.clips().isEmpty()) && !sentences.isEmpty()) {
      throw new Problem("%s: %s".formatted(file, String.join(" ", sentences)));
    }
    Project project =
        known
            .orElseGet(() -> begun(timeline))
            .withShelf(shelf.items())
            .withTracks(tracks)
            .withMarkers(markers(stack));
    return new Reading(project, sentences);
  }

  /** The timeline itself, which may lie in a collection. */
  private JsonNode timelineOf(JsonNode root) {
    JsonNode found = root;
    if (OtioNode.is(root, "SerializableCollection")) {
      List<JsonNode> timelines = new ArrayList<>();
      root.path("children")
          .forEach(
              child ->
                  timelines.addAll(OtioNode.is(child, "Timeline") ? List.of(child) : List.of()));
      losses.add(OtioLosses.Kind.TIMELINE, timelines.size() - 1);
      found = timelines.isEmpty() ? root : timelines.getFirst();
    }
    if (!OtioNode.is(found, "Timeline") || !found.path("tracks").isObject()) {
      throw new Problem(
          "%s holds no timeline: export one as OpenTimelineIO (.otio) again.".formatted(file));
    }
    return found;
  }

  /** A project as others' timelines begin one: named, with the rate of its picture. */
  private Project begun(JsonNode timeline) {
    String name = OtioNode.text(timeline, "name");
    Project named = Project.empty(name.isEmpty() ? bareName() : name);
    return shelf.items().stream()
        .flatMap(m -> m.pictureRate().stream())
        .findFirst()
        .map(named::withPictureRate)
        .orElse(named);
  }

  private String bareName() {
    String name = String.valueOf(file.getFileName());
    int dot = name.lastIndexOf('.');
    return dot > 0 ? name.substring(0, dot) : name;
  }

  private List<Marker> markers(JsonNode stack) {
    List<Marker> markers = new ArrayList<>();
    for (JsonNode node : stack.path("markers")) {
      double frame = times.frames(node.path("marked_range").path("start_time"));
      markers.add(walk.marker(node, Math.max(0, frame)));
    }
    markers.addAll(walk.markers());
    Set<String> seen = new HashSet<>(); // a picture and its sound carry the same ones
    return markers.stream()
        .filter(m -> seen.add(m.frame() + " " + m.name()))
        .sorted(Comparator.comparingLong(Marker::frame))
        .toList();
  }

  private List<Track> tracks(JsonNode stack) {
    List<JsonNode> pictures = new ArrayList<>();
    List<JsonNode> sounds = new ArrayList<>();
    for (JsonNode child : stack.path("children")) {
      String kind = OtioNode.text(child, "kind");
      if (!OtioNode.is(child, "Track")) {
        pictures.add(child);
        sounds.add(child);
      } else if (kind.equals("Video")) {
        pictures.add(child);
      } else if (kind.isEmpty() || kind.equals("Audio")) {
        sounds.add(child);
      } else {
        losses.add(OtioLosses.Kind.TRACK);
      }
    }
    known.ifPresent(p -> p.tracks().forEach(t -> noteIfUntouched(t, stack)));
    List<Track> tracks = new ArrayList<>(pictureTrack(pictures, stack));
    for (JsonNode sound : sounds) {
      tracks.addAll(soundTracks(sound, stack));
      times.requireBelievable(tracks.size() <= MOST_TRACKS);
    }
    return known.isPresent() ? tracks : tracks.stream().sorted(TrackEdits.USUAL_ORDER).toList();
  }

  /** All that is seen, on one track; none when nothing is. */
  private List<Track> pictureTrack(List<JsonNode> nodes, JsonNode stack) {
    if (nodes.size() == 1 && untouched.containsKey(nodes.getFirst())) {
      return List.of(untouched.get(nodes.getFirst()));
    }
    Optional<Track> before =
        nodes.stream()
            .flatMap(n -> known(n).stream())
            .filter(t -> t.kind() == TrackKind.PICTURE && usedIds.add(t.id()))
            .findFirst();
    List<List<OtioPiece>> layers = new ArrayList<>();
    for (JsonNode node : nodes) {
      if (OtioNode.isOn(node)) {
        layers.addAll(walk.layers(node, TrackKind.PICTURE));
      }
    }
    List<Clip> clips = clips(OtioPiece.seenFromAbove(walk.cut(layers, stack)));
    if (clips.isEmpty() && before.isEmpty()) {
      return List.of();
    }
    return List.of(
        before.orElseGet(() -> Track.of(TrackKind.PICTURE, "Picture", List.of())).withClips(clips));
  }

  /** A sound track; several where stacks lie on it; none when nothing is heard on it. */
  private List<Track> soundTracks(JsonNode node, JsonNode stack) {
    if (untouched.containsKey(node)) {
      return List.of(untouched.get(node));
    }
    if (furtherLayers.contains(node)) {
      return List.of();
    }
    Optional<Track> before = known(node).filter(t -> t.kind().sounds() && usedIds.add(t.id()));
    TrackKind kind = before.map(Track::kind).orElseGet(() -> OtioTracks.kindOf(node, shelf));
    String name = OtioTracks.nameOf(node, kind);
    List<Track> tracks = new ArrayList<>();
    for (List<OtioPiece> layer : walk.cut(walk.layers(node, kind), stack)) {
      List<Clip> clips = clips(layer);
      boolean first = tracks.isEmpty();
      if (!clips.isEmpty() || (first && before.isPresent())) {
        Track track =
            before
                .filter(t -> first)
                .orElseGet(
                    () -> another(node, kind, first ? name : name + " " + (tracks.size() + 1)));
        boolean off = node.has("enabled") ? !OtioNode.isOn(node) : track.muted();
        tracks.add(track.withClips(clips).withMuted(off));
      }
    }
    return tracks;
  }

  /** A track that is not known; as loud as the one of which it is a further layer. */
  private Track another(JsonNode node, TrackKind kind, String name) {
    Track plain = Track.of(kind, name, List.of());
    return node.path("metadata").path(Otio.KEY).has(Otio.LAYER)
        ? known(node)
            .map(t -> plain.withLevelDb(t.levelDb()).withPan(t.pan()).withLine(t.line()))
            .orElse(plain)
        : plain;
  }

  /** The track that a node was written from; empty when that is not known. */
  private Optional<Track> known(JsonNode node) {
    String id = node.path("metadata").path(Otio.KEY).path("id").asText("");
    return known.flatMap(p -> p.track(id));
  }

  /** Notes a track that is as this program wrote it; its ids are taken then. */
  private void noteIfUntouched(Track track, JsonNode stack) {
    List<JsonNode> found = new ArrayList<>();
    for (JsonNode written : Otio.tracks(known.orElseThrow(), track, file)) {
      for (JsonNode node : stack.path("children")) {
        if (isLayerOf(written, node) && Otio.sumOf(written).equals(Otio.sumOf(node))) {
          found.add(node);
          break;
        }
      }
    }
    if (found.size() == OtioRun.layers(track).size()) {
      untouched.put(found.getFirst(), track);
      furtherLayers.addAll(found.subList(1, found.size()));
      usedIds.add(track.id());
      track.clips().forEach(c -> usedIds.add(c.id()));
    }
  }

  /** Whether a track is the one of the same layer that was written, changed or not. */
  private static boolean isLayerOf(JsonNode written, JsonNode node) {
    JsonNode own = written.path("metadata").path(Otio.KEY);
    JsonNode others = node.path("metadata").path(Otio.KEY);
    return own.path("id").equals(others.path("id"))
        && own.path(Otio.LAYER).asInt() == others.path(Otio.LAYER).asInt();
  }

  private List<Clip> clips(List<OtioPiece> pieces) {
    Map<String, OtioPiece> lasts = new HashMap<>();
    pieces.forEach(p -> lasts.put(idOf(p), p));
    List<Clip> clips = new ArrayList<>();
    for (OtioPiece piece : pieces) {
      clip(piece, lasts.get(idOf(piece)) == piece).ifPresent(clips::add);
    }
    return clips;
  }

  /** The clip that a piece was written from; empty when that was not here. */
  private static String idOf(OtioPiece piece) {
    return piece.clip().path("metadata").path(Otio.KEY).path("id").asText("");
  }

  /**
   * A piece as a clip, with what the one that it was written from had besides.
   *
   * @param last whether that one ends with it, as it may have been cut
   */
  private Optional<Clip> clip(OtioPiece piece, boolean last) {
    long start = Math.round(piece.start());
    long length = Math.round(piece.end()) - start;
    if (length < 1) {
      return Optional.empty();
    }
    Optional<Clip> before = known.flatMap(p -> p.clip(idOf(piece)));
    boolean first = before.isPresent() && usedIds.add(idOf(piece));
    Clip clip =
        before
            .orElseGet(() -> Clip.whole(piece.media(), 0))
            .withId(first ? idOf(piece) : Ids.fresh("clip"))
            .withMediaId(piece.media().id())
            .withFit(Optional.empty())
            .withExtent(start, length, Math.round(piece.mediaStart()), List.of());
    return Optional.of(
        clip.withFadeIn(fade(piece.fadeIn(), first ? clip.fadeIn() : Fade.NONE))
            .withFadeOut(fade(piece.fadeOut(), last ? clip.fadeOut() : Fade.NONE))
            .withFittingFades());
  }

  private static Fade fade(double frames, Fade before) {
    return frames >= 1 ? Fade.ofLength(Math.round(frames)) : before;
  }
}
