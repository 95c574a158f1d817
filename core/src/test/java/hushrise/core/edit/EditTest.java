package hushrise.core.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import hushrise.core.fit.Songs;
import hushrise.core.mix.Projects;
import hushrise.core.project.Project;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.FrameRate;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class EditTest {

  private final Project project = Projects.rich(new Projects.Sounds());
  private final String music = project.tracks().get(1).id();

  private static List<Keyframe> keyframes(Project p, String track) {
    return p.track(track).orElseThrow().line().keyframes();
  }

  @Test
  void undoAndRedoWalkThroughEveryStep() {
    History history = new History(project);
    for (int i = 1; i <= 500; i++) {
      history.commit("level " + i, history.present().withMasterDb(-i / 100.0));
    }
    assertThat(history.hasUnsavedChanges()).isTrue();
    for (int i = 500; i >= 1; i--) {
      assertThat(history.undoName()).hasValue("level " + i);
      assertThat(history.undo()).isTrue();
    }
    assertThat(history.undo()).isFalse();
    assertThat(history.present()).isEqualTo(project);
    assertThat(history.hasUnsavedChanges()).isFalse();
    assertThat(history.redo()).isTrue();
    assertThat(history.present().masterDb()).isEqualTo(-0.01);
    history.commit("another way", project.withMasterDb(3));
    assertThat(history.redoName()).isEmpty();
    assertThat(history.turns()).isEqualTo(500 + 500 + 1 + 1);
    history.amend(project.withMasterDb(4));
    assertThat(history.turns()).as("what was found out is no turn").isEqualTo(1002);
  }

  @Test
  void anEditThatChangesNothingIsNoStep() {
    History history = new History(project);
    history.commit("nothing", project.withMasterDb(project.masterDb()));
    assertThat(history.undoName()).isEmpty();
  }

  @Test
  void aSavedProjectIsUnsavedAgainAfterUndo() {
    History history = new History(project);
    history.commit("louder", project.withMasterDb(2));
    history.markSaved(history.snapshot());
    assertThat(history.hasUnsavedChanges()).isFalse();
    history.undo();
    assertThat(history.hasUnsavedChanges()).isTrue();
  }

  @Test
  void whatIsDoneWhileItIsWrittenIsNotSaved() {
    History history = new History(project);
    history.commit("louder", project.withMasterDb(2));
    History.Snapshot written = history.snapshot();
    history.amend(history.present().withName("found out"));
    assertThat(history.markSaved(written)).as("nothing was done since").isTrue();
    assertThat(history.hasUnsavedChanges()).isFalse();
    history.commit("louder still", history.present().withMasterDb(3));
    History.Snapshot again = history.snapshot();
    history.commit("softer", history.present().withMasterDb(-3));
    assertThat(history.markSaved(again)).isFalse();
    assertThat(history.hasUnsavedChanges()).isTrue();
    history.undo();
    assertThat(history.hasUnsavedChanges()).isFalse();
  }

  @Test
  void aNewKeyframeChangesNothingThatIsHeard() {
    Projects.Sounds sounds = new Projects.Sounds();
    Project rich = Projects.rich(sounds);
    String id = rich.tracks().get(1).id();
    float[] before = Projects.left(rich, sounds, 0, 450_000);
    Project with = LevelEdits.addKeyframe(rich, id, 120_000);
    assertThat(keyframes(with, id)).hasSize(5);
    float[] after = Projects.left(with, sounds, 0, 450_000);
    for (int i = 0; i < before.length; i++) {
      assertThat(after[i]).isCloseTo(before[i], within(1e-6f));
    }
  }

  @Test
  void aStretchMovesBothOfItsEndsAndNothingElse() {
    List<Keyframe> was = keyframes(project, music);
    Project moved =
        LevelEdits.moveStretch(project, music, was.get(1).frame(), was.get(2).frame(), -2);
    List<Keyframe> now = keyframes(moved, music);
    assertThat(now.get(1).levelDb()).isEqualTo(was.get(1).levelDb() - 2);
    assertThat(now.get(2).levelDb()).isEqualTo(was.get(2).levelDb() - 2);
    assertThat(now.get(0)).isEqualTo(was.get(0));
    assertThat(now.get(3)).isEqualTo(was.get(3));
  }

  @Test
  void fadesNeverOverlap() {
    Project longIn = FadeEdits.fitIn(project, "song", 100L * Projects.RATE);
    Clip song = longIn.track(music).orElseThrow().clips().getFirst();
    assertThat(song.fadeIn().lengthFrames()).isEqualTo(7L * Projects.RATE);
    Project longOut = FadeEdits.fitOut(longIn, "song", 100L * Projects.RATE);
    assertThat(longOut.track(music).orElseThrow().clips().getFirst().fadeOut().lengthFrames())
        .isEqualTo(2L * Projects.RATE);
    assertThat(
            FadeEdits.fitIn(project, "song", -5)
                .track(music)
                .orElseThrow()
                .clips()
                .getFirst()
                .fadeIn()
                .lengthFrames())
        .isZero();
  }

  @Test
  void anEditLeavesOtherTracksAsTheyWere() {
    String hush = project.tracks().get(1).hushes().getFirst().id();
    Project deeper = LevelEdits.setHushDepth(project, hush, -20);
    assertThat(deeper.tracks().get(1).hushes().getFirst().depthDb()).isEqualTo(-20);
    assertThat(deeper.tracks().get(0)).isSameAs(project.tracks().get(0));
    assertThat(deeper.tracks().get(2)).isSameAs(project.tracks().get(2));
    assertThat(LevelEdits.removeHush(project, hush).tracks().get(1).hushes()).hasSize(1);
  }

  @Test
  void aPictureBringsItsSoundAndMusicFitsItselfToIt() {
    Media film =
        new Media(
            "film",
            Path.of("/f.mp4"),
            MediaKind.PICTURE,
            90L * 48_000,
            true,
            Optional.of(new FrameRate(24, 1)),
            "");
    Media song = Projects.media("song", MediaKind.MUSIC, 40L * 48_000);
    Media take = Projects.media("take", MediaKind.VOICE, 5L * 48_000);
    Project p = Placement.add(Project.empty("new"), film, 0, Songs.NONE);
    p = Placement.add(p, song, 0, Songs.NONE);
    p = Placement.add(p, take, 10L * 48_000, Songs.NONE);
    assertThat(p.tracks().stream().map(Track::kind))
        .containsExactly(TrackKind.PICTURE, TrackKind.VOICE, TrackKind.MUSIC, TrackKind.CAMERA);
    assertThat(p.pictureRate()).isEqualTo(new FrameRate(24, 1));
    Clip music = p.firstTrack(TrackKind.MUSIC).orElseThrow().clips().getFirst();
    assertThat(music.endFrame()).isEqualTo(film.lengthFrames());
    assertThat(music.seams()).hasSize(2);
    assertThat(music.fadeIn().lengthFrames()).isEqualTo(2L * 48_000);
    assertThat(music.fadeOut().lengthFrames()).isEqualTo(4L * 48_000);
    assertThat(p.firstTrack(TrackKind.VOICE).orElseThrow().clips().getFirst().startFrame())
        .isEqualTo(10L * 48_000);
  }
}
