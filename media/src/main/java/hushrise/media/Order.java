package hushrise.media;

import hushrise.core.loudness.LoudnessGoal;
import hushrise.core.project.Project;
import hushrise.core.time.Span;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;

/**
 * What is wanted of an export.
 *
 * @param project as it stands now
 * @param target the file
 * @param format what it is to be
 * @param kbps of its sound; 0: the usual ones
 * @param range which part of the project; empty: all of it
 * @param goal the loudness asked for; empty: as it is
 * @param stems the folder that takes the stems; empty: none are wanted
 * @param reports files that tell what was delivered: .json, .txt or .html
 * @param keepsTracks whether further sound tracks of the film go along
 * @param creditsInTags whether the file's tags carry its credits
 * @param creditsChapter whether its last chapter is named by its credits
 * @param markersAsChapters whether a chapter begins at each marker (in a WAV: a cue point lies
 *     there)
 */
@RecordBuilder
public record Order(
    Project project,
    Path target,
    OutputFormat format,
    int kbps,
    Optional<Span> range,
    Optional<LoudnessGoal> goal,
    Optional<Path> stems,
    List<Path> reports,
    boolean keepsTracks,
    boolean creditsInTags,
    boolean creditsChapter,
    boolean markersAsChapters)
    implements OrderBuilder.With {

  public Order {
    reports = List.copyOf(reports);
    if (kbps != 0 && !format.coding().takes(kbps)) {
      throw new IllegalArgumentException(
          "%s does not take %d kbit/s".formatted(format.coding().word(), kbps));
    }
  }

  /** All of a project in a file, as it is. */
  public static Order of(Project project, Path target, OutputFormat format) {
    return new Order(
        project,
        target,
        format,
        0,
        Optional.empty(),
        Optional.empty(),
        Optional.empty(),
        List.of(),
        true,
        false,
        false,
        false);
  }

  /** The part of the project that is wanted. */
  public Span span() {
    Span all = new Span(0, project.lengthFrames());
    return range
        .map(
            r ->
                new Span(
                    Math.min(r.startFrame(), all.endFrame()),
                    Math.min(r.endFrame(), all.endFrame())))
        .orElse(all);
  }
}
