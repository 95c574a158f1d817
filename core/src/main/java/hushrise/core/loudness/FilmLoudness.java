package hushrise.core.loudness;

import hushrise.core.Decibels;
import hushrise.core.level.TrackChange;
import hushrise.core.loudness.PieceMeter.Piece;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SoundLibrary;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.IntFunction;
import java.util.function.Predicate;

/**
 * The loudness and the true peak of a whole film, kept current by measuring only what an edit has
 * changed. Immutable.
 *
 * <p>The film is cut into pieces of one second. Of each it keeps the K-weighted energy of every
 * tenth of a second and the highest true peak, before the level of the mix: that one is a factor on
 * all of them, and turning it measures nothing anew. Pieces give what measuring in one go gives
 * ({@link PieceMeter}).
 */
public final class FilmLoudness {

  private static final int HOPS = PieceMeter.HOPS;
  private static final int HOPS_PER_BLOCK = 4;
  private static final int HOPS_OF_SHORT_TERM = 30;
  private static final Span ALL = new Span(0, Long.MAX_VALUE);

  /** So many pieces are measured by one thread in one go. */
  private static final int TOGETHER = 40;

  private final Project project;
  private final Piece[] pieces;
  private final int hops;
  private final double masterFactor;

  private FilmLoudness(Project project, Piece[] pieces) {
    this.project = project;
    this.pieces = pieces;
    hops = (int) (project.lengthFrames() * HOPS / project.sampleRate());
    masterFactor = Decibels.toFactor(project.masterDb());
  }

  /** Measures a whole film. */
  public static FilmLoudness of(Project project, SoundLibrary library, Progress progress) {
    Piece[] pieces = new Piece[piecesIn(project)];
    BitSet all = new BitSet();
    all.set(0, pieces.length);
    return measured(project, pieces, all, library, progress);
  }

  /**
   * As {@link #of}, for a changed film; what did not change is taken from this.
   *
   * @param progress tells how much of what changed has been measured; may end it by throwing
   */
  public FilmLoudness following(Project changed, SoundLibrary library, Progress progress) {
    Piece[] next = new Piece[piecesIn(changed)];
    BitSet stale = staleIn(changed, next.length);
    System.arraycopy(pieces, 0, next, 0, Math.min(pieces.length, next.length));
    return measured(changed, next, stale, library, progress);
  }

  private static int piecesIn(Project project) {
    return (int) Math.ceilDiv(project.lengthFrames(), project.sampleRate());
  }

  /** The pieces of a changed film that have to be measured. */
  private BitSet staleIn(Project changed, int count) {
    BitSet stale = new BitSet();
    int known = Math.min(pieces.length, count);
    if (changed.sampleRate() != project.sampleRate() || !hasSameSounds(changed)) {
      known = 0;
    } else if (changed.lengthFrames() != project.lengthFrames()) {
      known = Math.max(0, known - 1); // the last one may have been cut short
    }
    stale.set(known, count);
    Predicate<Track> heard = project.heardTracks();
    Predicate<Track> nowHeard = changed.heardTracks();
    for (Track track : changed.tracks()) {
      Optional<Track> was = project.track(track.id()).filter(heard);
      Optional<Track> is = Optional.of(track).filter(nowHeard);
      mark(stale, was, is, count);
    }
    for (Track gone : project.tracks()) {
      if (changed.track(gone.id()).isEmpty()) {
        mark(stale, Optional.of(gone).filter(heard), Optional.empty(), count);
      }
    }
    return stale;
  }

  private boolean hasSameSounds(Project changed) {
    return changed.shelf().equals(project.shelf())
        || project.shelf().stream()
            .allMatch(
                was ->
                    changed
                        .media(was.id())
                        .map(
                            (Media m) ->
                                m.file().equals(was.file()) && m.hasSound() == was.hasSound())
                        .orElse(true));
  }

  private void mark(BitSet stale, Optional<Track> was, Optional<Track> is, int count) {
    int rate = project.sampleRate();
    if (was.isPresent() && is.isPresent()) {
      Optional<Span> span = TrackChange.between(was.get(), is.get(), rate);
      if (span.isPresent()) {
        clipsOf(was.get(), span.get()).forEach(s -> mark(stale, s, count));
        clipsOf(is.get(), span.get()).forEach(s -> mark(stale, s, count));
      }
    } else {
      was.or(() -> is).ifPresent(t -> clipsOf(t, ALL).forEach(s -> mark(stale, s, count)));
    }
  }

  /** The parts of a span in which a track has sound. */
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

  private void mark(BitSet stale, Span span, int count) {
    int rate = project.sampleRate();
    long from = Math.max(0, span.startFrame() - PieceMeter.MARGIN) / rate;
    long to = (span.endFrame() + PieceMeter.preroll(rate)) / rate + 1;
    stale.set((int) Math.min(from, count), (int) Math.min(to, count));
  }

  private static FilmLoudness measured(
      Project project, Piece[] pieces, BitSet stale, SoundLibrary library, Progress progress) {
    measure(
        pieces,
        stale,
        first -> new PieceMeter(project.withMasterDb(0), library, first, Mastering.NONE),
        progress);
    return new FilmLoudness(project, pieces);
  }

  /** Measures marked pieces, in runs of those that follow one another, on all cores. */
  private static void measure(
      Piece[] pieces, BitSet marked, IntFunction<PieceMeter> meters, Progress progress) {
    List<int[]> runs = new ArrayList<>();
    for (int from = marked.nextSetBit(0); from >= 0; from = marked.nextSetBit(from)) {
      int to = Math.min(marked.nextClearBit(from), from + TOGETHER);
      runs.add(new int[] {from, to});
      from = to;
    }
    int all = Math.max(1, marked.cardinality());
    AtomicInteger done = new AtomicInteger();
    runs.parallelStream()
        .forEach(
            run -> {
              PieceMeter meter = meters.apply(run[0]);
              for (int piece = run[0]; piece < run[1]; piece++) {
                progress.at(done.getAndIncrement() / (double) all);
                pieces[piece] = meter.next();
              }
            });
  }

  /**
   * What this film measures when its mix is mastered. Only the seconds in which the limiter works,
   * and those in which it recovers, are measured anew; all others are louder by the gain.
   */
  public FilmLoudness mastered(Mastering mastering, SoundLibrary library, Progress progress) {
    Project raised = project.withMasterDb(0);
    double factor = masterFactor * Decibels.toFactor(mastering.gainDb());
    Piece[] next = new Piece[pieces.length];
    BitSet limited = new BitSet();
    for (int i = 0; i < pieces.length; i++) {
      next[i] = pieces[i].times(factor);
      double peakDb = Decibels.ofFactor(next[i].truePeak());
      if (mastering.ceilingDbtp().filter(c -> peakDb > c).isPresent()) {
        limited.set(Math.max(0, i - 1), Math.min(pieces.length, i + 2));
      }
    }
    Mastering whole =
        new Mastering(mastering.gainDb() + project.masterDb(), mastering.ceilingDbtp());
    measure(next, limited, first -> new PieceMeter(raised, library, first, whole), progress);
    return new FilmLoudness(raised, next);
  }

  /** The project that was measured. */
  public Project project() {
    return project;
  }

  /** How many whole tenths of a second the film has. */
  public int hops() {
    return hops;
  }

  private double energy(int hop) {
    return pieces[hop / HOPS].energies()[hop % HOPS] * masterFactor * masterFactor;
  }

  /** Gated loudness of the film, in LUFS; minus infinity for silence. */
  public double integratedLufs() {
    return integratedLufs(new Span(0, project.lengthFrames()));
  }

  /** Gated loudness of a part of it, to the tenth of a second. */
  public double integratedLufs(Span part) {
    int from = hopAt(part.startFrame());
    return GatedLoudness.lufs(
        step -> energy(step / HOPS), from * HOPS, hopAt(part.endFrame()) * HOPS);
  }

  private int hopAt(long frame) {
    return (int) Math.min(hops(), frame * HOPS / project.sampleRate());
  }

  /** The largest value in the seconds that a part touches, as {@link #truePeakDbtp()}. */
  public double truePeakDbtp(Span part) {
    int rate = project.sampleRate();
    float highest = 0;
    for (int i = (int) (part.startFrame() / rate);
        i < pieces.length && (long) i * rate < part.endFrame();
        i++) {
      highest = Math.max(highest, pieces[i].truePeak());
    }
    return Decibels.ofFactor(highest * masterFactor);
  }

  /** Loudness range, in LU. */
  public double loudnessRangeLu() {
    int count = Math.max(0, hops() - HOPS_OF_SHORT_TERM + 1);
    double[] values = new double[count];
    for (int i = 0; i < count; i++) {
      values[i] = mean(i, i + HOPS_OF_SHORT_TERM);
    }
    return LoudnessMeter.rangeLu(values, count);
  }

  private double mean(int from, int to) {
    double sum = 0;
    for (int i = from; i < to; i++) {
      sum += energy(i);
    }
    return to <= from ? 0 : sum / (to - from);
  }

  /** The loudness of the 400 ms up to a tenth of a second, in LUFS. */
  public double momentaryLufs(int hop) {
    return lastLufs(hop, HOPS_PER_BLOCK);
  }

  /** The loudness of the 3 s up to a tenth of a second, in LUFS. */
  public double shortTermLufs(int hop) {
    return lastLufs(hop, HOPS_OF_SHORT_TERM);
  }

  private double lastLufs(int hop, int count) {
    int to = Math.min(hops(), hop + 1);
    return LoudnessMeter.lufs(mean(Math.max(0, to - count), to));
  }

  /** The largest value between and on the samples, in dB relative to full scale. */
  public double truePeakDbtp() {
    return Decibels.ofFactor(highest().truePeak() * masterFactor);
  }

  /** The second in which that lies. */
  public Span truePeakPlace() {
    Piece highest = highest();
    for (int i = 0; i < pieces.length; i++) {
      if (pieces[i] == highest) {
        return Span.ofLength((long) i * project.sampleRate(), project.sampleRate());
      }
    }
    return Span.ofLength(0, project.sampleRate());
  }

  private Piece highest() {
    Piece highest = new Piece(new float[HOPS], 0);
    for (Piece piece : pieces) {
      highest = piece.truePeak() > highest.truePeak() ? piece : highest;
    }
    return highest;
  }
}
