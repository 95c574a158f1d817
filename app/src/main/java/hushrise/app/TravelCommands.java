package hushrise.app;

import static hushrise.app.look.Texts.text;

import hushrise.app.timeline.Viewport;
import hushrise.core.edit.MarkerEdits;
import hushrise.core.edit.Snap;
import hushrise.core.project.Clip;
import hushrise.core.project.Hush;
import hushrise.core.project.Marker;
import hushrise.core.project.Project;
import hushrise.core.speech.Passages;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;

/** Getting about: the playhead, the zoom, markers. */
final class TravelCommands {

  private final Session session;
  private final Transport transport;
  private final Viewport view;
  private final Window window;

  TravelCommands(Session session, Transport transport, Viewport view, Window window) {
    this.session = session;
    this.transport = transport;
    this.view = view;
    this.window = window;
  }

  List<Command> all() {
    return List.of(
        Command.of("play", "SPACE", transport::toggle),
        Command.of("step.back", "LEFT", () -> step(-1)),
        Command.of("step.on", "RIGHT", () -> step(1)),
        Command.of("second.back", "Shift+LEFT", () -> jump(-session.project().sampleRate())),
        Command.of("second.on", "Shift+RIGHT", () -> jump(session.project().sampleRate())),
        Command.of("toStart", "HOME", () -> session.seek(0)),
        Command.of("toEnd", "END", () -> session.seek(session.project().lengthFrames())),
        Command.of("place.next", "PERIOD", () -> toPlace(true)),
        Command.of("place.previous", "COMMA", () -> toPlace(false)),
        Command.of("marker.next", "Shift+PERIOD", () -> toMarker(true)),
        Command.of("marker.previous", "Shift+COMMA", () -> toMarker(false)),
        Command.of("marker.add", "M", this::addMarker),
        Command.of("zoom.in", "EQUALS", () -> view.zoomAtPlayhead(1 / 1.5)),
        Command.of("zoom.inToo", "PLUS", () -> view.zoomAtPlayhead(1 / 1.5)),
        Command.of("zoom.inPad", "ADD", () -> view.zoomAtPlayhead(1 / 1.5)),
        Command.of("zoom.out", "MINUS", () -> view.zoomAtPlayhead(1.5)),
        Command.of("zoom.outPad", "SUBTRACT", () -> view.zoomAtPlayhead(1.5)),
        Command.of("zoom.all", "DIGIT0", view::fit),
        Command.of("zoom.selection", "DIGIT9", () -> zoomTo(selectionSpan())),
        Command.of("zoom.passage", "DIGIT8", () -> zoomTo(passageSpan())),
        Command.of("snap", "N", () -> toggle(session.snapsProperty(), "toggle.snap")),
        Command.of("carry", "C", () -> toggle(session.carriesKeyframesProperty(), "toggle.carry")),
        Command.of(
            "follow", "G", () -> toggle(session.followsPlayheadProperty(), "toggle.follow")));
  }

  private void toggle(javafx.beans.property.BooleanProperty what, String key) {
    what.set(!what.get());
    window.say(text(key + (what.get() ? ".on" : ".off")));
  }

  private void step(int by) {
    Project p = session.project();
    long number = p.pictureRate().pictureFrameAt(session.playhead(), p.sampleRate());
    session.seek(p.pictureRate().sampleFrameOf(Math.max(0, number + by), p.sampleRate()));
  }

  private void jump(long frames) {
    session.seek(session.playhead() + frames);
  }

  private void toPlace(boolean next) {
    Snap places = Snap.of(session.project(), Set.of(), session.playhead(), view.cuts().frames());
    OptionalLong found =
        next ? places.after(session.playhead()) : places.before(session.playhead());
    found.ifPresent(session::seek);
  }

  private void toMarker(boolean next) {
    List<Marker> markers = session.project().markers();
    long at = session.playhead();
    Optional<Marker> found =
        next
            ? markers.stream()
                .filter(m -> m.frame() > at)
                .min(java.util.Comparator.comparingLong(Marker::frame))
            : markers.stream()
                .filter(m -> m.frame() < at)
                .max(java.util.Comparator.comparingLong(Marker::frame));
    found.ifPresentOrElse(
        m -> {
          session.seek(m.frame());
          session.select(new Selection.OfMarker(m.id()));
        },
        () -> window.say(text("marker.none")));
  }

  private void addMarker() {
    long at = session.playhead();
    String name = text("marker.name", session.project().markers().size() + 1);
    session.commit(text("edit.addMarker"), p -> MarkerEdits.add(p, name, at));
    session.project().markers().stream()
        .filter(m -> m.frame() == at)
        .findFirst()
        .ifPresent(m -> session.select(new Selection.OfMarker(m.id())));
  }

  private Optional<Span> selectionSpan() {
    List<Span> spans = new ArrayList<>();
    Project p = session.project();
    session.selection().clipIds().forEach(id -> p.clip(id).map(Clip::span).ifPresent(spans::add));
    if (session.selection() instanceof Selection.OfHush h) {
      p.track(h.trackId()).stream()
          .flatMap(t -> t.hushes().stream())
          .filter(hush -> hush.id().equals(h.hushId()))
          .map(Hush::passage)
          .forEach(spans::add);
    }
    if (session.selection() instanceof Selection.OfSpan s) {
      spans.add(s.span());
    }
    if (session.selection() instanceof Selection.OfRise r) {
      p.track(r.trackId())
          .flatMap(t -> t.rise(r.riseId()))
          .map(rise -> rise.span())
          .ifPresent(spans::add);
    }
    return spans.stream()
        .reduce(
            (a, b) ->
                new Span(
                    Math.min(a.startFrame(), b.startFrame()),
                    Math.max(a.endFrame(), b.endFrame())));
  }

  private Optional<Span> passageSpan() {
    return Passages.of(session.project()).stream()
        .filter(p -> p.endFrame() > session.playhead())
        .findFirst();
  }

  private void zoomTo(Optional<Span> span) {
    span.ifPresentOrElse(view::show, () -> window.say(text("zoom.nothing")));
  }
}
