package hushrise.core.edit;

import hushrise.core.project.level.Keyframe;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import java.util.List;

/**
 * Clips that were cut or copied, with the keyframes over them.
 *
 * @param pieces what lay on each track, in the order of the tracks
 * @param startFrame where the earliest of the clips started
 * @param endFrame where the last one ended
 */
public record Snippet(List<Piece> pieces, long startFrame, long endFrame) {

  public static final Snippet EMPTY = new Snippet(List.of(), 0, 0);

  /**
   * What lay on one track.
   *
   * @param trackId the track
   * @param kind its kind, for when the track is gone
   * @param clips at their old places
   * @param keyframes at their old places
   */
  public record Piece(String trackId, TrackKind kind, List<Clip> clips, List<Keyframe> keyframes) {}

  public boolean isEmpty() {
    return pieces.isEmpty();
  }
}
