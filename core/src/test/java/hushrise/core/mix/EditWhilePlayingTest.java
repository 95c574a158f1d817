package hushrise.core.mix;

import static hushrise.core.mix.Projects.RATE;
import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.Decibels;
import hushrise.core.edit.ClipEdits;
import hushrise.core.edit.ClipRemoval;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelLine;
import hushrise.core.project.level.SegmentShape;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.LongRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;

/** Whatever is edited while it plays, the level never jumps. */
class EditWhilePlayingTest {

  private static final int BLOCK = 512;
  private static final double AUDIBLE_DB = -58;

  private final Projects.Sounds sounds = new Projects.Sounds();

  /** A film of one clip of a sound. */
  private static Project playing(Media sound) {
    return Project.empty("p")
        .withMedia(sound)
        .withTracks(
            List.of(Track.of(TrackKind.MUSIC, "m", List.of(Clip.whole(sound, 0).withId("a")))));
  }

  @Test
  void noEditMakesTheGainJumpByMoreThanATenthOfADecibel() {
    Media one = sounds.add("one", MediaKind.MUSIC, Projects.constant(20 * RATE, 0.5));
    Project start = playing(one);
    String track = start.tracks().getFirst().id();
    List<Project> edits = new ArrayList<>();
    edits.add(start.withTrack(track, t -> t.withLevelDb(-24)));
    edits.add(start.withTrack(track, t -> t.withLevelDb(6)));
    edits.add(
        start.withTrack(
            track, t -> t.withHushes(List.of(Hush.over(new Span(0, 20L * RATE), -40)))));
    edits.add(start);
    edits.add(start.withTrack(track, t -> t.withMuted(true)));
    edits.add(start);
    edits.add(ClipRemoval.delete(start, Set.of("a"), false, false));
    edits.add(start);
    edits.add(start.withMasterDb(-18));
    edits.add(start.withTrack(track, t -> t.withPan(0.8)));
    edits.add(
        start.withTrack(
            track,
            t -> t.withLine(LevelLine.of(List.of(new Keyframe(0, -60, SegmentShape.HOLD))))));
    edits.add(ClipEdits.setGain(start, Set.of("a"), 12));
    edits.add(ClipEdits.move(start, Set.of("a"), 1_000, false));
    edits.add(ClipEdits.slip(start, "a", -4_000));

    Mixer mixer = Mixer.of(start, sounds);
    long at = RATE;
    double last = Double.NaN;
    float[] left = new float[BLOCK];
    float[] right = new float[BLOCK];
    for (Project edit : edits) {
      for (int block = 0; block < 20; block++) {
        if (block == 3) {
          Mixer next = Mixer.of(edit, sounds);
          next.follow(mixer);
          mixer = next;
        }
        mixer.begin();
        mixer.render(at, BLOCK, left, right);
        for (int i = 0; i < BLOCK; i++) {
          double db = Decibels.ofFactor(Math.abs(right[i]) + 1e-9);
          if (db > AUDIBLE_DB && last > AUDIBLE_DB) {
            assertThat(Math.abs(db - last))
                .as("frame %d of edit %d, block %d", i, edits.indexOf(edit), block)
                .isLessThanOrEqualTo(0.1);
          }
          last = db;
        }
        at += BLOCK;
      }
      float[] settled = new float[BLOCK];
      Mixer.of(edit, sounds).render(at, BLOCK, settled, right);
      mixer.render(at, BLOCK, left, right);
      assertThat(left).as("settled after edit %d", edits.indexOf(edit)).containsExactly(settled);
    }
  }

  @Test
  void anEditBeforeTheFirstBlockIsHeardAsAnyOther() {
    Media one = sounds.add("one", MediaKind.MUSIC, Projects.constant(RATE, 0.5));
    Project start = playing(one);
    Project edited = start.withMasterDb(-6);
    Mixer next = Mixer.of(edited, sounds);
    next.follow(Mixer.of(start, sounds));
    next.begin();
    float[] left = new float[BLOCK];
    for (long at = 0; at < 20 * BLOCK; at += BLOCK) {
      next.render(at, BLOCK, left, new float[BLOCK]);
    }
    float[] settled = new float[BLOCK];
    Mixer.of(edited, sounds).render(19 * BLOCK, BLOCK, settled, new float[BLOCK]);
    assertThat(left).containsExactly(settled);
  }

  @Test
  void aFileThatGoesFadesOutAndIsBackWithoutAClick() {
    Media one = sounds.add("one", MediaKind.MUSIC, Projects.constant(20 * RATE, 0.5));
    Project project = playing(one);
    Projects.Sounds gone = new Projects.Sounds();
    gone.add("one", MediaKind.MUSIC, Projects.constant(20 * RATE, 0));
    Mixer mixer = Mixer.of(project, sounds);
    float[] left = new float[BLOCK];
    float[] right = new float[BLOCK];
    long at = RATE;
    double last = Double.NaN;
    for (Projects.Sounds now : List.of(sounds, gone, sounds)) {
      Mixer next = Mixer.of(project, now);
      next.follow(mixer);
      mixer = next;
      for (int block = 0; block < 20; block++) {
        mixer.begin();
        mixer.render(at, BLOCK, left, right);
        for (int i = 0; i < BLOCK; i++) {
          double db = Decibels.ofFactor(Math.abs(right[i]) + 1e-9);
          if (db > AUDIBLE_DB && last > AUDIBLE_DB) {
            assertThat(Math.abs(db - last)).as("frame %d", at + i).isLessThanOrEqualTo(0.1);
          }
          assertThat(last > -12 && db < AUDIBLE_DB).as("it drops at once").isFalse();
          last = db;
        }
        at += BLOCK;
      }
      assertThat(last > AUDIBLE_DB).isEqualTo(now == sounds);
    }
  }

  @Test
  void aClipThatBeginsAfterAnEditBeginsAtOnce() {
    Media one = sounds.add("one", MediaKind.MUSIC, Projects.constant(RATE, 0.5));
    Project start =
        Project.empty("p")
            .withMedia(one)
            .withTracks(
                List.of(
                    Track.of(TrackKind.MUSIC, "m", List.of(Clip.whole(one, 2_000).withId("a")))));
    Mixer mixer = Mixer.of(start, sounds);
    float[] left = new float[BLOCK];
    mixer.render(0, BLOCK, left, new float[BLOCK]);
    Mixer next = Mixer.of(start.withMasterDb(-6), sounds);
    next.follow(mixer);
    next.begin();
    for (long at = BLOCK; at < 2_560; at += BLOCK) {
      next.render(at, BLOCK, left, new float[BLOCK]);
    }
    double expected = 0.5 * Decibels.toFactor(-6);
    assertThat((double) left[2_000 - 3 * BLOCK + 1])
        .isEqualTo(expected, org.assertj.core.api.Assertions.within(1e-3));
  }

  /** Blocks, clips and edits that begin anywhere, as a person presses play anywhere. */
  @Property(tries = 200)
  void whereverPlayingBeginsNoEditMakesTheGainJump(
      @ForAll @LongRange(min = 0, max = 3_000) long playFrom,
      @ForAll @LongRange(min = 0, max = 3_000) long clipStart,
      @ForAll @IntRange(min = 33, max = 700) int blockFrames,
      @ForAll @IntRange(min = 1, max = 12) int blocksBetweenEdits,
      @ForAll @Size(min = 2, max = 5) List<@DoubleRange(min = -30, max = 12) Double> levels) {
    Projects.Sounds own = new Projects.Sounds();
    Media one = own.add("one", MediaKind.MUSIC, Projects.constant(2 * RATE, 0.5));
    Track track =
        Track.of(TrackKind.MUSIC, "m", List.of(Clip.whole(one, clipStart).withId("a")))
            .withHushes(List.of(Hush.over(new Span(9_001, 16_003), -14)));
    Project start = Project.empty("p").withMedia(one).withTracks(List.of(track));
    Mixer mixer = Mixer.of(start, own);
    float[] left = new float[blockFrames];
    float[] right = new float[blockFrames];
    long at = playFrom;
    double last = Double.NaN;
    for (double level : levels) {
      for (int block = 0; block < blocksBetweenEdits; block++) {
        mixer.begin();
        mixer.render(at, blockFrames, left, right);
        for (int i = 0; i < blockFrames; i++) {
          double db = Decibels.ofFactor(Math.abs(left[i]) + 1e-9);
          if (db > AUDIBLE_DB && last > AUDIBLE_DB) {
            assertThat(Math.abs(db - last)).as("frame %d", at + i).isLessThanOrEqualTo(0.1);
          }
          last = db;
        }
        at += blockFrames;
      }
      Mixer next = Mixer.of(start.withTrack(track.id(), t -> t.withLevelDb(level)), own);
      next.follow(mixer);
      mixer = next;
    }
  }
}
