package hushrise.core.loudness;

import hushrise.core.Decibels;
import hushrise.core.loudness.PieceMeter.Piece;
import hushrise.core.project.Project;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SoundLibrary;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Consumer;
import java.util.function.IntFunction;

/**
 * The loudness and the true peak of a whole film, kept current by measuring only what an edit has
 * changed. Immutable.
 *
 * <p>The film is cut into pieces of one second. Of each it keeps the K-weighted energy of every
 * tenth of a second and the highest true peak, before the level of the mix: that one is a factor on
 * all of them, and turning it measures nothing anew. Pieces give what measuring in one go gives
 * ({@link PieceMeter}).
 *
 * <p>When a whole track is turned, panned, muted or soloed, pieces of which it is known what each
 * track gives to them ({@link #settled}) are reckoned instead of measured ({@link TrackShares}). Of
 * their peaks only bounds are known then, and the highest is looked for ({@link HighestPeak}).
 */
public final class FilmLoudness {

  private static final int HOPS = PieceMeter.HOPS;
  private static final int HOPS_PER_BLOCK = 4;
  private static final int HOPS_OF_SHORT_TERM = 30;

  /** So many pieces are measured by one thread in one go. */
  private static final int TOGETHER = 40;

  /** With more tracks the pairs of them would be too many to keep. */
  private static final int MOST_TRACKS = 24;

  private final Project project;
  private final Piece[] pieces;
  private final int hops;
  private final double masterFactor;
  private final double integratedLufs;
  private final double loudnessRangeLu;
  private final float highest;

  private FilmLoudness(Project project, Piece[] pieces) {
    this.project = project;
    this.pieces = pieces;
    hops = (int) (project.lengthFrames() * HOPS / project.sampleRate());
    masterFactor = Decibels.toFactor(project.masterDb());
    // Reckoned here, as whoever shows them has no time to.
    integratedLufs = integratedLufs(new Span(0, project.lengthFrames()));
    loudnessRangeLu = range();
    highest = HighestPeak.in(pieces);
  }

  /** Measures a whole film. */
  public static FilmLoudness of(Project project, SoundLibrary library, Progress progress) {
    Piece[] pieces = new Piece[piecesIn(project)];
    BitSet all = new BitSet();
    all.set(0, pieces.length);
    return measured(project, pieces, all, library, progress);
  }

  /**
   * A film as it was measured before.
   *
   * @param kept what {@link #kept} gave for the same project with the same sounds
   * @return empty when it is not of such a film
   */
  public static Optional<FilmLoudness> of(Project project, KeptLoudness kept) {
    return kept.pieces()
        .filter(pieces -> pieces.length == piecesIn(project))
        .map(pieces -> new FilmLoudness(project, pieces));
  }

  /** What to keep of it, for {@link #of(Project, KeptLoudness)}. */
  public KeptLoudness kept() {
    return KeptLoudness.of(pieces);
  }

  /**
   * As {@link #of}, for a changed film; what did not change is taken from this.
   *
   * @param progress tells how much of what changed has been measured; may end it by throwing
   */
  public FilmLoudness following(Project changed, SoundLibrary library, Progress progress) {
    Piece[] next = new Piece[piecesIn(changed)];
    System.arraycopy(pieces, 0, next, 0, Math.min(pieces.length, next.length));
    FilmChange change = new FilmChange(project, changed, next.length);
    TrackFactors factors = TrackFactors.of(changed);
    change.strange().stream()
        .filter(i -> next[i] != null)
        .forEach(i -> next[i] = next[i].withShares(Optional.empty(), factors));
    BitSet stale = change.sounding();
    for (int i = change.turned().nextSetBit(0); i >= 0; i = change.turned().nextSetBit(i + 1)) {
      Optional<TrackShares> shares = next[i].shares();
      if (shares.isPresent()) {
        next[i] = shares.get().under(factors);
      } else {
        stale.set(i);
      }
    }
    return measured(changed, next, stale, library, progress);
  }

  /** Whether nothing is left for {@link #settled} to do. */
  public boolean isSettled() {
    return unsettled().isEmpty();
  }

  private BitSet unsettled() {
    boolean keepsShares = soundingTracks() <= MOST_TRACKS;
    BitSet unsettled = new BitSet();
    for (int i = 0; i < pieces.length; i++) {
      unsettled.set(i, !pieces[i].exact() || keepsShares && pieces[i].shares().isEmpty());
    }
    return unsettled;
  }

  private long soundingTracks() {
    return project.tracks().stream().filter(t -> t.kind().sounds()).count();
  }

  /**
   * This with some more of it measured: peaks of which only a bound was known, and what each track
   * gives. No figure of the whole film changes, but turning a track takes less afterwards, and
   * peaks of parts are exact once all is settled.
   *
   * @param most so many seconds are measured
   */
  public FilmLoudness settled(int most, SoundLibrary library, Progress progress) {
    Piece[] next = pieces.clone();
    BitSet inexact = new BitSet();
    BitSet shareless = new BitSet();
    BitSet unsettled = unsettled();
    int left = most;
    for (int i = unsettled.nextSetBit(0); i >= 0 && left > 0; i = unsettled.nextSetBit(i + 1)) {
      inexact.set(i, !next[i].exact());
      shareless.set(i, next[i].shares().isEmpty() && soundingTracks() <= MOST_TRACKS);
      left--;
    }
    BitSet coarse = (BitSet) inexact.clone();
    coarse.or(shareless);
    measureMix(project, next, coarse, PieceMeter.CELLS, library, progress);
    TrackFactors factors = TrackFactors.of(project);
    inRuns(
        shareless,
        run -> {
          ShareMeter meter = new ShareMeter(project, library, run.first());
          for (int i = run.first(); i < run.end(); i++) {
            progress.at((i - run.first()) / (double) most);
            TrackShares shares = meter.next(factors, next[i].peaks());
            next[i] = next[i].withShares(Optional.of(shares), factors);
          }
        });
    return new FilmLoudness(project, next);
  }

  private static int piecesIn(Project project) {
    return (int) Math.ceilDiv(project.lengthFrames(), project.sampleRate());
  }

  private static FilmLoudness measured(
      Project project, Piece[] pieces, BitSet stale, SoundLibrary library, Progress progress) {
    measureMix(project, pieces, stale, 1, library, progress);
    HighestPeak.find(project, pieces, library, progress);
    return new FilmLoudness(project, pieces);
  }

  /** Measures marked pieces; what is known of their tracks is kept. */
  private static void measureMix(
      Project project,
      Piece[] pieces,
      BitSet marked,
      int parts,
      SoundLibrary library,
      Progress progress) {
    Piece[] were = pieces.clone();
    measure(
        pieces,
        marked,
        first -> new PieceMeter(project.withMasterDb(0), library, first, Mastering.NONE),
        parts,
        progress);
    TrackFactors factors = TrackFactors.of(project);
    marked.stream()
        .filter(i -> were[i] != null)
        .forEach(i -> pieces[i] = pieces[i].withShares(were[i].shares(), factors));
  }

  /** Pieces that follow one another. */
  private record Run(int first, int end) {}

  /** Does something with marked pieces, in runs of those that follow one another, on all cores. */
  private static void inRuns(BitSet marked, Consumer<Run> work) {
    List<Run> runs = new ArrayList<>();
    for (int from = marked.nextSetBit(0); from >= 0; from = marked.nextSetBit(from)) {
      int to = Math.min(marked.nextClearBit(from), from + TOGETHER);
      runs.add(new Run(from, to));
      from = to;
    }
    runs.parallelStream().forEach(work);
  }

  private static void measure(
      Piece[] pieces, BitSet marked, IntFunction<PieceMeter> meters, int parts, Progress progress) {
    int all = Math.max(1, marked.cardinality());
    AtomicInteger done = new AtomicInteger();
    inRuns(
        marked,
        run -> {
          PieceMeter meter = meters.apply(run.first());
          for (int piece = run.first(); piece < run.end(); piece++) {
            progress.at(done.getAndIncrement() / (double) all);
            pieces[piece] = meter.next(parts);
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
      } else if (!next[i].exact()) {
        limited.set(i);
      }
    }
    Mastering whole =
        new Mastering(mastering.gainDb() + project.masterDb(), mastering.ceilingDbtp());
    measure(next, limited, first -> new PieceMeter(raised, library, first, whole), 1, progress);
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
    return integratedLufs;
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

  /**
   * The largest value in the seconds that a part touches, as {@link #truePeakDbtp()}; while this is
   * not settled it may be given too high.
   */
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
    return loudnessRangeLu;
  }

  private double range() {
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
    return Decibels.ofFactor(highest * masterFactor);
  }

  /** The second in which that lies. */
  public Span truePeakPlace() {
    for (int i = 0; i < pieces.length; i++) {
      if (pieces[i].exact() && pieces[i].truePeak() == highest) {
        return Span.ofLength((long) i * project.sampleRate(), project.sampleRate());
      }
    }
    return Span.ofLength(0, project.sampleRate());
  }
}
