package hushrise.app.panel;

import static hushrise.app.words.Texts.text;

import hushrise.app.listen.ItemFacts;
import hushrise.app.session.Session;
import hushrise.core.fit.Sections.Section;
import hushrise.core.fit.Song;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** A line of the Shelf: name, kind, length, format, and whether it is placed and credited. */
final class ShelfCell extends ListCell<Media> {

  /** How wide all sections of a song are together, in pixels. */
  private static final double ROOM = 200;

  private final Session session;
  private final ItemFacts facts;
  private final ShelfPane.Actions actions;
  private final Label name = new Label();
  private final Label details = new Label();
  private final Label state = new Label();
  private final Region stripe = new Region();
  private final HBox sections = new HBox(1);
  private final HBox row;

  ShelfCell(Session session, ItemFacts facts, ShelfPane.Actions actions) {
    this.session = session;
    this.facts = facts;
    this.actions = actions;
    name.getStyleClass().add("track-name");
    details.getStyleClass().add("faint");
    state.getStyleClass().add("faint");
    stripe.getStyleClass().add("kind-stripe");
    stripe.setMinWidth(4);
    VBox words = new VBox(1, name, details, state, sections);
    HBox.setHgrow(words, Priority.ALWAYS);
    words.setMinWidth(0);
    row = new HBox(8, stripe, words);
    row.setAlignment(Pos.CENTER_LEFT);
    row.setMinWidth(0);
    row.setPrefWidth(1);
    setOnMouseClicked(
        e -> {
          if (e.getClickCount() == 2 && getItem() != null) {
            actions.place(getItem());
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
    String length =
        media.kind() == MediaKind.STILL
            ? ""
            : length(session.shown().seconds(media.lengthFrames()));
    details.setText(
        Stream.of(kind, length, facts.formatOf(media))
            .filter(known -> !known.isEmpty())
            .collect(Collectors.joining(" \u00b7 ")));
    boolean used = session.shown().isUsed(media.id());
    state.setText(
        text(used ? "shelf.used" : "shelf.unused")
            + credit(media)
            + media.useful().map(u -> text("shelf.part")).orElse(""));
    stripe
        .getStyleClass()
        .setAll("kind-stripe", "kind-" + media.kind().trackKind().name().toLowerCase(Locale.ROOT));
    setAccessibleText(media.title() + ", " + details.getText() + ", " + state.getText());
    showSections(media);
    setGraphic(row);
  }

  /**
   * The song's sections in a row, each as wide as it is long; pressing one starts the music there.
   */
  private void showSections(Media media) {
    List<Section> all =
        media.kind() == MediaKind.MUSIC
            ? session.songs().song(media).map(Song::sections).orElse(List.of())
            : List.of();
    boolean shown = all.size() > 1;
    sections.setVisible(shown);
    sections.setManaged(shown);
    sections.getChildren().clear();
    for (Section section : shown ? all : List.<Section>of()) {
      Label label = new Label(section.letter());
      label.getStyleClass().addAll("section", section.kind() % 2 == 0 ? "even" : "odd");
      label.setMinWidth(0);
      label.setMaxWidth(Double.MAX_VALUE);
      label.setPrefWidth(ROOM * (section.endFrame() - section.startFrame()) / media.lengthFrames());
      String from = length(session.shown().seconds(section.startFrame()));
      Tooltip.install(label, new Tooltip(text("shelf.section", section.letter(), from)));
      label.setOnMouseClicked(
          e -> {
            actions.startAt(media, section.startFrame());
            e.consume();
          });
      sections.getChildren().add(label);
    }
  }

  /** Whether it is credited; one's own narration and pictures owe nobody anything. */
  private static String credit(Media media) {
    boolean owed = media.kind() == MediaKind.MUSIC || media.kind() == MediaKind.EFFECT;
    if (media.credit().isEmpty()) {
      return owed ? text("shelf.noCredit") : "";
    }
    return text("shelf.credited");
  }

  private static String length(double seconds) {
    long whole = Math.round(seconds);
    return seconds < 60 ? "%.1f s".formatted(seconds) : "%d:%02d".formatted(whole / 60, whole % 60);
  }
}
