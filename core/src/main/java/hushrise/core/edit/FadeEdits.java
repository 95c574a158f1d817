package hushrise.core.edit;

import hushrise.core.Problem;
import hushrise.core.project.Project;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Fade;
import hushrise.core.project.timeline.FadeShape;
import java.util.Set;
import java.util.function.Function;
import java.util.function.UnaryOperator;

/** Edits of fades by number: each is a function from project to project. */
public final class FadeEdits {

  private FadeEdits() {}

  /**
   * Sets a clip's fade-in.
   *
   * @throws Problem when both fades together would be longer than the clip
   */
  public static Project setIn(Project project, String clipId, long lengthFrames) {
    return change(project, clipId, c -> c.withFadeIn(c.fadeIn().withLength(lengthFrames)));
  }

  /**
   * Sets a clip's fade-out.
   *
   * @throws Problem when both fades together would be longer than the clip
   */
  public static Project setOut(Project project, String clipId, long lengthFrames) {
    return change(project, clipId, c -> c.withFadeOut(c.fadeOut().withLength(lengthFrames)));
  }

  /**
   * Gives clips the fade of one end at the other end too: that of the longer.
   *
   * @throws Problem when both fades together would be longer than the clip
   */
  public static Project sameOnBothEnds(Project project, String clipId) {
    return change(
        project,
        clipId,
        c -> {
          boolean in = c.fadeIn().lengthFrames() >= c.fadeOut().lengthFrames();
          Fade model = in ? c.fadeIn() : c.fadeOut();
          return c.withFadeIn(model).withFadeOut(model);
        });
  }

  public static Project setInShape(Project project, String clipId, FadeShape shape) {
    return change(project, clipId, c -> c.withFadeIn(c.fadeIn().withShape(shape)));
  }

  public static Project setOutShape(Project project, String clipId, FadeShape shape) {
    return change(project, clipId, c -> c.withFadeOut(c.fadeOut().withShape(shape)));
  }

  /**
   * Lets clips fade out from a time on: to their ends.
   *
   * @throws Problem when the time does not lie in one of them, or the fades would overlap
   */
  public static Project outFrom(Project project, Set<String> clipIds, long frame) {
    Project changed = project;
    for (String id : clipIds) {
      Clip clip = project.clip(id).orElseThrow();
      if (!clip.span().contains(frame)) {
        throw new Problem("The place does not lie in the clip: move the playhead into it.");
      }
      changed = setOut(changed, id, clip.endFrame() - frame);
    }
    return changed;
  }

  /** Sets a clip's fade-in; it ends at the latest where the fade-out begins. */
  public static Project fitIn(Project project, String clipId, long lengthFrames) {
    long room = roomBeside(project, clipId, Clip::fadeOut);
    return setIn(project, clipId, Math.clamp(lengthFrames, 0, room));
  }

  /** Sets a clip's fade-out; it begins at the earliest where the fade-in ends. */
  public static Project fitOut(Project project, String clipId, long lengthFrames) {
    long room = roomBeside(project, clipId, Clip::fadeIn);
    return setOut(project, clipId, Math.clamp(lengthFrames, 0, room));
  }

  private static long roomBeside(Project project, String clipId, Function<Clip, Fade> other) {
    Clip clip = project.clip(clipId).orElseThrow();
    return Math.max(0, clip.lengthFrames() - other.apply(clip).visibleFrames());
  }

  private static Project change(Project project, String clipId, UnaryOperator<Clip> change) {
    Clip clip = change.apply(project.clip(clipId).orElseThrow());
    long fades = clip.fadeIn().visibleFrames() + clip.fadeOut().visibleFrames();
    if (fades > clip.lengthFrames()) {
      throw new Problem(
          "Both fades together (%.2f s) would be longer than the clip (%.2f s): shorten one of them."
              .formatted(project.seconds(fades), project.seconds(clip.lengthFrames())));
    }
    return project.withEachTrack(t -> t.withClip(clipId, c -> clip));
  }
}
