package hushrise.core.loudness;

import hushrise.core.Decibels;
import hushrise.core.level.TrackChange;
import hushrise.core.mix.Mixer;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SoundLibrary;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Predicate;

/**
 * The loudness and the true peak of a whole film, kept current by measuring only what an edit has
 * changed. Immutable.
 *
 * <p>The film is cut into pieces of one second. Of each it keeps the K-weighted energy of every
 * tenth of a second and the highest true peak, before the level of the mix: that one is a factor on
 * all of them, and turning it measures nothing anew. A piece that is measured alone begins a
 * quarter of a second early, by when the filters' past has died away (the slowest, at 38 Hz, by
 * more than 400 dB), and peaks look half a millisecond past both ends, as far as the oversampling
 * filter reaches; so pieces give what measuring in one go gives.
 */
public final class FilmLoudness {

  private static final int HOPS = 10;
  private static final int HOPS_PER_BLOCK = 4;
  private static final int HOPS_OF_SHORT_TERM = 30;
  private static final int MARGIN = 32;
  private static final Span ALL = new Span(0, Long.MAX_VALUE);

  /** So many pieces are measured by one thread in one go. */
  private static final int TOGETHER = 40;

  /**
   * One second.
   *
   * @param energies the K-weighted mean square of each tenth, both channels added
   * @param truePeak as an amplitude
   */
  @SuppressWarnings("ArrayRecordComponent") // never compared
  private record Piece(float[] energies, float truePeak) {}

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
    long from = Math.max(0, span.startFrame() - MARGIN) / rate;
    long to = (span.endFrame() + preroll(rate)) / rate + 1;
    stale.set((int) Math.min(from, count), (int) Math.min(to, count));
  }

  private static int preroll(int sampleRate) {
    return sampleRate / 4;
  }

  private static FilmLoudness measured(
      Project project, Piece[] pieces, BitSet stale, SoundLibrary library, Progress progress) {
    List<int[]> runs = new ArrayList<>();
    for (int from = stale.nextSetBit(0); from >= 0; from = stale.nextSetBit(from)) {
      int to = Math.min(stale.nextClearBit(from), from + TOGETHER);
      runs.add(new int[] {from, to});
      from = to;
    }
    int all = Math.max(1, stale.cardinality());
    AtomicInteger done = new AtomicInteger();
    runs.parallelStream()
        .forEach(
            run -> {
              Run measuring = new Run(project, library, run[0]);
              for (int piece = run[0]; piece < run[1]; piece++) {
                progress.at(done.getAndIncrement() / (double) all);
                pieces[piece] = measuring.next();
              }
            });
    return new FilmLoudness(project, pieces);
  }

  /** Measures pieces that follow one another. */
  private static final class Run {
    private final Mixer mixer;
    private final int rate;
    private final long length;
    private final KWeighting leftFilter;
    private final KWeighting rightFilter;
    private final float[] left;
    private final float[] right;
    private long start;

    Run(Project project, SoundLibrary library, int firstPiece) {
      mixer = Mixer.of(project.withMasterDb(0), library);
      rate = project.sampleRate();
      length = project.lengthFrames();
      leftFilter = new KWeighting(rate);
      rightFilter = new KWeighting(rate);
      left = new float[rate + 2 * MARGIN];
      right = new float[rate + 2 * MARGIN];
      start = (long) firstPiece * rate;
      int before = (int) Math.min(start, preroll(rate));
      read(start - before, before);
      leftFilter.squares(left, 0, before);
      rightFilter.squares(right, 0, before);
    }

    /** Reads frames to the arrays' beginning; silence where there is no film. */
    private void read(long from, int frames) {
      int skip = (int) Math.clamp(-from, 0L, (long) frames);
      int n = (int) Math.clamp(length - from - skip, 0L, (long) frames - skip);
      Arrays.fill(left, 0, frames, 0);
      Arrays.fill(right, 0, frames, 0);
      if (skip > 0) {
        float[] partLeft = new float[n];
        float[] partRight = new float[n];
        mixer.render(from + skip, n, partLeft, partRight);
        System.arraycopy(partLeft, 0, left, skip, n);
        System.arraycopy(partRight, 0, right, skip, n);
      } else if (n > 0) {
        mixer.render(from, n, left, right);
      }
    }

    Piece next() {
      read(start - MARGIN, rate + 2 * MARGIN);
      float[] energies = new float[HOPS];
      for (int hop = 0; hop < HOPS; hop++) {
        int from = hop * rate / HOPS;
        int n = (hop + 1) * rate / HOPS - from;
        energies[hop] =
            (float)
                ((leftFilter.squares(left, MARGIN + from, n)
                        + rightFilter.squares(right, MARGIN + from, n))
                    / n);
      }
      TruePeakMeter peakLeft = new TruePeakMeter();
      TruePeakMeter peakRight = new TruePeakMeter();
      peakLeft.add(left, 0, left.length);
      peakRight.add(right, 0, right.length);
      start += rate;
      return new Piece(
          energies, (float) Math.max(peakLeft.truePeakSoFar(), peakRight.truePeakSoFar()));
    }
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
    return GatedLoudness.lufs(step -> energy(step / HOPS), 0, hops() * HOPS);
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
