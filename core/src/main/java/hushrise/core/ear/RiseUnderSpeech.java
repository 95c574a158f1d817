package hushrise.core.ear;

import hushrise.core.ear.Finding.Remedy;
import hushrise.core.edit.HushEdits;
import hushrise.core.project.Project;
import hushrise.core.project.level.Rise;
import hushrise.core.project.timeline.Track;
import hushrise.core.speech.Passages;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;

/** Music that swells while somebody speaks. */
final class RiseUnderSpeech implements EarRule {

  private static final double LEAST_DB = 1;
  private static final double LEAST_SECONDS = 0.3;

  @Override
  public String id() {
    return "rise.underSpeech";
  }

  @Override
  public List<Finding> hear(Heard heard) {
    Project project = heard.project();
    List<Span> passages = Passages.of(project);
    List<Finding> found = new ArrayList<>();
    for (Track track : project.tracks()) {
      for (Rise rise : track.rises()) {
        passages.stream()
            .filter(p -> overlap(p, rise.span()) > project.frames(LEAST_SECONDS))
            .filter(p -> rise.heightDb() >= LEAST_DB && !isHushed(project, track, p))
            .findFirst()
            .ifPresent(p -> found.add(finding(track, rise, p)));
      }
    }
    return found;
  }

  private static long overlap(Span a, Span b) {
    return Math.min(a.endFrame(), b.endFrame()) - Math.max(a.startFrame(), b.startFrame());
  }

  private static boolean isHushed(Project project, Track track, Span passage) {
    long middle = (passage.startFrame() + passage.endFrame()) / 2;
    return track.hushes().stream()
        .map(h -> h.knots(project.sampleRate()))
        .anyMatch(k -> k.floorStart() <= middle && middle < k.floorEnd());
  }

  private Finding finding(Track track, Rise rise, Span passage) {
    List<Remedy> remedies = new ArrayList<>();
    boolean keepsStart = passage.startFrame() - rise.startFrame() > rise.span().lengthFrames() / 3;
    if (keepsStart) {
      remedies.add(
          new Remedy(
              "remedy.shortenRise",
              now ->
                  HushEdits.setRiseSpan(
                      now, rise.id(), new Span(rise.startFrame(), passage.startFrame()))));
    }
    remedies.add(new Remedy("remedy.removeRise", now -> HushEdits.removeRise(now, rise.id())));
    return new Finding(id(), rise.id(), passage, track.id(), List.of(rise.heightDb()), remedies);
  }
}
