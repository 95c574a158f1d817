package hushrise.demo;

import hushrise.core.loudness.FilmLoudness;
import hushrise.core.make.FilmMaker;
import hushrise.core.make.FilmPlan;
import hushrise.core.project.Project;
import hushrise.core.project.level.Rise;
import hushrise.core.project.media.Credit;
import hushrise.core.project.media.Licence;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import hushrise.core.store.ProjectFile;
import hushrise.core.time.FrameRate;
import hushrise.core.time.Span;
import hushrise.media.CacheFolder;
import hushrise.media.DrawnFilmWriter;
import hushrise.media.FileMixWriter;
import hushrise.media.MediaStore;
import hushrise.media.OutputFormat;
import hushrise.media.SongStore;
import hushrise.media.SpeechStore;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;

/** Makes the files of the demo, <i>First Ferry</i>, from nothing but the spoken takes. */
public final class MakeDemo {

  /** When each take starts, in seconds. */
  private static final double[] TAKES_AT = {6.0, 25.5, 47.0, 66.5};

  private static final double HORN_AT = 18.2;
  private static final FrameRate RATE = new FrameRate(25, 1);

  private final Path folder;

  private MakeDemo(Path folder) {
    this.folder = folder;
  }

  /**
   * Makes everything.
   *
   * @param args the folder that holds {@code spoken-1.wav} to {@code spoken-4.wav}, and the folder
   *     for the demo's files
   */
  public static void main(String[] args) {
    System.setProperty("java.awt.headless", "true");
    new MakeDemo(Path.of(args[1])).make(Path.of(args[0]));
  }

  private void make(Path spoken) {
    music();
    horn();
    picture();
    CacheFolder cache = CacheFolder.ofUser();
    MediaStore store = new MediaStore(cache);
    for (int i = 1; i <= TAKES_AT.length; i++) {
      SampleSource take =
          store.open(spoken.resolve("spoken-" + i + ".wav"), Synth.RATE, Progress.NONE);
      narration(take, i);
    }
    MediaStore written = new MediaStore(cache);
    project(written, new SpeechStore(written, cache), new SongStore(written, cache));
  }

  private void write(Synth synth, String name, OutputFormat format) {
    try (FileMixWriter writer = FileMixWriter.ofSound(folder.resolve(name), format, Synth.RATE)) {
      writer.write(synth.left, synth.right, synth.left.length);
      writer.finish();
    }
  }

  private void music() {
    write(HarbourTune.play(), "harbour-tune.mp3", OutputFormat.MP3);
  }

  private void horn() {
    Synth s = new Synth(3.4);
    for (double note : new double[] {45, 52, 57.1}) {
      for (int k = 1; k <= 5; k++) {
        s.pad(0.05, 2.2, note + 12 * Math.log(k) / Math.log(2), 0.3 / k, 0);
      }
    }
    s.normalise(0.3);
    write(s, "ferry-horn.flac", OutputFormat.FLAC);
  }

  /** A take with a little room around it, at a narrator's usual level. */
  private void narration(SampleSource take, int number) {
    Synth s = new Synth(take.lengthFrames() / (double) Synth.RATE);
    take.read(0, s.left.length, s.left, s.right, 0);
    System.arraycopy(s.left, 0, s.right, 0, s.left.length);
    s.normalise(0.42);
    write(s, "narration-" + number + ".flac", OutputFormat.FLAC);
  }

  private void picture() {
    FerryPicture drawing = new FerryPicture();
    Path file = folder.resolve("first-ferry.mp4");
    int perPicture = Synth.RATE / 25;
    DeckNoise deck = new DeckNoise();
    float[] left = new float[perPicture];
    float[] right = new float[perPicture];
    try (DrawnFilmWriter writer =
        new DrawnFilmWriter(
            file, OutputFormat.MP4, FerryPicture.WIDTH, FerryPicture.HEIGHT, RATE, Synth.RATE)) {
      for (int i = 0; i < FerryPicture.SECONDS * 25; i++) {
        writer.addPicture(drawing.at(i / 25.0));
        deck.fill(left, right);
        writer.addSound(left, right, perPicture);
      }
      writer.finish();
    }
  }

  /** Wind and engine, as a camera on the deck would take them. */
  private static final class DeckNoise {
    private final Random random = new Random(7);
    private double low;
    private double lower;
    private long frame;

    void fill(float[] left, float[] right) {
      for (int i = 0; i < left.length; i++, frame++) {
        double t = frame / (double) Synth.RATE;
        double gust = 0.6 + 0.4 * Math.sin(t * 0.43) * Math.sin(t * 0.17 + 1);
        low += (random.nextDouble() * 2 - 1 - low) * 0.05;
        lower += (low - lower) * 0.2;
        double engine = Math.sin(2 * Math.PI * 47 * t) + 0.5 * Math.sin(2 * Math.PI * 94 * t + 0.4);
        double value = lower * 0.5 * gust + engine * 0.012;
        left[i] = (float) value;
        right[i] = (float) (value * 0.9 + low * 0.02);
      }
    }
  }

  private void project(MediaStore store, SpeechStore speech, SongStore songs) {
    Media film =
        take(store, "first-ferry.mp4", MediaKind.PICTURE, "Own drawing and own sound, CC0 1.0");
    List<FilmPlan.Placed> voices = new ArrayList<>();
    for (int i = 1; i <= TAKES_AT.length; i++) {
      Media take =
          take(
              store,
              "narration-" + i + ".flac",
              MediaKind.VOICE,
              "Spoken by flite (voice slt), CC0 1.0");
      Media heard = take.withSpeech(Optional.of(speech.listen(take, Progress.NONE)));
      voices.add(FilmPlan.Placed.at(heard, Math.round(TAKES_AT[i - 1] * Synth.RATE)));
    }
    Media tune =
        take(store, "harbour-tune.mp3", MediaKind.MUSIC, "").withCredit(ours("Harbour Tune"));
    Media horn =
        take(store, "ferry-horn.flac", MediaKind.EFFECT, "").withCredit(ours("Ferry Horn"));
    FilmPlan plan =
        FilmPlan.of(Optional.of(film), voices, List.of(FilmPlan.Placed.at(tune, 0)))
            .withEffects(List.of(FilmPlan.Placed.at(horn, Math.round(HORN_AT * Synth.RATE))))
            .withEvensVoices(false);
    songs.listen(tune, Progress.NONE);
    Project made = new FilmMaker(plan, store, store, songs).make("First Ferry");
    List<Clip> takes = made.firstTrack(TrackKind.VOICE).orElseThrow().clipsInTime();
    Span gap =
        new Span(takes.get(1).endFrame() + Synth.RATE, takes.get(2).startFrame() - Synth.RATE / 2);
    Project swelling =
        made.withEachTrack(
            t -> t.kind() == TrackKind.MUSIC ? t.withRises(List.of(Rise.over(gap, 2.5))) : t);
    Project safe =
        FilmMaker.withinPeak(
            swelling, FilmLoudness.of(swelling, store, Progress.NONE).truePeakDbtp());
    ProjectFile.save(safe, folder.resolve("first-ferry" + ProjectFile.ENDING));
  }

  private static Credit ours(String title) {
    return new Credit(title, "the makers of Hush Rise", "", Licence.PUBLIC_DOMAIN, "");
  }

  private Media take(MediaStore store, String name, MediaKind kind, String credit) {
    return store.take(folder.resolve(name), kind, Progress.NONE).withCredit(Credit.ofNote(credit));
  }
}
