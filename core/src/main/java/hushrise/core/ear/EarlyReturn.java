package hushrise.core.ear;

import hushrise.core.ear.Finding.Remedy;
import hushrise.core.edit.HushEdits;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.Turn;
import hushrise.core.project.timeline.Track;
import hushrise.core.speech.Passages;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Music that is on its way back before the last word is out. */
final class EarlyReturn implements EarRule {

  private static final double HIDDEN_SECONDS = 0.25;

  @Override
  public String id() {
    return "hush.early";
  }

  @Override
  public List<Finding> hear(Heard heard) {
    Project project = heard.project();
    List<Span> passages = Passages.of(project);
    List<Finding> found = new ArrayList<>();
    for (Track track : project.tracks()) {
      for (Hush hush : track.hushes()) {
        long floor = hush.knots(project.sampleRate()).floorEnd();
        Optional<Span> last =
            passages.stream().filter(p -> p.overlaps(hush.passage())).reduce((a, b) -> b);
        boolean another =
            last.isPresent()
                && track.hushes().stream()
                    .anyMatch(
                        h -> h.startFrame() >= hush.endFrame() && h.passage().overlaps(last.get()));
        last.filter(p -> !another)
            .filter(p -> p.endFrame() - floor > project.frames(HIDDEN_SECONDS))
            .ifPresent(
                p ->
                    found.add(
                        new Finding(
                            id(),
                            hush.id(),
                            new Span(floor, p.endFrame()),
                            track.id(),
                            List.of(project.seconds(p.endFrame() - floor)),
                            List.of(
                                new Remedy(
                                    "remedy.hushLonger",
                                    now -> HushEdits.change(now, hush.id(), h -> held(h, p)))))));
      }
    }
    return found;
  }

  private static Hush held(Hush hush, Span passage) {
    Turn turn = hush.turn();
    return hush.withPassage(
            new Span(hush.startFrame(), Math.max(hush.endFrame(), passage.endFrame())))
        .withTurn(turn.withTail(Math.max(turn.tailSeconds(), Turn.DEFAULT.tailSeconds())));
  }
}
