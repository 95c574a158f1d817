package hushrise.core.mix;

import static hushrise.core.mix.Projects.RATE;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import hushrise.core.Decibels;
import hushrise.core.level.TrackCurve;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelLine;
import hushrise.core.project.level.SegmentShape;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Seam;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

class MixerTest {

  private final Projects.Sounds sounds = new Projects.Sounds();

  @Test
  void theSameProjectGivesTheSameBitsWhateverTheBlocks() {
    Project project = Projects.rich(sounds);
    int frames = 10 * RATE;
    float[] left = new float[frames];
    float[] right = new float[frames];
    Mixer.of(project, sounds).render(0, frames, left, right);
    Random random = new Random(11);
    Mixer again = Mixer.of(project, sounds);
    for (int at = 0; at < frames; ) {
      int n = Math.min(frames - at, 1 + random.nextInt(9_000));
      float[] l = new float[n];
      float[] r = new float[n];
      again.render(at, n, l, r);
      assertThat(l).containsExactly(java.util.Arrays.copyOfRange(left, at, at + n));
      assertThat(r).containsExactly(java.util.Arrays.copyOfRange(right, at, at + n));
      at += n;
    }
  }

  @Test
  void goingBackwardsGivesTheSameBitsToo() {
    Project project = Projects.rich(sounds);
    float[] once = Projects.left(project, sounds, 150_000, 5_000);
    Mixer mixer = Mixer.of(project, sounds);
    float[] left = new float[5_000];
    mixer.render(400_000, 5_000, left, new float[5_000]);
    mixer.render(150_000, 5_000, left, new float[5_000]);
    assertThat(left).containsExactly(once);
  }

  @Test
  void theMixFollowsTheSumOfTheModelWithinAHundredthOfADecibel() {
    LevelLine line =
        LevelLine.of(
            List.of(
                new Keyframe(10_000, -3, SegmentShape.STRAIGHT),
                new Keyframe(40_000, 2, SegmentShape.SMOOTH),
                new Keyframe(80_000, -12, SegmentShape.STRAIGHT)));
    Track track =
        Track.of(TrackKind.MUSIC, "m", List.of())
            .withLevelDb(-4)
            .withLine(line)
            .withHushes(List.of(Hush.over(new Span(120_000, 160_000), -11.6)));
    Project project = Projects.ofTrack(sounds, track, 250_000);
    float[] left = Projects.left(project, sounds, 0, 250_000);
    TrackCurve curve = TrackCurve.of(track, RATE);
    for (int i = 0; i < left.length; i += 37) {
      assertThat(Decibels.ofFactor(left[i]))
          .as("frame %d", i)
          .isCloseTo(curve.levelDbAt(i), within(0.01));
    }
  }

  @Test
  void noGainJumpsBetweenNeighbouringSamplesWithoutAHold() {
    Track track =
        Track.of(TrackKind.MUSIC, "m", List.of())
            .withLine(
                LevelLine.of(
                    List.of(
                        new Keyframe(10_000, 0, SegmentShape.STRAIGHT),
                        new Keyframe(14_800, -30, SegmentShape.STRAIGHT))))
            .withHushes(List.of(Hush.over(new Span(60_000, 90_000), -20)));
    float[] left = Projects.left(Projects.ofTrack(sounds, track, 150_000), sounds, 0, 150_000);
    for (int i = 1; i < left.length; i++) {
      double step = Math.abs(Decibels.ofFactor(left[i]) - Decibels.ofFactor(left[i - 1]));
      assertThat(step).as("frame %d", i).isLessThan(0.1);
    }
  }

  @Test
  void aMonoClipSoundsInBothChannels() {
    Media mono = sounds.add("mono", MediaKind.VOICE, Projects.noise(9, 1_000, 0.5));
    Project project =
        Project.empty("p")
            .withMedia(mono)
            .withTracks(List.of(Track.of(TrackKind.VOICE, "v", List.of(Clip.whole(mono, 0)))));
    float[] left = new float[1_000];
    float[] right = new float[1_000];
    Mixer.of(project, sounds).render(0, 1_000, left, right);
    assertThat(left).containsExactly(right);
    assertThat(left[500]).isNotZero();
  }

  @Test
  void aSeamCrossfadesWithEqualPowerAndPlaysOnFromItsTarget() {
    float[] ramp = new float[100_000];
    for (int i = 0; i < ramp.length; i++) {
      ramp[i] = i / 100_000f;
    }
    Media media = sounds.add("ramp", MediaKind.MUSIC, ramp);
    Clip clip =
        Clip.whole(media, 0)
            .withContent(80_000, List.of(new Seam(50_000, 50_000, 10_000, 2_000, 1)));
    Project project =
        Project.empty("p")
            .withMedia(media)
            .withTracks(List.of(Track.of(TrackKind.MUSIC, "m", List.of(clip))));
    float[] left = Projects.left(project, sounds, 0, 80_000);
    assertThat(left[48_999]).isEqualTo(0.48999f);
    assertThat(left[51_000]).isEqualTo(0.11f);
    double middle = (0.5 + 0.1) * Math.sqrt(0.5);
    assertThat(left[50_000]).isCloseTo((float) middle, within(0.001f));
  }

  @Test
  void mutedTracksAreSilentAndSoloedOnesAlone() {
    Project project = Projects.rich(sounds);
    String music = project.tracks().get(1).id();
    Project muted = project.withTrack(music, t -> t.withMuted(true));
    assertThat(Projects.left(muted, sounds, 70_000, 1_000)).containsOnly(0f);
    Project soloed = project.withTrack(music, t -> t.withSoloed(true));
    Project alone = project.withTracks(List.of(project.tracks().get(1)));
    assertThat(Projects.left(soloed, sounds, 90_000, 9_000))
        .containsExactly(Projects.left(alone, sounds, 90_000, 9_000));
  }

  @Test
  void aLineAtMinusSixtyIsOff() {
    Track track =
        Track.of(TrackKind.MUSIC, "m", List.of())
            .withLine(LevelLine.of(List.of(new Keyframe(0, -60, SegmentShape.STRAIGHT))));
    assertThat(Projects.left(Projects.ofTrack(sounds, track, 2_000), sounds, 0, 2_000))
        .containsOnly(0f);
  }
}
