package hushrise.app.timeline;

import static hushrise.app.words.Texts.text;

import hushrise.core.project.Project;
import hushrise.core.project.level.LevelText;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Seam;
import hushrise.core.project.timeline.Track;
import java.util.Locale;
import java.util.Optional;

/** What the status line says of what the pointer is over. */
final class Hints {

  private Hints() {}

  static String of(Target target, Track track, Project project) {
    return switch (target) {
      case Target.Nothing n ->
          text(track.kind().sounds() ? "hint.lane" : "hint.lane.picture", track.name());
      case Target.OnClip c ->
          text(
              track.kind() == TrackKind.PICTURE ? "hint.clip.picture" : "hint.clip",
              titleOf(c.clipId(), track, project));
      case Target.OnClipStart c -> text("hint.clipStart", titleOf(c.clipId(), track, project));
      case Target.OnClipEnd c -> text("hint.clipEnd", titleOf(c.clipId(), track, project));
      case Target.OnSeam s -> ofSeam(s, track, project);
      case Target.OnKeyframe k ->
          text(
              "hint.keyframe", LevelText.format(track.line().keyframes().get(k.index()).levelDb()));
      case Target.OnStretch s ->
          track.line().keyframes().isEmpty() ? text("hint.line.empty") : text("hint.stretch");
      case Target.OnFloor f -> text("hint.floor");
      case Target.OnShape s -> text("hint.shape." + s.part().name());
      case Target.OnSpanEdge s -> text("hint.spanEdge");
      case Target.OnPassage p -> text("hint.passage." + p.hold().name());
      case Target.OnFadeIn f -> text("hint.fadeIn");
      case Target.OnFadeOut f -> text("hint.fadeOut");
    };
  }

  private static String titleOf(String clipId, Track track, Project project) {
    Optional<Clip> clip = track.clip(clipId);
    return clip.flatMap(c -> project.media(c.mediaId())).map(m -> m.title()).orElse("");
  }

  private static String ofSeam(Target.OnSeam target, Track track, Project project) {
    Seam seam = track.clip(target.clipId()).orElseThrow().seams().get(target.index());
    return text(
        "hint.seam",
        "%.2f".formatted(project.seconds(seam.fromFrame())),
        "%.2f".formatted(project.seconds(seam.toFrame())),
        text("seam.word." + seam.heard().name().toLowerCase(Locale.ROOT)));
  }
}
