package hushrise.core.fit;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.fit.Pieces.Piece;
import hushrise.core.project.timeline.Fit;
import hushrise.core.project.timeline.FitMode;
import hushrise.core.project.timeline.Seam;
import hushrise.core.sound.Progress;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.assertj.core.api.SoftAssertions;
import org.junit.jupiter.api.Test;

/**
 * Measures the finding of beats and seams on pieces whose beats are known, holds the figures to
 * what they are to reach, and writes the table of docs/measuring.md to {@code
 * target/fit-report.md}.
 */
class FitReportTest {

  private static final double[] TARGETS = {0.5, 0.63, 0.8, 1.0, 1.27, 1.9, 3.0, 4.0};

  /** Half of what the pieces' own changes of chord come to. */
  private static final double LEAST_CHANGE = 0.15;

  /** Some lengths of a rigid piece can only be met by a jump into another chord. */
  private static final long MOST_OUT_OF_HARMONY = 5;

  /** What was measured at one seam. */
  private record AtSeam(double phaseMs, double levelStepDb, double harmony) {}

  @Test
  void beatsAreFoundAndSeamsAreNotHeard() throws IOException {
    StringBuilder table =
        new StringBuilder(
            "| piece | beat F | seams | phase error ms (median, max) | level step dB (max) | change of harmony (median, max) | in harmony | worst ending off by |\n|---|---|---|---|---|---|---|---|\n");
    SoftAssertions softly = new SoftAssertions();
    long outOfHarmony = 0;
    long all = 0;
    for (Piece piece : Pieces.all()) {
      SongAnalysis analysis =
          SongAnalyzer.analyze(piece.sound(), Pieces.RATE, piece.name(), Progress.NONE);
      Song song = new Song(analysis, piece.sound());
      boolean steady = piece.beats().length > 0;
      double f = steady ? fMeasure(piece, analysis) : Double.NaN;
      List<AtSeam> seams = new ArrayList<>();
      long worst = 0;
      for (double ratio : TARGETS) {
        long target = Math.round(ratio * (analysis.soundEnd() - analysis.soundStart()));
        Arrangement made =
            TailorFit.arrange(
                song, new Song.Wish(Fit.of(FitMode.TAILOR, 0), 0, target), piece.name());
        worst = Math.max(worst, Math.abs(made.pauseFrames() + made.lengthFrames() - target));
        assertThat(made.pauseFrames()).isBetween(0L, Math.round(1.05 * analysis.usualStretch()));
        assertThat(endOfContent(made)).isEqualTo(analysis.soundEnd());
        made.seams().forEach(s -> seams.add(measure(piece, analysis, s)));
      }
      long target = 4 * analysis.lengthFrames();
      LoopFit.arrange(song, new Song.Wish(Fit.of(FitMode.LOOP, 0), 0, target), piece.name())
          .seams()
          .forEach(s -> seams.add(measure(piece, analysis, s)));
      table.append(row(piece, f, seams, worst));
      softly.assertThat(analysis.hasBeat()).as(piece.name()).isEqualTo(steady);
      if (steady) {
        softly.assertThat(f).as("beats of " + piece.name()).isGreaterThanOrEqualTo(0.95);
      }
      softly.assertThat(seams).as(piece.name()).isNotEmpty();
      for (AtSeam s : seams) {
        softly.assertThat(s.phaseMs).as("phase at a seam of " + piece.name()).isLessThan(15);
        softly.assertThat(s.levelStepDb).as("level at a seam of " + piece.name()).isLessThan(1);
      }
      long apart = seams.size() - within(seams);
      softly
          .assertThat(apart)
          .as("seams out of harmony in " + piece.name())
          .isLessThanOrEqualTo(MOST_OUT_OF_HARMONY);
      outOfHarmony += apart;
      all += seams.size();
      softly.assertThat(worst).as(piece.name()).isZero();
    }
    Files.createDirectories(Path.of("target"));
    Files.writeString(Path.of("target/fit-report.md"), table.toString());
    softly
        .assertThat(outOfHarmony / (double) all)
        .as("share of seams out of harmony")
        .isLessThan(0.08);
    softly.assertAll();
  }

  private static long endOfContent(Arrangement made) {
    Seam last = made.seams().isEmpty() ? null : made.seams().getLast();
    return last == null
        ? made.mediaStartFrame() + made.lengthFrames()
        : last.toFrame() + made.lengthFrames() - last.atFrame();
  }

  private static double fMeasure(Piece piece, SongAnalysis analysis) {
    int hits = 0;
    for (double beat : piece.beats()) {
      long edge = analysis.edges()[analysis.edgeNear(Math.round(beat * Pieces.RATE))];
      hits += Math.abs(edge / (double) Pieces.RATE - beat) <= 0.07 ? 1 : 0;
    }
    int found = analysis.stretches();
    return 2.0 * hits / (found + piece.beats().length);
  }

  /**
   * Phase against the piece's true beats; level of the bar that comes against the one that would
   * have come; the change of harmony across the seam beyond the song's own at both places.
   */
  private static AtSeam measure(Piece piece, SongAnalysis analysis, Seam seam) {
    double phase = 0;
    if (piece.beats().length > 0) {
      phase = Math.abs(phaseOf(piece, seam.fromFrame()) - phaseOf(piece, seam.toFrame())) * 1000;
    }
    int from = analysis.edgeNear(seam.fromFrame());
    int to = analysis.edgeNear(seam.toFrame());
    long bar = 4 * analysis.usualStretch();
    double level =
        Math.abs(
            levelDb(piece, seam.fromFrame(), bar, analysis.soundEnd())
                - levelDb(piece, seam.toFrame(), bar, analysis.soundEnd()));
    double own = Math.max(change(analysis, from - 1, from), change(analysis, to - 1, to));
    double beyond = Math.max(0, change(analysis, from - 1, to) - own);
    return new AtSeam(phase, level, beyond);
  }

  /** By how much the pitch classes of two beats differ: 1 less their cosine. */
  private static double change(SongAnalysis song, int a, int b) {
    double dot = 0;
    for (int p = 0; p < song.chroma()[a].length; p++) {
      dot += song.chroma()[a][p] * song.chroma()[b][p];
    }
    return 1 - dot;
  }

  /** The RMS level of a bar of samples from a frame on. */
  private static double levelDb(Piece piece, long from, long bar, long end) {
    int frames = (int) Math.min(bar, end - from);
    float[] samples = new float[frames];
    piece.sound().read(from, frames, samples, new float[0], 0);
    double sum = 0;
    for (float x : samples) {
      sum += x * (double) x;
    }
    return 10 * Math.log10(sum / frames + 1e-12);
  }

  /** Seconds from the nearest true beat. */
  private static double phaseOf(Piece piece, long frame) {
    double at = frame / (double) Pieces.RATE;
    double nearest = Double.MAX_VALUE;
    for (double beat : piece.beats()) {
      nearest = Math.abs(at - beat) < Math.abs(nearest) ? at - beat : nearest;
    }
    return nearest;
  }

  private static String row(Piece piece, double f, List<AtSeam> seams, long worst) {
    return String.format(
        Locale.ROOT,
        "| %s | %s | %d | %.1f, %.1f | %.2f | %.2f, %.2f | %d | %d samples |%n",
        piece.name(),
        Double.isNaN(f) ? "no beat" : "%.3f".formatted(f),
        seams.size(),
        median(seams.stream().mapToDouble(AtSeam::phaseMs).sorted().toArray()),
        seams.stream().mapToDouble(AtSeam::phaseMs).max().orElse(0),
        seams.stream().mapToDouble(AtSeam::levelStepDb).max().orElse(0),
        median(seams.stream().mapToDouble(AtSeam::harmony).sorted().toArray()),
        seams.stream().mapToDouble(AtSeam::harmony).max().orElse(0),
        within(seams),
        worst);
  }

  private static long within(List<AtSeam> seams) {
    return seams.stream().filter(s -> s.harmony <= LEAST_CHANGE).count();
  }

  private static double median(double[] sorted) {
    return sorted.length == 0 ? 0 : sorted[sorted.length / 2];
  }
}
