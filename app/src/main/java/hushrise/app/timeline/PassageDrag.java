package hushrise.app.timeline;

import static hushrise.app.words.Texts.text;

import hushrise.app.session.Selection;
import hushrise.core.edit.SpeechEdits;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.timeline.Clip;
import hushrise.core.time.Span;
import hushrise.core.time.Timecode;
import java.util.List;
import java.util.NoSuchElementException;

/** A drag of a passage or of one of its ends, within its clip. */
final class PassageDrag extends Drag {

  private final Target.OnPassage target;
  private final LaneGeometry geometry;
  private final Project before;
  private final Clip clip;
  private final Span held;
  private int index;

  PassageDrag(Target.OnPassage target, Project before, LaneGeometry geometry, double pressX) {
    super(pressX, 0);
    this.target = target;
    this.before = before;
    this.geometry = geometry;
    clip = before.clip(target.clipId()).orElseThrow();
    held = speech(before).get(target.index());
    index = target.index();
  }

  @Override
  boolean isFarEnough(double across, double down) {
    return super.isFarEnough(across, 0);
  }

  @Override
  Project apply(Project base) {
    long by = byFrames(geometry.axis());
    index = speech(base).indexOf(held);
    if (index < 0) {
      throw new NoSuchElementException("The passage that is held has gone");
    }
    Span wanted =
        switch (target.hold()) {
          case START ->
              new Span(Math.min(held.startFrame() + by, held.endFrame() - 1), held.endFrame());
          case END ->
              new Span(held.startFrame(), Math.max(held.endFrame() + by, held.startFrame() + 1));
          case BODY -> Span.ofLength(held.startFrame() + by, held.lengthFrames());
        };
    Project result = SpeechEdits.change(base, clip.mediaId(), index, wanted);
    Span now = speech(result).get(index);
    long shown = target.hold() == Target.Hold.END ? now.endFrame() : now.startFrame();
    setSign(
        Timecode.format(
            shown - clip.mediaStartFrame() + clip.startFrame(),
            before.pictureRate(),
            before.sampleRate()));
    return result;
  }

  private List<Span> speech(Project project) {
    return project.media(clip.mediaId()).flatMap(Media::speech).orElseThrow();
  }

  @Override
  Selection selection() {
    return new Selection.OfPassage(geometry.track().id(), clip.id(), clip.mediaId(), index);
  }

  @Override
  String name() {
    return text("edit.movePassage");
  }
}
