package hushrise.core.exchange;

import com.fasterxml.jackson.databind.JsonNode;
import hushrise.core.Ids;
import hushrise.core.project.Marker;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Lays out what a timeline is composed of: tracks hold one thing after another, stacks hold things
 * over one another, and both may lie within each other and be cut. What comes out are layers of
 * pieces, the uppermost last.
 */
final class OtioWalk {

  private static final int MOST_CHILDREN = 100_000;

  /** Media and clips that differ by less end together, in seconds. */
  private static final double SAME_SECONDS = 0.1;

  private final OtioTimes times;
  private final OtioShelf shelf;
  private final OtioLosses losses;
  private final List<Marker> markers = new ArrayList<>();
  private int children;
  private int depth;

  OtioWalk(OtioTimes times, OtioShelf shelf, OtioLosses losses) {
    this.times = times;
    this.shelf = shelf;
    this.losses = losses;
  }

  /**
   * The layers of a track, a stack or a single clip.
   *
   * @param kind the kind of track that they are for
   */
  List<List<OtioPiece>> layers(JsonNode node, TrackKind kind) {
    depth++;
    try {
      return laidOut(node, kind);
    } finally {
      depth--;
    }
  }

  private List<List<OtioPiece>> laidOut(JsonNode node, TrackKind kind) {
    if (OtioNode.is(node, "Track")) {
      noteMarkers(node, 0, new OtioTimes.Range(0, Double.MAX_VALUE));
      return cut(line(node.path("children"), kind), node);
    }
    if (!OtioNode.is(node, "Stack")) {
      return line(List.of(node), kind);
    }
    List<List<OtioPiece>> layers = new ArrayList<>();
    for (JsonNode child : node.path("children")) {
      if (OtioNode.isOn(child) && OtioNode.carries(child, kind)) {
        layers.addAll(layers(child, kind));
      }
    }
    return cut(layers, node);
  }

  /** The markers of the tracks that were laid out, and of what lies on them. */
  List<Marker> markers() {
    return markers;
  }

  /** Takes the markers of something that lies at a time; what lies deeper has none of its own. */
  private void noteMarkers(JsonNode item, double at, OtioTimes.Range extent) {
    for (JsonNode node : depth == 1 ? item.path("markers") : List.<JsonNode>of()) {
      double mark = times.frames(node.path("marked_range").path("start_time"));
      if (mark >= extent.start() && mark < extent.end()) {
        markers.add(marker(node, at + mark - extent.start()));
      }
    }
  }

  /** A marker at a time. */
  Marker marker(JsonNode node, double frame) {
    times.requireBelievable(times.isOnTimeline(frame));
    String name = OtioNode.text(node, "name");
    String words = name.isEmpty() ? OtioNode.text(node, "comment") : name;
    return new Marker(Ids.fresh("marker"), words, Math.round(frame));
  }

  /** What lies in a composition's own range, which it then begins with. */
  List<List<OtioPiece>> cut(List<List<OtioPiece>> layers, JsonNode composition) {
    Optional<OtioTimes.Range> range = times.range(composition.path("source_range"));
    return range
        .map(
            r ->
                layers.stream()
                    .map(
                        layer ->
                            layer.stream()
                                .flatMap(p -> p.within(r.start(), r.end()).stream())
                                .map(p -> p.movedBy(-r.start()))
                                .toList())
                    .toList())
        .orElse(layers);
  }

  /** One thing after another; where a stack lies among them, its upper layers come out apart. */
  private List<List<OtioPiece>> line(Iterable<JsonNode> nodes, TrackKind kind) {
    List<OtioPiece> pieces = new ArrayList<>();
    List<List<OtioPiece>> over = new ArrayList<>();
    double at = 0;
    boolean touches = false;
    Optional<JsonNode> turn = Optional.empty();
    for (JsonNode node : nodes) {
      times.requireBelievable(++children <= MOST_CHILDREN);
      if (OtioNode.is(node, "Transition")) {
        turn = Optional.of(node);
        continue;
      }
      OtioTimes.Range extent = extentOf(node, kind);
      Optional<OtioPiece> piece =
          OtioNode.is(node, "Clip") ? piece(node, extent, at, kind) : Optional.empty();
      if (turn.isPresent()) {
        piece = turned(turn.get(), pieces, touches, piece, kind);
      }
      piece.ifPresent(pieces::add);
      if (OtioNode.is(node, "Track") || OtioNode.is(node, "Stack")) {
        addWithin(node, at, kind, pieces, over);
      }
      touches = piece.isPresent();
      turn = Optional.empty();
      noteMarkers(node, at, extent);
      at += extent.length();
      times.requireBelievable(times.isOnTimeline(at));
    }
    if (turn.isPresent()) {
      turned(turn.get(), pieces, touches, Optional.empty(), kind);
    }
    over.addFirst(pieces);
    return over;
  }

  private void addWithin(
      JsonNode node,
      double at,
      TrackKind kind,
      List<OtioPiece> pieces,
      List<List<OtioPiece>> over) {
    if (!OtioNode.isOn(node)) {
      losses.add(OtioLosses.Kind.OFF);
      return;
    }
    boolean lowest = true;
    for (List<OtioPiece> layer : layers(node, kind)) {
      List<OtioPiece> moved = layer.stream().map(p -> p.movedBy(at)).toList();
      if (lowest) {
        pieces.addAll(moved);
      } else {
        over.add(moved);
      }
      lowest = false;
    }
  }

  /**
   * A piece after a transition. Between two sounds both are lengthened, so that they cross; beside
   * silence it is a fade. Pictures are cut.
   *
   * @param touches whether the last of the pieces ends where the transition is
   * @return the piece as it is with it; empty where silence follows
   */
  private Optional<OtioPiece> turned(
      JsonNode turn,
      List<OtioPiece> pieces,
      boolean touches,
      Optional<OtioPiece> next,
      TrackKind kind) {
    if (kind == TrackKind.PICTURE) {
      losses.add(OtioLosses.Kind.TURN);
      return next;
    }
    double in = times.length(turn.path("in_offset"));
    double out = times.length(turn.path("out_offset"));
    if (touches) {
      OtioPiece last = pieces.removeLast().longer(out);
      pieces.add(next.isPresent() ? last : last.withFadeOut(in + out));
    }
    return next.map(p -> p.earlier(in)).map(p -> touches ? p : p.withFadeIn(in + out));
  }

  private Optional<OtioPiece> piece(
      JsonNode clip, OtioTimes.Range extent, double at, TrackKind kind) {
    if (!OtioNode.isOn(clip)) {
      losses.add(OtioLosses.Kind.OFF);
      return Optional.empty();
    }
    if (shelf.fileOf(clip).isEmpty()) {
      losses.add(OtioLosses.Kind.NO_FILE);
    }
    Optional<Media> media = shelf.mediaOf(clip, kind);
    if (media.isEmpty() || extent.length() <= 0) {
      return Optional.empty();
    }
    boolean fits = kind == TrackKind.PICTURE ? media.get().kind().isSeen() : media.get().hasSound();
    if (!fits) {
      losses.add(OtioLosses.Kind.UNFIT);
      return Optional.empty();
    }
    noteEffects(clip);
    if (media.get().kind() == MediaKind.STILL) {
      return Optional.of(new OtioPiece(clip, media.get(), at, extent.length(), 0, 0, 0));
    }
    double from = extent.start() - mediaBegin(clip);
    double start = at + Math.max(0, -from);
    double mediaStart = Math.max(0, from);
    double wanted = at + extent.length() - start;
    double there = media.get().lengthFrames() - mediaStart;
    if (Math.min(wanted, there) < 1) {
      losses.add(OtioLosses.Kind.OUTSIDE);
      return Optional.empty();
    }
    if (wanted > there + SAME_SECONDS * times.sampleRate()) {
      losses.add(OtioLosses.Kind.SHORTER);
    }
    return Optional.of(
        new OtioPiece(clip, media.get(), start, Math.min(wanted, there), mediaStart, 0, 0));
  }

  private void noteEffects(JsonNode clip) {
    int others = 0;
    boolean speed = false;
    for (JsonNode effect : clip.path("effects")) {
      boolean ofTime =
          OtioNode.is(effect, "LinearTimeWarp")
              || OtioNode.is(effect, "FreezeFrame")
              || OtioNode.is(effect, "TimeEffect");
      speed |= ofTime;
      others += ofTime ? 0 : 1;
    }
    losses.add(OtioLosses.Kind.SPEED, speed ? 1 : 0);
    losses.add(OtioLosses.Kind.EFFECT, others);
  }

  /** When a clip's media begins in its own time, as the timecode of a camera. */
  private double mediaBegin(JsonNode clip) {
    return times
        .range(OtioNode.referenceOf(clip).path("available_range"))
        .map(OtioTimes.Range::start)
        .orElse(0.0);
  }

  /** Where in its own time an item starts, and how long it is; all of it unless it is cut. */
  private OtioTimes.Range extentOf(JsonNode item, TrackKind kind) {
    return times
        .range(item.path("source_range"))
        .or(() -> times.range(OtioNode.referenceOf(item).path("available_range")))
        .orElseGet(() -> new OtioTimes.Range(0, wholeLength(item, kind)));
  }

  private double wholeLength(JsonNode item, TrackKind kind) {
    if (OtioNode.is(item, "Clip")) {
      return shelf.mediaOf(item, kind).map(Media::lengthFrames).orElse(0L);
    }
    double length = 0;
    for (JsonNode child : item.path("children")) {
      double inner = OtioNode.is(child, "Transition") ? 0 : extentOf(child, kind).length();
      length = OtioNode.is(item, "Track") ? length + inner : Math.max(length, inner);
    }
    return length;
  }
}
