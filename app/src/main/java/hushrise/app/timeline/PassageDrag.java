package hushrise.app.timeline;

import static hushrise.app.words.Texts.text;

import hushrise.app.session.Selection;
import hushrise.core.edit.SpeechEdits;
import hushrise.core.project.Project;
import hushrise.core.project.timeline.Clip;
import hushrise.core.time.Span;
import hushrise.core.time.Timecode;

/** A drag of a passage or of one of its ends, within its clip. */
final class PassageDrag extends Drag {

  private final Target.OnPassage target;
  private final LaneGeometry geometry;
  private final Project before;
  private final Clip clip;

  PassageDrag(Target.OnPassage target, Project before, LaneGeometry geometry, double pressX) {
    super(pressX, 0);
    this.target = target;
    this.before = before;
    this.geometry = geometry;
    clip = before.clip(target.clipId()).orElseThrow();
  }

  @Override
  boolean isFarEnough(double across, double down) {
    return super.isFarEnough(across, 0);
  }

  @Override
  Project apply(Project base) {
    long by = byFrames(geometry.axis());
    Span span = speech(before);
    Span wanted =
        switch (target.hold()) {
          case START ->
              new Span(Math.min(span.startFrame() + by, span.endFrame() - 1), span.endFrame());
          case END ->
              new Span(span.startFrame(), Math.max(span.endFrame() + by, span.startFrame() + 1));
          case BODY -> Span.ofLength(span.startFrame() + by, span.lengthFrames());
        };
    Project result = SpeechEdits.change(base, clip.mediaId(), target.index(), wanted);
    Span now = speech(result);
    long shown = target.hold() == Target.Hold.END ? now.endFrame() : now.startFrame();
    setSign(
        Timecode.format(
            shown - clip.mediaStartFrame() + clip.startFrame(),
            before.pictureRate(),
            before.sampleRate()));
    return result;
  }

  private Span speech(Project project) {
    return project.media(clip.mediaId()).orElseThrow().speech().orElseThrow().get(target.index());
  }

  @Override
  Selection selection() {
    return new Selection.OfPassage(
        geometry.track().id(), clip.id(), clip.mediaId(), target.index());
  }

  @Override
  String name() {
    return text("edit.movePassage");
  }
}
