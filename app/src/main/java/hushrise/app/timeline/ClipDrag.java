package hushrise.app.timeline;

import static hushrise.app.words.Texts.text;

import hushrise.app.session.Selection;
import hushrise.core.edit.ClipEdits;
import hushrise.core.edit.Snap;
import hushrise.core.project.Project;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Timecode;
import java.util.OptionalLong;
import java.util.Set;
import java.util.stream.LongStream;

/**
 * A drag of clips: the chosen ones move together, in time and to other tracks of their kind; an
 * edge trims; the content slips under fixed ends. Edges are drawn to places near them.
 */
final class ClipDrag extends Drag {

  /** What a drag of a clip does. */
  enum Way {
    MOVE,
    TRIM_START,
    TRIM_END,
    SLIP
  }

  private final Way way;
  private final Viewport view;
  private final Project before;
  private final Track track;
  private final Clip clip;
  private final Set<String> chosen;
  private final Snap snap;
  private OptionalLong place = OptionalLong.empty();
  private long landed;
  private Selection selection;

  /**
   * @param chosen the clips that move together; holds the clip itself
   */
  ClipDrag(Way way, Viewport view, Track track, Clip clip, Set<String> chosen, double x, double y) {
    super(x, y);
    this.way = way;
    this.view = view;
    this.before = view.session().present();
    this.track = track;
    this.clip = clip;
    this.chosen = way == Way.MOVE ? chosen : Set.of(clip.id());
    this.snap = Snap.of(before, this.chosen, view.session().playhead(), view.cuts().frames());
    this.selection = view.session().selection();
  }

  /** Lands where the pointer is now; what the view does afterwards moves nothing. */
  @Override
  boolean pull(Pull to) {
    boolean moved = super.pull(to);
    long by = byFrames(view.axis());
    boolean snaps = view.session().habits().snapsProperty().get() && !to.freed() && way != Way.SLIP;
    Snap.Landing landing =
        snaps
            ? snap.landing(edges(), by, view.snapReach())
            : new Snap.Landing(by, OptionalLong.empty());
    place = landing.place();
    landed = landing.byFrames();
    return moved;
  }

  @Override
  Project apply(Project base) {
    return switch (way) {
      case MOVE -> move(base, landed);
      case TRIM_START -> trimStart(base, clip.startFrame() + landed);
      case TRIM_END -> trimEnd(base, clip.endFrame() + landed);
      case SLIP -> slip(base, landed);
    };
  }

  private LongStream edges() {
    return switch (way) {
      case TRIM_START -> LongStream.of(clip.startFrame());
      case TRIM_END -> LongStream.of(clip.endFrame());
      case MOVE, SLIP ->
          chosen.stream()
              .flatMap(id -> before.clip(id).stream())
              .flatMapToLong(c -> c.span().edges());
    };
  }

  private Project move(Project base, long by) {
    boolean carries = view.session().habits().carriesKeyframes();
    Project result = ClipEdits.move(base, chosen, by, carries);
    String onTrack = track.id();
    if (pull().trackUnder().isPresent() && !pull().trackUnder().get().equals(track.id())) {
      String other = pull().trackUnder().get();
      result = ClipEdits.moveToTrack(result, chosen, track.id(), other, carries);
      onTrack = result.trackOfClip(clip.id()).orElseThrow().id();
    }
    selection = new Selection.OfClip(onTrack, lastAtEnd());
    setSign(time(result.clip(clip.id()).orElseThrow().startFrame()));
    return result;
  }

  private java.util.List<String> lastAtEnd() {
    java.util.List<String> ids = new java.util.ArrayList<>(chosen);
    ids.remove(clip.id());
    ids.add(clip.id());
    return ids;
  }

  private Project trimStart(Project base, long to) {
    Project result = ClipEdits.trimStart(base, clip.id(), to);
    Clip now = result.clip(clip.id()).orElseThrow();
    setSign(time(now.startFrame()) + "   " + seconds(now.lengthFrames()));
    return result;
  }

  private Project trimEnd(Project base, long to) {
    Project result = ClipEdits.trimEnd(base, clip.id(), to);
    Clip now = result.clip(clip.id()).orElseThrow();
    setSign(time(now.endFrame()) + "   " + seconds(now.lengthFrames()));
    return result;
  }

  private Project slip(Project base, long by) {
    Project result = ClipEdits.slip(base, clip.id(), by);
    Clip now = result.clip(clip.id()).orElseThrow();
    setSign(text("sign.slip", seconds(now.mediaStartFrame())));
    return result;
  }

  private String time(long frame) {
    return Timecode.format(frame, before.pictureRate(), before.sampleRate());
  }

  private String seconds(long frames) {
    return Timecode.seconds(frames, before.sampleRate());
  }

  @Override
  Selection selection() {
    return selection;
  }

  @Override
  OptionalLong snapPlace() {
    return place;
  }

  @Override
  String name() {
    return switch (way) {
      case MOVE -> text(chosen.size() > 1 ? "edit.moveClips" : "edit.moveClip");
      case TRIM_START -> text("edit.trimStart");
      case TRIM_END -> text("edit.trimEnd");
      case SLIP -> text("edit.slip");
    };
  }
}
