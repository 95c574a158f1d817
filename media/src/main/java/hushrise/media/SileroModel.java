package hushrise.media;

import ai.onnxruntime.OnnxTensor;
import ai.onnxruntime.OrtEnvironment;
import ai.onnxruntime.OrtException;
import ai.onnxruntime.OrtSession;
import hushrise.core.Problem;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import hushrise.core.speech.SpeechModel;
import java.io.IOException;
import java.io.InputStream;
import java.nio.FloatBuffer;
import java.nio.LongBuffer;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.Map;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.atomic.AtomicBoolean;

/**
 * Silero VAD v6 on the ONNX runtime. The model ships with the application and is checked by its
 * digest when it is loaded.
 *
 * <p>The model hears 32 ms at a time and carries a state along, so one stretch of sound cannot be
 * cut into a batch. A long sound therefore is cut into {@link #LANES} stretches that run side by
 * side in two batches, which are the same however many threads there are; each stretch begins a
 * second before its own part, in which its state settles. The first one hears the first second
 * twice: after silence, music that is there at once would pass for speech.
 */
public final class SileroModel implements SpeechModel {

  private static final String RESOURCE = "silero_vad_v6.onnx";
  private static final String DIGEST =
      "1a153a22f4509e292a94e67d6f9b85e8deb25b4988682b7e174c65279d8788e3";

  private static final int RATE = 16_000;
  private static final int FRAME = 512;
  private static final int CONTEXT = 64;
  private static final int STATE = 128;

  /** How many stretches run side by side at most, and how long each is at least, in frames. */
  private static final int LANES = 32;

  private static final int SHORTEST_LANE = 120;
  private static final int SETTLING = 32;

  private final OrtEnvironment environment = quietEnvironment();
  private final OrtSession session;
  private final int threads;

  /**
   * @throws Problem when the model is damaged or the runtime does not work on this machine
   */
  public SileroModel() {
    this(resource(), Math.min(2, Runtime.getRuntime().availableProcessors()));
  }

  /**
   * A model that works on one thread, or on two.
   *
   * @throws Problem as {@link #SileroModel()}
   */
  public SileroModel(int threads) {
    this(resource(), threads);
  }

  SileroModel(byte[] model, int threads) {
    this.threads = threads;
    requireWhole(model);
    try {
      OrtSession.SessionOptions options = new OrtSession.SessionOptions();
      options.setIntraOpNumThreads(1);
      options.setInterOpNumThreads(1);
      session = environment.createSession(model, options);
    } catch (OrtException e) {
      throw unusable(e);
    }
  }

  /** The runtime, which is to keep nothing about whoever runs it. */
  private static OrtEnvironment quietEnvironment() {
    OnnxLibraries.unpackOnce();
    OrtEnvironment made = OrtEnvironment.getEnvironment();
    try {
      made.setTelemetry(false);
      return made;
    } catch (OrtException e) {
      throw unusable(e);
    }
  }

  private static Problem unusable(OrtException e) {
    return new Problem(
        "The speech model cannot be used on this machine (%s): place hushes by hand, or bring passages as WebVTT."
            .formatted(e.getMessage()),
        e);
  }

  private static byte[] resource() {
    try (InputStream in = SileroModel.class.getResourceAsStream(RESOURCE)) {
      if (in == null) {
        throw damaged();
      }
      return in.readAllBytes();
    } catch (IOException e) {
      throw new Problem(damaged().getMessage(), e);
    }
  }

  private static Problem damaged() {
    return new Problem(
        "The speech model that ships with Hush Rise is damaged: install Hush Rise again; until then place hushes by hand.");
  }

  private static void requireWhole(byte[] model) {
    try {
      byte[] digest = MessageDigest.getInstance("SHA-256").digest(model);
      if (!HexFormat.of().formatHex(digest).equals(DIGEST)) {
        throw damaged();
      }
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException("Every Java has SHA-256", e);
    }
  }

  @Override
  public double frameSeconds() {
    return FRAME / (double) RATE;
  }

  @Override
  public float[] probabilities(SampleSource source, int sampleRate, Progress progress) {
    Downsampler sound = new Downsampler(source, sampleRate, RATE);
    int frames = (int) ((sound.length() + FRAME - 1) / FRAME);
    int lanes = Math.clamp(frames / SHORTEST_LANE, 1, LANES);
    float[] result = new float[frames];
    int half = (lanes + 1) / 2;
    Lanes first = new Lanes(0, half, lanes, sound, result);
    Lanes second = new Lanes(half, lanes, lanes, new Downsampler(source, sampleRate, RATE), result);
    if (threads == 1) {
      first.hear(part -> progress.at(part / 2));
      second.hear(part -> progress.at((1 + part) / 2));
    } else {
      hearAtOnce(first, second, progress);
    }
    progress.at(1);
    return result;
  }

  /** Hears the second lanes on a thread of their own, which ends early when the first do. */
  private static void hearAtOnce(Lanes first, Lanes second, Progress progress) {
    AtomicBoolean given = new AtomicBoolean();
    CompletableFuture<Void> beside =
        CompletableFuture.runAsync(
            () -> second.hear(part -> requireWanted(!given.get())),
            task -> Thread.ofPlatform().daemon().name("hushrise-speech").start(task));
    try {
      first.hear(progress);
      beside.join();
    } catch (CompletionException e) {
      throw e.getCause() instanceof Problem problem ? problem : e;
    } finally {
      given.set(true);
    }
  }

  private static void requireWanted(boolean wanted) {
    if (!wanted) {
      throw new CancellationException();
    }
  }

  /** Some of the stretches, side by side in one batch. */
  private final class Lanes {

    private final int first;
    private final int count;
    private final int perLane;
    private final Downsampler sound;
    private final float[] result;
    private final float[] input;
    private final float[] state;

    /**
     * @param first the first stretch
     * @param end the one after the last
     * @param all how many there are
     * @param sound read by these alone
     * @param result takes a probability for each frame of the whole sound
     */
    Lanes(int first, int end, int all, Downsampler sound, float[] result) {
      this.first = first;
      this.sound = sound;
      this.result = result;
      count = end - first;
      perLane = (result.length + all - 1) / all;
      input = new float[count * (CONTEXT + FRAME)];
      state = new float[2 * count * STATE];
    }

    void hear(Progress progress) {
      try (OnnxTensor rate =
          OnnxTensor.createTensor(environment, LongBuffer.wrap(new long[] {RATE}), new long[0])) {
        for (int step = -SETTLING; count > 0 && step < perLane; step++) {
          hear(step, rate);
          if (step % 16 == 0) {
            progress.at(Math.max(0, step) / (double) perLane);
          }
        }
      } catch (OrtException e) {
        throw new Problem(
            "Looking for speech failed (%s): place hushes by hand, or bring passages as WebVTT."
                .formatted(e.getMessage()),
            e);
      }
    }

    /** Hears one frame of every lane; before a lane's own part its state settles. */
    private void hear(int step, OnnxTensor rate) throws OrtException {
      for (int lane = 0; lane < count; lane++) {
        long frame = (long) (first + lane) * perLane + step;
        long at = (frame < 0 ? frame + SETTLING : frame) * FRAME - CONTEXT;
        sound.read(at, input, lane * (CONTEXT + FRAME), CONTEXT + FRAME);
      }
      float[] probability = run(rate);
      for (int lane = 0; step >= 0 && lane < count; lane++) {
        int frame = (first + lane) * perLane + step;
        if (frame < result.length) {
          result[frame] = probability[lane];
        }
      }
    }

    /** Runs the model; {@code state} is taken and left for the next. */
    private float[] run(OnnxTensor rate) throws OrtException {
      try (OnnxTensor heard =
              OnnxTensor.createTensor(
                  environment, FloatBuffer.wrap(input), new long[] {count, CONTEXT + FRAME});
          OnnxTensor before =
              OnnxTensor.createTensor(
                  environment, FloatBuffer.wrap(state), new long[] {2, count, STATE});
          OrtSession.Result all =
              session.run(Map.of("input", heard, "state", before, "sr", rate))) {
        ((OnnxTensor) all.get(1)).getFloatBuffer().get(state);
        float[] probability = new float[count];
        ((OnnxTensor) all.get(0)).getFloatBuffer().get(probability);
        return probability;
      }
    }
  }
}
