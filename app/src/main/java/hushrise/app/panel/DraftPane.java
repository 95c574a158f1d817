package hushrise.app.panel;

import static hushrise.app.words.Texts.figure;
import static hushrise.app.words.Texts.text;

import hushrise.app.listen.Drafting;
import hushrise.app.session.Session;
import hushrise.app.widget.Choice;
import hushrise.app.widget.Focus;
import hushrise.app.widget.Form;
import hushrise.app.widget.RowList;
import hushrise.app.widget.TypedField;
import hushrise.core.hush.HushDraft;
import hushrise.core.hush.HushDraft.Change;
import hushrise.core.hush.HushDrafter;
import hushrise.core.project.Project;
import hushrise.core.project.level.HushRule;
import hushrise.core.project.level.LevelText;
import hushrise.core.project.level.Turn;
import hushrise.core.project.timeline.Track;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.BiFunction;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/**
 * A draft of hushes before it is taken: the rule it goes by, which drafts anew when it is changed,
 * and each hush that is new, changed, kept or gone, with the reason.
 */
public final class DraftPane extends HBox {

  private final Session session;
  private final Drafting drafting;
  private final Choice<Track> tracks = new Choice<>("draft-track", Track::name);
  private final Form form;
  private final Label counts = new Label();
  private final RowList<HushDraft.Line> lines = new RowList<>(this::line);
  private final Button take = new Button(text("draft.take"));
  private String shownTrack = "";
  private boolean filling;

  public DraftPane(Session session, Drafting drafting) {
    super(14);
    this.session = session;
    this.drafting = drafting;
    form = new Form(session, 3);
    setId("draft");
    getStyleClass().addAll("pane", "draft");
    getChildren().addAll(rulePart(), listPart());
    session
        .draftProperty()
        .addListener(
            (p, was, now) -> {
              now.ifPresent(this::show);
              now.filter(draft -> was.isEmpty()).ifPresent(this::scrollToChanged);
            });
  }

  private VBox rulePart() {
    Label title = new Label(text("draft.title"));
    title.getStyleClass().add("pane-title");
    tracks.setAccessibleText(text("draft.track"));
    tracks.setOnAction(
        e -> {
          if (!filling && tracks.getValue() != null) {
            shownTrack = tracks.getValue().id();
            session.draft().ifPresent(this::show);
          }
        });
    HBox head = new HBox(10, title, tracks);
    head.setAlignment(Pos.CENTER_LEFT);
    VBox part = new VBox(6, head, form);
    part.setMinWidth(446);
    return part;
  }

  private VBox listPart() {
    counts.setId("draft-counts");
    counts.getStyleClass().add("pane-title");
    counts.setMinWidth(0);
    lines.setId("draft-lines");
    VBox.setVgrow(lines, Priority.ALWAYS);
    take.setId("draft-take");
    take.getStyleClass().addAll("accent", "small");
    take.setTooltip(new Tooltip(text("draft.take.tip")));
    take.setOnAction(e -> drafting.take());
    Button leave = Form.button("draft-leave", text("draft.leave"), drafting::leave);
    leave.setTooltip(new Tooltip(text("draft.leave.tip")));
    HBox foot = new HBox(8, take, leave);
    take.setMinWidth(Region.USE_PREF_SIZE);
    leave.setMinWidth(Region.USE_PREF_SIZE);
    VBox part = new VBox(6, counts, lines, foot);
    HBox.setHgrow(part, Priority.ALWAYS);
    return part;
  }

  private void show(HushDraft draft) {
    Project project = draft.before();
    List<Track> background =
        project.tracks().stream().filter(t -> t.isBackground() && !t.clips().isEmpty()).toList();
    Optional<Track> track =
        background.stream()
            .filter(t -> t.id().equals(shownTrack))
            .findFirst()
            .or(
                () ->
                    background.stream().filter(t -> HushDrafter.ruleOf(t).isPresent()).findFirst())
            .or(() -> background.stream().findFirst());
    filling = true;
    tracks.getItems().setAll(background);
    tracks.setValue(track.orElse(null));
    filling = false;
    track.ifPresent(this::showRule);
    counts.setText(countsOf(draft));
    lines.getItems().setAll(draft.lines());
  }

  /** What a draft would change is seen first, however many hushes before it stay. */
  private void scrollToChanged(HushDraft draft) {
    draft.lines().stream()
        .filter(l -> l.change() != Change.KEPT)
        .findFirst()
        .ifPresent(lines::scrollTo);
  }

  /** How many hushes change how; those that none does are left out. */
  private static String countsOf(HushDraft draft) {
    List<String> parts = new ArrayList<>();
    for (Change change : Change.values()) {
      if (draft.count(change) > 0) {
        parts.add(text("draft.count." + change.name(), draft.count(change)));
      }
    }
    if (draft.rises() > 0) {
      parts.add(text("draft.count.rises", draft.rises()));
    }
    return parts.isEmpty() ? text("draft.count.none") : String.join(" \u00b7 ", parts);
  }

  private void showRule(Track track) {
    shownTrack = track.id();
    String focused =
        getScene() != null && getScene().getFocusOwner() instanceof TextField f && f.getId() != null
            ? f.getId()
            : "";
    form.clear();
    Optional<HushRule> found = HushDrafter.ruleOf(track);
    if (found.isEmpty()) {
      form.words(text("draft.noRule", track.name()));
      form.buttons(
          Form.button(
              "draft-hush-too",
              text("draft.hushToo"),
              () -> drafting.withRule(track.id(), r -> r)));
      return;
    }
    HushRule rule = found.get();
    number("separation", "%.1f LU", rule.separationLu(), 0, 40, HushRule::goingBy);
    fixed(rule);
    number("gap", "%.2f s", rule.shortestGapSeconds(), 0, 30, HushRule::withShortestGapSeconds);
    Turn t = rule.turn();
    time("lead", t.leadSeconds(), -5, Turn::withLead);
    time("fall", t.fallSeconds(), 0, Turn::withFall);
    number(
        "deepest",
        "%.1f dB",
        rule.deepestDb(),
        -60,
        0,
        (r, db) -> r.withDepths(db, r.shallowestDb()));
    time("tail", t.tailSeconds(), -5, Turn::withTail);
    time("recovery", t.recoverySeconds(), 0, Turn::withRecovery);
    number(
        "shallowest",
        "%.1f dB",
        rule.shallowestDb(),
        -60,
        0,
        (r, db) -> r.withDepths(r.deepestDb(), db));
    HBox boxes =
        new HBox(
            14,
            box("even", rule.even(), (r, on) -> r.withEven(on)),
            box(
                "rises",
                rule.rises().isPresent(),
                (r, on) ->
                    r.withRises(on ? Optional.of(HushRule.RiseRule.USUAL) : Optional.empty())));
    voices(track, rule, boxes);
    if (track.rule().isPresent()) {
      boxes
          .getChildren()
          .add(
              Form.button(
                  "draft-usual", text("draft.usual"), () -> drafting.withoutRule(track.id())));
    }
    boxes.setAlignment(Pos.CENTER_LEFT);
    form.wide(boxes);
    if (!focused.isEmpty()) {
      Optional.ofNullable(form.lookup("#" + focused)).ifPresent(Focus::ask);
    }
  }

  /** Which voices count, where there are several. */
  private void voices(Track track, HushRule rule, HBox into) {
    List<Track> all = session.present().voiceTracks().toList();
    if (all.size() < 2) {
      return;
    }
    Choice<Optional<Track>> box =
        new Choice<>(
            "draft-voices", t -> t.map(Track::name).orElseGet(() -> text("draft.allVoices")));
    box.getItems().add(Optional.empty());
    all.forEach(t -> box.getItems().add(Optional.of(t)));
    box.setValue(all.stream().filter(t -> rule.voices().contains(t.id())).findFirst());
    box.setAccessibleText(text("draft.voices"));
    box.setOnAction(
        e ->
            drafting.withRule(
                track.id(), r -> r.withVoices(box.getValue().map(Track::id).stream().toList())));
    into.getChildren().add(box);
  }

  private CheckBox box(String id, boolean on, BiFunction<HushRule, Boolean, HushRule> change) {
    CheckBox box = new CheckBox(text("draft." + id));
    box.setId("draft-" + id);
    box.setSelected(on);
    box.setTooltip(new Tooltip(text("draft." + id + ".tip")));
    box.setOnAction(e -> drafting.withRule(shownTrack, r -> change.apply(r, box.isSelected())));
    return box;
  }

  private void time(
      String id, double seconds, double least, BiFunction<Turn, Double, Turn> change) {
    number(
        id, "%.2f s", seconds, least, 30, (r, typed) -> r.withTurn(change.apply(r.turn(), typed)));
  }

  private void number(
      String id,
      String format,
      double value,
      double least,
      double most,
      BiFunction<HushRule, Double, HushRule> change) {
    String shown = figure(format, value);
    TypedField field = field(id, shown, text("draft.tip", text("draft." + id), least, most));
    double step = format.endsWith("s") ? Form.STEP_SECONDS : 1;
    field.onStep(
        (direction, fine) -> {
          double stepped = value + direction * (fine ? step / 10 : step);
          drafting.withRule(shownTrack, r -> change.apply(r, Math.clamp(stepped, least, most)));
        });
    field.onTyped(
        words -> {
          OptionalDouble typed = numberOf(words);
          if (typed.isPresent() && typed.getAsDouble() >= least && typed.getAsDouble() <= most) {
            drafting.withRule(shownTrack, r -> change.apply(r, typed.getAsDouble()));
          } else {
            field.refuse(shown, field.getTooltip().getText());
          }
        });
  }

  /** One depth for all; an empty field goes by the separation. */
  private void fixed(HushRule rule) {
    String shown =
        rule.fixedDepthDb().isPresent()
            ? LevelText.format(rule.fixedDepthDb().getAsDouble())
            : text("draft.byNeed");
    TypedField field = field("fixed", shown, text("draft.fixed.tip"));
    field.onTyped(
        words -> {
          OptionalDouble typed = numberOf(words);
          boolean none = words.isBlank() || words.equals(text("draft.byNeed"));
          if (none || (typed.isPresent() && Math.abs(typed.getAsDouble()) <= 60)) {
            OptionalDouble depth =
                none ? OptionalDouble.empty() : OptionalDouble.of(-Math.abs(typed.getAsDouble()));
            drafting.withRule(shownTrack, r -> r.withFixedDepthDb(depth));
          } else {
            field.refuse(shown, field.getTooltip().getText());
          }
        });
  }

  private TypedField field(String id, String shown, String tip) {
    TypedField field = form.number("draft-" + id, text("draft." + id), shown, typed -> {});
    field.setTip(tip);
    field.setPrefWidth(74);
    return field;
  }

  private static OptionalDouble numberOf(String typed) {
    String number =
        typed
            .strip()
            .toLowerCase(Locale.ROOT)
            .replace('\u2212', '-')
            .replace(',', '.')
            .replaceFirst("\\s*(lu|db|s)$", "");
    return number.matches("[+-]?(\\d{1,3}(\\.\\d*)?|\\.\\d+)")
        ? OptionalDouble.of(Double.parseDouble(number))
        : OptionalDouble.empty();
  }

  private DraftRow line(HushDraft.Line line) {
    DraftRow row = new DraftRow(session, line, heading(line));
    row.fitWidth(lines.widthProperty().subtract(40));
    return row;
  }

  /** The name of the track that a line and those under it are about, where there are several. */
  private Optional<String> heading(HushDraft.Line line) {
    List<HushDraft.Line> all = lines.getItems();
    List<HushDraft.Line> same =
        all.stream().filter(l -> l.trackId().equals(line.trackId())).toList();
    return same.getFirst().equals(line) && same.size() < all.size()
        ? session.shown().track(line.trackId()).map(Track::name)
        : Optional.empty();
  }
}
