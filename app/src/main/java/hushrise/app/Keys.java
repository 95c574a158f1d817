package hushrise.app;

import static hushrise.app.look.Texts.text;

import hushrise.app.panel.Sheet;
import hushrise.app.timeline.TimelineView;
import hushrise.app.timeline.Viewport;
import hushrise.core.edit.LevelEdits;
import hushrise.core.project.Hush;
import hushrise.core.project.Keyframe;
import hushrise.core.project.Project;
import hushrise.core.project.Track;
import hushrise.core.project.TrackKind;
import java.util.Optional;
import javafx.scene.Scene;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;

/** The window's keys. While somebody types into a field, only those with Ctrl (or Cmd) act. */
final class Keys {

  private final Window window;
  private final Session session;
  private final Transport transport;
  private final Viewport view;
  private final TimelineView timeline;
  private final Sheet sheet;

  Keys(
      Window window,
      Session session,
      Transport transport,
      Viewport view,
      TimelineView timeline,
      Sheet sheet) {
    this.window = window;
    this.session = session;
    this.transport = transport;
    this.view = view;
    this.timeline = timeline;
    this.sheet = sheet;
  }

  void attach(Scene scene) {
    scene.addEventFilter(
        KeyEvent.KEY_PRESSED,
        e -> {
          if (sheet.isOpen()) {
            return;
          }
          boolean typing = scene.getFocusOwner() instanceof TextInputControl;
          boolean done = e.isShortcutDown() ? withShortcut(e, typing) : !typing && plain(e);
          if (done) {
            e.consume();
          } else if (typing && e.getCode() == KeyCode.ENTER) {
            timeline.requestFocus();
          }
        });
  }

  private boolean withShortcut(KeyEvent e, boolean typing) {
    switch (e.getCode()) {
      case Z -> {
        if (typing) {
          return false;
        }
        if (e.isShiftDown()) {
          session.redo();
        } else {
          session.undo();
        }
      }
      case Y -> session.redo();
      case S -> {
        if (e.isShiftDown()) {
          window.saveAs();
        } else {
          window.save();
        }
      }
      case O -> window.open();
      case I -> window.add();
      case D -> window.deliver();
      default -> {
        return false;
      }
    }
    return true;
  }

  private boolean plain(KeyEvent e) {
    boolean shift = e.isShiftDown();
    switch (e.getCode()) {
      case SPACE -> transport.toggle();
      case LEFT -> step(shift ? -seconds() : -1, shift);
      case RIGHT -> step(shift ? seconds() : 1, shift);
      case HOME -> session.seek(0);
      case END -> session.seek(session.project().lengthFrames());
      case PLUS, EQUALS, ADD -> view.zoomAtPlayhead(1 / 1.5);
      case MINUS, SUBTRACT -> view.zoomAtPlayhead(1.5);
      case DIGIT0, NUMPAD0 -> view.fit();
      case K -> addKeyframe();
      case H -> window.hush();
      case UP -> nudge(shift ? 0.1 : 1);
      case DOWN -> nudge(shift ? -0.1 : -1);
      case DELETE, BACK_SPACE -> remove();
      case ESCAPE -> {
        if (!timeline.cancelDrag()) {
          session.select(Selection.nothing());
        }
      }
      default -> {
        return false;
      }
    }
    return true;
  }

  private long seconds() {
    return session.project().sampleRate();
  }

  /** Steps by picture frames, or by sample frames when {@code exact}. */
  private void step(long by, boolean exact) {
    Project project = session.project();
    if (exact) {
      session.seek(session.playhead() + by);
      return;
    }
    long number = project.pictureRate().pictureFrameAt(session.playhead(), project.sampleRate());
    session.seek(
        project.pictureRate().sampleFrameOf(Math.max(0, number + by), project.sampleRate()));
  }

  private void addKeyframe() {
    String trackId = session.selection().trackId();
    Optional<Track> track =
        trackId.isEmpty()
            ? session.project().firstTrack(TrackKind.MUSIC)
            : session.project().track(trackId);
    track
        .filter(t -> t.kind().sounds())
        .ifPresent(
            t -> {
              session.commit(
                  text("edit.addKeyframe"),
                  p -> LevelEdits.addKeyframe(p, t.id(), session.playhead()));
              session.select(new Selection.OfKeyframe(t.id(), session.playhead()));
            });
  }

  private void nudge(double byDb) {
    Project project = session.project();
    switch (session.selection()) {
      case Selection.OfKeyframe k -> {
        Track track = project.track(k.trackId()).orElseThrow();
        int index = track.line().indexAfter(k.frame()) - 1;
        Keyframe keyframe = track.line().keyframes().get(index);
        session.commit(
            text("edit.moveKeyframe"),
            p ->
                LevelEdits.moveKeyframe(
                    p, k.trackId(), index, k.frame(), keyframe.levelDb() + byDb));
      }
      case Selection.OfHush h ->
          project.track(h.trackId()).stream()
              .flatMap(t -> t.hushes().stream())
              .filter(hush -> hush.id().equals(h.hushId()))
              .map(Hush::depthDb)
              .findFirst()
              .ifPresent(
                  depth ->
                      session.commit(
                          text("edit.hushDepth"),
                          p -> LevelEdits.setHushDepth(p, h.hushId(), depth + byDb)));
      case Selection.OfTrack t ->
          project
              .track(t.trackId())
              .filter(track -> track.kind().sounds())
              .ifPresent(
                  track ->
                      session.commit(
                          text("edit.trackLevel"),
                          p -> LevelEdits.setTrackLevel(p, t.trackId(), track.levelDb() + byDb)));
      case Selection.OfClip c -> {}
      case Selection.Nothing n -> {}
    }
  }

  private void remove() {
    switch (session.selection()) {
      case Selection.OfKeyframe k ->
          session.commit(
              text("edit.removeKeyframe"),
              p -> LevelEdits.removeKeyframe(p, k.trackId(), k.frame()));
      case Selection.OfHush h ->
          session.commit(text("edit.removeHush"), p -> LevelEdits.removeHush(p, h.hushId()));
      case Selection.OfClip c -> window.say(text("remove.clip"));
      case Selection.OfTrack t -> window.say(text("remove.track"));
      case Selection.Nothing n -> {}
    }
  }
}
