package hushrise.core.edit;

import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Take;
import hushrise.core.project.timeline.Track;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Takes that were recorded: where they land, how they stack, which of them is heard. */
public final class TakeEdits {

  private TakeEdits() {}

  /**
   * Puts a take where it was spoken. Over another take of the same place, which it covers by half
   * or more of the shorter of the two, it is the one that is heard, and that one stays at hand;
   * else it is a clip of its own on the first voice track.
   *
   * @param take an item of the Shelf
   * @param startFrame where it was spoken
   * @param trackName what a voice track is called if there is none yet
   */
  public static Project place(Project project, Media take, long startFrame, String trackName) {
    Clip fresh = Clip.whole(take, startFrame);
    Optional<Clip> under =
        project
            .tracksOf(TrackKind.VOICE)
            .flatMap(t -> t.clips().stream())
            .filter(c -> coversHalf(c, fresh))
            .findFirst();
    if (under.isPresent()) {
      return changed(project, under.get(), c -> stacked(c, fresh.asTake()));
    }
    Optional<Track> voice = project.firstTrack(TrackKind.VOICE);
    if (voice.isPresent()) {
      return project.withTrack(voice.get().id(), t -> t.withClips(with(t.clips(), fresh)));
    }
    return TrackEdits.insert(project, Track.of(TrackKind.VOICE, trackName, List.of(fresh)));
  }

  private static List<Clip> with(List<Clip> clips, Clip more) {
    List<Clip> all = new ArrayList<>(clips);
    all.add(more);
    return all;
  }

  private static boolean coversHalf(Clip a, Clip b) {
    long from = Math.max(a.startFrame(), b.startFrame());
    long to = Math.min(a.endFrame(), b.endFrame());
    return (to - from) * 2 >= Math.min(a.lengthFrames(), b.lengthFrames());
  }

  private static Clip stacked(Clip clip, Take fresh) {
    List<Take> others = new ArrayList<>(clip.otherTakes());
    others.addFirst(clip.asTake());
    return clip.withTake(fresh).withOtherTakes(others);
  }

  /**
   * Lets the next of a clip's takes be heard; after the last one comes the first.
   *
   * @param by 1 for the next, -1 for the one before
   */
  public static Project another(Project project, String clipId, int by) {
    Clip clip = project.clip(clipId).orElseThrow();
    if (clip.otherTakes().isEmpty()) {
      return project;
    }
    List<Take> ring = new ArrayList<>(clip.otherTakes());
    Take next = by > 0 ? ring.removeFirst() : ring.removeLast();
    if (by > 0) {
      ring.addLast(clip.asTake());
    } else {
      ring.addFirst(clip.asTake());
    }
    return changed(project, clip, c -> c.withTake(next).withOtherTakes(ring));
  }

  private static Project changed(
      Project project, Clip clip, java.util.function.UnaryOperator<Clip> change) {
    return project.withTrack(
        project.trackOfClip(clip.id()).orElseThrow().id(),
        t ->
            t.withClips(
                t.clips().stream()
                    .map(c -> c.id().equals(clip.id()) ? change.apply(c) : c)
                    .toList()));
  }
}
