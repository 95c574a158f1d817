package hushrise.app.timeline;

import static hushrise.app.look.Texts.text;

import hushrise.core.edit.ClipEdits;
import hushrise.core.edit.LevelEdits;
import hushrise.core.project.Clip;
import hushrise.core.project.CrossfadeShape;
import hushrise.core.project.Keyframe;
import hushrise.core.project.SegmentShape;
import hushrise.core.project.Track;
import hushrise.core.project.TrackKind;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javafx.scene.control.MenuItem;
import javafx.scene.control.RadioMenuItem;
import javafx.scene.control.SeparatorMenuItem;

/** The menu of what lies under the pointer in a lane. */
final class LaneMenu {

  private LaneMenu() {}

  static List<MenuItem> items(Target target, Track track, Viewport view) {
    return switch (target) {
      case Target.OnClip c -> ofClip(c.clipId(), track, view);
      case Target.OnClipStart c -> ofClip(c.clipId(), track, view);
      case Target.OnClipEnd c -> ofClip(c.clipId(), track, view);
      case Target.OnSeam s -> named(view, "seam.audition", "seam.reject");
      case Target.OnKeyframe k -> ofKeyframe(k.index(), track, view);
      case Target.OnFloor f -> ofHush(view);
      case Target.OnShape s -> s.part().isOfHush() ? ofHush(view) : named(view, "melt", "delete");
      case Target.OnStretch s -> ofStretch(s.nextIndex(), track, view);
      case Target.OnSpanEdge s -> named(view, "hush.here", "rise.here", "passage.add", "delete");
      case Target.OnPassage p ->
          named(
              view,
              "passage.split",
              "passage.join",
              "delete",
              "speech.read",
              "speech.write",
              "speech.again");
      default -> named(view, "keyframe.add", "hush.here", "rise.here", "clip.paste");
    };
  }

  private static List<MenuItem> named(Viewport view, String... ids) {
    List<MenuItem> items = new ArrayList<>();
    for (String id : ids) {
      items.add(view.commands().item(id));
    }
    return items;
  }

  private static List<MenuItem> ofHush(Viewport view) {
    return named(
        view,
        "hush.toNext",
        "hush.toTrack",
        "hush.toProject",
        "hush.merge",
        "hush.forget",
        "melt",
        "zoom.selection",
        "delete");
  }

  private static List<MenuItem> ofKeyframe(int index, Track track, Viewport view) {
    List<MenuItem> items = shapes(index, track, view);
    items.addAll(named(view, "clip.copy", "delete", "keyframe.clearTrack"));
    return items;
  }

  private static List<MenuItem> ofStretch(int nextIndex, Track track, Viewport view) {
    List<MenuItem> items =
        nextIndex > 0 && nextIndex < track.line().keyframes().size()
            ? shapes(nextIndex - 1, track, view)
            : new ArrayList<>();
    items.addAll(
        named(view, "keyframe.add", "clip.paste", "keyframe.clearClip", "keyframe.clearTrack"));
    return items;
  }

  /** How the line goes on from a keyframe. */
  private static List<MenuItem> shapes(int index, Track track, Viewport view) {
    List<MenuItem> items = new ArrayList<>();
    Keyframe keyframe = track.line().keyframes().get(index);
    for (SegmentShape shape : SegmentShape.values()) {
      RadioMenuItem item =
          new RadioMenuItem(text("shape." + shape.name().toLowerCase(Locale.ROOT)));
      item.setGraphic(SegmentIcon.of(shape));
      item.setSelected(keyframe.shape() == shape);
      item.setOnAction(
          e ->
              view.session()
                  .commit(
                      text("edit.shape"),
                      p -> LevelEdits.shapeSegment(p, track.id(), keyframe.frame(), shape)));
      items.add(item);
    }
    items.add(new SeparatorMenuItem());
    return items;
  }

  private static List<MenuItem> ofClip(String clipId, Track track, Viewport view) {
    List<MenuItem> items = named(view, "clip.split", "clip.trimStart", "clip.trimEnd");
    if (track.kind().sounds()) {
      items.addAll(named(view, "clip.toPictureEnd", "clip.fadeWithPicture"));
    }
    if (track.isVoice()) {
      items.add(new SeparatorMenuItem());
      items.addAll(
          named(
              view,
              "voices.asOthers",
              "voices.even",
              "speech.read",
              "speech.write",
              "speech.again"));
    }
    if (track.kind() == TrackKind.MUSIC) {
      items.add(new SeparatorMenuItem());
      items.addAll(named(view, "fit.trim", "fit.loop", "fit.tailor", "fit.none"));
    }
    Optional<Clip> clip = track.clip(clipId);
    if (clip.isPresent() && ClipEdits.crossfadeFrames(track, clip.get()) > 0) {
      items.add(new SeparatorMenuItem());
      for (CrossfadeShape shape : CrossfadeShape.values()) {
        items.add(crossfade(clip.get(), shape, view));
      }
    }
    items.add(new SeparatorMenuItem());
    items.addAll(
        named(
            view,
            "clip.cut",
            "clip.copy",
            "clip.paste",
            "clip.duplicate",
            "delete",
            "clip.deleteClosing",
            "zoom.selection"));
    return items;
  }

  private static MenuItem crossfade(Clip clip, CrossfadeShape shape, Viewport view) {
    RadioMenuItem item =
        new RadioMenuItem(text("crossfade." + shape.name().toLowerCase(Locale.ROOT)));
    item.setSelected(clip.crossfade() == shape);
    item.setOnAction(
        e ->
            view.session()
                .commit(text("edit.crossfade"), p -> ClipEdits.setCrossfade(p, clip.id(), shape)));
    return item;
  }
}
