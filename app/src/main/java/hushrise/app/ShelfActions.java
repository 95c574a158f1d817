package hushrise.app;

import static hushrise.app.look.Texts.text;

import hushrise.app.panel.ShelfPane;
import hushrise.core.edit.ShelfEdits;
import hushrise.core.project.Media;

/** What the Shelf asks the window to do. */
final class ShelfActions implements ShelfPane.Actions {

  private final Session session;
  private final Intake intake;
  private final Window window;

  ShelfActions(Session session, Intake intake, Window window) {
    this.session = session;
    this.intake = intake;
    this.window = window;
  }

  @Override
  public void add() {
    window.askForFiles(false);
  }

  @Override
  public void place(Media media) {
    intake.place(media);
  }

  @Override
  public void remove(Media media) {
    boolean used = session.project().isUsed(media.id());
    session.commit(text("edit.removeMedia", media.title()), p -> ShelfEdits.remove(p, media.id()));
    window.say(text(used ? "shelf.removedUsed" : "shelf.removed", media.title()));
  }

  @Override
  public void leave() {
    window.focusTimeline();
  }

  @Override
  public void close() {
    window.toggleShelf();
  }
}
