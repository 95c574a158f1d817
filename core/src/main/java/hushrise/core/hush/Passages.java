package hushrise.core.hush;

import hushrise.core.project.Clip;
import hushrise.core.project.Project;
import hushrise.core.project.TrackKind;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/** Where somebody speaks. */
public final class Passages {

  private Passages() {}

  /**
   * The extents of the clips on the voice tracks that are heard, in order of time; overlapping or
   * touching clips make one passage.
   */
  public static List<Span> of(Project project) {
    List<Span> extents =
        project
            .tracksOf(TrackKind.VOICE)
            .filter(project.heardTracks())
            .flatMap(t -> t.clips().stream())
            .map(Clip::span)
            .toList();
    return joined(extents, 0);
  }

  /** The spans in order of time, those with a gap of at most {@code gapFrames} joined into one. */
  public static List<Span> joined(List<Span> spans, long gapFrames) {
    List<Span> ordered = new ArrayList<>(spans);
    ordered.sort(Comparator.comparingLong(Span::startFrame));
    List<Span> result = new ArrayList<>();
    for (Span span : ordered) {
      if (!result.isEmpty() && span.startFrame() - result.getLast().endFrame() <= gapFrames) {
        Span last = result.removeLast();
        result.add(new Span(last.startFrame(), Math.max(last.endFrame(), span.endFrame())));
      } else {
        result.add(span);
      }
    }
    return List.copyOf(result);
  }
}
