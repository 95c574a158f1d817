package hushrise.app.panel;

import static hushrise.app.words.Texts.text;

import hushrise.app.listen.ItemFacts;
import hushrise.app.session.Session;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import java.util.Locale;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** A line of the Shelf: name, kind, length, format, and whether it is placed and credited. */
final class ShelfCell extends ListCell<Media> {

  private final Session session;
  private final ItemFacts facts;
  private final Label name = new Label();
  private final Label details = new Label();
  private final Label state = new Label();
  private final Region stripe = new Region();
  private final HBox row;

  ShelfCell(Session session, ItemFacts facts, Consumer<Media> place) {
    this.session = session;
    this.facts = facts;
    name.getStyleClass().add("track-name");
    details.getStyleClass().add("faint");
    state.getStyleClass().add("faint");
    stripe.getStyleClass().add("kind-stripe");
    stripe.setMinWidth(4);
    VBox words = new VBox(1, name, details, state);
    HBox.setHgrow(words, Priority.ALWAYS);
    words.setMinWidth(0);
    row = new HBox(8, stripe, words);
    row.setAlignment(Pos.CENTER_LEFT);
    row.setMinWidth(0);
    row.setPrefWidth(1);
    setOnMouseClicked(
        e -> {
          if (e.getClickCount() == 2 && getItem() != null) {
            place.accept(getItem());
          }
        });
  }

  @Override
  protected void updateItem(Media media, boolean empty) {
    super.updateItem(media, empty);
    if (empty || media == null) {
      setGraphic(null);
      return;
    }
    name.setText(media.title());
    String kind = text("kind." + media.kind().name());
    details.setText(
        media.kind() == MediaKind.STILL
            ? text("shelf.still", kind, facts.formatOf(media))
            : text(
                "shelf.details",
                kind,
                length(session.shown().seconds(media.lengthFrames())),
                facts.formatOf(media)));
    boolean used = session.shown().isUsed(media.id());
    state.setText(
        text(used ? "shelf.used" : "shelf.unused")
            + credit(media)
            + media.useful().map(u -> text("shelf.part")).orElse(""));
    stripe
        .getStyleClass()
        .setAll("kind-stripe", "kind-" + media.kind().trackKind().name().toLowerCase(Locale.ROOT));
    setAccessibleText(media.title() + ", " + details.getText() + ", " + state.getText());
    setGraphic(row);
  }

  /** Whether it is credited; one's own narration and pictures owe nobody anything. */
  private static String credit(Media media) {
    boolean owed = media.kind() == MediaKind.MUSIC || media.kind() == MediaKind.EFFECT;
    if (media.credit().isBlank()) {
      return owed ? text("shelf.noCredit") : "";
    }
    return text("shelf.credited");
  }

  private static String length(double seconds) {
    long whole = Math.round(seconds);
    return seconds < 60 ? "%.1f s".formatted(seconds) : "%d:%02d".formatted(whole / 60, whole % 60);
  }
}
