package hushrise.core.separation;

import static hushrise.core.mix.Projects.RATE;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import hushrise.core.edit.ClipEdits;
import hushrise.core.edit.HushEdits;
import hushrise.core.edit.LevelEdits;
import hushrise.core.edit.SpeechEdits;
import hushrise.core.hush.Talk;
import hushrise.core.loudness.GatedLoudness;
import hushrise.core.loudness.LoudnessMeter;
import hushrise.core.loudness.LoudnessSteps;
import hushrise.core.loudness.Measurement;
import hushrise.core.mix.Mixer;
import hushrise.core.mix.Projects;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Side;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import hushrise.core.speech.Passages;
import hushrise.core.time.Span;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;

@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class SeparationTest {

  private final Talk talk =
      new Talk(40, new double[] {3, 8}, new double[] {12, 19, 0.05}, new double[] {30, 36});

  @Test
  void stepsGiveTheLoudnessThatAMeterGives() {
    float[] left = Projects.noise(1, 10 * RATE + 133, 0.3);
    float[] right = Projects.noise(2, 10 * RATE + 133, 0.1);
    LoudnessSteps steps = LoudnessSteps.of(SampleSource.of(left, right), RATE, Progress.NONE);
    LoudnessMeter meter = LoudnessMeter.forChannels(RATE, 2);
    meter.add(new float[][] {left, right}, 0, left.length);
    double reckoned =
        GatedLoudness.lufs(i -> steps.energy(0, i) + steps.energy(1, i), 0, steps.count() - 1);
    assertThat(reckoned).isCloseTo(meter.integratedLufs(), within(0.001));
  }

  @Test
  void clippedSamplesAreCountedInRuns() {
    float[] sound = Projects.constant(RATE, 0.5);
    sound[100] = 1;
    sound[1000] = 1;
    sound[1001] = -1;
    sound[1002] = 1;
    LoudnessSteps steps = LoudnessSteps.of(SampleSource.of(sound), RATE, Progress.NONE);
    assertThat(steps.clipped(0)).isZero();
    assertThat(steps.clipped(2)).isEqualTo(3);
  }

  @Test
  void energiesOfAnythingATrackCanHaveAgreeWithWhatIsRendered() {
    Projects.Sounds sounds = new Projects.Sounds();
    Project rich = Projects.rich(sounds);
    Energies energies = Energies.of(rich, sounds);
    for (Track track : rich.tracks()) {
      Mixer mixer = Mixer.of(rich.withMasterDb(0), sounds, t -> t.id().equals(track.id()));
      for (int second = 0; second < 8; second++) {
        Span span = new Span(second * (long) RATE, (second + 2L) * RATE);
        double rendered = Measurement.integratedLufs(mixer, span, RATE);
        double reckoned = energies.lufs(energies.track(track.id()), span);
        if (rendered > -60) {
          assertThat(reckoned)
              .as("%s from %d s", track.name(), second)
              .isCloseTo(rendered, within(0.15));
        }
      }
    }
  }

  @Test
  void oneSideAndPanCountAsTheyAreHeard() {
    Projects.Sounds sounds = new Projects.Sounds();
    Media media =
        sounds.add(
            "wide",
            MediaKind.MUSIC,
            Projects.noise(1, 4 * RATE, 0.3),
            Projects.noise(2, 4 * RATE, 0.02));
    for (Side side : Side.values()) {
      Track track =
          Track.of(TrackKind.MUSIC, "m", List.of(Clip.whole(media, 0).withSide(side))).withPan(0.4);
      Project project = Project.empty("p").withMedia(media).withTracks(List.of(track));
      Span all = new Span(0, 4L * RATE);
      Energies energies = Energies.of(project, sounds);
      assertThat(energies.lufs(energies.track(track.id()), all))
          .isCloseTo(
              Measurement.integratedLufs(Mixer.of(project, sounds), all, RATE), within(0.02));
    }
  }

  @Test
  void passagesMeasureAsTheyDoRendered() {
    Project hushed =
        talk.project.withTrack(
            talk.music().id(),
            t -> t.withHushes(List.of(Hush.over(new Span(3L * RATE, 8L * RATE), -9))));
    Separation separation = Separation.of(Energies.of(hushed, talk.sounds), 10);
    List<PassageLoudness> rendered =
        PassageLoudness.measure(hushed, talk.sounds, Passages.of(hushed));
    assertThat(separation.passages()).hasSize(3);
    for (int i = 0; i < 3; i++) {
      assertThat(separation.passages().get(i).separationLu())
          .isCloseTo(rendered.get(i).separationLu(), within(0.05));
    }
    assertThat(separation.worst().orElseThrow().passage().startFrame()).isEqualTo(12L * RATE);
  }

  @Test
  void aMomentHasAValueOnlyWhereSomebodySpeaks() {
    Separation separation = Separation.of(Energies.of(talk.project, talk.sounds), 10);
    assertThat(separation.at(10)).isNaN();
    assertThat(separation.at(50)).isBetween(-12f, 5f);
    assertThat(separation.at(150)).isLessThan(separation.at(50));
    assertThat(separation.stateOfMoment(separation.at(150))).isEqualTo(Separation.State.BURIED);
    assertThat(separation.at(-1)).isNaN();
    assertThat(separation.at(100_000)).isNaN();
  }

  @Test
  void aBreathWithinAPassageHasNoValueAndASoftWordHas() {
    Projects.Sounds sounds = new Projects.Sounds();
    float[] voice = Projects.noise(1, 9 * RATE, 0.2);
    for (int i = 3 * RATE; i < 5 * RATE; i++) {
      voice[i] *= 0.25f;
    }
    for (int i = 6 * RATE; i < 8 * RATE; i++) {
      voice[i] *= 0.7f;
    }
    Span all = new Span(0, 9L * RATE);
    Media take = sounds.add("take", MediaKind.VOICE, voice).withSpeech(Optional.of(List.of(all)));
    Media bed = sounds.add("bed", MediaKind.MUSIC, Projects.noise(2, 9 * RATE, 0.05));
    Project project =
        Project.empty("p")
            .withMedia(take)
            .withMedia(bed)
            .withTracks(
                List.of(
                    Track.of(TrackKind.VOICE, "v", List.of(Clip.whole(take, 0))),
                    Track.of(TrackKind.MUSIC, "m", List.of(Clip.whole(bed, 0)))));
    Separation separation = Separation.of(Energies.of(project, sounds), 10);
    assertThat(separation.at(40)).isNaN();
    assertThat((double) separation.at(15)).isCloseTo(12.04, within(0.3));
    assertThat((double) separation.at(70)).isCloseTo(12.04 - 3.1, within(0.3));
  }

  @Test
  void onlyTheChangedStretchIsReckonedAndGivesTheSame() {
    Projects.Sounds sounds = new Projects.Sounds();
    Project rich = Projects.rich(sounds);
    Energies known = Energies.of(rich, sounds);
    String music = rich.tracks().get(1).id();
    List<UnaryOperator<Project>> edits =
        List.of(
            p -> LevelEdits.moveKeyframe(p, music, 1, 3L * RATE + 500, -2),
            p ->
                LevelEdits.moveStretch(
                    LevelEdits.addKeyframe(p, music, 5L * RATE), music, 5L * RATE, 8L * RATE, 2),
            p -> LevelEdits.removeKeyframe(p, music, 8L * RATE),
            p -> HushEdits.add(p, music, Hush.over(new Span(RATE, 2L * RATE), -8)),
            p -> p.withTrack(music, t -> t.withHushes(List.of()).withRises(List.of())),
            p -> ClipEdits.move(p, Set.of("song"), 30_000, true),
            p -> ClipEdits.trimEnd(p, "song", 6L * RATE),
            p -> p.withTrack(music, t -> t.withPan(0.5)));
    for (UnaryOperator<Project> edit : edits) {
      Project edited = edit.apply(rich);
      EnergySteps followed = known.following(edited, sounds).track(music);
      EnergySteps anew = Energies.of(edited, sounds).track(music);
      assertThat(followed.hasSameEnergies(anew)).isTrue();
      assertThat(followed.hasSameEnergies(known.track(music))).isFalse();
    }
  }

  @Test
  void aSeparationThatFollowsEditsIsTheSameAsOneReckonedAnew() {
    String music = talk.music().id();
    String voice = talk.voice().id();
    String take = talk.voice().clips().getFirst().id();
    Span second = new Span(12L * RATE, 19L * RATE);
    List<UnaryOperator<Project>> edits =
        List.of(
            p -> HushEdits.add(p, music, Hush.over(second, -9)),
            p -> LevelEdits.addKeyframe(p, music, 20L * RATE),
            p -> LevelEdits.moveKeyframe(p, music, 0, 21L * RATE, -4),
            p -> SpeechEdits.change(p, talk.take.id(), 1, new Span(13L * RATE, 18L * RATE)),
            p -> ClipEdits.move(p, Set.of(take), RATE / 3, false),
            p -> p.withTrack(voice, t -> t.withLevelDb(-2)),
            p -> p.withTrack(music, t -> t.withMuted(true)),
            p -> p.withTrack(music, t -> t.withMuted(false)),
            p -> ClipEdits.trimEnd(p, take, 33L * RATE));
    Project project = talk.project;
    Energies energies = Energies.of(project, talk.sounds);
    Separation followed = Separation.of(energies, 10);
    for (int e = 0; e < edits.size(); e++) {
      project = edits.get(e).apply(project);
      energies = energies.following(project, talk.sounds);
      followed = followed.following(energies, 9 + e);
      Separation anew = Separation.of(Energies.of(project, talk.sounds), 9 + e);
      assertThat(followed.passages()).as("after edit %d", e).isEqualTo(anew.passages());
      assertThat(followed.wantedLu()).isEqualTo(anew.wantedLu());
      assertThat(valuesOf(followed)).as("after edit %d", e).containsExactly(valuesOf(anew));
    }
  }

  private static float[] valuesOf(Separation separation) {
    float[] values = new float[separation.count()];
    for (int i = 0; i < values.length; i++) {
      values[i] = separation.at(i);
    }
    return values;
  }

  @Test
  void whatDidNotChangeIsNotReckonedAgain() {
    Energies first = Energies.of(talk.project, talk.sounds);
    Project renamed = talk.project.withTrack(talk.music().id(), t -> t.withName("Bed"));
    Project lowered = talk.project.withTrack(talk.music().id(), t -> t.withLevelDb(-6));
    assertThat(first.following(renamed, talk.sounds).track(talk.music().id()))
        .isSameAs(first.track(talk.music().id()));
    Energies second = first.following(lowered, talk.sounds);
    assertThat(second.track(talk.voice().id())).isSameAs(first.track(talk.voice().id()));
    Span all = new Span(0, talk.song.lengthFrames());
    assertThat(second.lufs(second.track(talk.music().id()), all))
        .isCloseTo(first.lufs(first.track(talk.music().id()), all) - 6, within(0.001));
  }
}
