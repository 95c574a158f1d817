package hushrise.core.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import hushrise.core.Decibels;
import hushrise.core.loudness.ClipPeaks;
import hushrise.core.loudness.Measurement;
import hushrise.core.mix.Mixer;
import hushrise.core.mix.Projects;
import hushrise.core.project.Project;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.separation.Energies;
import hushrise.core.time.Span;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

/** One step to the loudness usual for a kind, and where sound is hot. */
class SafeLevelTest {

  private static final int RATE = 48_000;

  private final Projects.Sounds sounds = new Projects.Sounds();
  private final Project rich = spoken(Projects.rich(sounds));

  private static Project spoken(Project project) {
    return project.withMedia(
        "voice", m -> m.withSpeech(Optional.of(List.of(new Span(20_000, 100_000)))));
  }

  private static Set<String> allClips(Project project) {
    return project.tracks().stream()
        .flatMap(t -> t.clips().stream())
        .map(Clip::id)
        .collect(Collectors.toSet());
  }

  private Project safe(Project project, SafeLevel.Rule rule) {
    return SafeLevel.of(project, allClips(project), Energies.of(project, sounds), sounds, rule);
  }

  private double peakDb(Project project, Track track) {
    Mixer mixer = Mixer.of(project.withMasterDb(0), sounds, t -> t.id().equals(track.id()));
    int length = (int) project.lengthFrames();
    float[] left = new float[length];
    float[] right = new float[length];
    mixer.render(0, length, left, right);
    double peak = 0;
    for (int i = 0; i < length; i++) {
      peak = Math.max(peak, Math.max(Math.abs(left[i]), Math.abs(right[i])));
    }
    return Decibels.ofFactor(peak);
  }

  @Test
  void eachKindComesToItsLoudnessOrAsNearAsItsPeaksAllow() {
    // Noise has peaks 5 dB over its level; with a high mark nothing stands in the way.
    Project made = safe(rich, SafeLevel.Rule.DEFAULT.withHotDb(0));
    Track voice = made.tracks().getFirst();
    Mixer alone = Mixer.of(made.withMasterDb(0), sounds, t -> t.id().equals(voice.id()));
    double lufs =
        Measurement.integratedLufs(alone, new Span(90_001 + 20_000, 90_001 + 100_000), RATE);
    assertThat(lufs).isCloseTo(-20, within(0.1));
    Track horn = made.tracks().get(2);
    Mixer effects = Mixer.of(made.withMasterDb(0), sounds, t -> t.id().equals(horn.id()));
    assertThat(Measurement.integratedLufs(effects, Span.ofLength(12_345, RATE), RATE))
        .isCloseTo(-22, within(0.1));
  }

  @Test
  void peaksStayUnderTheHotMarkAfterAllLevels() {
    for (double hot : new double[] {-6, -18, -24}) {
      Project made = safe(rich, SafeLevel.Rule.DEFAULT.withHotDb(hot));
      for (Track track : made.tracks()) {
        assertThat(peakDb(made, track)).isLessThanOrEqualTo(hot);
        assertThat(ClipPeaks.of(made, track, sounds).hotSpots(hot)).isEmpty();
      }
    }
  }

  @Test
  void theNumbersCanBeChanged() {
    Project made = safe(rich, SafeLevel.Rule.DEFAULT.withHotDb(0).withLufs(TrackKind.EFFECTS, -30));
    Track horn = made.tracks().get(2);
    Mixer effects = Mixer.of(made.withMasterDb(0), sounds, t -> t.id().equals(horn.id()));
    assertThat(Measurement.integratedLufs(effects, Span.ofLength(12_345, RATE), RATE))
        .isCloseTo(-30, within(0.1));
  }

  @Test
  void hotSpotsLieWhereTheTrackPeaksAndSayHowMuch() {
    float[] loud = new float[10 * RATE];
    loud[3 * RATE + 700] = 0.9f;
    loud[3 * RATE + 9_000] = -0.8f;
    loud[7 * RATE] = 0.7f;
    var media = sounds.add("clicks", hushrise.core.project.media.MediaKind.EFFECT, loud);
    Track track = Track.of(TrackKind.EFFECTS, "e", List.of(Clip.whole(media, 5_000)));
    Project project = Project.empty("p").withMedia(media).withTracks(List.of(track));
    List<ClipPeaks.HotSpot> spots = ClipPeaks.of(project, track, sounds).hotSpots(-6);
    assertThat(spots).hasSize(2);
    assertThat(spots.getFirst().peakDb()).isCloseTo(Decibels.ofFactor(0.9), within(1e-4));
    assertThat(spots.getFirst().peakFrame()).isCloseTo(5_000 + 3L * RATE + 700, within(960L));
    assertThat(spots.getFirst().span().endFrame()).isGreaterThan(5_000 + 3L * RATE + 9_000 - 480);
    Track lower = track.withLevelDb(-4);
    assertThat(ClipPeaks.of(project, lower, sounds).hotSpots(-6)).hasSize(1);
  }
}
