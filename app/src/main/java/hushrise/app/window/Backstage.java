package hushrise.app.window;

import static hushrise.app.words.Texts.text;

import hushrise.app.file.Exports;
import hushrise.app.file.Intake;
import hushrise.app.file.Renewals;
import hushrise.app.file.Safekeeping;
import hushrise.app.job.Calm;
import hushrise.app.job.Jobs;
import hushrise.app.job.Messages;
import hushrise.app.listen.Drafting;
import hushrise.app.play.Loudspeaker;
import hushrise.app.play.Meters;
import hushrise.app.play.SurfaceRides;
import hushrise.app.play.Transport;
import hushrise.app.record.Recording;
import hushrise.app.session.Session;
import hushrise.core.project.Project;
import hushrise.core.sound.Devices;
import hushrise.media.CacheFolder;
import hushrise.media.FfmpegStretch;
import hushrise.media.MediaStore;
import hushrise.media.SongStore;
import hushrise.media.SpeechStore;
import java.nio.file.Path;
import javafx.application.Platform;

/**
 * What works behind the window and has no picture: the project, its files, and all that sounds.
 *
 * @param store reads and keeps decoded sound
 * @param keeping keeps work from being lost
 * @param heard finds out about the project and its files
 */
record Backstage(
    Jobs jobs,
    MediaStore store,
    Session session,
    Safekeeping keeping,
    Transport transport,
    Meters meters,
    Calm calm,
    Listeners heard,
    Drafting drafting,
    Intake intake,
    Renewals renewals,
    Exports exports,
    Recording recording,
    SurfaceRides surface)
    implements AutoCloseable {

  /**
   * Sets everything up.
   *
   * @param cache where decoded sound and what was found out about files is kept
   * @param devices what sound is played through
   * @param work where journals and earlier versions are kept
   * @param messages is told what the person should know
   */
  static Backstage open(
      CacheFolder cache, Devices devices, Path work, Jobs jobs, Messages messages) {
    MediaStore store = new MediaStore(cache);
    SongStore songs = new SongStore(store, cache);
    Session session =
        new Session(
            songs,
            messages,
            (search, then) ->
                jobs.runSaying(text("fit.searching"), text("fit.searched"), search, then));
    Safekeeping keeping =
        new Safekeeping(
            work,
            folder ->
                Platform.runLater(() -> messages.complain(text("journal.unwritable", folder))));
    session.keepIn(keeping.journal());
    Transport transport =
        new Transport(
            session,
            store,
            jobs,
            messages,
            new Loudspeaker(
                jobs,
                messages,
                devices.usualOutput(Project.DEFAULT_SAMPLE_RATE),
                () -> devices.standIn(Project.DEFAULT_SAMPLE_RATE),
                FfmpegStretch::new));
    Calm calm = new Calm();
    session.shownProperty().addListener(p -> calm.moved());
    Meters meters = new Meters(transport, session::shown);
    SpeechStore speech = new SpeechStore(store, cache);
    Renewals renewals = new Renewals(session, store, songs, speech, jobs, messages);
    Listeners heard =
        new Listeners(
            session, store, cache, speech, songs, renewals::writtenAnew, jobs, messages, calm);
    heard.files().missingProperty().addListener((p, was, now) -> transport.hearAnew(now));
    Drafting drafting = new Drafting(session, heard.hearing(), jobs, messages);
    return new Backstage(
        jobs,
        store,
        session,
        keeping,
        transport,
        meters,
        calm,
        heard,
        drafting,
        new Intake(session, store, songs, jobs, messages),
        renewals,
        new Exports(store, jobs, messages),
        new Recording(session, transport, devices, store, jobs, messages, drafting::start),
        new SurfaceRides(session, transport.riders(), messages));
  }

  /** Stops everything that runs. */
  @Override
  public void close() {
    exports.close();
    jobs.cancelAll();
    heard.close();
    recording.close();
    surface.close();
    transport.close();
    keeping.close();
    jobs.close();
  }
}
