package hushrise.core.exchange;

import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Seam;
import hushrise.core.project.timeline.Track;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * A run of a clip that plays straight through its media.
 *
 * @param start on the timeline
 * @param end on the timeline
 * @param mediaStart the media's frame it begins with
 * @param overlapAfter how long it and the next one cross, its end being the middle; 0: they do not
 */
record OtioRun(Clip clip, long start, long end, long mediaStart, long overlapAfter) {

  long length() {
    return end - start;
  }

  /** The part of the crossfade that lies before its end. */
  long overlapToItsEnd() {
    return overlapAfter / 2;
  }

  /** The part that lies after it. */
  long overlapFromItsEnd() {
    return overlapAfter - overlapToItsEnd();
  }

  /** A track's clips as runs, in layers of runs one after another; one layer at least. */
  static List<List<OtioRun>> layers(Track track) {
    return track.kind() == TrackKind.PICTURE ? List.of(seen(track)) : heard(track);
  }

  /** What is seen of pictures: where some lie over one another, the one that begins last. */
  private static List<OtioRun> seen(Track track) {
    List<OtioRun> runs = new ArrayList<>();
    for (Clip clip : track.clipsInTime()) {
      runs =
          runs.stream()
              .flatMap(
                  r ->
                      Stream.of(
                              r.within(r.start, clip.startFrame()),
                              r.within(clip.endFrame(), r.end))
                          .flatMap(Optional::stream))
              .collect(Collectors.toList());
      runs.add(new OtioRun(clip, clip.startFrame(), clip.endFrame(), clip.mediaStartFrame(), 0));
    }
    runs.sort(Comparator.comparingLong(OtioRun::start));
    return runs;
  }

  private Optional<OtioRun> within(long from, long until) {
    long first = Math.max(start, from);
    long last = Math.min(end, until);
    return first < last
        ? Optional.of(new OtioRun(clip, first, last, mediaStart + first - start, overlapAfter))
        : Optional.empty();
  }

  /**
   * Clips that cross meet in the middle. Where one lies within another, or crosses it while it
   * crosses a third, a further layer takes it.
   */
  private static List<List<OtioRun>> heard(Track track) {
    List<Layer> layers = new ArrayList<>();
    for (Clip clip : track.clipsInTime()) {
      Layer free =
          layers.stream()
              .filter(l -> l.takes(clip))
              .findFirst()
              .orElseGet(
                  () -> {
                    layers.add(new Layer());
                    return layers.getLast();
                  });
      free.add(clip);
    }
    return layers.isEmpty() ? List.of(List.of()) : layers.stream().map(Layer::runs).toList();
  }

  private static final class Layer {

    private final List<OtioRun> runs = new ArrayList<>();
    private long lastStart = Long.MIN_VALUE;
    private long lastEnd = Long.MIN_VALUE;
    private long crossedUntil = Long.MIN_VALUE;

    boolean takes(Clip clip) {
      boolean crosses =
          clip.startFrame() > lastStart
              && clip.startFrame() >= crossedUntil
              && clip.endFrame() > lastEnd;
      return clip.startFrame() >= lastEnd || crosses;
    }

    void add(Clip clip) {
      long from = clip.startFrame();
      if (from < lastEnd) {
        long overlap = lastEnd - from;
        crossedUntil = lastEnd;
        from += overlap / 2;
        endAt(from, overlap);
      }
      lastStart = clip.startFrame();
      lastEnd = clip.endFrame();
      long at = 0;
      long media = clip.mediaStartFrame();
      for (Seam seam : clip.seams()) {
        if (seam.atFrame() > at && seam.atFrame() < clip.lengthFrames()) {
          add(clip, at, seam.atFrame(), media, seam.crossfadeFrames(), from);
          at = seam.atFrame();
          media = seam.toFrame();
        }
      }
      add(clip, at, clip.lengthFrames(), media, 0, from);
    }

    /** Adds a run of a clip, as far as it lies after a time. */
    private void add(Clip clip, long at, long until, long media, long overlapAfter, long from) {
      long start = Math.max(from, clip.startFrame() + at);
      long end = clip.startFrame() + until;
      if (start < end) {
        long mediaStart = media + start - clip.startFrame() - at;
        runs.add(new OtioRun(clip, start, end, mediaStart, overlapAfter));
      }
    }

    /** Lets the runs so far end in the middle of a crossfade. */
    private void endAt(long frame, long overlap) {
      while (runs.getLast().start() >= frame) {
        runs.removeLast();
      }
      OtioRun last = runs.removeLast();
      runs.add(new OtioRun(last.clip, last.start, frame, last.mediaStart, overlap));
    }

    /** The runs; a crossfade is no longer than the runs that it joins. */
    List<OtioRun> runs() {
      List<OtioRun> held = new ArrayList<>();
      for (int i = 0; i < runs.size(); i++) {
        OtioRun run = runs.get(i);
        long next = i + 1 < runs.size() ? runs.get(i + 1).length() : 0;
        long before = i > 0 ? held.getLast().overlapFromItsEnd() : 0;
        long most = 2 * Math.min(run.length() - before, next);
        held.add(
            new OtioRun(
                run.clip,
                run.start,
                run.end,
                run.mediaStart,
                Math.min(run.overlapAfter, Math.max(0, most))));
      }
      return held;
    }
  }
}
