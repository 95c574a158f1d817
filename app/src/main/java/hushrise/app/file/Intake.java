package hushrise.app.file;

import static hushrise.app.words.Texts.text;

import hushrise.app.job.Jobs;
import hushrise.app.job.Messages;
import hushrise.app.session.Session;
import hushrise.core.Problem;
import hushrise.core.edit.Placement;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.Progress;
import hushrise.core.store.ProjectFile;
import hushrise.media.MediaStore;
import hushrise.media.SongStore;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.function.BiFunction;
import java.util.stream.Stream;

/**
 * Takes files into the project: reads them in the background, puts them on the Shelf, and places
 * them where they are usually wanted. One step of the history for all of them.
 */
public final class Intake {

  private static final int DEEPEST = 4;

  private final Session session;
  private final MediaStore store;
  private final SongStore songs;
  private final Jobs jobs;
  private final Messages messages;

  public Intake(Session session, MediaStore store, SongStore songs, Jobs jobs, Messages messages) {
    this.session = session;
    this.store = store;
    this.songs = songs;
    this.jobs = jobs;
    this.messages = messages;
  }

  /** What was read of some files. */
  private record Read(List<Media> media, List<String> problems, int leftOut) {}

  /**
   * Takes files and what lies in folders.
   *
   * @param places whether they are also placed on the timeline
   */
  public void take(List<Path> chosen, boolean places) {
    take(chosen, places, store::guessKind);
  }

  /** Takes files for a purpose that a person named, and places them. */
  public void takeAs(List<Path> chosen, MediaKind kind) {
    take(chosen, true, (file, progress) -> kind);
  }

  private void take(
      List<Path> chosen, boolean places, BiFunction<Path, Progress, MediaKind> kindOf) {
    if (chosen.isEmpty()) {
      return;
    }
    String words =
        chosen.size() == 1
            ? text("taking", chosen.getFirst().getFileName())
            : text("taking.many", chosen.size());
    jobs.run(words, progress -> read(chosen, kindOf, progress), read -> arrived(read, places));
  }

  private Read read(
      List<Path> chosen, BiFunction<Path, Progress, MediaKind> kindOf, Progress progress) {
    List<Media> media = new ArrayList<>();
    List<String> problems = new ArrayList<>();
    int leftOut = 0;
    List<Path> files = new ArrayList<>();
    for (Path path : chosen) {
      files.addAll(Files.isDirectory(path) ? filesIn(path) : List.of(path));
    }
    for (int i = 0; i < files.size(); i++) {
      Path file = files.get(i);
      double done = i / (double) files.size();
      Progress part = fraction -> progress.at(done + fraction / files.size());
      part.at(0);
      try {
        Media item = store.take(file, kindOf.apply(file, part), part);
        if (item.kind() == MediaKind.MUSIC) {
          songs.listen(item, part);
        }
        media.add(item);
      } catch (Problem e) {
        if (chosen.contains(file)) {
          problems.add(e.getMessage());
        } else {
          leftOut++;
        }
      }
    }
    media.sort(Comparator.comparing(Media::kind));
    return new Read(media, problems, leftOut);
  }

  private static List<Path> filesIn(Path folder) {
    try (Stream<Path> all = Files.walk(folder, DEEPEST)) {
      return all.filter(Files::isRegularFile)
          .filter(f -> !f.getFileName().toString().startsWith("."))
          .filter(f -> !f.toString().endsWith(ProjectFile.ENDING))
          .sorted()
          .toList();
    } catch (IOException e) {
      throw new Problem(
          "The folder %s cannot be read: check that you may open it.".formatted(folder), e);
    }
  }

  private void arrived(Read read, boolean places) {
    if (!read.media().isEmpty()) {
      String name =
          read.media().size() == 1
              ? text("edit.add", read.media().getFirst().title())
              : text("edit.addMany", read.media().size());
      session.commit(name, p -> added(p, read.media(), places));
      messages.say(words(read, places));
    }
    if (!read.problems().isEmpty()) {
      messages.complain(read.problems().getFirst());
    }
  }

  private String words(Read read, boolean places) {
    Media first = read.media().getFirst();
    String what;
    if (!places) {
      what = text("took.shelf", read.media().size());
    } else if (read.media().size() == 1) {
      what = took(first);
    } else {
      what = text("took.many", read.media().size());
    }
    return read.leftOut() > 0 ? what + " " + text("took.leftOut", read.leftOut()) : what;
  }

  /** Where an item has come to lie, and what to do next. */
  private String took(Media item) {
    Project project = session.present();
    boolean music = item.kind() == MediaKind.MUSIC;
    boolean speech = project.hasVoice();
    String when =
        !music || speech ? "" : project.pictureEndFrame().isPresent() ? ".unspoken" : ".alone";
    return text("took." + item.kind().name() + when, item.title());
  }

  private Project added(Project project, List<Media> media, boolean places) {
    Project result = project;
    long voiceAt = session.playhead();
    boolean voices = media.stream().anyMatch(m -> m.kind() == MediaKind.VOICE);
    for (Media item : media) {
      result = result.withMedia(item);
      if (places) {
        long at =
            switch (item.kind()) {
              case PICTURE, STILL -> 0;
              case MUSIC -> afterMusic(result);
              case VOICE -> voiceAt;
              case EFFECT -> voices ? voiceAt : session.playhead();
            };
        result = Placement.place(result, item.id(), at, songs);
        boolean inTurn = item.kind() == MediaKind.VOICE || item.kind() == MediaKind.EFFECT;
        if (inTurn) {
          voiceAt += item.lengthFrames() + project.sampleRate();
        }
      }
    }
    return result;
  }

  /** Music starts with the film; more music starts at the playhead. */
  private long afterMusic(Project project) {
    boolean first =
        project.tracksOf(TrackKind.MUSIC).map(Track::clips).allMatch(List<Clip>::isEmpty);
    return first ? 0 : session.playhead();
  }

  /**
   * Places an item of the Shelf: music under the film, a picture after the picture, else at the
   * playhead.
   */
  public void place(Media item) {
    Runnable place =
        () -> {
          long at =
              item.kind() == MediaKind.MUSIC ? afterMusic(session.present()) : session.playhead();
          session.commit(
              text("edit.place", item.title()), p -> Placement.place(p, item.id(), at, songs));
          messages.say(took(item));
        };
    if (item.kind() == MediaKind.MUSIC) {
      listen(item, place);
    } else {
      place.run();
    }
  }

  /** Listens to a song when that has not been done, then goes on. */
  public void listen(Media item, Runnable then) {
    if (songs.song(item).isPresent()) {
      then.run();
    } else {
      jobs.run(
          text("job.listening", item.title()),
          progress -> songs.listen(item, progress),
          song -> then.run());
    }
  }

  /** Listens to all music of the project that is placed, so that it can follow the picture. */
  public void listenToAll() {
    Project project = session.present();
    for (Media item : project.shelf()) {
      if (item.kind() == MediaKind.MUSIC && project.isUsed(item.id())) {
        listen(item, session::followFits);
      }
    }
  }
}
