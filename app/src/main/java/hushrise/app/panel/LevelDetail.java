package hushrise.app.panel;

import static hushrise.app.words.Texts.text;

import hushrise.app.command.CommandId;
import hushrise.app.play.Riders;
import hushrise.app.session.Selection;
import hushrise.app.session.Session;
import hushrise.app.widget.Form;
import hushrise.app.widget.TypedField;
import hushrise.core.edit.KeyframeEdits;
import hushrise.core.edit.LevelEdits;
import hushrise.core.edit.MarkerEdits;
import hushrise.core.edit.TrackEdits;
import hushrise.core.project.Marker;
import hushrise.core.project.Project;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelText;
import hushrise.core.project.level.SegmentShape;
import hushrise.core.project.timeline.Track;
import hushrise.core.ride.RideRule;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.function.DoubleConsumer;
import javafx.scene.control.Label;

/** The numbers of tracks, keyframes, hushes and markers. Each gives the title to show. */
final class LevelDetail {

  private static final double LEAST_TOLERANCE_DB = 0.1;
  private static final double MOST_TOLERANCE_DB = 6;

  private final Session session;
  private final Riders riders;
  private final Form form;
  private final Label sum = new Label();
  private Optional<String> sumOf = Optional.empty();

  LevelDetail(Session session, Riders riders, Form form) {
    this.session = session;
    this.riders = riders;
    this.form = form;
    sum.setId("level-sum");
    sum.getStyleClass().addAll("number", "level-sum");
  }

  /** Shows what the level at the playhead is made of, for the track that is shown. */
  void showSum() {
    Optional<Track> track = sumOf.flatMap(id -> session.shown().track(id));
    if (track.isPresent()) {
      sum.setText(SumText.of(session.shown(), track.get(), session.playhead(), form.pairs()));
    }
  }

  String track(Track track) {
    sum.setText("");
    form.typed(
        "detail-name",
        text("detail.name"),
        track.name(),
        typed ->
            session.commit(text("edit.renameTrack"), p -> TrackEdits.rename(p, track.id(), typed)));
    if (track.kind().sounds()) {
      form.level(
          "detail-level",
          text("detail.level"),
          track.levelDb(),
          text("edit.trackLevel"),
          (p, db) -> LevelEdits.setTrackLevel(p, track.id(), db));
      pan(track);
      sumOf = Optional.of(track.id());
      ride(track);
      form.wide(sum);
      showSum();
    } else {
      form.fact(text("detail.clips"), String.valueOf(track.clips().size()));
    }
    return track.name();
  }

  private void pan(Track track) {
    String shown = panWords(track.pan());
    TypedField field = form.number("detail-pan", text("detail.pan"), shown, words -> {});
    field.setTip(text("detail.pan.tip"));
    field.onTyped(
        words ->
            panOf(words)
                .ifPresentOrElse(
                    pan ->
                        session.commit(
                            text("edit.pan"), p -> TrackEdits.setPan(p, track.id(), pan)),
                    () -> field.refuse(shown, text("detail.pan.tip"))));
  }

  /** How far the line may be from the hand: a distance, which has no sign. */
  private void tolerance(RideRule rule) {
    String shown = "%.1f dB".formatted(rule.toleranceDb());
    TypedField field =
        form.number("detail-ride-tolerance", text("detail.ride.tolerance"), shown, words -> {});
    field.setTip(text("detail.ride.tolerance.tip"));
    DoubleConsumer set =
        db ->
            riders
                .ruleProperty()
                .set(
                    new RideRule(
                        Math.clamp(db, LEAST_TOLERANCE_DB, MOST_TOLERANCE_DB),
                        rule.glides(),
                        rule.glideSeconds()));
    field.onStep(
        (direction, fine) -> set.accept(rule.toleranceDb() + direction * (fine ? 0.1 : 0.5)));
    field.onTyped(
        words -> {
          OptionalDouble typed = LevelText.parse(words);
          if (typed.isPresent()) {
            set.accept(Math.abs(typed.getAsDouble()));
          } else {
            field.refuse(shown, text("detail.ride.tolerance.tip"));
          }
        });
  }

  /** What becomes of a ride, while the track is armed. */
  private void ride(Track track) {
    if (!riders.armed().contains(track.id())) {
      form.buttons(form.command(CommandId.RIDE_ARM, text("detail.ride")));
      return;
    }
    RideRule rule = riders.ruleProperty().get();
    form.choice(
        "detail-ride-after",
        text("detail.ride.after"),
        List.of(false, true),
        rule.glides(),
        glides -> text(glides ? "detail.ride.glides" : "detail.ride.stays"),
        glides ->
            riders
                .ruleProperty()
                .set(new RideRule(rule.toleranceDb(), glides, rule.glideSeconds())));
    form.length(
        "detail-ride-glide",
        text("detail.ride.glide"),
        session.shown().frames(rule.glideSeconds()),
        frames ->
            riders
                .ruleProperty()
                .set(
                    new RideRule(
                        rule.toleranceDb(), rule.glides(), session.shown().seconds(frames))));
    tolerance(rule);
    form.choice(
        "detail-ride-count",
        text("detail.ride.count"),
        List.of(0, 2, 3, 4),
        riders.countInProperty().get(),
        seconds -> seconds == 0 ? text("recorder.count.none") : text("recorder.count.s", seconds),
        seconds -> riders.countInProperty().set(seconds));
    form.buttons(
        form.command(CommandId.RIDE_ARM, text("detail.ride.end")),
        form.command(CommandId.RIDE_HUSHES, text("detail.ride.hushes")));
  }

  private static String panWords(double pan) {
    long percent = Math.round(Math.abs(pan) * 100);
    return percent == 0
        ? text("pan.middle")
        : text(pan < 0 ? "pan.left" : "pan.right", String.valueOf(percent));
  }

  /** {@code L 40}, {@code R 100}, {@code middle}, or -100 to 100; empty when it is none of them. */
  private static Optional<Double> panOf(String typed) {
    String words = typed.strip().toLowerCase(Locale.ROOT).replace('\u2212', '-').replace("%", "");
    if (words.startsWith("m") || words.equals("c")) {
      return Optional.of(0.0);
    }
    int side = words.startsWith("l") ? -1 : 1;
    String number = words.replaceFirst("^[lr]\\s*", "").strip();
    return number.matches("-?\\d{1,3}")
        ? Optional.of(Math.clamp(side * Integer.parseInt(number) / 100.0, -1, 1))
        : Optional.empty();
  }

  String keyframe(Track track, long frame) {
    Optional<Keyframe> found = track.line().at(frame);
    if (found.isEmpty()) {
      return "";
    }
    Keyframe keyframe = found.get();
    int index = track.line().indexAfter(keyframe.frame()) - 1;
    form.level(
        "detail-keyframe",
        text("detail.level"),
        keyframe.levelDb(),
        text("edit.moveKeyframe"),
        (p, db) -> LevelEdits.moveKeyframe(p, track.id(), index, keyframe.frame(), db));
    form.time(
        "detail-time",
        text("detail.time"),
        keyframe.frame(),
        to -> moveTo(track.id(), index, to, keyframe));
    form.alone()
        .choice(
            "detail-shape",
            text("detail.shape"),
            List.of(SegmentShape.values()),
            keyframe.shape(),
            s -> text("shape." + s.name().toLowerCase(Locale.ROOT)),
            s ->
                session.commit(
                    text("edit.shape"),
                    p -> LevelEdits.shapeSegment(p, track.id(), keyframe.frame(), s)));
    form.buttons(
        Form.button(
            "detail-remove",
            text("detail.remove"),
            () ->
                session.commit(
                    text("edit.removeKeyframe"),
                    p -> LevelEdits.removeKeyframe(p, track.id(), keyframe.frame()))));
    return text("detail.keyframe", track.name());
  }

  private void moveTo(String trackId, int index, long frame, Keyframe keyframe) {
    session.commit(
        text("edit.moveKeyframe"),
        p -> LevelEdits.moveKeyframe(p, trackId, index, frame, keyframe.levelDb()));
    long reached =
        session.shown().track(trackId).orElseThrow().line().keyframes().get(index).frame();
    session.select(new Selection.OfKeyframe(trackId, reached));
  }

  /** Several keyframes: one level for all, or a relative one. */
  String keyframes(Track track, Selection.OfKeyframe chosen) {
    Set<Long> frames = Set.copyOf(chosen.all());
    form.level(
            "detail-keyframe",
            text("detail.level"),
            track.line().at(chosen.frame()).map(Keyframe::levelDb).orElse(0.0),
            text("edit.moveKeyframe"),
            (p, db) -> KeyframeEdits.setLevel(p, track.id(), frames, db))
        .relative(
            by ->
                session.commit(
                    text("edit.moveKeyframe"),
                    p -> KeyframeEdits.move(p, track.id(), frames, 0, by).project()));
    form.words(text("detail.keyframes.help"));
    return text("detail.keyframesChosen", frames.size());
  }

  String marker(Project project, String markerId) {
    Optional<Marker> found =
        project.markers().stream().filter(m -> m.id().equals(markerId)).findFirst();
    if (found.isEmpty()) {
      return "";
    }
    Marker marker = found.get();
    form.typed(
        "detail-name",
        text("detail.name"),
        marker.name(),
        typed ->
            session.commit(
                text("edit.renameMarker"), p -> MarkerEdits.rename(p, marker.id(), typed)));
    form.time(
        "detail-time",
        text("detail.time"),
        marker.frame(),
        to -> session.commit(text("edit.moveMarker"), p -> MarkerEdits.move(p, marker.id(), to)));
    form.buttons(
        Form.button(
            "detail-remove",
            text("detail.removeMarker"),
            () ->
                session.commit(
                    text("edit.removeMarker"), p -> MarkerEdits.remove(p, marker.id()))));
    return text("detail.marker");
  }
}
