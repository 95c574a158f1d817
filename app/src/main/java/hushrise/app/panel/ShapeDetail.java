package hushrise.app.panel;

import static hushrise.app.words.Texts.text;

import hushrise.app.command.CommandId;
import hushrise.app.session.Selection;
import hushrise.app.session.Session;
import hushrise.app.widget.Form;
import hushrise.app.widget.TypedField;
import hushrise.core.edit.HushEdits;
import hushrise.core.edit.KeyframeEdits;
import hushrise.core.edit.LevelEdits;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.Rise;
import hushrise.core.project.level.Turn;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.OptionalDouble;
import java.util.function.BiFunction;
import java.util.function.DoubleConsumer;
import java.util.stream.Collectors;
import javafx.scene.control.Button;

/** The numbers of hushes, rises and stretches of time. Each gives the title to show. */
final class ShapeDetail {

  private final Session session;
  private final Form form;

  ShapeDetail(Session session, Form form) {
    this.session = session;
    this.form = form;
  }

  String hush(Track track, Hush hush) {
    form.level(
            "detail-depth",
            text("detail.depth"),
            hush.depthDb(),
            text("edit.hushDepth"),
            (p, db) -> LevelEdits.setHushDepth(p, hush.id(), db))
        .atMost(0);
    turn("detail-lead", "detail.lead", hush.turn().leadSeconds(), false, hush, Turn::withLead);
    turn("detail-fall", "detail.fall", hush.turn().fallSeconds(), true, hush, Turn::withFall);
    turn("detail-tail", "detail.tail", hush.turn().tailSeconds(), false, hush, Turn::withTail);
    turn(
        "detail-recovery",
        "detail.recovery",
        hush.turn().recoverySeconds(),
        true,
        hush,
        Turn::withRecovery);
    form.time(
        "detail-start",
        text("detail.passage"),
        hush.startFrame(),
        to ->
            session.commit(
                text("edit.hushNumbers"),
                p ->
                    HushEdits.setPassage(
                        p, hush.id(), Span.ofLength(to, hush.endFrame() - hush.startFrame()))));
    List<Button> buttons =
        new ArrayList<>(
            List.of(
                form.command(CommandId.HUSH_TO_NEXT, text("button.hush.toNext")),
                form.command(CommandId.HUSH_TO_TRACK, text("button.hush.toTrack")),
                form.command(CommandId.HUSH_TO_PROJECT, text("button.hush.toProject")),
                form.command(CommandId.HUSH_MERGE, text("button.hush.merge")),
                form.command(CommandId.MELT, text("button.melt")),
                form.command(CommandId.DELETE, text("button.delete"))));
    if (!hush.byHand().isEmpty()) {
      buttons.addFirst(form.command(CommandId.HUSH_FORGET, text("button.hush.forget")));
    }
    form.buttons(buttons.toArray(Button[]::new));
    return text("detail.hush", track.name()) + " \u00b7 " + owner(hush);
  }

  /** Whose numbers a hush has. */
  private static String owner(Hush hush) {
    String numbers =
        hush.byHand().stream()
            .map(n -> text("number." + n.name()))
            .collect(Collectors.joining(", "));
    return numbers.isEmpty() ? text("detail.byRule") : text("detail.byHand", numbers);
  }

  private void turn(
      String id,
      String label,
      double seconds,
      boolean atLeastNothing,
      Hush hush,
      BiFunction<Turn, Double, Turn> change) {
    seconds(
        id,
        text(label),
        seconds,
        atLeastNothing,
        typed -> {
          session.commit(
              text("edit.hushNumbers"),
              p -> HushEdits.setTurn(p, hush.id(), t -> change.apply(t, typed)));
          session.habits().setLastTurn(change.apply(hush.turn(), typed));
        });
  }

  /** A field for seconds that may be negative. */
  private void seconds(
      String id, String label, double shown, boolean atLeastNothing, DoubleConsumer edit) {
    String words = "%.2f s".formatted(shown);
    TypedField field = form.number(id, label, words, typed -> {});
    field.setTip(text("field.seconds.tip"));
    field.onStep(
        (direction, fine) -> {
          double stepped = shown + direction * (fine ? Form.FINE : Form.STEP_SECONDS);
          edit.accept(Math.clamp(stepped, atLeastNothing ? 0 : -60, 60));
        });
    field.onTyped(
        entered -> {
          OptionalDouble typed = secondsOf(entered);
          boolean fine =
              typed.isPresent()
                  && Math.abs(typed.getAsDouble()) <= 60
                  && (!atLeastNothing || typed.getAsDouble() >= 0);
          if (fine) {
            edit.accept(typed.getAsDouble());
          } else {
            field.refuse(
                words, text(atLeastNothing ? "field.seconds.wrong" : "field.seconds.wrongSigned"));
          }
        });
  }

  private static OptionalDouble secondsOf(String typed) {
    String words = typed.strip().toLowerCase(Locale.ROOT).replace('\u2212', '-').replace(',', '.');
    String number = words.endsWith("s") ? words.substring(0, words.length() - 1).strip() : words;
    return number.matches("[+-]?(\\d{1,3}(\\.\\d*)?|\\.\\d+)")
        ? OptionalDouble.of(Double.parseDouble(number))
        : OptionalDouble.empty();
  }

  String rise(Track track, Rise rise) {
    form.level(
        "detail-height",
        text("detail.height"),
        rise.heightDb(),
        text("edit.rise"),
        (p, db) -> {
          session.habits().setLastRiseDb(Math.clamp(db, 0, 12));
          return HushEdits.setRiseHeight(p, rise.id(), db);
        });
    form.time(
        "detail-start",
        text("detail.from"),
        rise.startFrame(),
        to ->
            session.commit(
                text("edit.rise"),
                p ->
                    HushEdits.setRiseSpan(
                        p,
                        rise.id(),
                        new Span(Math.min(to, rise.endFrame() - 1), rise.endFrame()))));
    seconds(
        "detail-swell",
        text("detail.swell"),
        rise.swellSeconds(),
        true,
        s ->
            session.commit(
                text("edit.rise"),
                p -> HushEdits.changeRise(p, rise.id(), r -> r.withTurns(s, r.returnSeconds()))));
    form.time(
        "detail-end",
        text("detail.to"),
        rise.endFrame(),
        to ->
            session.commit(
                text("edit.rise"),
                p ->
                    HushEdits.setRiseSpan(
                        p,
                        rise.id(),
                        new Span(rise.startFrame(), Math.max(to, rise.startFrame() + 1)))));
    seconds(
        "detail-return",
        text("detail.return"),
        rise.returnSeconds(),
        true,
        s ->
            session.commit(
                text("edit.rise"),
                p -> HushEdits.changeRise(p, rise.id(), r -> r.withTurns(r.swellSeconds(), s))));
    form.buttons(
        form.command(CommandId.RISE_TO_BEAT, text("button.rise.toBeat")),
        form.command(CommandId.RISE_TO_CUT, text("button.rise.toCut")),
        form.command(CommandId.MELT, text("button.melt")),
        form.command(CommandId.DELETE, text("button.delete")));
    return text("detail.rise", track.name());
  }

  String span(Track track, Span span) {
    form.level(
            "detail-level",
            text("detail.level"),
            KeyframeEdits.levelOver(track, span),
            text("edit.raiseSpan"),
            (p, db) -> KeyframeEdits.setSpan(p, track.id(), span, session.habits().lastTurn(), db))
        .relative(
            by ->
                session.commit(
                    text("edit.raiseSpan"),
                    p ->
                        KeyframeEdits.raiseSpan(
                            p, track.id(), span, session.habits().lastTurn(), by)));
    form.time(
        "detail-start",
        text("detail.from"),
        span.startFrame(),
        to ->
            session.select(
                new Selection.OfSpan(
                    track.id(), new Span(Math.min(to, span.endFrame() - 1), span.endFrame()))));
    form.time(
        "detail-end",
        text("detail.to"),
        span.endFrame(),
        to ->
            session.select(
                new Selection.OfSpan(
                    track.id(), new Span(span.startFrame(), Math.max(to, span.startFrame() + 1)))));
    form.buttons(
        form.command(CommandId.HUSH_HERE, text("button.hush.here")),
        form.command(CommandId.RISE_HERE, text("button.rise.here")),
        form.command(CommandId.HUSH_EQUAL, text("button.hush.equal")),
        form.command(CommandId.DELETE, text("button.delete")));
    form.words(text("detail.span.help"));
    return text("detail.span", track.name());
  }
}
