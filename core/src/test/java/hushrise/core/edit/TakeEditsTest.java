package hushrise.core.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import hushrise.core.mix.Projects;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.store.ProjectFile;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Takes of one place stack, and one of them is heard. */
class TakeEditsTest {

  private static final int RATE = 48_000;

  @TempDir Path folder;
  private final Media first = Projects.media("one", MediaKind.VOICE, 4L * RATE);
  private final Media second = Projects.media("two", MediaKind.VOICE, 5L * RATE);
  private final Media third = Projects.media("three", MediaKind.VOICE, 3L * RATE);

  private static Project with(Project project, Media take, double atSeconds) {
    return TakeEdits.place(
        project.withMedia(take), take, Math.round(atSeconds * RATE), "Narration");
  }

  private static List<Clip> clips(Project project) {
    return project.firstTrack(TrackKind.VOICE).orElseThrow().clips();
  }

  private Project three() {
    return with(with(with(Project.empty("p"), first, 10), second, 10.4), third, 10.2);
  }

  @Test
  void aTakeLandsWhereItWasSpokenAndTheLatestIsHeard() {
    Project project = three();
    assertThat(clips(project)).hasSize(1);
    Clip heard = clips(project).getFirst();
    assertThat(heard.mediaId()).isEqualTo("three");
    assertThat(heard.startFrame()).isEqualTo(Math.round(10.2 * RATE));
    assertThat(heard.lengthFrames()).isEqualTo(3L * RATE);
    assertThat(heard.otherTakes()).extracting("mediaId").containsExactly("two", "one");
  }

  @Test
  void aTakeOfAnotherPlaceIsAClipOfItsOwn() {
    Project project = with(three(), Projects.media("four", MediaKind.VOICE, 2L * RATE), 20);
    assertThat(clips(project)).hasSize(2);
    assertThat(clips(project).get(1).otherTakes()).isEmpty();
  }

  private final Media talk = Projects.media("talk", MediaKind.VOICE, 60L * RATE);

  private Project spokenInto(double atSeconds) {
    return with(with(Project.empty("p"), talk, 10), second, atSeconds);
  }

  @Test
  void aTakeSpokenIntoALongRecordingReplacesOnlyThatPart() {
    List<Clip> parts = clips(spokenInto(30));
    assertThat(parts).extracting(Clip::mediaId).containsExactly("talk", "two", "talk");
    assertThat(parts).extracting(Clip::id).doesNotHaveDuplicates();
    assertThat(parts.get(0).endFrame()).isEqualTo(30L * RATE + RATE / 100);
    assertThat(parts.get(1).startFrame()).isEqualTo(30L * RATE);
    assertThat(parts.get(1).endFrame()).isEqualTo(35L * RATE);
    assertThat(parts.get(2).startFrame()).isEqualTo(35L * RATE - RATE / 100);
    assertThat(parts.get(2).endFrame()).isEqualTo(70L * RATE);
    assertThat(parts)
        .filteredOn(c -> c.mediaId().equals("talk"))
        .allMatch(c -> c.startFrame() - c.mediaStartFrame() == 10L * RATE);
  }

  @Test
  void whatWasSaidBeforeComesBackAsItWas() {
    Projects.Sounds sounds = new Projects.Sounds();
    Media spoken = sounds.add("spoken", MediaKind.VOICE, Projects.noise(7, 60 * RATE, 0.5));
    Media line = sounds.add("line", MediaKind.VOICE, Projects.noise(8, 5 * RATE, 0.5));
    Project before = with(Project.empty("p"), spoken, 10);
    Project into = with(before, line, 30);
    Project back = TakeEdits.another(into, clips(into).get(1).id(), 1);
    Clip middle = clips(back).get(1);
    assertThat(middle.mediaId()).isEqualTo("spoken");
    assertThat(middle.startFrame() - middle.mediaStartFrame()).isEqualTo(10L * RATE);
    float[] was = Projects.left(before, sounds, 29L * RATE, 7 * RATE);
    assertThat(farthest(Projects.left(into, sounds, 29L * RATE, 7 * RATE), was)).isGreaterThan(0.1);
    assertThat(farthest(Projects.left(back, sounds, 29L * RATE, 7 * RATE), was)).isLessThan(1e-6);
  }

  /** The greatest distance between two sounds' samples. */
  private static double farthest(float[] a, float[] b) {
    return IntStream.range(0, b.length).mapToDouble(i -> Math.abs(a[i] - b[i])).max().orElseThrow();
  }

  @Test
  void aLongerTakeOfASpokenInPlaceIsHeardAlone() {
    Projects.Sounds sounds = new Projects.Sounds();
    Media spoken = sounds.add("spoken", MediaKind.VOICE, Projects.noise(7, 60 * RATE, 0.5));
    Media line = sounds.add("line", MediaKind.VOICE, Projects.noise(8, 3 * RATE, 0.5));
    Media longer = sounds.add("longer", MediaKind.VOICE, Projects.noise(9, 5 * RATE, 0.5));
    Project into = with(with(Project.empty("p"), spoken, 10), line, 30);
    Project over = with(into, longer, 29);
    assertThat(clips(over)).extracting(Clip::mediaId).containsExactly("spoken", "longer", "spoken");
    assertThat(clips(over).get(0).endFrame()).isEqualTo(29L * RATE + RATE / 100);
    assertThat(clips(over).get(2).startFrame()).isEqualTo(34L * RATE - RATE / 100);
    float[] alone = Projects.left(with(Project.empty("q"), longer, 29), sounds, 30L * RATE, RATE);
    assertThat(farthest(Projects.left(over, sounds, 30L * RATE, RATE), alone)).isZero();
    Project back = TakeEdits.another(over, clips(over).get(1).id(), 1);
    float[] was = Projects.left(into, sounds, 28L * RATE, 7 * RATE);
    assertThat(farthest(Projects.left(back, sounds, 28L * RATE, 7 * RATE), was)).isLessThan(1e-6);
  }

  @Test
  void aTakeThatReachesIntoAnotherLineEndsItThere() {
    Project before = with(with(Project.empty("p"), second, 10), second.withId("next"), 17);
    Project project = with(before, third, 14.5);
    assertThat(clips(project))
        .extracting(Clip::startFrame, Clip::endFrame)
        .containsExactlyInAnyOrder(
            tuple(10L * RATE, Math.round(14.51 * RATE)),
            tuple(Math.round(14.5 * RATE), Math.round(17.5 * RATE)),
            tuple(Math.round(17.49 * RATE), 22L * RATE));
    assertThat(clips(project)).allMatch(c -> c.otherTakes().isEmpty());
    assertThat(clips(project).get(1).mediaStartFrame()).isEqualTo(Math.round(0.49 * RATE));
  }

  @Test
  void aCrossfadeMadeByHandIsKeptWhicheverTakeIsHeard() {
    Project stacked = with(with(Project.empty("p"), second, 10), third, 11);
    Project beside = with(stacked, talk, 13.99);
    String next = clips(beside).getLast().id();
    Project faded = ClipEdits.trimStart(beside, next, Math.round(13.99 * RATE));
    String id = clips(faded).getFirst().id();
    Project byHand = ClipEdits.move(faded, Set.of(next), -Math.round(0.5 * RATE), true);
    assertThat(sharedWith(byHand, id, next)).isEqualTo(Math.round(0.51 * RATE));
    Project other = TakeEdits.another(byHand, id, 1);
    assertThat(other.clip(id).orElseThrow().endFrame()).isEqualTo(15L * RATE);
    assertThat(sharedWith(other, id, next)).isEqualTo(Math.round(0.51 * RATE));
    assertThat(TakeEdits.another(other, id, 1)).isEqualTo(byHand);
  }

  private static long sharedWith(Project project, String first, String next) {
    return project.clip(first).orElseThrow().endFrame()
        - project.clip(next).orElseThrow().startFrame();
  }

  @Test
  void aTakeOverSeveralLinesKeepsThemAllAtHand() {
    Project lines = with(with(Project.empty("p"), third, 10), third.withId("next"), 14);
    Project project = with(lines, Projects.media("all", MediaKind.VOICE, 9L * RATE), 9);
    assertThat(clips(project)).hasSize(1);
    assertThat(clips(project).getFirst().otherTakes())
        .extracting("mediaId")
        .containsExactly("three", "next");
  }

  @Test
  void aRemainderTooShortForAWordGoesWithTheMiddle() {
    List<Clip> atItsStart = clips(spokenInto(10.3));
    assertThat(atItsStart).extracting(Clip::mediaId).containsExactly("two", "talk");
    assertThat(atItsStart.getFirst().otherTakes().getFirst().startFrame()).isEqualTo(10L * RATE);
    List<Clip> atItsEnd = clips(spokenInto(65.2));
    assertThat(atItsEnd).extracting(Clip::mediaId).containsExactly("talk", "two");
    assertThat(atItsEnd.getLast().endFrame()).isEqualTo(Math.round(70.2 * RATE));
  }

  @Test
  void otherTakesAreSharedOutAmongTheParts() {
    Media whole = Projects.media("whole", MediaKind.VOICE, 55L * RATE);
    Project stacked = with(with(Project.empty("p"), talk, 10), whole, 12);
    List<Clip> parts = clips(with(stacked, second, 30));
    assertThat(parts).extracting(Clip::mediaId).containsExactly("whole", "two", "whole");
    assertThat(parts.get(1).otherTakes()).extracting("mediaId").containsExactly("whole", "talk");
    assertThat(parts.get(2).otherTakes().getFirst().startFrame())
        .isEqualTo(35L * RATE - RATE / 100);
  }

  @Test
  void anotherTakeIsHeardAndAfterTheLastComesTheFirst() {
    Project project = three();
    String id = clips(project).getFirst().id();
    Project two = TakeEdits.another(project, id, 1);
    assertThat(clips(two).getFirst().mediaId()).isEqualTo("two");
    assertThat(clips(two).getFirst().startFrame()).isEqualTo(Math.round(10.4 * RATE));
    Project one = TakeEdits.another(two, id, 1);
    assertThat(clips(one).getFirst().mediaId()).isEqualTo("one");
    assertThat(TakeEdits.another(one, id, 1)).isEqualTo(project);
    assertThat(TakeEdits.another(two, id, -1)).isEqualTo(project);
  }

  @Test
  void trimmingOneTakeLeavesTheOthersWhole() {
    Project project = three();
    String id = clips(project).getFirst().id();
    Project trimmed = ClipEdits.trimStart(project, id, 11L * RATE);
    Project around = TakeEdits.another(TakeEdits.another(trimmed, id, 1), id, 1);
    assertThat(clips(around).getFirst().lengthFrames()).isEqualTo(4L * RATE);
    Project back = TakeEdits.another(around, id, 1);
    assertThat(clips(back).getFirst().startFrame()).isEqualTo(11L * RATE);
    assertThat(clips(back).getFirst().mediaStartFrame()).isEqualTo(Math.round(0.8 * RATE));
  }

  @Test
  void takesMoveTogether() {
    Project project = three();
    String id = clips(project).getFirst().id();
    Project moved = ClipEdits.move(project, Set.of(id), RATE, true);
    assertThat(clips(moved).getFirst().otherTakes().getFirst().startFrame())
        .isEqualTo(Math.round(11.4 * RATE));
  }

  @Test
  void takesAreSavedAndGoWithTheirItem() {
    Project project = three();
    Path file = folder.resolve("p.hushrise");
    ProjectFile.save(project, file);
    assertThat(clips(ProjectFile.load(file)).getFirst().otherTakes())
        .isEqualTo(clips(project).getFirst().otherTakes());
    assertThat(project.isUsed("two")).isTrue();
    Project without = ShelfEdits.remove(project, "two");
    assertThat(clips(without).getFirst().otherTakes()).extracting("mediaId").containsExactly("one");
  }
}
