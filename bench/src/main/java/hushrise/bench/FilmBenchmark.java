package hushrise.bench;

import hushrise.core.loudness.FilmLoudness;
import hushrise.core.project.Project;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.Progress;
import hushrise.media.CacheFolder;
import hushrise.media.FilmStore;
import hushrise.media.MediaStore;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.function.UnaryOperator;

/**
 * How long the loudness of a film of two hours on twelve tracks takes: measured whole, and followed
 * after edits, each the second time it is done.
 */
public final class FilmBenchmark {

  private FilmBenchmark() {}

  public static void main(String[] args) throws IOException {
    Path folder = Scratch.folder();
    CacheFolder cache = new CacheFolder(folder.resolve("cache"), 4L << 30);
    MediaStore store = new MediaStore(cache);
    Project project = LongProject.of(store, folder);
    FilmStore films = new FilmStore(store, cache);
    films.measuring(project);
    FilmLoudness whole = FilmLoudness.of(project, store, Progress.NONE);
    long from = System.nanoTime();
    whole = FilmLoudness.of(project, store, Progress.NONE);
    System.out.printf("the whole film %.2f s%n", (System.nanoTime() - from) / 1e9);
    films.keep(whole);
    double lufs = films.find(project).orElseThrow().integratedLufs();
    from = System.nanoTime();
    FilmLoudness again = films.find(project).orElseThrow();
    System.out.printf(
        "found again as it was kept %.3f s (%.2f LUFS, again %.2f)%n",
        (System.nanoTime() - from) / 1e9, lufs, again.integratedLufs());
    Track music = project.firstTrack(TrackKind.MUSIC).orElseThrow();
    follow(whole, store, "the level of the mix", p -> p.withMasterDb(-1));
    follow(
        whole,
        store,
        "one keyframe",
        p ->
            p.withTrack(
                music.id(),
                t -> t.withLine(t.line().with(t.line().keyframes().get(700).withLevelDb(-3)))));
    follow(
        whole,
        store,
        "a clip's gain",
        p ->
            p.withTrack(music.id(), t -> t.withClip(t.clips().get(3).id(), c -> c.withGainDb(-2))));
    from = System.nanoTime();
    FilmLoudness settled = whole.settled(Integer.MAX_VALUE, store, Progress.NONE);
    System.out.printf(
        "what each track gives, once, in the background %.2f s%n",
        (System.nanoTime() - from) / 1e9);
    for (FilmLoudness known : List.of(whole, settled)) {
      System.out.println(known == whole ? "before that is known" : "when that is known");
      for (double db : new double[] {-2, -20}) {
        follow(
            known,
            store,
            "a track's level by %.0f dB".formatted(db),
            p -> p.withTrack(music.id(), t -> t.withLevelDb(db)));
      }
      follow(known, store, "a track's mute", p -> p.withTrack(music.id(), t -> t.withMuted(true)));
      follow(known, store, "a track's pan", p -> p.withTrack(music.id(), t -> t.withPan(-0.5)));
    }
  }

  private static void follow(
      FilmLoudness known, MediaStore store, String edit, UnaryOperator<Project> change) {
    Project changed = change.apply(known.project());
    FilmLoudness followed = known.following(changed, store, Progress.NONE);
    long from = System.nanoTime();
    followed = known.following(changed, store, Progress.NONE);
    long to = System.nanoTime();
    System.out.printf(
        "after an edit of %-26s %.3f s (%.2f LUFS, %.2f dBTP)%n",
        edit, (to - from) / 1e9, followed.integratedLufs(), followed.truePeakDbtp());
  }
}
