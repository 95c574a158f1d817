package hushrise.app.window;

import hushrise.app.job.Calm;
import hushrise.app.job.Jobs;
import hushrise.app.job.Messages;
import hushrise.app.listen.FileWatch;
import hushrise.app.listen.FilmMeasure;
import hushrise.app.listen.Hearing;
import hushrise.app.listen.ItemFacts;
import hushrise.app.listen.PictureCuts;
import hushrise.app.listen.SpeechWatch;
import hushrise.app.session.Session;
import hushrise.app.widget.PeaksCache;
import hushrise.app.widget.Stills;
import hushrise.core.project.media.Media;
import hushrise.media.CacheFolder;
import hushrise.media.FilmStore;
import hushrise.media.MediaStore;
import hushrise.media.PictureScan;
import hushrise.media.SongStore;
import hushrise.media.SpeechStore;
import java.nio.file.Path;
import java.util.function.BiConsumer;
import java.util.function.Consumer;

/** Everything that finds out about the project and its files, and forgets what has changed. */
final class Listeners implements AutoCloseable {

  private final PictureCuts cuts;
  private final PeaksCache peaks;
  private final Stills stills;
  private final ItemFacts facts;
  private final Hearing hearing;
  private final FilmMeasure measure;
  private final SpeechWatch speech;
  private final FileWatch files;
  private final MediaStore store;
  private final SongStore songs;
  private Consumer<Path> alsoForgets = file -> {};

  /**
   * @param speech finds where somebody speaks
   * @param renewed is told of an item whose file holds something else, and of what
   * @param calm when long work may go on
   */
  Listeners(
      Session session,
      MediaStore store,
      CacheFolder cache,
      SpeechStore speech,
      SongStore songs,
      BiConsumer<Media, Media> renewed,
      Jobs jobs,
      Messages messages,
      Calm calm) {
    this.store = store;
    this.songs = songs;
    cuts = new PictureCuts(session, new PictureScan(store, cache), jobs);
    peaks = new PeaksCache(store, jobs);
    stills = new Stills(jobs);
    facts = new ItemFacts(store, jobs);
    hearing = new Hearing(session, store, cuts, jobs);
    measure = new FilmMeasure(session, store, new FilmStore(store, cache), jobs, calm);
    measure.nowProperty().addListener((p, was, now) -> hearing.measured(now));
    this.speech = new SpeechWatch(session, speech, jobs, messages);
    files = new FileWatch(session, store, jobs, messages, this::forget, this::gone, renewed);
  }

  /** Tells of each file that has changed. */
  void setAlsoForgets(Consumer<Path> told) {
    alsoForgets = told;
  }

  PictureCuts cuts() {
    return cuts;
  }

  PeaksCache peaks() {
    return peaks;
  }

  Stills stills() {
    return stills;
  }

  ItemFacts facts() {
    return facts;
  }

  Hearing hearing() {
    return hearing;
  }

  FilmMeasure measure() {
    return measure;
  }

  SpeechWatch speech() {
    return speech;
  }

  FileWatch files() {
    return files;
  }

  /** Lets go of everything that was heard, as the project is another one. */
  void forget() {
    store.letGo();
    peaks.letGo();
    stills.letGo();
    hearing.startOver();
    measure.forget();
  }

  /** Lets go of everything that was found out about a file, as the file has changed. */
  private void forget(Path file) {
    peaks.forget(file);
    stills.forget(file);
    cuts.forget(file);
    facts.forget(file);
    speech.forget(file);
    songs.forget(file);
    hearing.forget(file);
    measure.forget();
    alsoForgets.accept(file);
  }

  /** Counts a file as silent, as it is not where it was. */
  private void gone(Path file) {
    songs.forget(file);
    hearing.gone(file);
    measure.forget();
  }

  @Override
  public void close() {
    files.close();
    hearing.close();
    measure.close();
    stills.close();
  }
}
