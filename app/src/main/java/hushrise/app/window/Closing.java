package hushrise.app.window;

import static hushrise.app.words.Texts.text;

import hushrise.app.file.Exports;
import hushrise.app.file.FileNames;
import hushrise.app.file.ProjectFiles;
import hushrise.app.session.Session;
import javafx.beans.binding.Bindings;
import javafx.beans.binding.StringBinding;
import javafx.stage.Stage;
import javafx.stage.WindowEvent;

/** Tells in the title what is open and unsaved, and asks about it before the window closes. */
final class Closing {

  private final Session session;
  private final Exports exports;
  private final ProjectFiles projects;
  private final Sheet sheet;

  Closing(Session session, Exports exports, ProjectFiles projects, Sheet sheet) {
    this.session = session;
    this.exports = exports;
    this.projects = projects;
    this.sheet = sheet;
  }

  void attach(Stage stage) {
    stage.titleProperty().bind(titleBinding());
    stage.setOnCloseRequest(
        e -> {
          e.consume();
          guard(stage::hide);
        });
  }

  /** Asks the window to close, as its own button does. */
  void quit() {
    javafx.stage.Window stage = sheet.getScene().getWindow();
    stage.fireEvent(new WindowEvent(stage, WindowEvent.WINDOW_CLOSE_REQUEST));
  }

  /** Asks about what would be lost, then goes on; a question about an export ends with it. */
  private void guard(Runnable then) {
    if (!exports.isRunning()) {
      projects.guard(then);
      return;
    }
    String title = text("closing.title");
    String question = text("closing.question");
    if (sheet.asks(title, question)) {
      return;
    }
    sheet.ask(
        title,
        question,
        text("closing.answer"),
        () -> {
          exports.cancel();
          projects.guard(then);
        });
    exports.whenOver(
        isAllWell -> {
          if (sheet.asks(title, question)) {
            sheet.close();
            if (isAllWell) {
              projects.guard(then);
            }
          }
        });
  }

  private StringBinding titleBinding() {
    return Bindings.createStringBinding(
        () ->
            text(
                session.hasUnsavedChanges() ? "title.unsaved" : "title",
                FileNames.nameOf(session.present())),
        session.presentProperty(),
        session.unsavedProperty());
  }
}
