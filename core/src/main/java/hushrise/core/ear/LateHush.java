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

/** A passage that starts before the music under it is down. */
final class LateHush implements EarRule {

  /** So long the turn may hide under the first syllable. */
  private static final double HIDDEN_SECONDS = 0.25;

  @Override
  public String id() {
    return "hush.late";
  }

  @Override
  public List<Finding> hear(Heard heard) {
    Project project = heard.project();
    List<Span> passages = Passages.of(project);
    List<Finding> found = new ArrayList<>();
    for (Track track : project.tracks()) {
      for (Hush hush : track.hushes()) {
        long floor = hush.knots(project.sampleRate()).floorStart();
        passages.stream()
            .filter(p -> p.overlaps(hush.passage()))
            .findFirst()
            .filter(p -> floor - p.startFrame() > project.frames(HIDDEN_SECONDS))
            .ifPresent(
                p ->
                    found.add(
                        new Finding(
                            id(),
                            hush.id(),
                            new Span(p.startFrame(), floor),
                            track.id(),
                            List.of(project.seconds(floor - p.startFrame())),
                            List.of(
                                new Remedy(
                                    "remedy.hushEarlier",
                                    now -> HushEdits.change(now, hush.id(), h -> down(h, p)))))));
      }
    }
    return found;
  }

  private static Hush down(Hush hush, Span passage) {
    Turn turn = hush.turn();
    return hush.withPassage(
            new Span(Math.min(hush.startFrame(), passage.startFrame()), hush.endFrame()))
        .withTurn(turn.withLead(Math.max(turn.leadSeconds(), Turn.DEFAULT.leadSeconds())));
  }
}
