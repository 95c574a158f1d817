package hushrise.core.loudness;

import hushrise.core.level.TrackChange;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;

/** Which seconds of a film an edit has changed, and how. */
final class FilmChange {

  private static final Span ALL = new Span(0, Long.MAX_VALUE);

  private final Project was;
  private final int count;
  private final BitSet strange = new BitSet();
  private final BitSet sounding = new BitSet();
  private final BitSet turned = new BitSet();

  /**
   * @param count of the seconds of the film as it is
   */
  FilmChange(Project was, Project is, int count) {
    this.was = was;
    this.count = count;
    int known = known(is);
    strange.set(known, count);
    sounding.set(known, count);
    TrackFactors before = TrackFactors.of(was);
    TrackFactors now = TrackFactors.of(is);
    for (Track track : is.tracks()) {
      Optional<Track> old = was.track(track.id());
      boolean heard =
          before.byTrack().containsKey(track.id()) || now.byTrack().containsKey(track.id());
      boolean factorMoved = !before.of(track.id()).equals(now.of(track.id()));
      if (track.kind().sounds()) {
        changed(old, track, heard);
      }
      if (factorMoved) {
        old.ifPresent(t -> markClips(t, ALL, turned));
        markClips(track, ALL, turned);
      }
    }
    for (Track gone : was.tracks()) {
      if (is.track(gone.id()).isEmpty() && before.byTrack().containsKey(gone.id())) {
        markClips(gone, ALL, turned);
      }
    }
    turned.andNot(sounding);
  }

  /** Those in which a track's own sound is another, heard or not. */
  BitSet strange() {
    return strange;
  }

  /** Those of them in which that is heard. */
  BitSet sounding() {
    return sounding;
  }

  /** Those others in which a track goes into the mix by another factor. */
  BitSet turned() {
    return turned;
  }

  /** How many seconds from the beginning there are in both, of the same sounds. */
  private int known(Project is) {
    int before = (int) Math.ceilDiv(was.lengthFrames(), was.sampleRate());
    if (is.sampleRate() != was.sampleRate() || !hasSameSounds(is)) {
      return 0;
    }
    return is.lengthFrames() == was.lengthFrames()
        ? Math.min(before, count)
        : Math.max(0, Math.min(before, count) - 1); // the last one may have been cut short
  }

  private boolean hasSameSounds(Project is) {
    return is.shelf().equals(was.shelf())
        || was.shelf().stream()
            .allMatch(
                old ->
                    is.media(old.id())
                        .map(
                            (Media m) ->
                                m.file().equals(old.file()) && m.hasSound() == old.hasSound())
                        .orElse(true));
  }

  private void changed(Optional<Track> old, Track track, boolean heard) {
    Optional<Span> span =
        old.isEmpty()
            ? Optional.of(ALL)
            : TrackChange.between(
                ShareMeter.plain(old.get()), ShareMeter.plain(track), was.sampleRate());
    if (span.isPresent()) {
      List<BitSet> sets = heard ? List.of(strange, sounding) : List.of(strange);
      for (BitSet set : sets) {
        old.ifPresent(t -> markClips(t, span.get(), set));
        markClips(track, span.get(), set);
      }
    }
  }

  /** Marks the seconds of a span in which a track has sound. */
  private void markClips(Track track, Span span, BitSet in) {
    for (Span part : clipsOf(track, span)) {
      int rate = was.sampleRate();
      long from = Math.max(0, part.startFrame() - PieceMeter.MARGIN) / rate;
      long to = (part.endFrame() + PieceMeter.preroll(rate)) / rate + 1;
      in.set((int) Math.min(from, count), (int) Math.min(to, count));
    }
  }

  private static List<Span> clipsOf(Track track, Span span) {
    List<Span> parts = new ArrayList<>();
    for (Clip clip : track.clips()) {
      long from = Math.max(span.startFrame(), clip.startFrame());
      long to = Math.min(span.endFrame(), clip.endFrame());
      if (from < to) {
        parts.add(new Span(from, to));
      }
    }
    return parts;
  }
}
