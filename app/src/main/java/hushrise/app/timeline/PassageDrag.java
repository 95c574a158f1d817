package hushrise.app.timeline;

import static hushrise.app.look.Texts.text;

import hushrise.app.Selection;
import hushrise.core.edit.SpeechEdits;
import hushrise.core.project.Clip;
import hushrise.core.project.Project;
import hushrise.core.time.Span;
import hushrise.core.time.Timecode;

/** A drag of a passage or of one of its ends, within its clip. */
final class PassageDrag implements Drag {

  private static final double SLACK = 3;

  private final Target.OnPassage target;
  private final LaneGeometry geometry;
  private final Project before;
  private final Clip clip;
  private final double pressX;
  private boolean moved;
  private String sign = "";

  PassageDrag(Target.OnPassage target, Project before, LaneGeometry geometry, double pressX) {
    this.target = target;
    this.before = before;
    this.geometry = geometry;
    this.pressX = pressX;
    clip = before.clip(target.clipId()).orElseThrow();
  }

  @Override
  public Project at(Pull pull) {
    moved |= Math.abs(pull.x() - pressX) > SLACK;
    if (!moved) {
      return before;
    }
    long by = Math.round((pull.x() - pressX) * geometry.axis().framesPerPixel());
    Span span = speech(before);
    Span wanted =
        switch (target.hold()) {
          case START ->
              new Span(Math.min(span.startFrame() + by, span.endFrame() - 1), span.endFrame());
          case END ->
              new Span(span.startFrame(), Math.max(span.endFrame() + by, span.startFrame() + 1));
          case BODY -> Span.ofLength(span.startFrame() + by, span.lengthFrames());
        };
    Project result = SpeechEdits.change(before, clip.mediaId(), target.index(), wanted);
    Span now = speech(result);
    long shown = target.hold() == Target.Hold.END ? now.endFrame() : now.startFrame();
    sign =
        Timecode.format(
            shown - clip.mediaStartFrame() + clip.startFrame(),
            before.pictureRate(),
            before.sampleRate());
    return result;
  }

  private Span speech(Project project) {
    return project.media(clip.mediaId()).orElseThrow().speech().orElseThrow().get(target.index());
  }

  @Override
  public String sign() {
    return sign;
  }

  @Override
  public Selection selection() {
    return new Selection.OfPassage(
        geometry.track().id(), clip.id(), clip.mediaId(), target.index());
  }

  @Override
  public boolean hasMoved() {
    return moved;
  }

  @Override
  public String name() {
    return text("edit.movePassage");
  }
}
