package hushrise.app.command;

import hushrise.app.session.Selection;
import hushrise.app.session.Session;
import hushrise.core.project.Project;
import hushrise.core.project.media.TrackKind;
import java.util.function.BooleanSupplier;
import java.util.function.Predicate;

/** Whether what a command needs is there. */
public final class Possible implements Predicate<CommandId.Needs> {

  private final Session session;
  private final BooleanSupplier hasFindings;
  private final BooleanSupplier rides;

  /**
   * @param hasFindings whether the Second Ear has remarked on anything
   * @param rides whether a hand is on a fader
   */
  public Possible(Session session, BooleanSupplier hasFindings, BooleanSupplier rides) {
    this.session = session;
    this.rides = rides;
    this.hasFindings = hasFindings;
  }

  @Override
  public boolean test(CommandId.Needs needs) {
    Selection chosen = session.selection();
    Project project = session.present();
    boolean clip = !chosen.clipIds().isEmpty();
    boolean keyframes =
        chosen instanceof Selection.OfKeyframe || chosen instanceof Selection.OfSpan;
    return switch (needs) {
      case NOTHING -> true;
      case FILM -> project.lengthFrames() > 0;
      case SOMETHING -> !(chosen instanceof Selection.Nothing);
      case PLACE -> chosen.spanIn(project).isPresent();
      case CLIP -> clip;
      case CLIP_OR_KEYFRAMES -> clip || keyframes;
      case CLIP_OR_PASSAGE -> clip || chosen instanceof Selection.OfPassage;
      case MUSIC ->
          project.firstTrack(TrackKind.MUSIC).filter(t -> !t.clips().isEmpty()).isPresent();
      case SEAM -> chosen instanceof Selection.OfSeam;
      case HUSH -> chosen instanceof Selection.OfHush;
      case SHAPE -> chosen instanceof Selection.OfHush || chosen instanceof Selection.OfRise;
      case SPAN -> chosen instanceof Selection.OfSpan;
      case LEVEL -> hasLevel(chosen, project) || rides.getAsBoolean();
      // A draft takes the room of the numbers, and Enter is its own.
      case SHOWN_LEVEL -> session.draft().isEmpty() && hasLevel(chosen, project);
      case PASSAGE -> chosen instanceof Selection.OfPassage;
      case SPEECH -> project.hasVoice();
      case MARKERS -> !project.markers().isEmpty();
      case DRAFT -> session.draft().isPresent();
      case FINDING -> hasFindings.getAsBoolean();
      case COPIED -> !session.copied().isEmpty();
      case UNDONE -> session.undoName().isPresent();
      case REDONE -> session.redoName().isPresent();
    };
  }

  private static boolean hasLevel(Selection chosen, Project project) {
    return switch (chosen) {
      case Selection.OfKeyframe k -> true;
      case Selection.OfSpan s -> true;
      case Selection.OfHush h -> true;
      case Selection.OfRise r -> true;
      case Selection.OfClip c -> true;
      case Selection.OfTrack t ->
          project.track(t.trackId()).filter(track -> track.kind().sounds()).isPresent();
      default -> false;
    };
  }
}
