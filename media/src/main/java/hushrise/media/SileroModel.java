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

/**
 * Silero VAD v6 on the ONNX runtime. The model ships with the application and is checked by its
 * digest when it is loaded.
 *
 * <p>The model hears 32 ms at a time and carries a state along, so one stretch of sound cannot be
 * cut into a batch. A long sound therefore is cut into {@link #LANES} stretches that run side by
 * side in one batch; each begins a second before its own part, in which its state settles. The
 * first one hears the first second twice: after silence, music that is there at once would pass for
 * speech.
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

  /**
   * @throws Problem when the model is damaged or the runtime does not work on this machine
   */
  public SileroModel() {
    this(resource(), Math.min(2, Runtime.getRuntime().availableProcessors()));
  }

  /**
   * A model that works on a number of threads.
   *
   * @throws Problem as {@link #SileroModel()}
   */
  public SileroModel(int threads) {
    this(resource(), threads);
  }

  SileroModel(byte[] model, int threads) {
    requireWhole(model);
    try {
      OrtSession.SessionOptions options = new OrtSession.SessionOptions();
      options.setIntraOpNumThreads(threads);
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
    int perLane = (frames + lanes - 1) / lanes;
    float[] result = new float[frames];
    float[] input = new float[lanes * (CONTEXT + FRAME)];
    float[] state = new float[2 * lanes * STATE];
    try (OnnxTensor rate =
        OnnxTensor.createTensor(environment, LongBuffer.wrap(new long[] {RATE}), new long[0])) {
      for (int step = -SETTLING; step < perLane; step++) {
        for (int lane = 0; lane < lanes; lane++) {
          long frame = (long) lane * perLane + step;
          long at = (frame < 0 ? frame + SETTLING : frame) * FRAME - CONTEXT;
          sound.read(at, input, lane * (CONTEXT + FRAME), CONTEXT + FRAME);
        }
        float[] probability = run(input, state, rate, lanes);
        if (step >= 0) {
          for (int lane = 0; lane < lanes && lane * perLane + step < frames; lane++) {
            result[lane * perLane + step] = probability[lane];
          }
        }
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
    progress.at(1);
    return result;
  }

  /** Runs one frame of every lane; {@code state} is taken and left for the next. */
  private float[] run(float[] input, float[] state, OnnxTensor rate, int lanes)
      throws OrtException {
    try (OnnxTensor sound =
            OnnxTensor.createTensor(
                environment, FloatBuffer.wrap(input), new long[] {lanes, CONTEXT + FRAME});
        OnnxTensor before =
            OnnxTensor.createTensor(
                environment, FloatBuffer.wrap(state), new long[] {2, lanes, STATE});
        OrtSession.Result result =
            session.run(Map.of("input", sound, "state", before, "sr", rate))) {
      ((OnnxTensor) result.get(1)).getFloatBuffer().get(state);
      float[] probability = new float[lanes];
      ((OnnxTensor) result.get(0)).getFloatBuffer().get(probability);
      return probability;
    }
  }
}
