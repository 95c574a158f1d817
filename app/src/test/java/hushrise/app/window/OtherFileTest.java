package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import hushrise.app.command.CommandId;
import hushrise.app.session.Selection;
import hushrise.core.edit.ShelfEdits;
import hushrise.core.loudness.LoudnessSteps;
import hushrise.core.project.level.Hush;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.media.FileMixWriter;
import hushrise.media.OutputFormat;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** Another file in the place of one, by keys. */
@Tag(WindowTestCase.ANY_PLATFORM)
class OtherFileTest extends WindowTestCase {

  @BeforeEach
  void open() {
    untilOpen();
  }

  private Clip first(TrackKind kind) {
    return project().firstTrack(kind).orElseThrow().clipsInTime().getFirst();
  }

  private Media mediaOf(Clip clip) {
    return project().media(clip.mediaId()).orElseThrow();
  }

  /** Chooses a clip and another file for it, and waits until that is in its place. */
  private void put(Path file, Clip clip) {
    String track = project().trackOfClip(clip.id()).orElseThrow().id();
    robot.interact(() -> window.session().select(new Selection.OfClip(track, clip.id())));
    chosen.next(file);
    press(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.I);
    untilQuiet();
    assertThat(project().media(clip.mediaId()).orElseThrow().file()).isEqualTo(file);
  }

  /** Asks for a narration in a clip's place without waiting for it. */
  private void askForAnother(String track, Clip clip) {
    window.session().select(new Selection.OfClip(track, clip.id()));
    chosen.next(folder.resolve("narration-2.flac"));
    window.run(CommandId.OTHER_FILE);
  }

  private double lufs(Media media) {
    LoudnessSteps steps = store.steps(media);
    return steps.lufs(0, steps.count());
  }

  /** A minute of plucked chords, a beat of half a second. */
  private Path song() throws IOException {
    Path file = folder.resolve("bought.wav");
    float[] sound = new float[60 * RATE];
    for (int i = 0; i < sound.length; i++) {
      int beat = i / (RATE / 2);
      double since = i % (RATE / 2) / (double) RATE;
      double hertz = 110 * Math.pow(2, new int[] {0, 5, 7, 3}[beat / 4 % 4] / 12.0);
      sound[i] = (float) (0.2 * Math.exp(-4 * since) * Math.sin(2 * Math.PI * hertz * since));
    }
    try (FileMixWriter writer = FileMixWriter.ofSound(file, OutputFormat.WAV_16, RATE)) {
      writer.write(sound, sound, sound.length);
      writer.finish();
    }
    return file;
  }

  @Test
  void anotherSongIsFittedAsTheOldOneWasAndAsLoud() throws IOException {
    Clip before = first(TrackKind.MUSIC);
    Media old = mediaOf(before);
    List<Hush> hushes = music().hushes();
    put(song(), before);
    Clip after = first(TrackKind.MUSIC);
    assertThat(after.id()).isEqualTo(before.id());
    assertThat(after.endFrame()).isEqualTo(before.endFrame());
    assertThat(after.fit().orElseThrow().mode()).isEqualTo(before.fit().orElseThrow().mode());
    assertThat(lufs(mediaOf(after)) + after.gainDb())
        .isCloseTo(lufs(old) + before.gainDb(), within(0.06));
    assertThat(music().hushes()).isEqualTo(hushes);
    assertThat(status()).contains("bought.wav is in the place of " + old.title(), "as loud");
    press(KeyCode.CONTROL, KeyCode.Z);
    untilQuiet();
    assertThat(first(TrackKind.MUSIC)).isEqualTo(before);
    assertThat(mediaOf(before)).isEqualTo(old);
  }

  @Test
  void anotherReadingIsListenedToAndTheHushesFollowInTheSameStep() {
    Clip before = first(TrackKind.VOICE);
    Media old = mediaOf(before);
    put(folder.resolve("narration-3.flac"), before);
    Media now = mediaOf(before);
    assertThat(now.speech().orElseThrow()).isNotEmpty().isNotEqualTo(old.speech().orElseThrow());
    long end = before.startFrame() - before.mediaStartFrame();
    long spoken = end + now.speech().orElseThrow().getLast().endFrame();
    assertThat(music().hushes())
        .anyMatch(h -> Math.abs(h.endFrame() - spoken) < RATE && h.endFrame() >= spoken);
    press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(first(TrackKind.VOICE)).isEqualTo(before);
  }

  @Test
  void ofTwoThatAreAskedForAtOnceTheLastOneComesAndUndoIsKept() throws IOException {
    Clip before = first(TrackKind.MUSIC);
    Media old = mediaOf(before);
    Path bought = song();
    String id = music().id();
    robot.interact(
        () -> {
          askForAnother(id, before);
          chosen.next(bought);
          window.run(CommandId.OTHER_FILE);
        });
    untilQuiet();
    Clip after = first(TrackKind.MUSIC);
    assertThat(mediaOf(after).file()).isEqualTo(bought);
    assertThat(lufs(mediaOf(after)) + after.gainDb())
        .isCloseTo(lufs(old) + before.gainDb(), within(0.06));
    press(KeyCode.CONTROL, KeyCode.Z);
    untilQuiet();
    assertThat(mediaOf(first(TrackKind.MUSIC))).isEqualTo(old);
  }

  @Test
  void anAnswerForWhatWasTakenOffMeanwhileSaysAndDoesNothing() {
    Clip before = first(TrackKind.MUSIC);
    String track = music().id();
    robot.interact(
        () -> {
          askForAnother(track, before);
          window.session().commit("off", p -> ShelfEdits.remove(p, before.mediaId()));
        });
    untilQuiet();
    assertThat(project().media(before.mediaId())).isEmpty();
    assertThat(window.session().undoName()).hasValue("off");
    assertThat(status()).doesNotContain("in the place");
  }

  @Test
  void aFileThatDoesNotServeIsRefusedAndNothingChanges() throws IOException {
    Clip picture = first(TrackKind.PICTURE);
    Path notes =
        Files.copy(
            folder.resolve("narration-1.flac"),
            folder.resolve("no picture.flac"),
            StandardCopyOption.REPLACE_EXISTING);
    var before = project();
    String track = before.trackOfClip(picture.id()).orElseThrow().id();
    robot.interact(() -> window.session().select(new Selection.OfClip(track, picture.id())));
    chosen.next(notes);
    press(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.I);
    untilQuiet();
    assertThat(project()).isEqualTo(before);
    assertThat(status()).contains("no picture.flac");
  }
}
