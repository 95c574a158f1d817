package hushrise.core.ear;

import hushrise.core.ear.Finding.Remedy;
import hushrise.core.edit.ClipEdits;
import hushrise.core.hush.HushFollow;
import hushrise.core.project.Project;
import hushrise.core.speech.Passages;
import hushrise.core.speech.Passages.Passage;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;

/** Two takes that speak at the same time. */
final class VoicesAtOnce implements EarRule {

  private static final double LEAST_SECONDS = 0.3;

  @Override
  public String id() {
    return "voices.atOnce";
  }

  @Override
  public List<Finding> hear(Heard heard) {
    Project project = heard.project();
    List<Passage> all = Passages.each(project, project.heardTracks());
    List<Finding> found = new ArrayList<>();
    for (int i = 1; i < all.size(); i++) {
      Passage before = all.get(i - 1);
      Passage after = all.get(i);
      long overlap =
          Math.min(before.span().endFrame(), after.span().endFrame()) - after.span().startFrame();
      boolean known = !found.isEmpty() && found.getLast().subject().equals(after.clipId());
      if (!before.clipId().equals(after.clipId())
          && !known
          && overlap > project.frames(LEAST_SECONDS)) {
        long by = before.span().endFrame() - after.span().startFrame() + project.frames(0.3);
        found.add(
            new Finding(
                id(),
                after.clipId(),
                Span.ofLength(after.span().startFrame(), overlap),
                after.trackId(),
                List.of(project.seconds(overlap)),
                List.of(new Remedy("remedy.moveVoice", now -> moved(now, after.clipId(), by)))));
      }
    }
    return found;
  }

  private static Project moved(Project project, String clipId, long by) {
    return HushFollow.followed(project, ClipEdits.move(project, Set.of(clipId), by, true));
  }
}
