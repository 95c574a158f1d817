package hushrise.app.command;

import static hushrise.app.words.Texts.text;

import hushrise.app.job.Messages;
import hushrise.app.session.Session;
import java.util.Optional;

/** Back and forth through what was done, saying each time what that was. */
public final class HistoryCommands {

  private final Session session;
  private final Messages messages;

  public HistoryCommands(Session session, Messages messages) {
    this.session = session;
    this.messages = messages;
  }

  /** Adds the commands to the table. */
  public void addTo(Commands.Builder table) {
    table
        .set(CommandId.UNDO, () -> step("undo.done", session.undoName(), session::undo))
        .set(CommandId.REDO, () -> step("redo.done", session.redoName(), session::redo));
  }

  private void step(String words, Optional<String> name, Runnable step) {
    step.run();
    name.ifPresent(done -> messages.say(text(words, done)));
  }
}
