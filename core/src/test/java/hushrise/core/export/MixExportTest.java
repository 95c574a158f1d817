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

import hushrise.core.Problem;
import hushrise.core.loudness.Measurement;
import hushrise.core.mix.Projects;
import hushrise.core.project.Project;
import hushrise.core.project.media.TrackKind;
import hushrise.core.sound.MixWriter;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import java.util.ArrayList;
import java.util.List;
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
  void aStemHoldsItsTrackAlone() {
    Kept kept = new Kept();
    MixExport.write(project, sounds, t -> t.kind() == TrackKind.EFFECTS, kept, Progress.NONE);
    assertThat(kept.left[5_000]).isZero();
    assertThat(kept.left[20_000]).isNotZero();
    assertThat(kept.left[200_000]).isZero();
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
