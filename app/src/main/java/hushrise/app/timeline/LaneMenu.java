package hushrise.app.timeline;

import static hushrise.app.look.Texts.text;

import hushrise.core.edit.ClipEdits;
import hushrise.core.project.Clip;
import hushrise.core.project.CrossfadeShape;
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
      case Target.OnKeyframe k -> named(view, "delete");
      case Target.OnFloor f -> named(view, "delete", "zoom.selection");
      default -> named(view, "keyframe.add", "clip.paste");
    };
  }

  private static List<MenuItem> named(Viewport view, String... ids) {
    List<MenuItem> items = new ArrayList<>();
    for (String id : ids) {
      items.add(view.commands().item(id));
    }
    return items;
  }

  private static List<MenuItem> ofClip(String clipId, Track track, Viewport view) {
    List<MenuItem> items = named(view, "clip.split", "clip.trimStart", "clip.trimEnd");
    if (track.kind().sounds()) {
      items.addAll(named(view, "clip.toPictureEnd", "clip.fadeWithPicture"));
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
