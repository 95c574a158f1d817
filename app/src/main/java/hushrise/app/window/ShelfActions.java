package hushrise.app.window;

import static hushrise.app.words.Texts.text;

import hushrise.app.file.FileChoice;
import hushrise.app.file.Intake;
import hushrise.app.job.Messages;
import hushrise.app.panel.ShelfPane;
import hushrise.app.session.Session;
import hushrise.core.edit.ShelfEdits;
import hushrise.core.project.media.Media;
import java.util.function.BiConsumer;

/** What can be done with the Shelf and what lies on it. */
final class ShelfActions implements ShelfPane.Actions {

  private final Session session;
  private final Intake intake;
  private final FileChoice choice;
  private final Messages messages;
  private final BiConsumer<Media, Long> startAt;
  private final Runnable leave;
  private final Runnable close;

  /**
   * @param startAt lets a placed song start with another place of it
   * @param leave gives the keys back to the timeline
   * @param close closes the Shelf
   */
  ShelfActions(
      Session session,
      Intake intake,
      FileChoice choice,
      Messages messages,
      BiConsumer<Media, Long> startAt,
      Runnable leave,
      Runnable close) {
    this.session = session;
    this.intake = intake;
    this.choice = choice;
    this.messages = messages;
    this.startAt = startAt;
    this.leave = leave;
    this.close = close;
  }

  @Override
  public void add() {
    intake.take(choice.toRead(FileChoice.Kind.MEDIA, text("add.toShelf"), true), false);
  }

  @Override
  public void place(Media media) {
    intake.place(media);
  }

  @Override
  public void startAt(Media media, long mediaFrame) {
    startAt.accept(media, mediaFrame);
  }

  @Override
  public void remove(Media media) {
    boolean used = session.present().isUsed(media.id());
    session.commit(text("edit.removeMedia", media.title()), p -> ShelfEdits.remove(p, media.id()));
    messages.say(text(used ? "shelf.removedUsed" : "shelf.removed", media.title()));
  }

  @Override
  public void leave() {
    leave.run();
  }

  @Override
  public void close() {
    close.run();
  }
}
