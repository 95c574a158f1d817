package hushrise.app.session;

import hushrise.core.edit.Snippet;
import hushrise.core.project.level.Keyframe;
import java.util.List;

/** What was copied last, to be pasted: clips or keyframes, never both. */
public final class Copied {

  private Snippet clips = Snippet.EMPTY;
  private List<Keyframe> keyframes = List.of();

  public Snippet clips() {
    return clips;
  }

  /** In order of time. */
  public List<Keyframe> keyframes() {
    return keyframes;
  }

  public boolean isEmpty() {
    return clips.isEmpty() && keyframes.isEmpty();
  }

  public void set(Snippet copied) {
    clips = copied;
    keyframes = List.of();
  }

  public void set(List<Keyframe> copied) {
    keyframes = List.copyOf(copied);
    clips = Snippet.EMPTY;
  }
}
