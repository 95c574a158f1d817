package hushrise.app.timeline;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.session.Selection;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelLine;
import hushrise.core.project.level.SegmentShape;
import hushrise.core.project.level.Turn;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Fade;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** What a press in a lane takes hold of: a pixel is a frame here. */
class LaneAimTest {

  private static final double HEIGHT = 200;
  private static final LevelScale SCALE = new LevelScale(HEIGHT);
  private static final double HANDLES = LaneGeometry.HANDLE_Y;

  private static Clip clip(String id, long from, long to) {
    return new Clip(id, "tune", from, to - from, from, List.of(), 0, Fade.NONE, Fade.NONE);
  }

  private static LaneAim aim(Track track, Selection selection) {
    return new LaneAim(new LaneGeometry(track, new TimeAxis(0, 1), SCALE, 100), selection);
  }

  private static LaneAim aim(Track track) {
    return aim(track, Selection.nothing());
  }

  private static Track music(Clip... clips) {
    return Track.of(TrackKind.MUSIC, "Music", List.of(clips));
  }

  @Test
  void whereTwoClipsMeetEachFadeIsTakenByItsOwnHandle() {
    LaneAim aim = aim(music(clip("a", 0, 300), clip("b", 300, 600)));
    assertThat(aim.at(296, HANDLES)).isEqualTo(new Target.OnFadeOut("a"));
    assertThat(aim.at(304, HANDLES)).isEqualTo(new Target.OnFadeIn("b"));
    assertThat(aim.at(300 + GroundMarks.FLAG, HANDLES)).isEqualTo(new Target.OnFadeIn("b"));
    assertThat(aim.at(320, HANDLES)).isEqualTo(new Target.OnClip("b"));
  }

  @Test
  void aClipWithoutRoomForHandlesIsTakenByItsBody() {
    LaneAim aim = aim(music(clip("a", 100, 120), clip("b", 200, 224)));
    assertThat(aim.at(110, HANDLES)).isEqualTo(new Target.OnClip("a"));
    assertThat(aim.at(204, HANDLES)).isEqualTo(new Target.OnFadeIn("b"));
    assertThat(aim.at(220, HANDLES)).isEqualTo(new Target.OnFadeOut("b"));
  }

  @Test
  void ofKeyframesWithinReachTheClosestIsTaken() {
    Keyframe high = new Keyframe(100, 0, SegmentShape.STRAIGHT);
    Keyframe middle = new Keyframe(102, -1, SegmentShape.STRAIGHT);
    Keyframe low = new Keyframe(104, -24, SegmentShape.STRAIGHT);
    Track track = music(clip("a", 0, 600)).withLine(LevelLine.of(List.of(high, middle, low)));
    LaneAim aim = aim(track);
    assertThat(aim.at(101, SCALE.yOf(0) - 1)).isEqualTo(new Target.OnKeyframe(0));
    assertThat(aim.at(102, SCALE.yOf(-1))).isEqualTo(new Target.OnKeyframe(1));
    assertThat(aim.at(99, SCALE.yOf(-24))).isEqualTo(new Target.OnKeyframe(2));
    assertThat(aim.at(111, SCALE.yOf(-24))).isEqualTo(new Target.OnKeyframe(2));
    assertThat(aim.at(92, SCALE.yOf(0))).isEqualTo(new Target.OnStretch(0));
  }

  /** Both fall and recover in 20 frames; one is up again 4 frames before the other falls. */
  private static Track hushed() {
    Turn turn = new Turn(0, 0.2, 0, 0.2);
    return music(clip("a", 0, 600))
        .withHushes(
            List.of(
                new Hush("first", 120, 200, -12, turn), new Hush("second", 244, 300, -12, turn)));
  }

  @Test
  void ofCornersWithinReachTheClosestIsTaken() {
    LaneAim aim = aim(hushed());
    Target up = new Target.OnShape("first", Target.Part.HUSH_RECOVERY);
    Target down = new Target.OnShape("second", Target.Part.HUSH_FALL);
    assertThat(aim.at(219, SCALE.yOf(0))).isEqualTo(up);
    assertThat(aim.at(225, SCALE.yOf(0))).isEqualTo(down);
  }

  @Test
  void theCornersThatAreSeenComeBeforeOthers() {
    Target down = new Target.OnShape("second", Target.Part.HUSH_FALL);
    LaneAim aim = aim(hushed(), new Selection.OfHush("music", "second"));
    assertThat(aim.at(219, SCALE.yOf(0))).isEqualTo(down);
    assertThat(aim.at(216, SCALE.yOf(0)))
        .as("out of its reach")
        .isEqualTo(new Target.OnShape("first", Target.Part.HUSH_RECOVERY));
  }

  @Test
  void ofPassagesCloseTogetherTheOneThatThePointerIsInIsTaken() {
    Media talk =
        new Media("talk", Path.of("talk.wav"), MediaKind.VOICE, 600, true, Optional.empty(), "")
            .withSpeech(Optional.of(List.of(new Span(100, 200), new Span(203, 300))));
    Project project = Project.empty("aim").withMedia(talk);
    Track voice = Track.of(TrackKind.VOICE, "Voice", List.of(Clip.whole(talk, 0).withId("talk")));
    LaneAim aim = aim(voice);
    double foot = HEIGHT - 2;
    assertThat(aim.at(199, foot, project)).isEqualTo(passage(0, Target.Hold.END));
    assertThat(aim.at(201, foot, project)).isEqualTo(passage(0, Target.Hold.END));
    assertThat(aim.at(202, foot, project)).isEqualTo(passage(1, Target.Hold.START));
    assertThat(aim.at(204, foot, project)).isEqualTo(passage(1, Target.Hold.START));
    assertThat(aim.at(250, foot, project)).isEqualTo(passage(1, Target.Hold.BODY));
  }

  private static Target passage(int index, Target.Hold hold) {
    return new Target.OnPassage("talk", index, hold);
  }
}
