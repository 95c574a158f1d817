package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import hushrise.core.Problem;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.sound.Progress;
import hushrise.core.speech.SpeechModel;
import hushrise.core.time.Span;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** Passages are looked for once for each content, and the model is loaded only when needed. */
class SpeechStoreTest extends MediaTestCase {

  private final SpeechModel model = mock(SpeechModel.class);

  private Media take() {
    Path file =
        new SoundFileMaker("pcm_s16le", RATE, "mono", 3)
            .write(folder.resolve("take.wav"), t -> t >= 1 && t < 2 ? 0.5 : 0.001);
    float[] heard = new float[94];
    java.util.Arrays.fill(heard, 31, 63, 0.9f);
    when(model.frameSeconds()).thenReturn(0.032);
    when(model.probabilities(any(), anyInt(), any())).thenReturn(heard);
    return store.take(file, MediaKind.VOICE, Progress.NONE);
  }

  private SpeechStore speech() {
    CacheFolder cache = new CacheFolder(folder.resolve("cache"), 1L << 30);
    return new SpeechStore(freshStore(), cache, () -> model);
  }

  @Test
  void whatWasFoundIsKeptWithTheContent() {
    Media take = take();
    List<Span> found = speech().listen(take, Progress.NONE);
    assertThat(found).hasSize(1);
    assertThat(found.getFirst().startFrame()).isBetween(RATE - 500L, RATE + 500L);
    assertThat(speech().listen(take, Progress.NONE)).isEqualTo(found);
    verify(model, times(1)).probabilities(any(), anyInt(), any());
  }

  @Test
  void aDamagedCacheIsMadeAnew() throws Exception {
    Media take = take();
    List<Span> found = speech().listen(take, Progress.NONE);
    try (Stream<Path> files = Files.list(folder.resolve("cache"))) {
      for (Path file : files.filter(f -> f.toString().endsWith(".speech")).toList()) {
        Files.writeString(file, "{ half");
      }
    }
    assertThat(speech().listen(take, Progress.NONE)).isEqualTo(found);
    verify(model, times(2)).probabilities(any(), anyInt(), any());
  }

  @Test
  void aModelThatCannotBeUsedIsAProblemAndAskedForAgain() {
    Media take = take();
    SpeechStore broken =
        new SpeechStore(
            freshStore(),
            new CacheFolder(folder.resolve("cache"), 1L << 30),
            () -> {
              throw new Problem("damaged");
            });
    assertThatThrownBy(() -> broken.listen(take, Progress.NONE)).isInstanceOf(Problem.class);
    assertThat(speech().listen(take, Progress.NONE)).hasSize(1);
  }
}
