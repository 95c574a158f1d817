package hushrise.app.panel;

import static hushrise.app.words.Texts.text;

import hushrise.app.listen.ItemFacts;
import hushrise.app.session.Session;
import hushrise.app.widget.Choice;
import hushrise.app.widget.Form;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/**
 * The media of the project, placed or not: found by name, sorted, tried out, and placed. The list
 * has the keys while it has the focus: Space tries the item out, Enter places it, I and O mark the
 * useful part, Delete takes it off.
 */
public final class ShelfPane extends VBox {

  /** What an item of the Shelf can be asked to do. */
  public interface Actions {
    void add();

    void place(Media media);

    /** Lets the song start with one of its sections, where it is placed. */
    void startAt(Media media, long mediaFrame);

    void remove(Media media);

    void leave();

    void close();
  }

  /** Orders of the list. */
  enum Order {
    NAME(Comparator.comparing((Media m) -> m.title().toLowerCase(Locale.ROOT))),
    KIND(Comparator.comparing(Media::kind).thenComparing(m -> m.title())),
    LENGTH(Comparator.comparingLong(Media::lengthFrames));

    private final Comparator<Media> comparator;

    Order(Comparator<Media> comparator) {
      this.comparator = comparator;
    }
  }

  /** Two of its items high. */
  private static final double LOWEST_LIST = 100;

  private final Session session;
  private final Actions actions;
  private final TextField search = new TextField();
  private final Choice<Order> order =
      new Choice<>("shelf-order", List.of(Order.values()), o -> text("shelf.order." + o.name()));
  private final ListView<Media> list = new ListView<>();
  private final ItemPlayer player;

  public ShelfPane(Session session, ItemPlayer player, ItemFacts facts, Actions actions) {
    super(8);
    this.session = session;
    this.actions = actions;
    this.player = player;
    setId("shelf");
    getStyleClass().add("shelf");
    Label title = new Label(text("shelf.title"));
    title.getStyleClass().add("pane-title");
    Button add = Form.button("shelf-add", text("shelf.add"), actions::add);
    HBox.setHgrow(title, Priority.ALWAYS);
    title.setMaxWidth(Double.MAX_VALUE);
    HBox head = new HBox(8, title, add);
    head.setAlignment(Pos.CENTER_LEFT);
    search.setId("shelf-search");
    search.setPromptText(text("shelf.search"));
    search.setAccessibleText(text("shelf.search"));
    search.textProperty().addListener((p, was, now) -> refresh());
    search.setOnAction(e -> takeKeys());
    HBox.setHgrow(search, Priority.ALWAYS);
    order.setValue(Order.KIND);
    order.setAccessibleText(text("shelf.order"));
    order.setOnAction(e -> refresh());
    list.setId("shelf-list");
    list.setAccessibleText(text("shelf.title"));
    list.setPlaceholder(placeholder());
    list.setCellFactory(l -> new ShelfCell(session, facts, actions));
    list.getSelectionModel()
        .selectedItemProperty()
        .addListener((p, was, now) -> player.show(Optional.ofNullable(now)));
    list.setOnKeyPressed(this::key);
    list.setMinHeight(LOWEST_LIST);
    VBox.setVgrow(list, Priority.ALWAYS);
    getChildren().addAll(head, new HBox(6, search, order), list, player);
    session.shownProperty().addListener((p, was, now) -> projectChanged(was, now));
    facts.arrivedProperty().addListener((p, was, now) -> list.refresh());
    refresh();
  }

  private static Node placeholder() {
    Label words = new Label(text("shelf.empty"));
    words.setWrapText(true);
    words.getStyleClass().add("faint");
    words.setMaxWidth(220);
    return words;
  }

  private void projectChanged(Project was, Project now) {
    if (!was.shelf().equals(now.shelf())) {
      refresh();
    } else if (!was.tracks().equals(now.tracks())) {
      list.refresh();
    }
  }

  private void refresh() {
    String wanted = search.getText().strip().toLowerCase(Locale.ROOT);
    String selected = selected().map(Media::id).orElse("");
    List<Media> items =
        session.shown().shelf().stream()
            .filter(m -> m.title().toLowerCase(Locale.ROOT).contains(wanted))
            .sorted(order.getValue().comparator)
            .toList();
    list.getItems().setAll(items);
    items.stream()
        .filter(m -> m.id().equals(selected))
        .findFirst()
        .ifPresent(m -> list.getSelectionModel().select(m));
  }

  /** The item that is selected. */
  public Optional<Media> selected() {
    return Optional.ofNullable(list.getSelectionModel().getSelectedItem());
  }

  private void key(KeyEvent e) {
    Optional<Media> item = selected();
    switch (e.getCode()) {
      case SPACE -> player.toggle();
      case ENTER -> item.ifPresent(actions::place);
      case I -> player.mark(true);
      case O -> player.mark(false);
      case LEFT -> player.step(-1);
      case RIGHT -> player.step(1);
      case DELETE, BACK_SPACE -> item.ifPresent(actions::remove);
      case ESCAPE -> actions.leave();
      case L -> actions.close();
      case END -> {
        Platform.runLater(
            () -> list.scrollTo(list.getItems().size() - 1)); // whole, once it is tall
        return;
      }
      default -> {
        return;
      }
    }
    e.consume();
  }

  /** Whether the list has the keys. */
  public boolean hasKeys() {
    return list.isFocused();
  }

  /** Gives the list the keys. */
  public void takeKeys() {
    if (list.getSelectionModel().isEmpty() && !list.getItems().isEmpty()) {
      list.getSelectionModel().select(0);
    }
    list.requestFocus();
  }
}
