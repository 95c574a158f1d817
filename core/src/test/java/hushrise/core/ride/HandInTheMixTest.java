package hushrise.core.ride;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import hushrise.core.Decibels;
import hushrise.core.mix.Mixer;
import hushrise.core.mix.Projects;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelLine;
import hushrise.core.project.level.SegmentShape;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** A hand on a fader is heard at once, and what is written sounds as it did. */
class HandInTheMixTest {

  private static final int RATE = 48_000;
  private static final int BLOCK = 512;

  private final Projects.Sounds sounds = new Projects.Sounds();
  private final Project project =
      Projects.ofTrack(
          sounds,
          Track.of(TrackKind.MUSIC, "m", List.of())
              .withLine(
                  LevelLine.of(
                      List.of(
                          new Keyframe(30_000, -3, SegmentShape.SMOOTH),
                          new Keyframe(90_001, -60, SegmentShape.STRAIGHT),
                          new Keyframe(200_000, 0, SegmentShape.SMOOTH))))
              .withHushes(List.of(Hush.over(new Span(60_000, 120_000), -10))),
          300_000);
  private final Track track = project.tracks().getFirst();

  private Mixer with(Hand hand) {
    return Mixer.of(project, sounds, t -> true, id -> Optional.of(hand));
  }

  @Test
  void aHandThatTouchesNothingIsNotHeard() {
    float[] plain = Projects.left(project, sounds, 0, 250_000);
    float[] ridden = new float[250_000];
    with(RideRule.DEFAULT.hand(RATE)).render(0, 250_000, ridden, new float[250_000]);
    for (int i = 0; i < plain.length; i += 37) {
      assertThat(ridden[i]).isCloseTo(plain[i], within(2e-4f));
    }
  }

  @Test
  void whatIsWrittenSoundsAsItDidUnderTheHand() {
    RideRule rule = new RideRule(0.05, true, 0.4);
    Hand hand = rule.hand(RATE);
    Mixer mixer = with(hand);
    Pass pass = new Pass();
    float[] heard = new float[400 * BLOCK];
    float[] left = new float[BLOCK];
    for (int i = 0; i < 400; i++) {
      if (i > 50 && i < 250) {
        hand.hold(-8 + 5 * Math.sin(i / 20.0));
      } else {
        hand.letGo();
      }
      mixer.render((long) i * BLOCK, BLOCK, left, new float[BLOCK]);
      System.arraycopy(left, 0, heard, i * BLOCK, BLOCK);
      hand.takeInto(pass);
    }
    Project written =
        project.withTrack(track.id(), t -> t.withLine(Ride.written(t.line(), pass, rule, RATE)));
    float[] after = Projects.left(written, sounds, 0, heard.length);
    for (int i = 0; i < heard.length; i += 11) {
      if (heard[i] > 2e-3) {
        assertThat(Decibels.ofFactor(after[i]))
            .as("frame %d", i)
            .isCloseTo(Decibels.ofFactor(heard[i]), within(0.12));
      }
    }
  }

  @Test
  void aJumpOfTheHandDoesNotClick() {
    Hand hand = RideRule.DEFAULT.hand(RATE);
    Mixer mixer = with(hand);
    float[] left = new float[BLOCK];
    float last = Float.NaN;
    for (int i = 0; i < 40; i++) {
      hand.hold(i % 2 == 0 ? 6 : -40);
      mixer.render((long) i * BLOCK, BLOCK, left, new float[BLOCK]);
      for (int k = 0; k < BLOCK; k++) {
        if (!Float.isNaN(last)) {
          assertThat(Math.abs(left[k] - last)).isLessThan(0.03f);
        }
        last = left[k];
      }
    }
  }
}
