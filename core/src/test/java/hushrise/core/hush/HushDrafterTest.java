package hushrise.core.hush;

import static hushrise.core.hush.Talk.at;
import static hushrise.core.mix.Projects.RATE;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import hushrise.core.edit.HushEdits;
import hushrise.core.edit.LevelEdits;
import hushrise.core.hush.HushDraft.Change;
import hushrise.core.hush.HushDraft.Note;
import hushrise.core.hush.HushDraft.Why;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.HushNumber;
import hushrise.core.project.level.HushRule;
import hushrise.core.project.level.Rise;
import hushrise.core.project.level.Turn;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Track;
import hushrise.core.separation.Energies;
import hushrise.core.separation.PassageLoudness;
import hushrise.core.speech.Passages;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;

@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class HushDrafterTest {

  private final Talk talk =
      new Talk(60, new double[] {4, 9}, new double[] {20, 26, 0.12}, new double[] {40, 47});

  private HushDraft draft(Project project) {
    return HushDrafter.draft(project, talk.sounds);
  }

  private static List<Hush> hushes(Project project) {
    return project.firstTrack(TrackKind.MUSIC).orElseThrow().hushes();
  }

  private Project ruled(HushRule rule) {
    return talk.project.withTrack(talk.music().id(), t -> t.withRule(Optional.of(rule)));
  }

  private static HushRule rule() {
    return HushRule.of(10);
  }

  @Test
  void everyPassageReachesTheSeparationAndNoneGoesMuchDeeper() {
    Random random = new Random(11);
    List<double[]> bursts = new ArrayList<>();
    for (double at = 3; at < 280; ) {
      double length = 1 + 6 * random.nextDouble();
      bursts.add(new double[] {at, at + length, 0.05 + 0.3 * random.nextDouble()});
      at += length + 0.6 + 5 * random.nextDouble();
    }
    Talk many = new Talk(300, bursts.toArray(new double[0][]));
    Project busy = many.with(TrackKind.CAMERA, 0.004);
    Project drafted = HushDrafter.draft(busy, many.sounds).after();
    List<PassageLoudness> rendered =
        PassageLoudness.measure(drafted, many.sounds, Passages.of(drafted));
    assertThat(rendered).hasSizeGreaterThan(30);
    assertThat(rendered).allSatisfy(p -> assertThat(p.separationLu()).isBetween(9.7, 12.3));
  }

  @Test
  void oneWhoSpeaksAloneGetsAHushOfHisOwnDepth() {
    HushDraft draft = draft(talk.project);
    assertThat(draft.lines()).extracting(HushDraft.Line::change).containsOnly(Change.NEW);
    assertThat(draft.lines()).extracting(HushDraft.Line::why).containsOnly(Why.NEEDED);
    List<Hush> hushes = hushes(draft.after());
    assertThat(hushes).extracting(Hush::passage).isEqualTo(Passages.of(talk.project));
    assertThat(hushes.get(1).depthDb()).isLessThan(hushes.get(0).depthDb() - 3);
    assertThat(draft.before()).isEqualTo(talk.project);
  }

  @Test
  void whatIsClearEnoughGetsNoHushAndWhatIsNotGetsOne() {
    Talk one = new Talk(20, new double[] {4, 9});
    double stands =
        PassageLoudness.measure(one.project, one.sounds, Passages.of(one.project))
            .getFirst()
            .separationLu();
    for (double missing : new double[] {0.2, 0.5}) {
      HushRule asked = HushRule.of(stands + missing);
      Project ruled = one.project.withTrack(one.music().id(), t -> t.withRule(Optional.of(asked)));
      List<Hush> made = hushes(HushDrafter.draft(ruled, one.sounds).after());
      assertThat(made).as("%s LU missing", missing).hasSize(missing < 0.3 ? 0 : 1);
    }
  }

  @Test
  void aDraftOfADraftChangesNothing() {
    Project once = draft(talk.project).after();
    HushDraft twice = draft(once);
    assertThat(twice.after()).isEqualTo(once);
    assertThat(twice.count(Change.KEPT)).isEqualTo(3);
  }

  @Test
  void numbersSetByHandStayAndAreGivenBackWhenForgotten() {
    Project once = draft(talk.project).after();
    Hush first = hushes(once).getFirst();
    Hush second = hushes(once).get(1);
    Project byHand = LevelEdits.setHushDepth(once, first.id(), -3);
    byHand = HushEdits.setTurn(byHand, second.id(), t -> t.withRecovery(2));
    Project louder = byHand.withTrack(talk.voice().id(), t -> t.withLevelDb(3));
    HushDraft again = draft(louder);
    Hush kept = hushes(again.after()).getFirst();
    assertThat(kept).isEqualTo(hushes(byHand).getFirst());
    assertThat(kept.byHand()).containsExactly(HushNumber.DEPTH);
    Hush partly = hushes(again.after()).get(1);
    assertThat(partly.turn()).isEqualTo(Turn.DEFAULT.withRecovery(2));
    assertThat(partly.depthDb()).isCloseTo(second.depthDb() + 3, within(0.05));
    assertThat(again.lines())
        .extracting(HushDraft.Line::why)
        .containsExactly(Why.BY_HAND, Why.NEEDED, Why.NEEDED);
    Project forgotten = HushEdits.forgetByHand(again.after(), first.id());
    assertThat(hushes(draft(forgotten).after()).getFirst().depthDb())
        .isCloseTo(first.depthDb() + 3, within(0.05));
  }

  @Test
  void aPlaceSetByHandStays() {
    Project once = draft(talk.project).after();
    Hush first = hushes(once).getFirst();
    Span own = new Span(at(3), at(11));
    Project moved = HushEdits.setPassage(once, first.id(), own);
    assertThat(hushes(draft(moved).after()).getFirst().passage()).isEqualTo(own);
    Project away = HushEdits.setPassage(once, first.id(), new Span(at(30), at(33)));
    HushDraft draft = draft(away);
    assertThat(draft.lines())
        .filteredOn(l -> l.hush().id().equals(first.id()))
        .singleElement()
        .satisfies(l -> assertThat(l.why()).isEqualTo(Why.BY_HAND));
    assertThat(hushes(draft.after())).hasSize(4);
  }

  @Test
  void whatIsNoLongerNeededGoes() {
    Project once = draft(talk.project).after();
    Project soft = once.withTrack(talk.music().id(), t -> t.withLevelDb(-40));
    HushDraft draft = draft(soft);
    assertThat(hushes(draft.after())).isEmpty();
    assertThat(draft.lines()).extracting(HushDraft.Line::why).containsOnly(Why.NOT_NEEDED);
    Project stray = HushEdits.add(once, talk.music().id(), Hush.over(new Span(at(31), at(34)), -6));
    assertThat(draft(stray).lines())
        .filteredOn(l -> l.change() == Change.GONE)
        .singleElement()
        .satisfies(l -> assertThat(l.why()).isEqualTo(Why.NO_PASSAGE));
  }

  @Test
  void nearPassagesShareTheFloorAndUnlikeOnesGetTheirOwn() {
    Talk near = new Talk(30, new double[] {4, 8}, new double[] {9, 13}, new double[] {16, 18});
    assertThat(hushes(HushDrafter.draft(near.project, near.sounds).after()))
        .extracting(Hush::passage)
        .containsExactly(new Span(at(4), at(13)), new Span(at(16), at(18)));
    Talk unlike = new Talk(30, new double[] {4, 8, 0.05}, new double[] {9, 13, 0.2});
    List<Hush> two = hushes(HushDrafter.draft(unlike.project, unlike.sounds).after());
    assertThat(two).hasSize(2);
    assertThat(two.get(0).endFrame()).isEqualTo(at(8));
    assertThat(two.get(1).startFrame()).isEqualTo(at(8));
    assertThat(two.get(1).depthDb()).isGreaterThan(two.get(0).depthDb() + 2);
    Project even =
        unlike.project.withTrack(
            unlike.music().id(), t -> t.withRule(Optional.of(rule().withEven(true))));
    assertThat(hushes(HushDrafter.draft(even, unlike.sounds).after()))
        .singleElement()
        .satisfies(h -> assertThat(h.depthDb()).isCloseTo(two.get(0).depthDb(), within(0.1)));
  }

  @Test
  void aLoudWordBetweenSoftOnesDoesNotBringTheMusicUp() {
    for (double word : new double[] {0.4, 1, 3}) {
      double then = 9 + word + 0.5;
      Talk talk =
          new Talk(
              30,
              new double[] {4, 8.5, 0.05},
              new double[] {9, 9 + word, 0.3},
              new double[] {then, then + 4, 0.05});
      List<Hush> hushes = hushes(HushDrafter.draft(talk.project, talk.sounds).after());
      assertThat(hushes).as("a word of %s s", word).hasSize(word < 2 ? 1 : 3);
    }
  }

  @Test
  void wordsOfUnequalLoudnessAreAllClearAndTheMusicStaysDown() {
    List<double[]> words = new ArrayList<>();
    for (int i = 0; i < 40; i++) {
      words.add(new double[] {3 + i, 3.6 + i, i % 2 == 0 ? 0.04 : 0.1 + 0.05 * (i % 5)});
    }
    Talk talk = new Talk(60, words.toArray(new double[0][]));
    Project drafted = HushDrafter.draft(talk.project, talk.sounds).after();
    assertThat(PassageLoudness.measure(drafted, talk.sounds, Passages.of(drafted)))
        .allSatisfy(p -> assertThat(p.separationLu()).isGreaterThan(9.7));
    List<Hush> floors = hushes(drafted);
    assertThat(floors).hasSizeBetween(3, 20);
    for (int i = 1; i < floors.size() - 1; i++) {
      Hush floor = floors.get(i);
      if (floor.passage().lengthFrames() < at(2)) {
        double higher =
            Math.max(floors.get(i - 1).depthDb(), floors.get(i + 1).depthDb()) - floor.depthDb();
        assertThat(higher).as("at %s", floor.passage()).isPositive();
      }
    }
  }

  @Test
  void evenDepthGivesNeighboursTheDeepest() {
    List<Hush> plain = hushes(draft(talk.project).after());
    List<Hush> even = hushes(draft(ruled(rule().withEven(true))).after());
    assertThat(even.get(2).depthDb()).isCloseTo(plain.get(2).depthDb(), within(0.05));
    Talk close = new Talk(40, new double[] {4, 8, 0.1}, new double[] {12, 16, 0.3});
    Project project =
        close.project.withTrack(
            close.music().id(), t -> t.withRule(Optional.of(rule().withEven(true))));
    HushDraft draft = HushDrafter.draft(project, close.sounds);
    assertThat(hushes(draft.after())).extracting(Hush::depthDb).hasSize(2);
    assertThat(hushes(draft.after()).get(0).depthDb())
        .isEqualTo(hushes(draft.after()).get(1).depthDb());
    assertThat(draft.lines()).extracting(HushDraft.Line::why).containsExactly(Why.NEEDED, Why.EVEN);
  }

  @Test
  void aRuleCanFixTheDepthAndLimitIt() {
    assertThat(hushes(draft(ruled(rule().withFixedDepthDb(OptionalDouble.of(-7)))).after()))
        .extracting(Hush::depthDb)
        .containsOnly(-7.0);
    HushDraft limited = draft(ruled(rule().withDepths(-5, 0)));
    assertThat(hushes(limited.after())).extracting(Hush::depthDb).containsOnly(-5.0);
    assertThat(limited.lines()).extracting(HushDraft.Line::why).containsOnly(Why.DEEPEST);
    assertThat(hushes(draft(ruled(rule().withDepths(-40, -25))).after()))
        .extracting(Hush::depthDb)
        .containsOnly(-25.0);
  }

  @Test
  void aTurnUnderTheSpeechIsMadeUpForByDepth() {
    Turn under = new Turn(-0.4, 0.3, -0.4, 0.6);
    Project drafted = draft(ruled(rule().withTurn(under))).after();
    assertThat(PassageLoudness.measure(drafted, talk.sounds, Passages.of(drafted)))
        .allSatisfy(p -> assertThat(p.separationLu()).isGreaterThan(9.7));
    assertThat(hushes(drafted).getFirst().depthDb())
        .isLessThan(hushes(draft(talk.project).after()).getFirst().depthDb() - 0.3);
  }

  @Test
  void whereOtherSoundsAreTooLoudItSaysSoAndDoesNotDigForNothing() {
    Project loud = talk.with(TrackKind.EFFECTS, 0.2);
    HushDraft draft = draft(loud);
    assertThat(draft.lines()).extracting(HushDraft.Line::why).containsOnly(Why.OTHERS_TOO_LOUD);
    assertThat(hushes(draft.after()))
        .allSatisfy(h -> assertThat(h.depthDb()).isBetween(-25.0, -5.0));
  }

  @Test
  void anEffectsTrackWithARuleGoesDownToo() {
    Project loud = talk.with(TrackKind.EFFECTS, 0.2);
    String effects = loud.firstTrack(TrackKind.EFFECTS).orElseThrow().id();
    Project ruled = loud.withTrack(effects, t -> t.withRule(Optional.of(HushRule.of(15))));
    Project drafted = draft(ruled).after();
    assertThat(drafted.track(effects).orElseThrow().hushes()).hasSize(3);
    assertThat(PassageLoudness.measure(drafted, talk.sounds, Passages.of(drafted)))
        .allSatisfy(p -> assertThat(p.separationLu()).isBetween(9.7, 12.3));
  }

  @Test
  void loudCameraSoundGoesUnderByItsOwnRuleAndTheMusicByTheRest() {
    Project loud = talk.with(TrackKind.CAMERA, 0.2);
    Project drafted = draft(loud).after();
    Track camera = drafted.firstTrack(TrackKind.CAMERA).orElseThrow();
    assertThat(camera.hushes()).hasSize(3);
    Energies energies = Energies.of(drafted, talk.sounds);
    for (Span passage : Passages.of(drafted)) {
      double voice = energies.lufs(energies.track(talk.voice().id()), passage);
      assertThat(voice - energies.lufs(energies.track(camera.id()), passage)).isBetween(14.9, 17.1);
    }
    assertThat(PassageLoudness.measure(drafted, talk.sounds, Passages.of(drafted)))
        .allSatisfy(p -> assertThat(p.separationLu()).isBetween(9.7, 12.3));
  }

  @Test
  void aRuleMayListenToOneVoiceAlone() {
    String other = "nobody";
    HushDraft draft = draft(ruled(rule().withVoices(List.of(other))));
    assertThat(draft.after()).isEqualTo(draft.before());
    assertThat(hushes(draft(ruled(rule().withVoices(List.of(talk.voice().id())))).after()))
        .hasSize(3);
  }

  @Test
  void gapsGetRisesUpToTheVoiceBetweenTheRecoveries() {
    Project quiet =
        ruled(rule().withRises(Optional.of(HushRule.RiseRule.USUAL)))
            .withTrack(talk.music().id(), t -> t.withLevelDb(-8));
    HushDraft draft = draft(quiet);
    Track music = draft.after().firstTrack(TrackKind.MUSIC).orElseThrow();
    assertThat(draft.rises()).isEqualTo(music.rises().size()).isGreaterThan(1);
    Rise second = music.rises().get(1);
    Hush before = music.hushes().getFirst();
    assertThat(second.startFrame()).isEqualTo(before.knots(RATE).floorEnd());
    assertThat(second.heightDb()).isBetween(0.5, 6.0);
    assertThat(second.drafted()).isTrue();
    assertThat(draft(draft.after()).after()).isEqualTo(draft.after());
    Project byHand = HushEdits.setRiseHeight(draft.after(), second.id(), 2);
    Rise kept =
        draft(byHand).after().firstTrack(TrackKind.MUSIC).orElseThrow().rise(second.id()).get();
    assertThat(kept.heightDb()).isEqualTo(2);
  }

  @Test
  void risesLeaveSpeechAloneThatNeedsNoHush() {
    Project quiet =
        ruled(rule().withRises(Optional.of(HushRule.RiseRule.USUAL)))
            .withTrack(talk.music().id(), t -> t.withLevelDb(-26));
    HushDraft draft = draft(quiet);
    Track music = draft.after().firstTrack(TrackKind.MUSIC).orElseThrow();
    assertThat(music.hushes()).isEmpty();
    assertThat(music.rises()).hasSize(4);
    List<Span> apart = new ArrayList<>(Passages.of(quiet));
    music.rises().forEach(r -> apart.add(r.span()));
    apart.sort(Comparator.comparingLong(Span::startFrame));
    for (int i = 1; i < apart.size(); i++) {
      assertThat(apart.get(i).startFrame()).isGreaterThanOrEqualTo(apart.get(i - 1).endFrame());
    }
    assertThat(PassageLoudness.measure(draft.after(), talk.sounds, Passages.of(quiet)))
        .isEqualTo(PassageLoudness.measure(quiet, talk.sounds, Passages.of(quiet)));
    assertThat(draft(draft.after()).after()).isEqualTo(draft.after());
  }

  @Test
  void whatStandsInTheWayIsSaid() {
    String voice = talk.voice().id();
    assertThat(draft(talk.project.withTrack(voice, t -> t.withClips(List.of()))).notes())
        .containsExactly(Note.NO_VOICE_TRACK);
    assertThat(
            draft(talk.project.withMedia(talk.take.id(), m -> m.withSpeech(Optional.of(List.of()))))
                .notes())
        .containsExactly(Note.NO_SPEECH);
    assertThat(draft(talk.project.withTracks(List.of(talk.voice()))).notes())
        .containsExactly(Note.NOTHING_UNDER_IT);
    Project onlyEffects =
        talk.with(TrackKind.EFFECTS, 0.1).withTrack(talk.music().id(), t -> t.withClips(List.of()));
    assertThat(draft(onlyEffects).notes()).containsExactly(Note.NO_RULE);
    Project everywhere =
        talk.project.withMedia(
            talk.take.id(), m -> m.withSpeech(Optional.of(List.of(new Span(0, m.lengthFrames())))));
    assertThat(draft(everywhere).notes()).containsExactly(Note.SPEECH_EVERYWHERE);
    assertThat(hushes(draft(everywhere).after())).hasSize(1);
    Project shorter =
        talk.project.withTrack(
            talk.music().id(),
            t -> t.withClips(List.of(t.clips().getFirst().withContent(at(43), List.of()))));
    assertThat(draft(shorter).notes()).containsExactly(Note.MUSIC_ENDS_IN_PASSAGE);
  }

  @Test
  void oneHushIsAsDeepAsItsPassageNeeds() {
    Span passage = new Span(at(20), at(26));
    Hush hush =
        SingleHush.of(
                talk.project,
                talk.sounds,
                Energies.of(talk.project, talk.sounds),
                talk.music().id(),
                passage,
                Turn.DEFAULT)
            .orElseThrow();
    assertThat(hush.depthDb())
        .isCloseTo(hushes(draft(talk.project).after()).get(1).depthDb(), within(0.05));
    assertThat(hush.byHand()).isEmpty();
  }
}
