package hushrise.app.window;

import static hushrise.app.words.Texts.text;

import hushrise.app.command.CommandId;
import hushrise.app.command.Commands;
import hushrise.app.job.Messages;
import hushrise.app.session.Session;
import hushrise.core.edit.HushEdits;

/**
 * While W is held the project is heard and seen without hushes and rises, while E is held without
 * level lines. From the menu it stays so until it is chosen again.
 */
final class Compare {

  private final Session session;
  private final Messages messages;

  Compare(Session session, Messages messages) {
    this.session = session;
    this.messages = messages;
  }

  void addTo(HeldKeys keys) {
    keys.add(CommandId.COMPARE_SHAPES, () -> begin(CommandId.COMPARE_SHAPES), this::end);
    keys.add(CommandId.COMPARE_LINE, () -> begin(CommandId.COMPARE_LINE), this::end);
  }

  void addTo(Commands.Builder table) {
    table
        .set(CommandId.COMPARE_SHAPES, () -> toggle(CommandId.COMPARE_SHAPES))
        .set(CommandId.COMPARE_LINE, () -> toggle(CommandId.COMPARE_LINE));
  }

  private void toggle(CommandId id) {
    if (session.isComparing()) {
      end();
    } else {
      begin(id);
    }
  }

  private void begin(CommandId id) {
    boolean shapes = id == CommandId.COMPARE_SHAPES;
    session.compare(shapes ? HushEdits::withoutHushes : HushEdits::withoutLines);
    messages.say(text(shapes ? "compare.hushes" : "compare.line"));
  }

  private void end() {
    session.endComparison();
    messages.say(text("compare.over"));
  }
}
