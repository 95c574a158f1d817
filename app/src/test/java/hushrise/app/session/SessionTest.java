package hushrise.app.session;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import hushrise.app.job.Messages;
import hushrise.app.job.NotedMessages;
import hushrise.core.Problem;
import hushrise.core.edit.ClipEdits;
import hushrise.core.edit.ClipRemoval;
import hushrise.core.edit.HushEdits;
import hushrise.core.fit.Fits;
import hushrise.core.fit.Song;
import hushrise.core.fit.SongAnalyzer;
import hushrise.core.fit.Songs;
import hushrise.core.hush.HushDraft;
import hushrise.core.project.Marker;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Fit;
import hushrise.core.project.timeline.FitMode;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import hushrise.core.store.ProjectFile;
import hushrise.core.time.Span;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What is present and what is shown; needs no window. */
class SessionTest {

  private static final int RATE = 48_000;

  @TempDir private Path folder;
  private final NotedMessages messages = new NotedMessages();
  private final List<String> said = messages.said();
  private Session session;
  private String music;
  private String clip;

  @BeforeEach
  void begin() {
    session =
        new Session(
            Songs.NONE,
            messages,
            (work, then) -> {
              work.run();
              then.run();
            });
    Media tune =
        new Media(
            "tune",
            Path.of("tune.wav"),
            MediaKind.MUSIC,
            60L * RATE,
            true,
            Optional.empty(),
            "made for this test");
    Track track = Track.of(TrackKind.MUSIC, "Music", List.of(Clip.whole(tune, 0)));
    music = track.id();
    clip = track.clips().getFirst().id();
    session.open(
        Project.empty("film").withMedia(tune).withTracks(List.of(track)), Optional.empty());
  }

  private static UnaryOperator<Project> master(double db) {
    return p -> p.withMasterDb(db);
  }

  private UnaryOperator<Project> moveTo(double seconds) {
    long to = Math.round(seconds * RATE);
    return p ->
        ClipEdits.move(p, Set.of(clip), to - p.clip(clip).orElseThrow().startFrame(), false);
  }

  private static UnaryOperator<Project> marker(String name) {
    return p -> {
      List<Marker> markers = new ArrayList<>(p.markers());
      markers.add(new Marker(name, name, 10));
      return p.withMarkers(markers);
    };
  }

  private long start(Project project) {
    return project.clip(clip).orElseThrow().startFrame();
  }

  private HushDraft drafted() {
    Project before = session.present();
    Project after = HushEdits.add(before, music, Hush.over(new Span(5L * RATE, 8L * RATE), -9));
    return new HushDraft(before, after, List.of(), 0, List.of());
  }

  private int hushes(Project project) {
    return project.track(music).orElseThrow().hushes().size();
  }

  @Test
  void aDragIsShownAndBecomesOneStepOfItsOwnNameWhenItEnds() {
    for (int i = 1; i <= 5; i++) {
      session.drag("move", moveTo(i));
      assertThat(start(session.shown())).isEqualTo((long) i * RATE);
      assertThat(start(session.present())).isZero();
    }
    assertThat(session.undoName()).isEmpty();
    session.endDrag();
    assertThat(session.undoName()).hasValue("move");
    session.undo();
    assertThat(start(session.present())).isZero();
    assertThat(session.undoName()).isEmpty();
    session.redo();
    assertThat(start(session.present())).isEqualTo(5L * RATE);
  }

  @Test
  void whatIsFoundOutDuringADragIsKeptAndTheDragGoesOn() {
    session.drag("move", moveTo(3));
    session.learn(marker("found"));
    assertThat(session.isDragging()).isTrue();
    assertThat(start(session.shown())).isEqualTo(3L * RATE);
    assertThat(session.shown().markers()).hasSize(1);
    session.endDrag();
    assertThat(start(session.present())).isEqualTo(3L * RATE);
    assertThat(session.present().markers()).hasSize(1);
  }

  @Test
  void whatWouldLieBeyondTheLongestProjectIsRefused() {
    Project before = session.present();
    session.commit("move", moveTo(49 * 3600));
    assertThat(session.present()).isEqualTo(before);
    assertThat(session.shown()).isEqualTo(before);
    assertThat(session.undoName()).isEmpty();
    assertThat(said).hasSize(1).first().asString().contains("48 hours");
  }

  /** Files that were being read arrive as a step of their own while something is dragged. */
  @Test
  void aStepThatComesDuringADragLeavesTheDragGoingOn() {
    session.drag("move", moveTo(3));
    session.commit("arrived", marker("arrived"));
    assertThat(session.isDragging()).isTrue();
    assertThat(start(session.shown())).isEqualTo(3L * RATE);
    assertThat(start(session.present())).isZero();
    session.drag("move", moveTo(4));
    session.endDrag();
    assertThat(start(session.present())).isEqualTo(4L * RATE);
    assertThat(session.present().markers()).hasSize(1);
    session.undo();
    assertThat(start(session.present())).isZero();
    assertThat(session.present().markers()).hasSize(1);
  }

  @Test
  void aStepThatTakesAwayWhatIsDraggedEndsTheDrag() {
    session.drag("move", moveTo(3));
    session.commit("delete", p -> ClipRemoval.delete(p, Set.of(clip), false, false));
    assertThat(session.isDragging()).isFalse();
    assertThat(session.shown()).isEqualTo(session.present());
  }

  @Test
  void aDragThatCannotBeShownLeavesTheLastOneAndADragThatLostItsClipEnds() {
    session.drag("move", moveTo(2));
    assertThatThrownBy(
            () ->
                session.drag(
                    "move",
                    p -> {
                      throw new Problem("That cannot be.");
                    }))
        .isInstanceOf(Problem.class);
    assertThat(start(session.shown())).isEqualTo(2L * RATE);
    session.learn(p -> ClipRemoval.delete(p, Set.of(clip), false, false));
    assertThat(session.isDragging()).isFalse();
    assertThat(session.shown()).isEqualTo(session.present());
  }

  @Test
  void twoHandsDragAtOnceAndEachEndsByItself() {
    session.drag("move", moveTo(3));
    session.drag("a fader", "level", p -> p.withMasterDb(-6));
    assertThat(start(session.shown())).isEqualTo(3L * RATE);
    assertThat(session.shown().masterDb()).isEqualTo(-6);
    session.endDrag("a fader");
    assertThat(session.isDragging()).isTrue();
    assertThat(start(session.present())).isZero();
    assertThat(session.present().masterDb()).isEqualTo(-6);
    session.cancelDrag();
    assertThat(session.draggingProperty().get()).isFalse();
    assertThat(session.shown()).isEqualTo(session.present());
  }

  @Test
  void aDragThatIsGivenBackLeavesNothing() {
    Project before = session.present();
    session.drag("move", moveTo(2));
    session.cancelDrag();
    assertThat(session.shown()).isSameAs(before);
    session.endDrag();
    assertThat(session.undoName()).isEmpty();
  }

  /** Pressing a marker while comparing once took all hushes away. */
  @Test
  void anEditWhileComparingKeepsWhatTheComparisonHides() {
    session.commit("hush", p -> HushEdits.add(p, music, Hush.over(new Span(0, 4L * RATE), -10)));
    session.compare(HushEdits::withoutHushes);
    assertThat(hushes(session.shown())).isZero();
    session.drag("marker", marker("m"));
    session.endDrag();
    assertThat(hushes(session.shown())).isZero();
    assertThat(hushes(session.present())).isEqualTo(1);
    session.endComparison();
    assertThat(hushes(session.shown())).isEqualTo(1);
    assertThat(session.shown().markers()).hasSize(1);
  }

  /** Pressing the ruler while a draft is shown once took it. */
  @Test
  void anEditWhileADraftIsShownTakesNothingOfItAndTheDraftStays() {
    session.showDraft(drafted());
    assertThat(hushes(session.shown())).isEqualTo(1);
    session.commit("marker", marker("m"));
    assertThat(hushes(session.present())).isZero();
    assertThat(session.draft()).isPresent();
    assertThat(hushes(session.shown())).isEqualTo(1);
    session.compare(HushEdits::withoutHushes);
    session.endComparison();
    assertThat(session.draft()).isPresent();
    session.takeDraft("draft");
    assertThat(session.draft()).isEmpty();
    assertThat(hushes(session.present())).isEqualTo(1);
    assertThat(session.present().markers()).hasSize(1);
    session.undo();
    assertThat(hushes(session.present())).isZero();
    assertThat(session.present().markers()).hasSize(1);
  }

  @Test
  void aRemedyThatIsPointedAtIsShownAndNotDone() {
    session.pointAt(master(-3));
    assertThat(session.shown().masterDb()).isEqualTo(-3);
    session.commit("marker", marker("m"));
    assertThat(session.shown().masterDb()).isZero();
    session.pointAt(master(-3));
    session.pointAway();
    assertThat(session.shown()).isEqualTo(session.present());
    assertThat(session.isShowingOther()).isFalse();
  }

  @Test
  void aRemedyWhoseSubjectIsUndoneUnderThePointerIsShownNoLonger() {
    session.commit("marker", marker("m"));
    session.pointAt(p -> p.withMarkers(List.of(p.markers().getFirst().withName("n"))));
    assertThat(session.shown().markers().getFirst().name()).isEqualTo("n");
    session.undo();
    assertThat(session.present().markers()).isEmpty();
    assertThat(session.shown()).isEqualTo(session.present());
    assertThat(session.isShowingOther()).isFalse();
  }

  @Test
  void anEditWhoseSubjectHasGoneSaysSoAndChangesNothing() {
    session.commit("remove the tune", p -> ClipRemoval.delete(p, Set.of(clip), false, false));
    Project before = session.present();
    session.commitSearched(
        "tailor the tune", p -> Fits.set(p, clip, FitMode.TAILOR, Songs.NONE), () -> {});
    assertThat(session.present()).isEqualTo(before);
    assertThat(session.undoName()).hasValue("remove the tune");
    assertThat(said)
        .containsExactly("Not done: tailor the tune. What it was for is no longer there.");
  }

  @Test
  void anEditThatChangesNothingSaysSoAndADragThatDoesIsSilent() {
    session.commit("level", p -> p.withMasterDb(0));
    assertThat(said).containsExactly("Nothing to change: level.");
    session.drag("level", p -> p.withMasterDb(0));
    session.endDrag();
    session.commit("level", p -> p.withMasterDb(-3));
    assertThat(said).hasSize(1);
    assertThat(session.undoName()).hasValue("level");
  }

  @Test
  void anEditThatCannotBeMadeSaysWhyAndChangesNothing() {
    Project before = session.present();
    session.commit(
        "no",
        p -> {
          throw new Problem("The clip is too short for that: make it longer.");
        });
    assertThat(said).containsExactly("The clip is too short for that: make it longer.");
    assertThat(session.present()).isSameAs(before);
    assertThat(session.undoName()).isEmpty();
  }

  @Test
  void aDragThatFailsWhenItEndsLeavesWhatIsThere() {
    boolean[] broken = {false};
    session.drag(
        "move",
        p -> {
          if (broken[0]) {
            throw new IllegalStateException("a fault in the edit");
          }
          return moveTo(3).apply(p);
        });
    broken[0] = true;
    assertThatThrownBy(session::endDrag).isInstanceOf(IllegalStateException.class);
    assertThat(session.shown()).isEqualTo(session.present());
    assertThat(start(session.shown())).isZero();
    assertThat(session.isDragging()).isFalse();
  }

  @Test
  void anEditThatSearchesIsMadeOnWhatIsPresentByThen() {
    List<Runnable> later = new ArrayList<>();
    Session waiting = new Session(Songs.NONE, new NotedMessages(), (work, then) -> later.add(then));
    waiting.open(session.present(), Optional.empty());
    waiting.commitSearched(
        "quieter", p -> p.withMasterDb(p.masterDb() - 1), () -> said.add("done"));
    waiting.commit("meanwhile", p -> p.withMasterDb(-5));
    later.forEach(Runnable::run);
    assertThat(waiting.present().masterDb()).isEqualTo(-6);
    assertThat(said).containsExactly("done");
  }

  @Test
  void whatIsFoundLateForOneProjectGoesIntoNoOther() {
    List<Runnable> later = new ArrayList<>();
    SampleSource sound = tune();
    Song song = new Song(SongAnalyzer.analyze(sound, RATE, "tune", Progress.NONE), sound);
    Session waiting =
        new Session(
            media -> Optional.of(song),
            new NotedMessages(),
            (work, then) ->
                later.add(
                    () -> {
                      work.run();
                      then.run();
                    }));
    Project looped =
        session
            .present()
            .withTrack(
                music, t -> t.withClip(clip, c -> c.withFit(Optional.of(Fit.of(FitMode.LOOP, 0)))));
    waiting.open(looped, Optional.empty());
    waiting.commit("longer", p -> ClipEdits.trimEnd(p, clip, 150L * RATE));
    waiting.commitSearched("quieter", master(-1), () -> said.add("done"));
    waiting.followFits();
    assertThat(later).hasSize(3);
    Project other = ClipEdits.trimEnd(looped, clip, 40L * RATE);
    waiting.open(other, Optional.empty());
    later.forEach(Runnable::run);
    assertThat(waiting.present()).isEqualTo(other);
    assertThat(waiting.hasUnsavedChanges()).isFalse();
    assertThat(said).isEmpty();
  }

  /** Two notes in turn for a minute, with a stroke on each. */
  private static SampleSource tune() {
    float[] samples = new float[60 * RATE];
    for (int i = 0; i < samples.length; i++) {
      double t = i / (double) RATE;
      double note = t % 4 < 2 ? 220 : 330;
      samples[i] = (float) (0.4 * Math.sin(2 * Math.PI * note * t) * Math.exp(-4 * (t % 0.5)));
    }
    return SampleSource.of(samples);
  }

  @Test
  void musicWhoseSongIsNotYetListenedToFollowsAfterThat() {
    List<Song> heard = new ArrayList<>();
    Session listening =
        new Session(
            media -> heard.stream().findFirst(),
            new Messages() {
              @Override
              public void say(String sentence) {}

              @Override
              public void complain(String sentence) {
                said.add(sentence);
              }

              @Override
              public void takeBack(String sentence) {}
            },
            (work, then) -> {
              work.run();
              then.run();
            });
    listening.open(
        session
            .present()
            .withTrack(
                music, t -> t.withClip(clip, c -> c.withFit(Optional.of(Fit.of(FitMode.LOOP, 0))))),
        Optional.empty());
    listening.commit("longer", p -> ClipEdits.trimEnd(p, clip, 150L * RATE));
    listening.commit("softer", master(-3));
    assertThat(said).isEmpty();
    assertThat(listening.present().clip(clip).orElseThrow().seams()).isEmpty();
    SampleSource sound = tune();
    heard.add(new Song(SongAnalyzer.analyze(sound, RATE, "tune", Progress.NONE), sound));
    listening.followFits();
    Clip followed = listening.present().clip(clip).orElseThrow();
    assertThat(followed.seams()).isNotEmpty();
    assertThat(followed.endFrame()).isEqualTo(150L * RATE);
    assertThat(listening.present().masterDb()).isEqualTo(-3);
    assertThat(listening.undoName()).contains("softer");
  }

  @Test
  void savingMarksItSavedAndUndoPastThatPointUnsaved() {
    session.commit("one", master(-1));
    assertThat(session.hasUnsavedChanges()).isTrue();
    Path file = folder.resolve("film.hushrise");
    ProjectFile.save(session.present(), file);
    session.saved(session.snapshot(), file);
    assertThat(session.hasUnsavedChanges()).isFalse();
    assertThat(ProjectFile.load(file).masterDb()).isEqualTo(-1);
    session.undo();
    assertThat(session.hasUnsavedChanges()).isTrue();
    session.redo();
    assertThat(session.hasUnsavedChanges()).isFalse();
  }

  @Test
  void whatWasSelectedAndIsGoneIsSelectedNoMore() {
    session.select(new Selection.OfClip(music, clip));
    session.commit("delete", p -> ClipRemoval.delete(p, Set.of(clip), false, false));
    assertThat(session.selection()).isEqualTo(Selection.nothing());
  }

  @Test
  void thePlayheadStaysWithinTheFilm() {
    session.seek(-5);
    assertThat(session.playhead()).isZero();
    session.seek(1_000L * RATE);
    assertThat(session.playhead()).isEqualTo(60L * RATE);
  }

  /**
   * Whatever is dragged, drafted, compared, pointed at and found out in whatever order: what is
   * shown is the present project once all of it is over, and undo leads back to the beginning.
   */
  @Test
  void anyOrderOfThingsEndsInThePresentProject() {
    for (int seed = 0; seed < 400; seed++) {
      begin();
      Project first = session.present();
      Random random = new Random(seed);
      for (int i = 0; i < 40; i++) {
        any(random);
      }
      session.cancelDrag();
      session.pointAway();
      session.endComparison();
      session.leaveDraft();
      assertThat(session.shown()).as("seed %d", seed).isEqualTo(session.present());
      while (session.undoName().isPresent()) {
        session.undo();
      }
      assertThat(session.present()).as("seed %d", seed).isEqualTo(first);
    }
  }

  private void any(Random random) {
    switch (random.nextInt(12)) {
      case 0, 1 -> session.drag("move", moveTo(random.nextInt(20)));
      case 2 -> session.endDrag();
      case 3 -> session.cancelDrag();
      case 4 -> session.compare(HushEdits::withoutHushes);
      case 5 -> session.endComparison();
      case 6 -> session.showDraft(drafted());
      case 7 -> session.takeDraft("draft");
      case 8 -> session.pointAt(master(-random.nextInt(9)));
      case 9 -> session.commit("level", master(-random.nextInt(9)));
      case 10 -> session.undo();
      default -> session.redo();
    }
  }
}
