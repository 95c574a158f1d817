package hushrise.core.edit;

import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;

/**
 * Edits of where somebody speaks in a media item: each is a function from project to project. Spans
 * are in frames of the media and stay in order and apart.
 */
public final class SpeechEdits {

  /** What a split takes out, so that two passages remain, in seconds. */
  private static final double SPLIT_SECONDS = 0.1;

  private SpeechEdits() {}

  /** Replaces all passages of a media item, as when they come from a file or were found. */
  public static Project set(Project project, String mediaId, List<Span> spans) {
    return project.withMedia(
        mediaId,
        m -> {
          List<Span> held =
              spans.stream().map(s -> held(s, m)).filter(s -> s.lengthFrames() > 0).toList();
          return m.withSpeech(Optional.of(Span.joined(held, 0)));
        });
  }

  private static Span held(Span span, Media media) {
    long start = Math.clamp(span.startFrame(), 0, media.lengthFrames());
    return new Span(start, Math.clamp(span.endFrame(), start, media.lengthFrames()));
  }

  /** Adds a passage; those that it touches become one with it. */
  public static Project add(Project project, String mediaId, Span span) {
    List<Span> more = new ArrayList<>(speech(project, mediaId));
    more.add(span);
    return set(project, mediaId, more);
  }

  /** Moves a passage's ends; they stop at its neighbours and at the media's. */
  public static Project change(Project project, String mediaId, int index, Span span) {
    List<Span> all = new ArrayList<>(speech(project, mediaId));
    Media media = project.media(mediaId).orElseThrow();
    long earliest = index > 0 ? all.get(index - 1).endFrame() + 1 : 0;
    long latest =
        index + 1 < all.size() ? all.get(index + 1).startFrame() - 1 : media.lengthFrames();
    long start = Math.clamp(span.startFrame(), earliest, latest - 1);
    all.set(index, new Span(start, Math.clamp(span.endFrame(), start + 1, latest)));
    return set(project, mediaId, all);
  }

  /** Makes two passages of one, with a breath between them around a place. */
  public static Project split(Project project, String mediaId, int index, long mediaFrame) {
    long half = Math.max(1, project.frames(SPLIT_SECONDS / 2));
    return replaced(
        project,
        mediaId,
        index,
        s ->
            mediaFrame - half > s.startFrame() && mediaFrame + half < s.endFrame()
                ? List.of(
                    new Span(s.startFrame(), mediaFrame - half),
                    new Span(mediaFrame + half, s.endFrame()))
                : List.of(s));
  }

  /** Makes one passage of two that follow one another; nothing happens to the last one. */
  public static Project joinWithNext(Project project, String mediaId, int index) {
    List<Span> all = new ArrayList<>(speech(project, mediaId));
    if (index + 1 >= all.size()) {
      return project;
    }
    Span next = all.remove(index + 1);
    all.set(index, new Span(all.get(index).startFrame(), next.endFrame()));
    return set(project, mediaId, all);
  }

  public static Project remove(Project project, String mediaId, int index) {
    return replaced(project, mediaId, index, s -> List.of());
  }

  private interface Replacement {
    List<Span> of(Span span);
  }

  private static Project replaced(
      Project project, String mediaId, int index, Replacement replacement) {
    List<Span> all = new ArrayList<>(speech(project, mediaId));
    Span span = all.remove(index);
    all.addAll(index, replacement.of(span));
    return set(project, mediaId, all);
  }

  /** Forgets where somebody speaks, so that it is looked for anew. */
  public static Project forget(Project project, String mediaId) {
    UnaryOperator<Media> unknown = m -> m.withSpeech(Optional.empty());
    return project.withMedia(mediaId, unknown);
  }

  private static List<Span> speech(Project project, String mediaId) {
    return project.media(mediaId).flatMap(Media::speech).orElse(List.of());
  }
}
