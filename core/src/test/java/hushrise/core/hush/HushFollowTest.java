package hushrise.core.hush;

import static hushrise.core.hush.Talk.at;
import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.edit.ClipEdits;
import hushrise.core.edit.ClipRemoval;
import hushrise.core.edit.HushEdits;
import hushrise.core.edit.SpeechEdits;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.HushNumber;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.List;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;

@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class HushFollowTest {

  private final Talk talk =
      new Talk(60, new double[] {4, 9}, new double[] {10, 12}, new double[] {40, 47});
  private final Project drafted = HushDrafter.draft(talk.project, talk.sounds).after();
  private final String take = talk.voice().clips().getFirst().id();

  private static List<Hush> hushes(Project project) {
    return project.firstTrack(TrackKind.MUSIC).orElseThrow().hushes();
  }

  private Project followed(UnaryOperator<Project> edit) {
    return HushFollow.followed(drafted, edit.apply(drafted));
  }

  private static Span span(double from, double to) {
    return new Span(at(from), at(to));
  }

  @Test
  void theDraftHasTwoHushesOneOverTwoPassages() {
    assertThat(hushes(drafted))
        .extracting(Hush::passage)
        .containsExactly(span(4, 12), span(40, 47));
  }

  @Test
  void movedNarrationTakesItsHushesAlongAndBack() {
    Project moved = followed(p -> ClipEdits.move(p, Set.of(take), at(2.5), true));
    assertThat(hushes(moved))
        .extracting(Hush::passage)
        .containsExactly(span(6.5, 14.5), span(42.5, 49.5));
    Project back = HushFollow.followed(moved, ClipEdits.move(moved, Set.of(take), -at(2.5), true));
    assertThat(back).isEqualTo(drafted);
  }

  @Test
  void aTrimShortensAHushAndThenRemovesIt() {
    Project shorter = followed(p -> ClipEdits.trimStart(p, take, at(6)));
    assertThat(hushes(shorter)).extracting(Hush::passage).first().isEqualTo(span(6, 12));
    Project without = followed(p -> ClipEdits.trimStart(p, take, at(20)));
    assertThat(hushes(without)).extracting(Hush::passage).containsExactly(span(40, 47));
  }

  @Test
  void aSplitChangesNothingUntilThePartsMoveApart() {
    Project split = followed(p -> ClipEdits.split(p, Set.of(take), at(9.5)));
    assertThat(hushes(split)).isEqualTo(hushes(drafted));
    List<Clip> halves = split.firstTrack(TrackKind.VOICE).orElseThrow().clipsInTime();
    String second = halves.getLast().id();
    Project apart = HushFollow.followed(split, ClipEdits.move(split, Set.of(second), at(5), true));
    assertThat(hushes(apart))
        .extracting(Hush::passage)
        .containsExactly(span(4, 9), span(15, 17), span(45, 52));
    assertThat(hushes(apart).get(0).id()).isEqualTo(hushes(drafted).get(0).id());
    assertThat(hushes(apart).get(1).depthDb()).isEqualTo(hushes(drafted).get(0).depthDb());
    Project deleted =
        HushFollow.followed(split, ClipRemoval.delete(split, Set.of(second), false, true));
    assertThat(hushes(deleted)).extracting(Hush::passage).containsExactly(span(4, 9));
  }

  @Test
  void deletedNarrationTakesItsHushesWithIt() {
    assertThat(hushes(followed(p -> ClipRemoval.delete(p, Set.of(take), false, true)))).isEmpty();
  }

  @Test
  void aHushKeepsItsDistanceAndItsMarks() {
    Project own = HushEdits.setPassage(drafted, hushes(drafted).getLast().id(), span(39.5, 47.25));
    Project moved = HushFollow.followed(own, ClipEdits.move(own, Set.of(take), at(1), true));
    assertThat(hushes(moved).getLast().passage()).isEqualTo(span(40.5, 48.25));
    assertThat(hushes(moved).getLast().byHand()).containsExactly(HushNumber.PLACE);
  }

  @Test
  void hushesElsewhereAndOtherEditsAreLeftAlone() {
    Project stray = HushEdits.add(drafted, talk.music().id(), Hush.over(span(25, 28), -6));
    Project moved = HushFollow.followed(stray, ClipEdits.move(stray, Set.of(take), at(1), true));
    assertThat(hushes(moved)).extracting(Hush::passage).contains(span(25, 28));
    Project level = drafted.withTrack(talk.voice().id(), t -> t.withLevelDb(3));
    assertThat(HushFollow.followed(drafted, level)).isSameAs(level);
  }

  @Test
  void whatAnEditDidToHushesItselfIsKept() {
    Project both =
        HushEdits.setPassage(
            ClipEdits.move(drafted, Set.of(take), at(1), true),
            hushes(drafted).getFirst().id(),
            span(7, 8));
    assertThat(hushes(HushFollow.followed(drafted, both)))
        .extracting(Hush::passage)
        .containsExactly(span(7, 8), span(41, 48));
  }

  @Test
  void passagesChangedByHandTakeTheirHushesAlong() {
    Project longer = followed(p -> SpeechEdits.change(p, talk.take.id(), 2, span(38, 47)));
    assertThat(hushes(longer).getLast().passage()).isEqualTo(span(38, 47));
    Project gone = followed(p -> SpeechEdits.remove(p, talk.take.id(), 2));
    assertThat(hushes(gone)).hasSize(1);
  }

  @Test
  void passagesAreAddedSplitJoinedAndHeldApart() {
    String id = talk.take.id();
    Project p = SpeechEdits.add(talk.project, id, span(8, 11));
    assertThat(speech(p)).containsExactly(span(4, 12), span(40, 47));
    p = SpeechEdits.split(p, id, 0, at(6));
    assertThat(speech(p)).hasSize(3);
    assertThat(speech(p).get(0).endFrame()).isLessThan(at(6));
    p = SpeechEdits.joinWithNext(p, id, 0);
    assertThat(speech(p)).containsExactly(span(4, 12), span(40, 47));
    assertThat(SpeechEdits.joinWithNext(p, id, 1)).isEqualTo(p);
    p = SpeechEdits.change(p, id, 0, span(-3, 50));
    assertThat(speech(p).get(0)).isEqualTo(new Span(0, at(40) - 1));
    assertThat(SpeechEdits.forget(p, id).media(id).orElseThrow().speech()).isEmpty();
    p = SpeechEdits.set(p, id, List.of(span(50, 90), span(-2, 1)));
    assertThat(speech(p)).containsExactly(span(0, 1), span(50, 60));
  }

  private List<Span> speech(Project project) {
    return project.media(talk.take.id()).orElseThrow().speech().orElseThrow();
  }

  @Test
  void cameraSoundCountsOnceSomebodySpeaksOnIt() {
    Project camera = talk.project.withTrack(talk.voice().id(), t -> asCamera(t, false));
    assertThat(hushrise.core.speech.Passages.of(camera)).isEmpty();
    Project speaking = talk.project.withTrack(talk.voice().id(), t -> asCamera(t, true));
    assertThat(hushrise.core.speech.Passages.of(speaking)).hasSize(3);
  }

  private static Track asCamera(Track track, boolean speaks) {
    return Track.of(TrackKind.CAMERA, "Camera", track.clips()).withSpeaks(speaks);
  }
}
