package hushrise.core.export;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.Mockito.doNothing;
import static org.mockito.Mockito.doThrow;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;

import hushrise.core.Decibels;
import hushrise.core.Problem;
import hushrise.core.loudness.Mastering;
import hushrise.core.loudness.Measurement;
import hushrise.core.mix.Projects;
import hushrise.core.project.Project;
import hushrise.core.project.media.TrackKind;
import hushrise.core.sound.MixWriter;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import org.junit.jupiter.api.Test;

class MixExportTest {

  private final Projects.Sounds sounds = new Projects.Sounds();
  private final Project project = Projects.rich(sounds);

  /** Keeps what it is given. */
  private static final class Kept implements MixWriter {
    private final float[] left = new float[600_000];
    private int frames;
    private boolean finished;

    @Override
    public void write(float[] l, float[] r, int n) {
      System.arraycopy(l, 0, left, frames, n);
      frames += n;
    }

    @Override
    public void finish() {
      finished = true;
    }

    @Override
    public void close() {}
  }

  @Test
  void everyFrameOfTheFilmIsWrittenOnceAndInOrder() {
    Kept kept = new Kept();
    List<Double> heard = new ArrayList<>();
    Measurement measured = MixExport.write(project, sounds, kept, heard::add);
    assertThat(kept.finished).isTrue();
    assertThat(kept.frames).isEqualTo(project.lengthFrames());
    float[] written = java.util.Arrays.copyOf(kept.left, kept.frames);
    assertThat(written).isEqualTo(Projects.left(project, sounds, 0, kept.frames));
    assertThat(heard).isSorted().startsWith(0.0).endsWith(1.0);
    double peak =
        Measurement.of(SampleSource.of(written), Projects.RATE, Progress.NONE).samplePeakDbfs();
    assertThat(measured.samplePeakDbfs()).isGreaterThanOrEqualTo(peak);
    assertThat(measured.durationSeconds())
        .isCloseTo(project.lengthFrames() / 48_000.0, within(1e-9));
  }

  @Test
  void theStemsAddUpToTheMixBeforeTheLimiterWithinOneStep() {
    Map<TrackKind, Kept> kept = new EnumMap<>(TrackKind.class);
    for (TrackKind kind : List.of(TrackKind.VOICE, TrackKind.MUSIC, TrackKind.EFFECTS)) {
      kept.put(kind, new Kept());
    }
    Mastering mastering = new Mastering(-3, Optional.of(-12.0));
    Kept limited = new Kept();
    Span span = new Span(1_000, project.lengthFrames() - 777);
    MixExport.Part part = new MixExport.Part(project, sounds, span, mastering);
    try (Stems stems = new Stems(project, kept, -3, true)) {
      MixExport.Written written = MixExport.write(part, limited, stems, Progress.NONE);
      assertThat(written.limiterMostDb()).isPositive();
      stems.finish();
    }
    int frames = (int) span.lengthFrames();
    float[] mix = Projects.left(project, sounds, 1_000, frames);
    float factor = (float) Decibels.toFactor(-3);
    double worst = 0;
    for (int i = 0; i < frames; i++) {
      double sum = 0;
      for (Kept stem : kept.values()) {
        sum += stem.left[i];
      }
      worst = Math.max(worst, Math.abs(sum - mix[i] * factor));
    }
    assertThat(worst).isLessThanOrEqualTo(1.0 / (1 << 23));
    assertThat(kept.values()).allMatch(k -> k.frames == frames && k.finished);
    Kept effects = kept.get(TrackKind.EFFECTS);
    assertThat(effects.left[4_000]).isZero();
    assertThat(effects.left[19_000]).isNotZero();
    assertThat(effects.left[199_000]).isZero();
    assertThat(limited.frames).isEqualTo(frames);
  }

  @Test
  void aFullDiskEndsTheExportWithItsSentenceAndIsNeverFinished() {
    MixWriter writer = mock(MixWriter.class);
    doNothing().doThrow(new Problem("the disk is full")).when(writer).write(any(), any(), anyInt());
    assertThatThrownBy(() -> MixExport.write(project, sounds, writer, Progress.NONE))
        .isInstanceOf(Problem.class)
        .hasMessage("the disk is full");
    verify(writer, never()).finish();
  }

  @Test
  void aFailureWhileFinishingComesOutToo() {
    MixWriter writer = mock(MixWriter.class);
    doThrow(new Problem("cannot be replaced")).when(writer).finish();
    assertThatThrownBy(() -> MixExport.write(project, sounds, writer, Progress.NONE))
        .hasMessage("cannot be replaced");
  }

  @Test
  void cancellingStopsBeforeTheEnd() {
    MixWriter writer = mock(MixWriter.class);
    assertThatThrownBy(
            () ->
                MixExport.write(
                    project,
                    sounds,
                    writer,
                    fraction -> {
                      if (fraction > 0.3) {
                        throw new CancellationException();
                      }
                    }))
        .isInstanceOf(CancellationException.class);
    verify(writer, never()).finish();
  }
}
