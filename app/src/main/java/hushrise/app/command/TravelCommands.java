package hushrise.app.command;

import static hushrise.app.words.Texts.text;

import hushrise.app.job.Messages;
import hushrise.app.listen.PictureCuts;
import hushrise.app.session.Selection;
import hushrise.app.session.Session;
import hushrise.core.edit.MarkerEdits;
import hushrise.core.edit.Snap;
import hushrise.core.project.Marker;
import hushrise.core.project.Project;
import hushrise.core.speech.Passages;
import hushrise.core.time.Span;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;

/** Getting about: the playhead, the zoom, markers. */
public final class TravelCommands {

  private final Session session;
  private final TimeView view;
  private final PictureCuts cuts;
  private final Messages messages;

  public TravelCommands(Session session, TimeView view, PictureCuts cuts, Messages messages) {
    this.session = session;
    this.view = view;
    this.cuts = cuts;
    this.messages = messages;
  }

  /** Sets what its commands do. */
  public void addTo(Commands.Builder table) {
    table
        .set(CommandId.STEP_BACK, () -> step(-1))
        .set(CommandId.STEP_ON, () -> step(1))
        .set(CommandId.SECOND_BACK, () -> jump(-session.present().sampleRate()))
        .set(CommandId.SECOND_ON, () -> jump(session.present().sampleRate()))
        .set(CommandId.TO_START, () -> session.seek(0))
        .set(CommandId.TO_END, () -> session.seek(session.present().lengthFrames()))
        .set(CommandId.PLACE_NEXT, () -> toPlace(true))
        .set(CommandId.PLACE_PREVIOUS, () -> toPlace(false))
        .set(CommandId.MARKER_NEXT, () -> toMarker(true))
        .set(CommandId.MARKER_PREVIOUS, () -> toMarker(false))
        .set(CommandId.MARKER_ADD, this::addMarker)
        .set(CommandId.ZOOM_IN, () -> view.zoomAtPlayhead(1 / 1.5))
        .set(CommandId.ZOOM_OUT, () -> view.zoomAtPlayhead(1.5))
        .set(CommandId.ZOOM_ALL, view::fit)
        .set(CommandId.ZOOM_SELECTION, () -> zoomTo(session.selection().spanIn(session.present())))
        .set(CommandId.ZOOM_PASSAGE, () -> zoomTo(passageSpan()))
        .set(CommandId.SNAP, () -> toggle(session.habits().snapsProperty(), "toggle.snap"))
        .set(
            CommandId.CARRY,
            () -> toggle(session.habits().carriesKeyframesProperty(), "toggle.carry"))
        .set(
            CommandId.FOLLOW,
            () -> toggle(session.habits().followsPlayheadProperty(), "toggle.follow"));
  }

  private void toggle(javafx.beans.property.BooleanProperty what, String key) {
    what.set(!what.get());
    messages.say(text(key + (what.get() ? ".on" : ".off")));
  }

  private void step(int by) {
    Project p = session.present();
    long number = p.pictureRate().pictureFrameAt(session.playhead(), p.sampleRate());
    session.seek(p.pictureRate().sampleFrameOf(Math.max(0, number + by), p.sampleRate()));
  }

  private void jump(long frames) {
    session.seek(session.playhead() + frames);
  }

  private void toPlace(boolean next) {
    Snap places = Snap.of(session.present(), Set.of(), session.playhead(), cuts.frames());
    OptionalLong found =
        next ? places.after(session.playhead()) : places.before(session.playhead());
    found.ifPresent(session::seek);
  }

  private void toMarker(boolean next) {
    List<Marker> markers = session.present().markers();
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
        () -> messages.say(text("marker.none")));
  }

  private void addMarker() {
    long at = session.playhead();
    String name = text("marker.name", session.present().markers().size() + 1);
    session.commit(text("edit.addMarker"), p -> MarkerEdits.add(p, name, at));
    session.present().markers().stream()
        .filter(m -> m.frame() == at)
        .findFirst()
        .ifPresent(m -> session.select(new Selection.OfMarker(m.id())));
  }

  private Optional<Span> passageSpan() {
    return Passages.of(session.present()).stream()
        .filter(p -> p.endFrame() > session.playhead())
        .findFirst();
  }

  private void zoomTo(Optional<Span> span) {
    span.ifPresentOrElse(view::show, () -> messages.say(text("zoom.nothing")));
  }
}
