package hushrise.app.play;

import hushrise.core.play.Range;
import hushrise.core.project.Project;
import hushrise.core.time.Span;
import java.util.Optional;
import java.util.function.Function;

/**
 * A part of the film to listen to. Where it lies is asked anew after every edit, so that what is
 * listened to in a loop may be changed meanwhile.
 *
 * @param where where it lies in a project; empty when it is no longer there
 * @param loops whether it is played again and again
 * @param returns whether the playhead goes back to where it was when it is over
 */
public record Part(Function<Project, Optional<Span>> where, boolean loops, boolean returns) {

  /** The film from the playhead to its end. */
  public static final Part REST =
      new Part(p -> Optional.of(new Span(0, p.lengthFrames())), false, false);

  /** The range that is played of a project: all of it when this part is no longer there. */
  Range in(Project project) {
    long length = project.lengthFrames();
    return where
        .apply(project)
        .map(
            s -> {
              long to = Math.clamp(s.endFrame(), 0, length);
              return new Range(Math.clamp(s.startFrame(), 0, to), to, loops);
            })
        .orElse(Range.once(0, length));
  }
}
