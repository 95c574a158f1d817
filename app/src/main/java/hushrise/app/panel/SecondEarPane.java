package hushrise.app.panel;

import static hushrise.app.words.Texts.text;

import hushrise.app.command.EarCommands;
import hushrise.app.job.Jobs;
import hushrise.app.listen.Hearing;
import hushrise.app.look.Palette;
import hushrise.app.session.Session;
import hushrise.app.widget.Form;
import hushrise.app.widget.RowList;
import hushrise.core.ear.Finding;
import hushrise.core.project.Aside;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.time.Timecode;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.Stream;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/**
 * What a careful listener would remark on, each with its place and its remedies; or how far each
 * passage stands above the rest. Pointing at a remedy shows what it would make of the project.
 */
public final class SecondEarPane extends VBox {

  private final Session session;
  private final Hearing hearing;
  private final EarCommands ear;
  private final FindingRow.Acts acts;
  private final Jobs jobs;

  /** More findings than this are not all shown at once. */
  private static final int MOST_SHOWN = 24;

  private final VBox list = new VBox(4);
  private final ScrollPane scroll = new ScrollPane(list);
  private final ToggleButton findings = new ToggleButton();
  private final ToggleButton passages = new ToggleButton(text("passages.title"));
  private final Runnable findFiles;
  private final ReadOnlyObjectProperty<Set<Path>> missing;
  private final PassageList passageList;
  private final ObjectProperty<Palette> palette;
  private final Map<FindingRow.Look, FindingRow> rows = new HashMap<>();
  private List<Object> shown = List.of();
  private List<Object> lookedAt = List.of();
  private Optional<String> inView = Optional.empty();
  private boolean previewing;
  private int pointedAt;
  private Point2D resting = Point2D.ZERO;
  private Point2D pointer = Point2D.ZERO;

  /**
   * @param askAside asks for the reason before a finding is put aside
   * @param openCredits opens the credits
   * @param findFiles looks for files that are missing
   * @param missing which those are
   */
  public SecondEarPane(
      Session session,
      Hearing hearing,
      EarCommands ear,
      ObjectProperty<Palette> palette,
      Consumer<Finding> askAside,
      Runnable openCredits,
      Runnable findFiles,
      ReadOnlyObjectProperty<Set<Path>> missing,
      Jobs jobs) {
    super(6);
    this.jobs = jobs;
    this.session = session;
    this.hearing = hearing;
    this.ear = ear;
    acts =
        new FindingRow.Acts(
            ear::goTo, askAside, openCredits, this::mend, this::pointed, this::endPreview);
    this.findFiles = findFiles;
    this.missing = missing;
    this.palette = palette;
    this.passageList = new PassageList(session, palette);
    setId("second-ear");
    getStyleClass().add("pane");
    ToggleGroup group = new ToggleGroup();
    tab(findings, "tab-findings", group);
    tab(passages, "tab-passages", group);
    findings.setSelected(true);
    findings.setMinWidth(Region.USE_PREF_SIZE); // its count is not to be cut off
    findings.setAccessibleText(text("ear.title"));
    Region space = new Region();
    HBox.setHgrow(space, Priority.ALWAYS);
    HBox head = new HBox(4, findings, passages, space);
    head.setAlignment(Pos.CENTER_LEFT);
    scroll.setFitToWidth(true);
    scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
    scroll.setFocusTraversable(false);
    VBox.setVgrow(scroll, Priority.ALWAYS);
    getChildren().addAll(head, scroll);
    sceneProperty()
        .addListener(
            (p, was, is) -> {
              if (is != null) {
                is.addEventFilter(
                    MouseEvent.ANY, e -> pointer = new Point2D(e.getScreenX(), e.getScreenY()));
              }
            });
    missing.addListener((p, was, is) -> show());
    hearing.nowProperty().addListener((p, was, is) -> show());
    session.presentProperty().addListener((p, was, is) -> show());
    ear.chosenProperty().addListener((p, was, is) -> show());
    palette.addListener((p, was, is) -> show());
    group
        .selectedToggleProperty()
        .addListener(
            (p, was, is) -> {
              if (is == null) {
                group.selectToggle(was);
              }
              show();
            });
    show();
  }

  private static void tab(ToggleButton button, String id, ToggleGroup group) {
    button.setId(id);
    button.setToggleGroup(group);
    button.getStyleClass().add("pane-tab");
  }

  private void show() {
    if (previewing || isAsLastLookedAt()) {
      return;
    }
    List<Finding> open = ear.open();
    List<Object> state = state(open);
    if (state.equals(shown)) {
      open.forEach(
          f -> rows.computeIfPresent(look(f), (look, row) -> row.standFor(f, isChosen(f))));
      return;
    }
    shown = state;
    resting = pointer;
    findings.setText(open.isEmpty() ? text("ear.title") : text("ear.title.count", open.size()));
    if (passages.isSelected()) {
      showBelow(passageList.lines(hearing.now().map(Hearing.Now::separation)));
      return;
    }
    showBelow(scroll);
    RowList.settle(list.getChildren(), lines(open));
    showChosen();
  }

  /** Brings a finding into view that has just been gone to. */
  private void showChosen() {
    Optional<Finding> chosen = ear.chosenProperty().get();
    Optional<String> key = chosen.map(Finding::key);
    if (!key.equals(inView)) {
      inView = key;
      chosen.map(f -> rows.get(look(f))).ifPresent(row -> intoView(scroll, row));
    }
  }

  /** Scrolls as far as it takes to see a row of a list; all of it where there is room. */
  private static void intoView(ScrollPane scroll, Node row) {
    scroll.applyCss();
    scroll.layout();
    Bounds at = row.getBoundsInParent();
    double height = scroll.getViewportBounds().getHeight();
    double room = scroll.getContent().getLayoutBounds().getHeight() - height;
    double top = scroll.getVvalue() * room;
    double lowest = Math.max(at.getMinY(), 0);
    double wanted = Math.clamp(top, Math.min(at.getMaxY() - height, lowest), lowest);
    if (room > 0 && wanted != top) {
      scroll.setVvalue(wanted / room);
    }
  }

  private List<Node> lines(List<Finding> open) {
    List<Node> lines = new ArrayList<>(unheard());
    if (open.isEmpty()) {
      Label words = faint(text(nothingWords()));
      words.setWrapText(true);
      lines.add(words);
    }
    int from = firstShown(open);
    lines.addAll(more(from));
    Map<FindingRow.Look, FindingRow> before = new HashMap<>(rows);
    rows.clear();
    open.stream().skip(from).limit(MOST_SHOWN).forEach(f -> lines.add(row(f, before)));
    lines.addAll(more(open.size() - from - MOST_SHOWN));
    List<Finding> aside = ear.aside();
    if (!aside.isEmpty()) {
      lines.add(faint(text("ear.aside.title", aside.size())));
      aside.stream().limit(MOST_SHOWN).forEach(f -> lines.add(asideRow(f)));
      lines.addAll(more(aside.size() - MOST_SHOWN));
    }
    return lines;
  }

  private static Label faint(String words) {
    Label label = new Label(words);
    label.getStyleClass().add("faint");
    return label;
  }

  /** Why there is nothing to see: nothing is there, or it is being heard, or all is well. */
  private String nothingWords() {
    if (session.present().lengthFrames() == 0) {
      return "ear.empty";
    }
    if (hearing.now().isEmpty() || hearing.isWaiting()) {
      return "ear.notYet";
    }
    boolean nobodySpeaks = hearing.now().get().separation().passages().isEmpty();
    return nobodySpeaks ? "ear.clean.noVoice" : "ear.clean";
  }

  /** Says what could not be measured, and offers to try again. */
  private List<Node> unheard() {
    List<Node> lines = new ArrayList<>();
    List<Media> unheard = hearing.now().map(Hearing.Now::unheard).orElse(List.of());
    for (Media media : unheard.subList(0, Math.min(MOST_SHOWN, unheard.size()))) {
      boolean isMissing = missing.get().contains(media.file());
      Label words = new Label(text(isMissing ? "ear.missing" : "ear.unheard", media.title()));
      words.setWrapText(true);
      Button again = Form.button("ear-again", text("ear.again"), hearing::measureAgain);
      FlowPane ways = new FlowPane(6, 4, again);
      VBox row = new VBox(2, words, ways);
      if (isMissing) {
        ways.getChildren().addFirst(Form.button("ear-find", text("ear.find"), findFiles));
      }
      row.getStyleClass().add("finding");
      lines.add(row);
    }
    lines.addAll(more(unheard.size() - MOST_SHOWN));
    return lines;
  }

  private void showBelow(Node content) {
    VBox.setVgrow(content, Priority.ALWAYS);
    if (!getChildren().getLast().equals(content)) {
      getChildren().set(getChildren().size() - 1, content);
    }
  }

  /** Of very many findings those around the chosen one are shown. */
  private int firstShown(List<Finding> open) {
    int at = ear.chosenProperty().get().map(open::indexOf).orElse(0);
    return Math.clamp(at - MOST_SHOWN / 2L, 0, Math.max(0, open.size() - MOST_SHOWN));
  }

  private static List<Node> more(int count) {
    return count > 0 ? List.of(faint(text("ear.more", count))) : List.of();
  }

  /** Whether the very same findings were heard, and nothing else has changed: a quick look. */
  private boolean isAsLastLookedAt() {
    List<Object> now = new ArrayList<>(rest());
    now.addAll(hearing.now().map(Hearing.Now::findings).orElse(List.of()));
    boolean same = now.equals(lookedAt);
    lookedAt = now;
    return same;
  }

  private List<Object> rest() {
    return List.of(
        session.shown().asides(),
        ear.chosenProperty().get().map(Finding::key),
        hearing.now().isPresent() && !hearing.isWaiting(),
        palette.get(),
        hearing.now().map(Hearing.Now::unheard).orElse(List.of()),
        session.present().lengthFrames() == 0,
        session.present().hasVoice(),
        passages.isSelected() ? hearing.now().map(Hearing.Now::separation) : "");
  }

  /** What decides how the list looks; while it stays the same the list is left alone. */
  private List<Object> state(List<Finding> open) {
    List<Object> all = new ArrayList<>();
    Stream.concat(open.stream(), ear.aside().stream())
        .forEach(f -> all.add(List.of(f.key(), f.place(), f.figures(), f.remedies().size())));
    all.add(missing.get());
    all.addAll(rest());
    return all;
  }

  private String place(Finding finding) {
    return Timecode.format(
        finding.place().startFrame(), session.shown().pictureRate(), session.shown().sampleRate());
  }

  /** A finding's row, the one that is there if it looks the same. */
  private Node row(Finding finding, Map<FindingRow.Look, FindingRow> before) {
    FindingRow.Look look = look(finding);
    FindingRow known = before.remove(look);
    FindingRow row = known == null ? new FindingRow(look, finding, acts) : known;
    rows.put(look, row.standFor(finding, isChosen(finding)));
    return row;
  }

  private FindingRow.Look look(Finding finding) {
    return FindingRow.Look.of(finding, place(finding));
  }

  private boolean isChosen(Finding finding) {
    return ear.chosenProperty().get().filter(f -> f.key().equals(finding.key())).isPresent();
  }

  private void mend(Finding.Remedy remedy) {
    endPreview();
    ear.mend(remedy);
  }

  /**
   * Shows what a remedy would do once the pointer has moved onto it. One that has come to lie under
   * a pointer at rest shows nothing.
   */
  private void pointed(Finding.Remedy remedy, MouseEvent e) {
    Point2D at = new Point2D(e.getScreenX(), e.getScreenY());
    if (previewing || at.equals(resting) || session.isShowingOther()) {
      return;
    }
    previewing = true;
    int number = ++pointedAt;
    Project base = session.present();
    // A remedy may search a song, so it is tried off the window's thread first.
    jobs.run(
        () -> remedy.edit().apply(base),
        session.whileOpen(
            tried -> {
              if (previewing && number == pointedAt) {
                session.pointAt(remedy.edit());
              }
            }));
  }

  private void endPreview() {
    if (previewing) {
      previewing = false;
      pointedAt++;
      session.pointAway();
      show();
    }
  }

  private Node asideRow(Finding finding) {
    String reason =
        session.shown().asides().stream()
            .filter(a -> a.finding().equals(finding.key()))
            .map(Aside::reason)
            .findFirst()
            .orElse("");
    List<String> parts = new ArrayList<>(List.of(EarCommands.words(finding)));
    if (!reason.isEmpty()) {
      parts.add(text("ear.aside.reason", reason));
    }
    Label words = new Label(String.join(" ", parts));
    words.setWrapText(true);
    words.getStyleClass().add("faint");
    HBox.setHgrow(words, Priority.ALWAYS);
    words.setMaxWidth(Double.MAX_VALUE);
    Button back =
        Form.button(
            "back-" + finding.rule().replace('.', '-'),
            text("ear.takeBack"),
            () -> ear.takeBack(finding));
    HBox row = new HBox(8, words, back);
    row.setAlignment(Pos.CENTER_LEFT);
    return row;
  }
}
