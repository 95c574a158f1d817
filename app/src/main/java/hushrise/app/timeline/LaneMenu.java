package hushrise.app.timeline;

import static hushrise.app.words.Texts.text;

import hushrise.app.command.CommandId;
import hushrise.core.edit.ClipEdits;
import hushrise.core.edit.LevelEdits;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.SegmentShape;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.CrossfadeShape;
import hushrise.core.project.timeline.Track;
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
      case Target.OnSeam s ->
          named(view, CommandId.SEAM_AUDITION, CommandId.SEAM_REJECT, CommandId.SEAM_TO_CUT);
      case Target.OnKeyframe k -> ofKeyframe(k.index(), track, view);
      case Target.OnFloor f -> ofHush(view);
      case Target.OnShape s ->
          s.part().isOfHush() ? ofHush(view) : named(view, CommandId.MELT, CommandId.DELETE);
      case Target.OnStretch s -> ofStretch(s.nextIndex(), track, view);
      case Target.OnSpanEdge s ->
          named(
              view,
              CommandId.HUSH_HERE,
              CommandId.RISE_HERE,
              CommandId.PASSAGE_ADD,
              CommandId.DELETE);
      case Target.OnPassage p ->
          named(
              view,
              CommandId.PASSAGE_SPLIT,
              CommandId.PASSAGE_JOIN,
              CommandId.DELETE,
              CommandId.SPEECH_READ,
              CommandId.SPEECH_WRITE,
              CommandId.SPEECH_AGAIN);
      default ->
          named(
              view,
              CommandId.HUSH_HERE,
              CommandId.RISE_HERE,
              CommandId.KEYFRAME_ADD,
              CommandId.PASTE);
    };
  }

  private static List<MenuItem> named(Viewport view, CommandId... ids) {
    List<MenuItem> items = new ArrayList<>();
    for (CommandId id : ids) {
      items.add(view.commands().item(id));
    }
    return items;
  }

  private static List<MenuItem> ofHush(Viewport view) {
    return named(
        view,
        CommandId.HUSH_TO_NEXT,
        CommandId.HUSH_TO_TRACK,
        CommandId.HUSH_TO_PROJECT,
        CommandId.HUSH_MERGE,
        CommandId.HUSH_FORGET,
        CommandId.MELT,
        CommandId.ZOOM_SELECTION,
        CommandId.DELETE);
  }

  private static List<MenuItem> ofKeyframe(int index, Track track, Viewport view) {
    List<MenuItem> items = shapes(index, track, view);
    items.addAll(named(view, CommandId.COPY, CommandId.DELETE, CommandId.KEYFRAME_CLEAR_TRACK));
    return items;
  }

  private static List<MenuItem> ofStretch(int nextIndex, Track track, Viewport view) {
    List<MenuItem> items =
        nextIndex > 0 && nextIndex < track.line().keyframes().size()
            ? shapes(nextIndex - 1, track, view)
            : new ArrayList<>();
    if (track.isBackground()) {
      items.addAll(0, named(view, CommandId.HUSH_HERE, CommandId.RISE_HERE));
      items.add(2, new SeparatorMenuItem());
    }
    items.addAll(
        named(
            view,
            CommandId.KEYFRAME_ADD,
            CommandId.PASTE,
            CommandId.KEYFRAME_CLEAR_CLIP,
            CommandId.KEYFRAME_CLEAR_TRACK));
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
    List<MenuItem> items = new ArrayList<>();
    if (track.isBackground()) {
      items.addAll(named(view, CommandId.HUSH_HERE, CommandId.RISE_HERE));
      items.add(new SeparatorMenuItem());
    }
    items.addAll(named(view, CommandId.SPLIT, CommandId.TRIM_START, CommandId.TRIM_END));
    if (track.kind().sounds()) {
      items.addAll(named(view, CommandId.TO_PICTURE_END, CommandId.FADE_WITH_PICTURE));
    }
    if (track.isVoice()) {
      items.add(new SeparatorMenuItem());
      items.addAll(
          named(
              view,
              CommandId.VOICES_AS_OTHERS,
              CommandId.VOICES_EVEN,
              CommandId.SPEECH_READ,
              CommandId.SPEECH_WRITE,
              CommandId.SPEECH_AGAIN));
    }
    if (track.kind() == TrackKind.MUSIC) {
      items.add(new SeparatorMenuItem());
      items.addAll(
          named(
              view,
              CommandId.FIT_TRIM,
              CommandId.FIT_LOOP,
              CommandId.FIT_TAILOR,
              CommandId.FIT_NONE));
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
            CommandId.CUT,
            CommandId.COPY,
            CommandId.PASTE,
            CommandId.DUPLICATE,
            CommandId.DELETE,
            CommandId.DELETE_CLOSING,
            CommandId.OTHER_FILE,
            CommandId.ZOOM_SELECTION));
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
