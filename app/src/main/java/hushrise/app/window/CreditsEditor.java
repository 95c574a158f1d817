package hushrise.app.window;

import static hushrise.app.words.Texts.text;

import hushrise.app.file.FileChoice;
import hushrise.app.file.FileNames;
import hushrise.app.job.Jobs;
import hushrise.app.job.Messages;
import hushrise.app.session.Session;
import hushrise.app.widget.Choice;
import hushrise.app.widget.Form;
import hushrise.app.widget.TypedField;
import hushrise.core.edit.ShelfEdits;
import hushrise.core.project.media.Credit;
import hushrise.core.project.media.Licence;
import hushrise.core.project.media.Media;
import hushrise.core.report.CreditsSheet;
import hushrise.core.store.AtomicFile;
import hushrise.core.store.PortableName;
import java.nio.file.Path;
import java.util.List;
import java.util.function.BiFunction;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import javafx.application.Platform;
import javafx.geometry.Insets;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextArea;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** Who made the film's music and effects, and the sheet of credits that comes of it. */
final class CreditsEditor {

  private static final double LIST_HEIGHT = 260;
  private static final double BESIDE_BAR = 16;
  private static final int TEXT_ROWS = 6;

  /** So many pieces are there at once; more come by as many, between which the window goes on. */
  private static final int AT_ONCE = 8;

  private final Sheet sheet;
  private final Session session;
  private final FileChoice choice;
  private final Jobs jobs;
  private final Messages messages;
  private final TextArea shown = new TextArea();

  CreditsEditor(Sheet sheet, Session session, FileChoice choice, Jobs jobs, Messages messages) {
    this.sheet = sheet;
    this.session = session;
    this.choice = choice;
    this.jobs = jobs;
    this.messages = messages;
    shown.setId("credits-text");
    shown.setEditable(false);
    shown.setPrefRowCount(TEXT_ROWS);
    shown.setAccessibleText(text("credits.text"));
  }

  private CreditsSheet credits() {
    return CreditsSheet.of(session.present());
  }

  void open() {
    List<Media> owed = credits().owed();
    VBox list = new VBox(14);
    list.setPadding(new Insets(0, BESIDE_BAR, 0, 0));
    fill(list, owed);
    if (owed.isEmpty()) {
      list.getChildren().add(new Label(text("credits.none")));
    }
    ScrollPane scroll = new ScrollPane(list);
    scroll.setFitToWidth(true);
    scroll.setPrefViewportHeight(LIST_HEIGHT);
    Button close = new Button(text("sheet.close"));
    close.setId("credits-close");
    close.setOnAction(e -> sheet.close());
    Button copy = Form.button("credits-copy", text("credits.copy"), this::copy);
    Button save = Form.button("credits-save", text("credits.save"), this::save);
    Region space = new Region();
    HBox.setHgrow(space, Priority.ALWAYS);
    HBox buttons = new HBox(8, copy, save, space, close);
    show();
    sheet.openWide(
        text("credits.title"), owed.isEmpty() ? close : first(list), scroll, shown, buttons);
  }

  private void fill(VBox list, List<Media> owed) {
    owed.stream().limit(AT_ONCE).forEach(m -> list.getChildren().add(row(m)));
    if (owed.size() > AT_ONCE) {
      Platform.runLater(() -> fill(list, owed.subList(AT_ONCE, owed.size())));
    }
  }

  private static Node first(VBox list) {
    return list.lookup(".text-field");
  }

  private void show() {
    shown.setText(credits().text());
  }

  private Node row(Media media) {
    Label name = new Label(media.title());
    name.getStyleClass().add("pane-title");
    Label asks = new Label();
    asks.getStyleClass().add("faint");
    asks.setWrapText(true);
    asks.setText(text("licence.asks." + media.credit().licence()));
    GridPane grid = new GridPane(8, 5);
    grid.addRow(
        0,
        label("credits.work"),
        field(media, "title", Credit::title, Credit::withTitle),
        label("credits.author"),
        field(media, "author", Credit::author, Credit::withAuthor));
    grid.addRow(
        1,
        label("credits.source"),
        field(media, "source", Credit::source, Credit::withSource),
        label("credits.licence"),
        licence(media, asks));
    grid.addRow(2, label("credits.note"), field(media, "note", Credit::note, Credit::withNote));
    grid.add(asks, 2, 2, 2, 1);
    return new VBox(4, name, grid);
  }

  private static Label label(String words) {
    return new Label(text(words));
  }

  private void commit(Media media, UnaryOperator<Credit> change) {
    Credit now = session.present().media(media.id()).map(Media::credit).orElse(Credit.NONE);
    Credit next = change.apply(now);
    if (!next.equals(now)) {
      session.commit(text("edit.credit"), p -> ShelfEdits.setCredit(p, media.id(), next));
      show();
    }
  }

  /** A field that counts when it is left, or with Enter. */
  private TypedField field(
      Media media,
      String id,
      Function<Credit, String> of,
      BiFunction<Credit, String, Credit> with) {
    TypedField field = new TypedField();
    field.show(of.apply(media.credit()));
    field.setId("credit-" + id);
    field.setAccessibleText(
        text(
            "credits.field", text("credits." + (id.equals("title") ? "work" : id)), media.title()));
    GridPane.setHgrow(field, Priority.ALWAYS);
    field.onTyped(typed -> commit(media, c -> with.apply(c, typed)));
    return field;
  }

  private Choice<Licence> licence(Media media, Label asks) {
    Choice<Licence> box =
        new Choice<>("credit-licence", List.of(Licence.values()), l -> text("licence." + l));
    box.setValue(media.credit().licence());
    box.setMaxWidth(Double.MAX_VALUE);
    box.setAccessibleText(text("credits.field", text("credits.licence"), media.title()));
    box.setOnAction(
        e -> {
          asks.setText(text("licence.asks." + box.getValue()));
          commit(media, c -> c.withLicence(box.getValue()));
        });
    return box;
  }

  private void copy() {
    ClipboardContent content = new ClipboardContent();
    content.putString(credits().text());
    Clipboard.getSystemClipboard().setContent(content);
    messages.say(text("credits.copied"));
  }

  /** Saves what the chosen ending asks for: .txt, .md or .vtt. */
  private void save() {
    Path suggestion =
        choice
            .lastFolder(FileChoice.Kind.EXPORT)
            .orElse(Path.of(System.getProperty("user.home")))
            .resolve(PortableName.of(text("credits.file", FileNames.nameOf(session.present()))));
    choice
        .toWrite(FileChoice.Kind.CREDITS, text("credits.save"), suggestion)
        .ifPresent(
            file -> {
              String name = file.toString();
              String content =
                  name.endsWith(".md")
                      ? credits().markdown()
                      : name.endsWith(".vtt") ? credits().webVtt() : credits().text();
              jobs.run(
                  () -> AtomicFile.write(file, content),
                  written -> messages.say(text("credits.saved", written)));
            });
  }
}
