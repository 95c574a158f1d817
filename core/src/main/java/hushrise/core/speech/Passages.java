package hushrise.core.speech;

import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Seam;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;

/** Where somebody speaks on the timeline. */
public final class Passages {

  /** Two takes that meet for no longer do so by accident, and nobody hears it. */
  private static final double LEAST_OVERLAP_SECONDS = 0.3;

  private Passages() {}

  /**
   * One stretch of speech as it lies on the timeline.
   *
   * @param trackId the track it lies on
   * @param clipId the clip that plays it
   * @param inMedia the stretch in frames of the media, whole even where the clip plays a part of it
   * @param span where it is heard
   */
  public record Passage(String trackId, String clipId, Span inMedia, Span span) {}

  /**
   * Where somebody speaks on the voice tracks that are heard and while the film lasts, in order of
   * time; stretches that overlap or touch make one passage.
   */
  public static List<Span> of(Project project) {
    return of(project, project.heardTracks());
  }

  /** As {@link #of(Project)}, on chosen ones of the voice tracks. */
  public static List<Span> of(Project project, Predicate<Track> chosen) {
    long end = project.lengthFrames();
    return Span.joined(
        each(project, chosen).stream()
            .map(Passage::span)
            .filter(s -> s.startFrame() < end)
            .map(s -> new Span(s.startFrame(), Math.min(s.endFrame(), end)))
            .toList(),
        0);
  }

  /**
   * Where a voice clip goes on speaking after the film has ended, to its last word; empty where it
   * does not.
   */
  public static Optional<Span> unheard(Project project, Track track, Clip clip, Media media) {
    long end = project.lengthFrames();
    return in(track, clip, media).stream()
        .map(Passage::span)
        .filter(s -> s.endFrame() > end)
        .reduce((a, b) -> a.endFrame() > b.endFrame() ? a : b)
        .map(s -> new Span(end, s.endFrame()));
  }

  /** Every stretch of speech on chosen ones of the voice tracks, in order of time. */
  public static List<Passage> each(Project project, Predicate<Track> chosen) {
    List<Passage> all = new ArrayList<>();
    project
        .voiceTracks()
        .filter(chosen)
        .forEach(
            t ->
                t.clips()
                    .forEach(c -> project.media(c.mediaId()).ifPresent(m -> add(all, t, c, m))));
    all.sort(Comparator.comparingLong(p -> p.span().startFrame()));
    return all;
  }

  /**
   * Two takes that speak at the same time.
   *
   * @param after the one whose passage begins later
   * @param span while both are heard for the first time
   */
  public record Overlap(Passage before, Passage after, Span span) {}

  /** Where two takes speak at the same time, in order of time: for any two their first place. */
  public static List<Overlap> atOnce(Project project) {
    List<Overlap> found = new ArrayList<>();
    List<Passage> speaking = new ArrayList<>();
    Set<Set<String>> known = new HashSet<>();
    for (Passage after : each(project, project.heardTracks())) {
      long start = after.span().startFrame();
      speaking.removeIf(p -> p.clipId().equals(after.clipId()) || p.span().endFrame() <= start);
      for (Passage before : speaking) {
        long end = Math.min(before.span().endFrame(), after.span().endFrame());
        if (end - start > project.frames(LEAST_OVERLAP_SECONDS)
            && known.add(Set.of(before.clipId(), after.clipId()))) {
          found.add(new Overlap(before, after, new Span(start, end)));
        }
      }
      speaking.add(after);
    }
    return found;
  }

  /** The stretches of speech in one clip; the clip's extent while nobody has looked for them. */
  public static List<Passage> in(Track track, Clip clip, Media media) {
    List<Passage> found = new ArrayList<>();
    add(found, track, clip, media);
    return found;
  }

  private static void add(List<Passage> all, Track track, Clip clip, Media media) {
    if (media.speech().isEmpty()) {
      if (media.hasSound()) {
        Span inMedia = Span.ofLength(clip.mediaStartFrame(), clip.lengthFrames());
        all.add(new Passage(track.id(), clip.id(), inMedia, clip.span()));
      }
      return;
    }
    long from = 0;
    long shift = clip.mediaStartFrame();
    for (int i = 0; i <= clip.seams().size(); i++) {
      boolean last = i == clip.seams().size();
      long to = last ? clip.lengthFrames() : Math.min(clip.lengthFrames(), atFrame(clip, i));
      for (Span speech : media.speech().get()) {
        long start = Math.max(from, speech.startFrame() - shift);
        long end = Math.min(to, speech.endFrame() - shift);
        if (start < end) {
          Span span = new Span(clip.startFrame() + start, clip.startFrame() + end);
          all.add(new Passage(track.id(), clip.id(), speech, span));
        }
      }
      if (!last) {
        Seam seam = clip.seams().get(i);
        from = Math.max(from, seam.atFrame());
        shift = seam.toFrame() - seam.atFrame();
      }
    }
  }

  private static long atFrame(Clip clip, int seam) {
    return clip.seams().get(seam).atFrame();
  }
}
