package hushrise.core.hush;

import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.timeline.Track;
import java.util.List;

/**
 * What drafting hushes would make of a project, and why.
 *
 * @param before the project it was drafted for
 * @param after the project with the draft taken
 * @param lines one for each hush that is new, changed, kept or gone
 * @param rises how many rises it would add or change
 * @param notes what stands in its way
 */
public record HushDraft(
    Project before, Project after, List<Line> lines, int rises, List<Note> notes) {

  /** What happens to a hush. */
  public enum Change {
    NEW,
    CHANGED,
    KEPT,
    GONE
  }

  /** Why a hush is as it is. */
  public enum Why {
    /** As deep as the passage needs. */
    NEEDED,
    /** As deep as another passage near it needs. */
    EVEN,
    /** The rule gives one depth to all. */
    FIXED,
    /** A person set its depth. */
    BY_HAND,
    /** Sounds that have no rule are too loud: more depth would not help. */
    OTHERS_TOO_LOUD,
    /** The rule lets it go no deeper. */
    DEEPEST,
    /** The voice stands clear without it. */
    NOT_NEEDED,
    /** Nobody speaks there. */
    NO_PASSAGE
  }

  /** What stands in a draft's way. */
  public enum Note {
    NO_VOICE_TRACK,
    NO_SPEECH,
    NOTHING_UNDER_IT,
    NO_RULE,
    SPEECH_EVERYWHERE,
    MUSIC_ENDS_IN_PASSAGE
  }

  /**
   * One hush.
   *
   * @param trackId its track
   * @param change what happens to it
   * @param why for which reason
   * @param hush as it would be; as it is now when it goes
   * @param voiceLufs the voice over the passage that asks most of it
   * @param backgroundLufs everything under that passage, before any hush of a ruled track
   */
  public record Line(
      String trackId, Change change, Why why, Hush hush, double voiceLufs, double backgroundLufs) {}

  public HushDraft {
    lines = List.copyOf(lines);
    notes = List.copyOf(notes);
  }

  /**
   * The draft over a project that may have changed since: each background track gets the drafted
   * hushes, rises and rule.
   */
  public Project onto(Project project) {
    return project.withEachTrack(
        track ->
            after
                .track(track.id())
                .filter(Track::isBackground)
                .map(t -> track.withHushes(t.hushes()).withRises(t.rises()).withRule(t.rule()))
                .orElse(track));
  }

  /** Whether taking it would change nothing. */
  public boolean changesNothing(Project project) {
    return onto(project).equals(project);
  }

  /** How many hushes a change happens to. */
  public long count(Change change) {
    return lines.stream().filter(l -> l.change() == change).count();
  }
}
