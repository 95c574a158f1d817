package hushrise.app.timeline;

import static hushrise.app.look.Texts.text;

import hushrise.app.Selection;
import hushrise.core.edit.ClipEdits;
import hushrise.core.edit.Snap;
import hushrise.core.project.Clip;
import hushrise.core.project.Project;
import hushrise.core.project.Track;
import hushrise.core.time.Timecode;
import java.util.OptionalLong;
import java.util.Set;
import java.util.stream.LongStream;

/**
 * A drag of clips: the chosen ones move together, in time and to other tracks of their kind; an
 * edge trims; the content slips under fixed ends. Edges are drawn to places near them.
 */
final class ClipDrag implements Drag {

  /** What a drag of a clip does. */
  enum Way {
    MOVE,
    TRIM_START,
    TRIM_END,
    SLIP
  }

  private static final double SLACK = 3;

  private final Way way;
  private final Viewport view;
  private final Project before;
  private final Track track;
  private final Clip clip;
  private final Set<String> chosen;
  private final double pressX;
  private final double pressY;
  private final Snap snap;
  private boolean moved;
  private String sign = "";
  private OptionalLong place = OptionalLong.empty();
  private Selection selection;

  /**
   * @param chosen the clips that move together; holds the clip itself
   */
  ClipDrag(Way way, Viewport view, Track track, Clip clip, Set<String> chosen, double x, double y) {
    this.way = way;
    this.view = view;
    this.before = view.session().present();
    this.track = track;
    this.clip = clip;
    this.chosen = way == Way.MOVE ? chosen : Set.of(clip.id());
    this.pressX = x;
    this.pressY = y;
    this.snap = Snap.of(before, this.chosen, view.session().playhead(), view.cuts().frames());
    this.selection = view.session().selection();
  }

  @Override
  public Project at(Pull pull) {
    moved |= Math.max(Math.abs(pull.x() - pressX), Math.abs(pull.y() - pressY)) > SLACK;
    if (!moved) {
      return before;
    }
    long by = Math.round((pull.x() - pressX) * view.axis().framesPerPixel());
    boolean snaps = view.session().snapsProperty().get() && !pull.freed() && way != Way.SLIP;
    Snap.Landing landing =
        snaps
            ? snap.landing(edges(), by, view.snapReach())
            : new Snap.Landing(by, OptionalLong.empty());
    place = landing.place();
    return switch (way) {
      case MOVE -> move(landing.byFrames(), pull);
      case TRIM_START -> trimStart(clip.startFrame() + landing.byFrames());
      case TRIM_END -> trimEnd(clip.endFrame() + landing.byFrames());
      case SLIP -> slip(landing.byFrames());
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

  private Project move(long by, Pull pull) {
    boolean carries = view.session().carriesKeyframes();
    Project result = ClipEdits.move(before, chosen, by, carries);
    String onTrack = track.id();
    if (pull.trackUnder().isPresent() && !pull.trackUnder().get().equals(track.id())) {
      String other = pull.trackUnder().get();
      result = ClipEdits.moveToTrack(result, chosen, track.id(), other, carries);
      onTrack = result.trackOfClip(clip.id()).orElseThrow().id();
    }
    selection = new Selection.OfClip(onTrack, lastAtEnd());
    sign = time(result.clip(clip.id()).orElseThrow().startFrame());
    return result;
  }

  private java.util.List<String> lastAtEnd() {
    java.util.List<String> ids = new java.util.ArrayList<>(chosen);
    ids.remove(clip.id());
    ids.add(clip.id());
    return ids;
  }

  private Project trimStart(long to) {
    Project result = ClipEdits.trimStart(before, clip.id(), to);
    Clip now = result.clip(clip.id()).orElseThrow();
    sign = time(now.startFrame()) + "   " + seconds(now.lengthFrames());
    return result;
  }

  private Project trimEnd(long to) {
    Project result = ClipEdits.trimEnd(before, clip.id(), to);
    Clip now = result.clip(clip.id()).orElseThrow();
    sign = time(now.endFrame()) + "   " + seconds(now.lengthFrames());
    return result;
  }

  private Project slip(long by) {
    Project result = ClipEdits.slip(before, clip.id(), by);
    Clip now = result.clip(clip.id()).orElseThrow();
    sign = text("sign.slip", seconds(now.mediaStartFrame()));
    return result;
  }

  private String time(long frame) {
    return Timecode.format(frame, before.pictureRate(), before.sampleRate());
  }

  private String seconds(long frames) {
    return Timecode.seconds(frames, before.sampleRate());
  }

  @Override
  public String sign() {
    return sign;
  }

  @Override
  public Selection selection() {
    return selection;
  }

  @Override
  public boolean hasMoved() {
    return moved;
  }

  @Override
  public OptionalLong snapPlace() {
    return place;
  }

  @Override
  public String name() {
    return switch (way) {
      case MOVE -> text(chosen.size() > 1 ? "edit.moveClips" : "edit.moveClip");
      case TRIM_START -> text("edit.trimStart");
      case TRIM_END -> text("edit.trimEnd");
      case SLIP -> text("edit.slip");
    };
  }
}
