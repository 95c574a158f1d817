package hushrise.core.make;

import hushrise.core.edit.EvenVoices;
import hushrise.core.fit.Fits;
import hushrise.core.project.level.HushRule;
import hushrise.core.project.level.HushRule.RiseRule;
import hushrise.core.project.media.Media;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalLong;

/**
 * What a film is to be made of, or sound without a picture, as a podcast is.
 *
 * @param picture the film's picture, moving or a still one that is shown all the time; empty: sound
 *     alone
 * @param endFrame where what has no moving picture ends, in sample frames of the timeline; empty:
 *     as long after the last take as music usually takes to fade. A film ends with its picture
 * @param voices narration takes; empty: the picture's own sound is the voice
 * @param music the background music, at least one
 * @param effects sounds at fixed places
 * @param separationLu how far the voice is to stand above everything else
 * @param evensVoices whether takes more than {@link EvenVoices#MOST_LU} apart are brought to one
 *     loudness
 * @param fadeInSeconds the music's fade-in; empty: {@link Fits#FADE_IN_SECONDS}, or less in a short
 *     film
 * @param fadeOutSeconds the music's fade-out; empty: {@link Fits#FADE_OUT_SECONDS}, or less in a
 *     short film
 * @param rises how the music swells where nobody speaks; empty: it does not
 */
@RecordBuilder
public record FilmPlan(
    Optional<Media> picture,
    OptionalLong endFrame,
    List<Placed> voices,
    List<Placed> music,
    List<Placed> effects,
    double separationLu,
    boolean evensVoices,
    OptionalDouble fadeInSeconds,
    OptionalDouble fadeOutSeconds,
    Optional<RiseRule> rises)
    implements FilmPlanBuilder.With {

  /**
   * A plan as most are: without effects, the voice as far above everything else as music wants it,
   * takes evened, usual fades, no rises.
   */
  public static FilmPlan of(Optional<Media> picture, List<Placed> voices, List<Placed> music) {
    return FilmPlanBuilder.builder()
        .picture(picture)
        .voices(voices)
        .music(music)
        .effects(List.of())
        .separationLu(HushRule.MUSIC_LU)
        .evensVoices(true)
        .build();
  }

  /**
   * A media item and where it goes.
   *
   * @param media what
   * @param atFrame where on the timeline; empty: after the one before it
   */
  public record Placed(Media media, OptionalLong atFrame) {

    public static Placed at(Media media, long frame) {
      return new Placed(media, OptionalLong.of(frame));
    }

    /** Where it starts when the one before it ended at {@code previousEnd}. */
    long startAfter(Optional<Long> previousEnd) {
      return atFrame.orElseGet(() -> previousEnd.orElse(0L));
    }
  }
}
