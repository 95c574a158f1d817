package hushrise.app.file;

import static hushrise.app.words.Texts.names;
import static hushrise.app.words.Texts.text;

import hushrise.app.job.Jobs;
import hushrise.app.job.Messages;
import hushrise.app.listen.FileWatch;
import hushrise.app.session.Session;
import hushrise.core.edit.ShelfEdits;
import hushrise.core.project.media.Media;
import hushrise.media.MediaStore;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** Finds files again that are not where they were, all of a folder at once. */
public final class LostFiles {

  private final Session session;
  private final MediaStore store;
  private final FileChoice choice;
  private final FileWatch watch;
  private final Jobs jobs;
  private final Messages messages;

  public LostFiles(
      Session session,
      MediaStore store,
      FileChoice choice,
      FileWatch watch,
      Jobs jobs,
      Messages messages) {
    this.session = session;
    this.store = store;
    this.choice = choice;
    this.watch = watch;
    this.jobs = jobs;
    this.messages = messages;
  }

  /** Looks beside the project and where the person says. */
  public void find() {
    List<Media> missing =
        session.present().shelf().stream()
            .filter(m -> watch.missingProperty().get().contains(m.file()))
            .toList();
    if (missing.isEmpty()) {
      messages.say(text("find.none"));
      return;
    }
    choice
        .folder(FileChoice.Kind.MEDIA, text("find.title"))
        .ifPresent(folder -> lookIn(missing, folder));
  }

  private void lookIn(List<Media> missing, Path folder) {
    Set<Path> places = new LinkedHashSet<>();
    places.add(folder);
    session.file().map(Path::getParent).ifPresent(places::add);
    jobs.run(
        text("find.under"),
        progress -> store.find(missing, new ArrayList<>(places), progress),
        session.whileOpen(found -> arrived(missing, found, folder)));
  }

  private void arrived(List<Media> missing, Map<String, Path> found, Path folder) {
    String still =
        names(missing.stream().filter(m -> !found.containsKey(m.id())).map(Media::title).toList());
    if (found.isEmpty()) {
      messages.complain(text("find.nothing", folder, still));
      return;
    }
    session.commit(text("edit.findFiles"), p -> ShelfEdits.relink(p, found));
    messages.say(
        still.isEmpty()
            ? text("find.found", found.size())
            : text("find.some", found.size(), still));
    watch.look();
  }
}
