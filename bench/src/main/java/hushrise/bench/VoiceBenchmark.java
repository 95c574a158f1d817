package hushrise.bench;

import hushrise.core.hush.HushDraft;
import hushrise.core.hush.HushDrafter;
import hushrise.core.loudness.LoudnessLibrary;
import hushrise.core.loudness.LoudnessSteps;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.separation.Energies;
import hushrise.core.separation.Separation;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import hushrise.core.speech.SpeechFinder;
import hushrise.core.time.Span;
import hushrise.media.CacheFolder;
import hushrise.media.MediaStore;
import hushrise.media.SileroModel;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.FloatBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Random;

/**
 * How fast speech is found, decoding included, on one thread and on two; how long a draft of an
 * hour with 400 passages takes once its files are analysed; and how long the separation takes after
 * an edit of one track.
 */
public final class VoiceBenchmark {

  private static final int RATE = 48_000;
  private static final int MINUTES = 20;
  private static final int RUNS = 3;

  private VoiceBenchmark() {}

  /**
   * Prints the figures.
   *
   * @param args the folder with the demo's narration, and a folder to work in
   */
  public static void main(String[] args) throws IOException {
    Path work = Path.of(args[1]);
    speech(Path.of(args[0]), work);
    draft();
  }

  private static void speech(Path demo, Path work) throws IOException {
    Path wav = work.resolve("speech.wav");
    writeSpeech(demo, work, wav);
    for (int threads : new int[] {1, 2}) {
      double[] seconds = new double[RUNS];
      double[] reading = new double[RUNS];
      int found = 0;
      for (int run = 0; run < RUNS; run++) {
        SileroModel model = new SileroModel(threads);
        long begin = System.nanoTime();
        SampleSource sound =
            new MediaStore(new CacheFolder(work.resolve("cache-" + threads + run), 1L << 32))
                .open(wav, RATE, Progress.NONE);
        reading[run] = (System.nanoTime() - begin) / 1e9;
        float[] heard = model.probabilities(sound, RATE, Progress.NONE);
        found = SpeechFinder.find(sound, RATE, heard, model.frameSeconds()).size();
        seconds[run] = (System.nanoTime() - begin) / 1e9;
      }
      Arrays.sort(seconds);
      Arrays.sort(reading);
      System.out.printf(
          "finding speech, %d min of WAV, %d thread%s: median %.2f s = %.0f x real time, of which reading %.2f s (%d passages)%n",
          MINUTES,
          threads,
          threads == 1 ? "" : "s",
          seconds[RUNS / 2],
          MINUTES * 60 / seconds[RUNS / 2],
          reading[RUNS / 2],
          found);
    }
  }

  /**
   * The demo's takes over and over, with pauses, as 16-bit WAV at 44.1 kHz, so that it is decoded.
   */
  private static void writeSpeech(Path demo, Path work, Path wav) throws IOException {
    MediaStore store = new MediaStore(new CacheFolder(work.resolve("takes"), 1L << 32));
    int rate = 44_100;
    short[] samples = new short[MINUTES * 60 * rate];
    int at = 0;
    for (int n = 0; at < samples.length; n++) {
      SampleSource take =
          store.open(demo.resolve("narration-" + (n % 4 + 1) + ".flac"), RATE, Progress.NONE);
      float[] left = new float[(int) take.lengthFrames()];
      take.read(0, left.length, left, new float[left.length], 0);
      int length = (int) (left.length * (long) rate / RATE);
      for (int i = 0; i < length && at + i < samples.length; i++) {
        samples[at + i] = (short) (left[(int) (i * (long) RATE / rate)] * 32_000);
      }
      at += length + rate;
    }
    ByteBuffer head = ByteBuffer.allocate(44).order(ByteOrder.LITTLE_ENDIAN);
    int bytes = samples.length * 2;
    head.put("RIFF".getBytes(StandardCharsets.US_ASCII)).putInt(36 + bytes);
    head.put("WAVEfmt ".getBytes(StandardCharsets.US_ASCII)).putInt(16).putShort((short) 1);
    head.putShort((short) 1).putInt(rate).putInt(rate * 2).putShort((short) 2).putShort((short) 16);
    head.put("data".getBytes(StandardCharsets.US_ASCII)).putInt(bytes);
    ByteBuffer data = ByteBuffer.allocate(bytes).order(ByteOrder.LITTLE_ENDIAN);
    data.asShortBuffer().put(samples);
    try (OutputStream out = Files.newOutputStream(wav)) {
      out.write(head.array());
      out.write(data.array());
    }
  }

  private static void draft() {
    int seconds = 3_600;
    Random random = new Random(5);
    List<Span> speech = new ArrayList<>();
    for (int i = 0; i < 400; i++) {
      long start = i * 9L * RATE + random.nextInt(RATE);
      speech.add(Span.ofLength(start, RATE * 3L + random.nextInt(3 * RATE)));
    }
    Media take = media("take", MediaKind.VOICE, seconds).withSpeech(Optional.of(speech));
    Media song = media("song", MediaKind.MUSIC, seconds);
    Media room = media("room", MediaKind.EFFECT, seconds);
    LoudnessSteps voiceSteps = steps(seconds, speech, 0.02, random);
    LoudnessSteps songSteps = steps(seconds, List.of(), 0.015, random);
    LoudnessSteps roomSteps = steps(seconds, List.of(), 1e-5, random);
    LoudnessLibrary library =
        m -> m.id().equals("take") ? voiceSteps : m.id().equals("song") ? songSteps : roomSteps;
    Project project =
        Project.empty("hour")
            .withMedia(take)
            .withMedia(song)
            .withMedia(room)
            .withTracks(
                List.of(
                    Track.of(TrackKind.VOICE, "Voice", List.of(Clip.whole(take, 0))),
                    Track.of(TrackKind.MUSIC, "Music", List.of(Clip.whole(song, 0))),
                    Track.of(TrackKind.CAMERA, "Room", List.of(Clip.whole(room, 0)))));
    double first = 0;
    double[] drafts = new double[5];
    double[] edits = new double[5];
    HushDraft draft = null;
    for (int run = 0; run < drafts.length; run++) {
      long begin = System.nanoTime();
      draft = HushDrafter.draft(project, library);
      drafts[run] = (System.nanoTime() - begin) / 1e6;
      first = run == 0 ? drafts[run] : first;
      Energies known = Energies.of(draft.after(), library);
      Project edited =
          draft.after().withTrack(draft.after().tracks().get(1).id(), t -> t.withLevelDb(-1));
      Separation separation = Separation.of(known, 10);
      begin = System.nanoTime();
      separation.following(known.following(edited, library), 10);
      edits[run] = (System.nanoTime() - begin) / 1e6;
    }
    Arrays.sort(drafts);
    Arrays.sort(edits);
    System.out.printf(
        "draft of an hour, %d passages, %d hushes: cold %.0f ms, median %.0f ms%n",
        speech.size(), draft.lines().size(), first, drafts[2]);
    System.out.printf(
        "separation of that hour after an edit of the music: median %.0f ms%n", edits[2]);
  }

  private static Media media(String id, MediaKind kind, int seconds) {
    return new Media(
        id, Path.of("/" + id), kind, seconds * (long) RATE, true, Optional.empty(), "");
  }

  private static LoudnessSteps steps(int seconds, List<Span> speech, double energy, Random random) {
    int count = seconds * LoudnessSteps.PER_SECOND;
    float[] values = new float[count * LoudnessSteps.VALUES];
    int next = 0;
    for (int i = 0; i < count; i++) {
      long frame = LoudnessSteps.frameOf(i, RATE);
      while (next < speech.size() && speech.get(next).endFrame() <= frame) {
        next++;
      }
      boolean speaks =
          speech.isEmpty() || (next < speech.size() && speech.get(next).contains(frame));
      float value = (float) ((speaks ? energy : 1e-9) * (0.5 + random.nextDouble()));
      values[i * LoudnessSteps.VALUES] = value;
      values[i * LoudnessSteps.VALUES + 1] = value;
    }
    return new LoudnessSteps(FloatBuffer.wrap(values));
  }
}
