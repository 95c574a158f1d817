package hushrise.core.edit;

import hushrise.core.Ids;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.CrossfadeShape;
import hushrise.core.project.timeline.Take;
import hushrise.core.project.timeline.Track;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/** Takes that were recorded: where they land, how they stack, which of them is heard. */
public final class TakeEdits {

  /** What is left of a recording beside a take that is shorter than this goes with its middle. */
  private static final double LEAST_LEFT_SECONDS = 0.5;

  /** How long the recording and a take that was spoken into it sound together at each end. */
  private static final double JOIN_SECONDS = 0.01;

  private TakeEdits() {}

  /**
   * Puts a take where it was spoken. Over another take of the same place, which it covers by half
   * or more of the shorter of the two, it is the one that is heard, and that one stays at hand. Of
   * a recording more than twice as long as what the take covers, only that part is replaced; what
   * comes before and after it goes on as clips of their own. Elsewhere the take is a clip of its
   * own on the first voice track. Nothing else of its track sounds under it: what reaches into it
   * is cut where they meet, and what it covers whole stays at hand.
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
            .filter(c -> c.seams().isEmpty() && coversHalf(c, fresh))
            .max(Comparator.comparingLong(c -> overlap(c, fresh)));
    if (under.isPresent()) {
      Clip old = under.get();
      List<Clip> parts = over(old, fresh, project.sampleRate());
      return alone(replaced(project, old, parts), heard(parts, take));
    }
    Optional<Track> voice = project.firstTrack(TrackKind.VOICE);
    if (voice.isPresent()) {
      return alone(
          project.withTrack(voice.get().id(), t -> t.withClips(with(t.clips(), fresh))), fresh);
    }
    return TrackEdits.insert(project, Track.of(TrackKind.VOICE, trackName, List.of(fresh)));
  }

  private static Clip heard(List<Clip> parts, Media take) {
    return parts.stream().filter(c -> c.mediaId().equals(take.id())).findFirst().orElseThrow();
  }

  /** Lets nothing of its track sound under a take: what lies in it is another take of the place. */
  private static Project alone(Project project, Clip clip) {
    Track track = project.trackOfClip(clip.id()).orElseThrow();
    List<Clip> covered =
        track.clips().stream()
            .filter(c -> !c.id().equals(clip.id()) && overlap(c, clip) == c.lengthFrames())
            .toList();
    List<Take> others = new ArrayList<>(clip.otherTakes());
    covered.forEach(
        c -> {
          others.add(c.asTake());
          others.addAll(c.otherTakes());
        });
    Project without =
        project.withTrack(
            track.id(),
            t ->
                t.withClips(t.clips().stream().filter(c -> !covered.contains(c)).toList())
                    .withClip(clip.id(), c -> c.withOtherTakes(others)));
    return met(without, clip.id(), Optional.empty());
  }

  /**
   * Lets what lies beside a take meet it: what reaches into it ends, or begins, a join's length
   * inside it, and what sounded together with the take heard before does so with this one, as long.
   *
   * @param was the clip while another of its takes was heard
   */
  private static Project met(Project project, String clipId, Optional<Clip> was) {
    Clip clip = project.clip(clipId).orElseThrow();
    Project result = project;
    for (Clip beside : project.trackOfClip(clipId).orElseThrow().clips()) {
      boolean before = beside.startFrame() < clip.startFrame();
      boolean after = beside.endFrame() > clip.endFrame();
      long shared = was.map(w -> Math.max(0, overlap(beside, w))).orElse(0L);
      long into = shared > 0 ? shared : joinFrames(project, clip);
      if (before && !after) {
        result = endingAt(result, beside, clip.startFrame() + into, shared > 0, clipId);
      } else if (after && !before) {
        result = beginningAt(result, beside, clip.endFrame() - into, shared > 0);
      }
    }
    return result;
  }

  private static Project endingAt(
      Project project, Clip before, long end, boolean wasJoined, String clipId) {
    if (before.endFrame() <= end) {
      return wasJoined ? ClipEdits.trimEnd(project, before.id(), end) : project;
    }
    Clip head = halves(before, end).getFirst();
    Project cut = replaced(project, before, List.of(head));
    return wasJoined ? cut : softly(cut, clipId);
  }

  private static Project beginningAt(Project project, Clip after, long start, boolean wasJoined) {
    if (after.startFrame() >= start) {
      return wasJoined ? ClipEdits.trimStart(project, after.id(), start) : project;
    }
    Clip tail = halves(after, start).getLast();
    Project cut = replaced(project, after, List.of(tail));
    return wasJoined ? cut : softly(cut, after.id());
  }

  private static List<Clip> halves(Clip clip, long atFrame) {
    return ClipShape.halves(clip.withFit(Optional.empty()), atFrame - clip.startFrame(), clip.id());
  }

  private static Project softly(Project project, String clipId) {
    return ClipEdits.setCrossfade(project, clipId, CrossfadeShape.EQUAL_GAIN);
  }

  /** How long what meets sounds together, in frames. */
  private static long joinFrames(Project project, Clip clip) {
    return Math.min(Math.round(JOIN_SECONDS * project.sampleRate()), clip.lengthFrames() / 2);
  }

  /** What a clip becomes under a take: one clip of both, or up to three. */
  private static List<Clip> over(Clip old, Clip fresh, int sampleRate) {
    if (overlap(old, fresh) * 2 >= old.lengthFrames()) {
      return List.of(stacked(old, fresh.asTake()));
    }
    long least = Math.round(LEAST_LEFT_SECONDS * sampleRate);
    long join = Math.min(Math.round(JOIN_SECONDS * sampleRate), overlap(old, fresh) / 2);
    long before = fresh.startFrame() - old.startFrame();
    long after = old.endFrame() - fresh.endFrame();
    List<Clip> parts = new ArrayList<>();
    Clip middle = old.withFit(Optional.empty());
    if (before >= least) {
      Clip head = ClipShape.halves(middle, before + join, "").getFirst();
      parts.add(head.withOtherTakes(inside(old, head)));
      middle = ClipShape.halves(middle, before, Ids.fresh("clip")).getLast();
      middle = middle.withCrossfade(CrossfadeShape.EQUAL_GAIN);
    }
    Optional<Clip> tail = Optional.empty();
    if (after >= least) {
      long end = middle.lengthFrames() - after;
      Clip rest = ClipShape.halves(middle, end - join, Ids.fresh("clip")).getLast();
      tail = Optional.of(rest.withOtherTakes(inside(old, rest)));
      middle = ClipShape.halves(middle, end, "").getFirst();
    }
    parts.add(stacked(middle.withOtherTakes(inside(old, middle)), fresh.asTake()));
    tail.map(t -> t.withCrossfade(CrossfadeShape.EQUAL_GAIN)).ifPresent(parts::add);
    return parts;
  }

  /** What a clip's other takes have to give to a part of it. */
  private static List<Take> inside(Clip whole, Clip part) {
    return whole.otherTakes().stream()
        .flatMap(t -> t.inside(part.startFrame(), part.endFrame()).stream())
        .toList();
  }

  private static List<Clip> with(List<Clip> clips, Clip more) {
    List<Clip> all = new ArrayList<>(clips);
    all.add(more);
    return all;
  }

  private static boolean coversHalf(Clip a, Clip b) {
    return overlap(a, b) * 2 >= Math.min(a.lengthFrames(), b.lengthFrames());
  }

  /** How many frames two clips share; negative where they lie apart. */
  private static long overlap(Clip a, Clip b) {
    return Math.min(a.endFrame(), b.endFrame()) - Math.max(a.startFrame(), b.startFrame());
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
    Project heard = replaced(project, clip, List.of(clip.withTake(next).withOtherTakes(ring)));
    return met(heard, clipId, Optional.of(clip));
  }

  private static Project replaced(Project project, Clip clip, List<Clip> parts) {
    return project.withTrack(
        project.trackOfClip(clip.id()).orElseThrow().id(),
        t ->
            t.withClips(
                t.clips().stream()
                    .flatMap(c -> c.id().equals(clip.id()) ? parts.stream() : Stream.of(c))
                    .toList()));
  }
}
