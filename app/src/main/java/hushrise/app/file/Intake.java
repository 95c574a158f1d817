package hushrise.app.file;

import static hushrise.app.words.Texts.text;

import hushrise.app.job.Jobs;
import hushrise.app.job.Messages;
import hushrise.app.session.Session;
import hushrise.core.Problem;
import hushrise.core.edit.ClipRemoval;
import hushrise.core.edit.Placement;
import hushrise.core.edit.SongChange;
import hushrise.core.fit.Fits;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.Progress;
import hushrise.core.store.ProjectFile;
import hushrise.core.time.Timecode;
import hushrise.media.FolderFiles;
import hushrise.media.MediaStore;
import hushrise.media.SongStore;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiFunction;

/**
 * Takes files into the project: reads them in the background, puts them on the Shelf, and places
 * them where they are usually wanted; what goes to the playhead goes where that was when it was
 * asked for. One step of the history for all of them.
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
    long playhead = session.playhead();
    jobs.run(
        words,
        progress -> read(chosen, kindOf, progress),
        session.whileOpen(read -> arrived(read, places, playhead)));
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
    try {
      return FolderFiles.in(folder, DEEPEST, Integer.MAX_VALUE).stream()
          .filter(f -> !f.toString().endsWith(ProjectFile.ENDING))
          .sorted()
          .toList();
    } catch (IOException e) {
      throw new Problem(
          "The folder %s cannot be read: check that you may open it.".formatted(folder), e);
    }
  }

  private void arrived(Read read, boolean places, long playhead) {
    if (!read.media().isEmpty()) {
      String name =
          read.media().size() == 1
              ? text("edit.add", read.media().getFirst().title())
              : text("edit.addMany", read.media().size());
      Project before = session.present();
      session.commit(name, p -> places ? added(p, read.media(), playhead) : onShelf(p, read));
      messages.say(words(read, places, before, playhead));
    }
    if (!read.problems().isEmpty()) {
      messages.complain(read.problems().getFirst());
    }
  }

  private String words(Read read, boolean places, Project before, long playhead) {
    Media first = read.media().getFirst();
    String what;
    if (!places) {
      what = text("took.shelf", read.media().size());
    } else if (read.media().size() == 1) {
      what = took(first, before, playhead);
    } else {
      long waiting = read.media().stream().filter(m -> clipOf(m, before).isEmpty()).count();
      String placed = text("took.many", read.media().size() - waiting);
      what = waiting == 0 ? placed : placed + " " + text("took.many.waiting", waiting);
    }
    return read.leftOut() > 0 ? what + " " + text("took.leftOut", read.leftOut()) : what;
  }

  /** Where an item has come to lie, and what to do next. */
  private String took(Media item, Project before, long playhead) {
    Optional<Clip> clip = clipOf(item, before);
    return switch (item.kind()) {
      case MUSIC -> tookMusic(item, before, clip, playhead);
      case VOICE ->
          clip.filter(c -> c.startFrame() != playhead)
              .map(c -> text("took.VOICE.later", item.title(), timecode(c.startFrame())))
              .orElse(text("took.VOICE", item.title()));
      case STILL ->
          text(
              before.pictureEndFrame().isEmpty() ? "took.STILL.first" : "took.STILL", item.title());
      default -> text("took." + item.kind().name(), item.title());
    };
  }

  private String timecode(long frame) {
    Project project = session.present();
    return Timecode.format(frame, project.pictureRate(), project.sampleRate());
  }

  private String tookMusic(Media item, Project before, Optional<Clip> clip, long playhead) {
    Project project = session.present();
    long at = clip.map(Clip::startFrame).orElse(playhead);
    Optional<Clip> other = SongChange.playingAt(before, at);
    if (other.isPresent()) {
      String how =
          clip.isEmpty()
              ? "waiting"
              : project.clip(other.get().id()).isPresent() ? "after" : "instead";
      Media played = before.media(other.get().mediaId()).orElseThrow();
      return text("took.MUSIC." + how, item.title(), played.title());
    }
    if (clip.filter(c -> c.startFrame() > 0).isPresent()) {
      return text("took.MUSIC.from", item.title());
    }
    String when =
        project.hasVoice() ? "" : project.pictureEndFrame().isPresent() ? ".unspoken" : ".alone";
    return text("took.MUSIC" + when, item.title());
  }

  /** The clip that an item has got. */
  private Optional<Clip> clipOf(Media item, Project before) {
    return session.present().tracks().stream()
        .flatMap(t -> t.clips().stream())
        .filter(c -> c.mediaId().equals(item.id()) && before.clip(c.id()).isEmpty())
        .findFirst();
  }

  private static Project onShelf(Project project, Read read) {
    Project result = project;
    for (Media item : read.media()) {
      result = result.withMedia(item);
    }
    return result;
  }

  private Project added(Project project, List<Media> media, long playhead) {
    Project result = project;
    long voiceAt = playhead;
    boolean voices = media.stream().anyMatch(m -> m.kind() == MediaKind.VOICE);
    Optional<Long> songEnd = Optional.empty();
    for (Media item : media) {
      result = result.withMedia(item);
      long at =
          switch (item.kind()) {
            case PICTURE, STILL -> 0;
            case MUSIC -> songEnd.orElse(afterMusic(result, playhead));
            case VOICE -> roomFor(result, item, voiceAt);
            case EFFECT -> voices ? voiceAt : playhead;
          };
      if (item.kind() == MediaKind.MUSIC) {
        if (!isFreeForMusic(result, at, songEnd.isPresent())) {
          continue;
        }
        songEnd = Optional.of(at + item.usefulPart().lengthFrames());
      }
      result = Placement.place(result, item.id(), at, songs);
      if (item.kind() == MediaKind.VOICE || item.kind() == MediaKind.EFFECT) {
        voiceAt = at + item.lengthFrames() + project.sampleRate();
      }
    }
    return result;
  }

  /** Music starts with the film; more music starts at the playhead. */
  private static long afterMusic(Project project, long playhead) {
    boolean first =
        project.tracksOf(TrackKind.MUSIC).map(Track::clips).allMatch(List<Clip>::isEmpty);
    return first ? 0 : playhead;
  }

  /**
   * Whether a song can start at a time without taking another one's place, and is heard of it.
   *
   * @param inTurn whether it follows another that came with it
   */
  private static boolean isFreeForMusic(Project project, long at, boolean inTurn) {
    boolean over = inTurn && at >= Fits.endOf(project).orElse(Long.MAX_VALUE);
    return !over && startingAt(project, at).isEmpty();
  }

  /** The song that has not played for a second yet when another is to start at a time. */
  private static Optional<Clip> startingAt(Project project, long at) {
    return SongChange.playingAt(project, at)
        .filter(c -> at - c.startFrame() < project.sampleRate());
  }

  private static long roomFor(Project project, Media voice, long from) {
    return Placement.roomFrom(project, TrackKind.VOICE, voice.usefulPart().lengthFrames(), from);
  }

  /**
   * Places an item of the Shelf: music under the film, or from the playhead on in place of what
   * plays there; a picture after the picture; narration at the playhead, or where there is room for
   * it; anything else at the playhead.
   */
  public void place(Media item) {
    long playhead = session.playhead();
    Runnable place =
        () -> {
          Project before = session.present();
          if (isStarting(before, item, playhead)) {
            messages.say(text("took.MUSIC.already", item.title()));
            return;
          }
          session.commit(text("edit.place", item.title()), p -> placed(p, item, playhead));
          messages.say(took(item, before, playhead));
        };
    if (item.kind() == MediaKind.MUSIC) {
      listen(item, place);
    } else {
      place.run();
    }
  }

  /** Whether it is this song that begins where it would be placed. */
  private static boolean isStarting(Project project, Media item, long playhead) {
    return item.kind() == MediaKind.MUSIC
        && startingAt(project, afterMusic(project, playhead))
            .filter(c -> c.mediaId().equals(item.id()))
            .isPresent();
  }

  private Project placed(Project project, Media item, long playhead) {
    return switch (item.kind()) {
      case MUSIC -> {
        long at = afterMusic(project, playhead);
        Optional<Clip> starting = startingAt(project, at);
        Project without =
            starting
                .map(c -> ClipRemoval.delete(project, Set.of(c.id()), false, false))
                .orElse(project);
        long start = starting.map(Clip::startFrame).orElse(at);
        yield Placement.place(without, item.id(), start, songs);
      }
      case VOICE -> Placement.place(project, item.id(), roomFor(project, item, playhead), songs);
      default -> Placement.place(project, item.id(), playhead, songs);
    };
  }

  /** Listens to a song when that has not been done, then goes on if its project is still open. */
  public void listen(Media item, Runnable then) {
    if (songs.song(item).isPresent()) {
      then.run();
    } else {
      jobs.run(
          text("job.listening", item.title()),
          progress -> songs.listen(item, progress),
          session.whileOpen(song -> then.run()));
    }
  }

  /** Listens to all music that is placed and there, so that it can follow the picture. */
  public void listenToAll() {
    Project project = session.present();
    for (Media item : project.shelf()) {
      boolean placed = item.kind() == MediaKind.MUSIC && project.isUsed(item.id());
      if (placed) {
        if (songs.song(item).isPresent()) {
          session.followFits();
        } else {
          jobs.look(
              item.file(),
              text("job.listening", item.title()),
              Jobs.ifThere(item.file(), progress -> songs.listen(item, progress)),
              song -> session.followFits());
        }
      }
    }
  }
}
