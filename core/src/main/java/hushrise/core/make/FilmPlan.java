package hushrise.core.make;

import hushrise.core.edit.EvenVoices;
import hushrise.core.fit.Fits;
import hushrise.core.project.level.HushRule.RiseRule;
import hushrise.core.project.media.Media;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalLong;

/**
 * What a film is to be made of, or sound without a picture, as a podcast is.
 *
 * @param picture the film's picture; empty: sound alone
 * @param endFrame where sound without a picture ends, in sample frames of the timeline; empty: as
 *     long after the last take as music usually takes to fade. A film ends with its picture
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
    Optional<RiseRule> rises) {

  /** A plan that evens voices and has no rises. */
  public FilmPlan(
      Optional<Media> picture,
      List<Placed> voices,
      List<Placed> music,
      List<Placed> effects,
      double separationLu,
      OptionalDouble fadeInSeconds,
      OptionalDouble fadeOutSeconds) {
    this(
        picture,
        OptionalLong.empty(),
        voices,
        music,
        effects,
        separationLu,
        true,
        fadeInSeconds,
        fadeOutSeconds,
        Optional.empty());
  }

  /** A plan of a film that evens voices and has no rises. */
  public FilmPlan(
      Media picture,
      List<Placed> voices,
      List<Placed> music,
      List<Placed> effects,
      double separationLu,
      OptionalDouble fadeInSeconds,
      OptionalDouble fadeOutSeconds) {
    this(Optional.of(picture), voices, music, effects, separationLu, fadeInSeconds, fadeOutSeconds);
  }

  /** This plan with rises. */
  public FilmPlan withRises(Optional<RiseRule> rule) {
    return new FilmPlan(
        picture,
        endFrame,
        voices,
        music,
        effects,
        separationLu,
        evensVoices,
        fadeInSeconds,
        fadeOutSeconds,
        rule);
  }

  /** This plan with another end of sound without a picture. */
  public FilmPlan withEndFrame(OptionalLong end) {
    return new FilmPlan(
        picture,
        end,
        voices,
        music,
        effects,
        separationLu,
        evensVoices,
        fadeInSeconds,
        fadeOutSeconds,
        rises);
  }

  /** This plan with the takes as loud as they are. */
  public FilmPlan withVoicesAsTheyAre() {
    return new FilmPlan(
        picture,
        endFrame,
        voices,
        music,
        effects,
        separationLu,
        false,
        fadeInSeconds,
        fadeOutSeconds,
        rises);
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
