package hushrise.core.ear;

import hushrise.core.ear.Finding.Remedy;
import hushrise.core.edit.ClipEdits;
import hushrise.core.hush.HushFollow;
import hushrise.core.project.Project;
import hushrise.core.speech.Passages;
import java.util.List;
import java.util.Set;

/** Two takes that speak at the same time. */
final class VoicesAtOnce implements EarRule {

  /** How long it is quiet between the two once the later one has been moved. */
  private static final double GAP_SECONDS = 0.3;

  @Override
  public String id() {
    return "voices.atOnce";
  }

  @Override
  public List<Finding> hear(Heard heard) {
    Project project = heard.project();
    return Passages.atOnce(project).stream()
        .map(
            o -> {
              String clipId = o.after().clipId();
              long by =
                  o.before().span().endFrame()
                      - o.after().span().startFrame()
                      + project.frames(GAP_SECONDS);
              return new Finding(
                  id(),
                  clipId,
                  o.span(),
                  o.after().trackId(),
                  List.of(project.seconds(o.span().lengthFrames())),
                  List.of(new Remedy("remedy.moveVoice", now -> moved(now, clipId, by))));
            })
        .toList();
  }

  private static Project moved(Project project, String clipId, long by) {
    return HushFollow.followed(project, ClipEdits.move(project, Set.of(clipId), by, true));
  }
}
