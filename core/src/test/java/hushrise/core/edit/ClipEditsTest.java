package hushrise.core.edit;

import static hushrise.core.mix.Projects.RATE;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import hushrise.core.Problem;
import hushrise.core.hush.HushFollow;
import hushrise.core.mix.Projects;
import hushrise.core.project.Project;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelLine;
import hushrise.core.project.level.SegmentShape;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.CrossfadeShape;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Moving, cutting and joining clips. */
class ClipEditsTest {

  private final Projects.Sounds sounds = new Projects.Sounds();
  private final Project rich = Projects.rich(sounds);

  private static Clip clip(Project project, String id) {
    return project.clip(id).orElseThrow();
  }

  private static Track track(Project project, TrackKind kind) {
    return project.firstTrack(kind).orElseThrow();
  }

  @Test
  void aSplitChangesNotOneSampleWhereverItGoes() {
    float[] before = Projects.left(rich, sounds, 0, 10 * RATE);
    Random random = new Random(5);
    Project split = rich;
    for (int i = 0; i < 25; i++) {
      Set<String> all = new java.util.HashSet<>();
      split.tracks().forEach(t -> t.clips().forEach(c -> all.add(c.id())));
      split = ClipEdits.split(split, all, random.nextLong(10L * RATE));
    }
    long seam = 1_000 + 5L * RATE;
    split = ClipEdits.split(split, idsOf(split), seam - 2_000);
    split = ClipEdits.split(split, idsOf(split), seam + 2_001);
    assertThat(track(split, TrackKind.MUSIC).clips().size()).isGreaterThan(15);
    assertThat(java.util.Arrays.equals(Projects.left(split, sounds, 0, 10 * RATE), before))
        .isTrue();
  }

  private static Set<String> idsOf(Project project) {
    Set<String> all = new java.util.HashSet<>();
    project.tracks().forEach(t -> t.clips().forEach(c -> all.add(c.id())));
    return all;
  }

  @Test
  void aClipCarriesItsKeyframesAndBack() {
    Project moved = ClipEdits.move(rich, Set.of("song"), 33_333, true);
    assertThat(clip(moved, "song").startFrame()).isEqualTo(34_333);
    assertThat(track(moved, TrackKind.MUSIC).line().keyframes().getFirst().frame())
        .isEqualTo(2L * RATE + 33_333);
    assertThat(ClipEdits.move(moved, Set.of("song"), -33_333, true)).isEqualTo(rich);
    Project without = ClipEdits.move(rich, Set.of("song"), 33_333, false);
    assertThat(track(without, TrackKind.MUSIC).line())
        .isEqualTo(track(rich, TrackKind.MUSIC).line());
  }

  @Test
  void aGroupStopsTogetherAtTheStart() {
    Set<String> ids = idsOf(rich);
    Project moved = ClipEdits.move(rich, ids, -1_000_000, true);
    assertThat(clip(moved, "song").startFrame()).isZero();
    long voice = track(rich, TrackKind.VOICE).clips().getFirst().startFrame();
    assertThat(track(moved, TrackKind.VOICE).clips().getFirst().startFrame())
        .isEqualTo(voice - 1_000);
  }

  @Test
  void hushesGoWithTheNarrationTheyBelongTo() {
    String voice = track(rich, TrackKind.VOICE).clips().getFirst().id();
    Project moved = HushFollow.followed(rich, ClipEdits.move(rich, Set.of(voice), 5_000, true));
    assertThat(track(moved, TrackKind.MUSIC).hushes().getFirst().startFrame()).isEqualTo(105_003);
    Project deleted =
        HushFollow.followed(rich, ClipRemoval.delete(rich, Set.of(voice), false, true));
    assertThat(track(deleted, TrackKind.MUSIC).hushes()).isEmpty();
  }

  @Test
  void aTrimKeepsWhatSoundsWhereItSounds() {
    String voice = track(rich, TrackKind.VOICE).clips().getFirst().id();
    Project trimmed = ClipEdits.trimStart(rich, voice, 120_000);
    trimmed = ClipEdits.trimEnd(trimmed, voice, 200_000);
    Project alone = trimmed.withTracks(List.of(track(trimmed, TrackKind.VOICE)));
    Project whole = rich.withTracks(List.of(track(rich, TrackKind.VOICE)));
    assertThat(Projects.left(alone, sounds, 120_000, 80_000))
        .containsExactly(Projects.left(whole, sounds, 120_000, 80_000));
    assertThat(Projects.left(alone, sounds, 110_000, 10_000)).containsOnly(0);
    Project back = ClipEdits.trimStart(trimmed, voice, -50);
    assertThat(clip(back, voice).mediaStartFrame()).isZero();
    assertThat(clip(back, voice).startFrame()).isEqualTo(90_001);
  }

  @Test
  void aSlipPlaysOtherContentBetweenTheSameEnds() {
    String horn = track(rich, TrackKind.EFFECTS).clips().getFirst().id();
    Project trimmed = ClipEdits.trimEnd(rich, horn, 12_345 + 20_000);
    Project slipped = ClipEdits.slip(trimmed, horn, -7_000);
    assertThat(clip(slipped, horn).span()).isEqualTo(clip(trimmed, horn).span());
    assertThat(clip(slipped, horn).mediaStartFrame()).isEqualTo(7_000);
    assertThat(clip(ClipEdits.slip(slipped, horn, 99_999), horn).mediaStartFrame()).isZero();
    assertThat(clip(ClipEdits.slip(slipped, horn, -99_999), horn).mediaStartFrame())
        .isEqualTo(RATE - 20_000L);
  }

  @Test
  void overlappingClipsCrossfadeWithEvenPowerOrGain() {
    Media one = sounds.add("one", MediaKind.MUSIC, Projects.constant(3 * RATE, 1));
    Clip first = Clip.whole(one, 0).withId("first");
    Clip second = Clip.whole(one, 2L * RATE).withId("second");
    Project project =
        Project.empty("x")
            .withMedia(one)
            .withTracks(List.of(Track.of(TrackKind.MUSIC, "m", List.of(first, second))));
    float[] power = Projects.left(project, sounds, 0, 5 * RATE);
    assertThat(power[2 * RATE - 10]).isEqualTo(1);
    assertThat((double) power[2 * RATE + RATE / 2]).isCloseTo(Math.sqrt(2), within(1e-3));
    Project even = ClipEdits.setCrossfade(project, "second", CrossfadeShape.EQUAL_GAIN);
    float[] gain = Projects.left(even, sounds, 0, 5 * RATE);
    for (int i = 0; i < gain.length; i += 97) {
      assertThat((double) gain[i]).isCloseTo(1, within(1e-4));
    }
    Project longer = ClipEdits.setCrossfadeLength(even, "second", RATE / 2);
    assertThat(ClipEdits.crossfadeFrames(track(longer, TrackKind.MUSIC), clip(longer, "second")))
        .isEqualTo(RATE / 2);
    assertThatThrownBy(() -> ClipEdits.split(project, Set.of("first"), 2L * RATE + 500))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("crossfade");
  }

  @Test
  void whatIsCutOrCopiedComesBackWithItsKeyframes() {
    Snippet snippet = ClipEdits.copy(rich, Set.of("song"));
    ClipEdits.Pasted pasted = ClipEdits.paste(rich, snippet, 20L * RATE, true);
    Clip copy = clip(pasted.project(), pasted.clipIds().iterator().next());
    assertThat(copy.startFrame()).isEqualTo(20L * RATE);
    assertThat(copy.lengthFrames()).isEqualTo(clip(rich, "song").lengthFrames());
    assertThat(track(pasted.project(), TrackKind.MUSIC).line().keyframes()).hasSize(8);
    assertThat(track(pasted.project(), TrackKind.MUSIC).line().keyframes().get(4).frame())
        .isEqualTo(22L * RATE - 1_000);
    Project bare = rich.withTracks(List.of(track(rich, TrackKind.VOICE)));
    assertThatThrownBy(() -> ClipEdits.paste(bare, snippet, 0, true))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("no track");
  }

  @Test
  void deletingCanCloseTheGap() {
    Media one = sounds.add("part", MediaKind.VOICE, Projects.constant(RATE, 1));
    Track voices =
        Track.of(
                TrackKind.VOICE,
                "v",
                List.of(
                    Clip.whole(one, 0).withId("a"),
                    Clip.whole(one, 2L * RATE).withId("b"),
                    Clip.whole(one, 4L * RATE).withId("c")))
            .withLine(
                LevelLine.of(
                    List.of(
                        new Keyframe(2L * RATE + 10, -3, SegmentShape.SMOOTH),
                        new Keyframe(4L * RATE + 10, -5, SegmentShape.SMOOTH))));
    Project project = Project.empty("x").withMedia(one).withTracks(List.of(voices));
    Project closed = ClipRemoval.delete(project, Set.of("b"), true, true);
    assertThat(clip(closed, "c").startFrame()).isEqualTo(3L * RATE);
    assertThat(track(closed, TrackKind.VOICE).line().keyframes())
        .containsExactly(new Keyframe(3L * RATE + 10, -5, SegmentShape.SMOOTH));
    Project open = ClipRemoval.delete(project, Set.of("b"), false, false);
    assertThat(clip(open, "c").startFrame()).isEqualTo(4L * RATE);
    assertThat(track(open, TrackKind.VOICE).line().keyframes()).hasSize(2);
  }

  @ParameterizedTest(name = "{0} without {1}")
  @CsvSource({
    "0-100 98-200 200-300, 0, 0-102 102-202", // the first of two that cross
    "0-100 98-200 200-300, 1, 0-100 100-200", // the second
    "0-100 98-200 200-300, 01, 0-100", // both: the hole is one
    "0-100 98-200 198-300, 1, 0-100 100-202", // one that crosses with two
    "0-100 98-200 150-300 310-400, 0, 0-102 52-202 212-302", // those that cross stay together
    "10-50 60-100 130-150, 0, 20-60 90-110", // what was empty before stays empty
    "10-50 60-100 130-150, 02, 20-60",
    "0-100 20-40 110-120, 1, 0-100 110-120" // nothing is empty where another one sounds
  })
  void whatIsLeftEmptyIsClosedWhereClipsCross(String spans, String going, String left) {
    Media tone = sounds.add("tone", MediaKind.MUSIC, Projects.constant(400, 1));
    List<Clip> clips = new ArrayList<>();
    for (String span : spans.split(" ")) {
      String[] ends = span.split("-");
      long start = Long.parseLong(ends[0]);
      clips.add(
          Clip.whole(tone, start)
              .withId("" + clips.size())
              .withExtent(start, Long.parseLong(ends[1]) - start, 0, List.of()));
    }
    Project project =
        Project.empty("x")
            .withMedia(tone)
            .withTracks(List.of(Track.of(TrackKind.MUSIC, "m", clips)));
    Project closed = ClipRemoval.delete(project, Set.of(going.split("")), true, true);
    assertThat(track(closed, TrackKind.MUSIC).clips())
        .extracting(c -> c.startFrame() + "-" + c.endFrame())
        .containsExactly(left.split(" "));
  }

  @Test
  void keyframesGoAsFarAsTheirOwnClipWhenGapsClose() {
    Media tone = sounds.add("tone", MediaKind.MUSIC, Projects.constant(100, 1));
    List<Clip> clips = new ArrayList<>();
    List<Keyframe> line = new ArrayList<>();
    for (int i = 0; i < 6; i++) {
      clips.add(Clip.whole(tone, 100 * i).withId("" + i));
      line.add(new Keyframe(100 * i + 30, -i, SegmentShape.STRAIGHT));
    }
    Track track = Track.of(TrackKind.MUSIC, "m", clips).withLine(LevelLine.of(line));
    Project project = Project.empty("x").withMedia(tone).withTracks(List.of(track));
    Project closed = ClipRemoval.delete(project, Set.of("0", "2", "4"), true, true);
    assertThat(track(closed, TrackKind.MUSIC).line().keyframes())
        .containsExactly(
            new Keyframe(30, -1, SegmentShape.STRAIGHT),
            new Keyframe(130, -3, SegmentShape.STRAIGHT),
            new Keyframe(230, -5, SegmentShape.STRAIGHT));
  }

  @Test
  void aClipGoesToAnotherTrackOfItsKindOnly() {
    Project two = TrackEdits.add(rich, TrackKind.MUSIC, "Music");
    String second = two.tracksOf(TrackKind.MUSIC).toList().get(1).id();
    String first = track(two, TrackKind.MUSIC).id();
    Project moved = ClipEdits.moveToTrack(two, Set.of("song"), first, second, true);
    assertThat(moved.trackOfClip("song").orElseThrow().id()).isEqualTo(second);
    assertThat(moved.track(second).orElseThrow().line().keyframes()).hasSize(4);
    assertThat(moved.track(first).orElseThrow().line().keyframes()).isEmpty();
    String voice = track(two, TrackKind.VOICE).id();
    assertThat(ClipEdits.moveToTrack(two, Set.of("song"), first, voice, true)).isEqualTo(two);
  }

  @Test
  void tracksAreAddedNamedMovedSizedAndRemoved() {
    Project added = TrackEdits.add(rich, TrackKind.MUSIC, "Music");
    Track second = added.tracksOf(TrackKind.MUSIC).toList().get(1);
    assertThat(second.name()).isEqualTo("Music 2");
    assertThat(added.tracks().indexOf(second)).isEqualTo(2);
    Project up = TrackEdits.reorder(added, second.id(), -9);
    assertThat(up.tracks().getFirst().id()).isEqualTo(second.id());
    assertThat(TrackEdits.rename(up, second.id(), " ").track(second.id()).orElseThrow().name())
        .isEqualTo("Music 2");
    assertThat(TrackEdits.resize(up, second.id(), 5).track(second.id()).orElseThrow().rowHeight())
        .isEqualTo(30);
    assertThat(TrackEdits.remove(added, second.id())).isEqualTo(rich);
  }

  @Test
  void panLowersTheOtherChannelOnly() {
    String music = track(rich, TrackKind.MUSIC).id();
    Project panned = TrackEdits.setPan(rich, music, 1).withTrack(music, t -> t.withSoloed(true));
    Project middle = rich.withTrack(music, t -> t.withSoloed(true));
    assertThat(Projects.left(panned, sounds, 90_000, 9_000)).containsOnly(0);
    float[] right = new float[9_000];
    float[] middleRight = new float[9_000];
    hushrise.core.mix.Mixer.of(panned, sounds).render(90_000, 9_000, new float[9_000], right);
    hushrise.core.mix.Mixer.of(middle, sounds).render(90_000, 9_000, new float[9_000], middleRight);
    assertThat(right).containsExactly(middleRight);
  }

  @Test
  void whatIsDraggedSnapsToTheNearestPlaceWithinReach() {
    Project marked = MarkerEdits.add(rich, "sunrise", 77_000);
    Snap snap = Snap.of(marked, Set.of("song"), 50_000, List.of(300_000L));
    assertThat(snap.nearest(76_600, 500)).hasValue(77_000);
    assertThat(snap.nearest(76_000, 500)).isEmpty();
    assertThat(snap.nearest(300_100, 500)).hasValue(300_000);
    assertThat(snap.nearest(1_100, 500)).as("its own start does not count").isEmpty();
    assertThat(snap.landing(new Span(1_000, 9_000).edges(), 40_700, 500))
        .isEqualTo(new Snap.Landing(41_000, java.util.OptionalLong.of(50_000)));
    assertThat(snap.after(70_000)).hasValue(77_000);
    assertThat(snap.before(60_000)).hasValue(50_000);
  }

  @Test
  void takingAnItemOffTheShelfTakesItsClipsAlong() {
    Project without = ShelfEdits.remove(rich, "music");
    assertThat(without.media("music")).isEmpty();
    assertThat(without.clip("song")).isEmpty();
    assertThat(without.tracks()).hasSize(3);
    Project marked = ShelfEdits.setUseful(rich, "voice", new Span(-5, 20_000));
    assertThat(marked.media("voice").orElseThrow().usefulPart()).isEqualTo(new Span(0, 20_000));
  }

  @Test
  void gainsAreGivenToWhatIsStillThere() {
    Set<String> ids = idsOf(rich);
    Project meant = ClipEdits.setGain(rich, ids, -4);
    Project meanwhile =
        ClipEdits.move(ClipRemoval.delete(rich, Set.of("song"), false, false), ids, 5_000, true);
    Project given = ClipEdits.gainsAsIn(meant, meanwhile, ids);
    assertThat(given).isEqualTo(ClipEdits.setGain(meanwhile, ids, -4));
    assertThat(ClipEdits.gainsAsIn(meant, rich, Set.of("song")))
        .isEqualTo(ClipEdits.setGain(rich, Set.of("song"), -4));
  }
}
