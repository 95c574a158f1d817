package hushrise.core.fit;

import static hushrise.core.fit.Pieces.RATE;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import hushrise.core.Problem;
import hushrise.core.edit.ClipEdits;
import hushrise.core.edit.Placement;
import hushrise.core.edit.ShelfEdits;
import hushrise.core.mix.Mixer;
import hushrise.core.mix.Projects;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.FitMode;
import hushrise.core.project.timeline.Seam;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import hushrise.core.sound.SoundLibrary;
import hushrise.core.time.Span;
import java.nio.file.Path;
import java.util.Optional;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** A music clip keeps its fit, whatever happens to the picture. */
class FitsTest {

  private static Pieces.Piece piece;
  private static Song song;
  private static final Songs SONGS = media -> Optional.of(song);
  private static final SoundLibrary LIBRARY =
      (media, rate) ->
          media.kind() == MediaKind.PICTURE ? SampleSource.of(new float[1]) : piece.sound();

  @BeforeAll
  static void listen() {
    piece = Pieces.songForm("song", 104, 21);
    song = piece.analysed();
  }

  private static Project project(double pictureSeconds) {
    return film(piece, SONGS, pictureSeconds);
  }

  /** A film of a length with a piece of music placed under it. */
  static Project film(Pieces.Piece piece, Songs songs, double pictureSeconds) {
    Media picture = Projects.film("film", pictureSeconds, false, 25);
    Project film = Placement.add(Project.empty("p"), picture, 0, songs);
    return Placement.add(film, mediaOf(piece), 0, songs);
  }

  private static Media mediaOf(Pieces.Piece piece) {
    return new Media(
        "song",
        Path.of("/song.wav"),
        MediaKind.MUSIC,
        piece.sound().lengthFrames(),
        true,
        Optional.empty(),
        "");
  }

  static Clip music(Project project) {
    return project.firstTrack(TrackKind.MUSIC).orElseThrow().clips().getFirst();
  }

  private static Project withPictureOf(Project project, double seconds) {
    Clip film = project.pictureClip().orElseThrow();
    return ClipEdits.trimEnd(project, film.id(), Math.round(seconds * RATE));
  }

  @Test
  void longMusicIsTrimmedAndShortMusicLoopedAsOneClip() {
    assertThat(music(project(40)).fit().orElseThrow().mode()).isEqualTo(FitMode.TRIM);
    assertThat(music(project(40)).endFrame()).isEqualTo(40L * RATE);
    Project looped = project(300);
    assertThat(looped.firstTrack(TrackKind.MUSIC).orElseThrow().clips()).hasSize(1);
    assertThat(music(looped).fit().orElseThrow().mode()).isEqualTo(FitMode.LOOP);
    assertThat(music(looped).endFrame()).isEqualTo(300L * RATE);
    assertThat(music(looped).seams()).isNotEmpty().allMatch(s -> s.score() > 0.7);
  }

  @Test
  void musicThatEndsInSilenceIsLoopedWhereItsSoundDoesNotLast() {
    Pieces.Piece ending = Pieces.withSilence("ending", 9, 30);
    Song listened = ending.analysed();
    Songs songs = media -> Optional.of(listened);
    double sounds = listened.analysis().soundEnd() / (double) RATE;
    assertThat(ending.seconds() - sounds).isGreaterThan(29);
    Project little = film(ending, songs, sounds + 3);
    assertThat(music(little).fit().orElseThrow().mode()).isEqualTo(FitMode.TRIM);
    Project film = film(ending, songs, sounds + 20);
    assertThat(music(film).fit().orElseThrow().mode()).isEqualTo(FitMode.LOOP);
    assertThat(music(film).seams()).isNotEmpty();
    Project cut = FitFollow.followed(film, withPictureOf(film, 30), songs).project();
    Project trimmed = Fits.set(cut, music(cut).id(), FitMode.TRIM, songs);
    Project longer = withPictureOf(trimmed, sounds + 20);
    Clip followed = music(FitFollow.followed(trimmed, longer, songs).project());
    assertThat(followed.fit().orElseThrow().mode()).isEqualTo(FitMode.LOOP);
    assertThat(followed.seams()).isNotEmpty();
    Project alone = Placement.add(Project.empty("p"), mediaOf(ending), 0, songs);
    assertThat(music(alone).fit().orElseThrow().mode()).isEqualTo(FitMode.TRIM);
  }

  @Test
  void aFitFollowsThePictureBothWays() {
    for (FitMode mode : FitMode.values()) {
      Project start = project(70);
      Project fitted = Fits.set(start, music(start).id(), mode, SONGS);
      assertThat(music(fitted).endFrame()).as("%s", mode).isEqualTo(70L * RATE);
      for (double seconds : new double[] {61.3, 45, 66.6}) {
        Project changed = withPictureOf(fitted, seconds);
        FitFollow.Followed followed = FitFollow.followed(changed, SONGS);
        assertThat(followed.problems()).isEmpty();
        assertThat(music(followed.project()).endFrame())
            .as("%s at %.1f s", mode, seconds)
            .isEqualTo(Math.round(seconds * RATE));
        fitted = followed.project();
      }
    }
  }

  @Test
  void trimmedMusicThatDoesNotLastTillTheNewEndIsLooped() {
    Project start = project(300);
    String id = music(start).id();
    Project cut = FitFollow.followed(start, withPictureOf(start, 40), SONGS).project();
    Project trimmed = Fits.set(cut, id, FitMode.TRIM, SONGS);
    assertThat(music(trimmed).endFrame()).isEqualTo(40L * RATE);
    Project longer = withPictureOf(trimmed, 300);
    Clip looped = music(FitFollow.followed(trimmed, longer, SONGS).project());
    assertThat(looped.fit().orElseThrow().mode()).isEqualTo(FitMode.LOOP);
    assertThat(looped.endFrame()).isEqualTo(300L * RATE);
    Clip unheard = music(FitFollow.followed(trimmed, longer, Songs.NONE).project());
    assertThat(unheard.fit().orElseThrow().mode()).isEqualTo(FitMode.TRIM);
    assertThat(unheard.endFrame()).isEqualTo(piece.sound().lengthFrames());
    assertThat(FitFollow.followedAsKnown(trimmed, longer, Songs.NONE).awaitsListening()).isTrue();
    Project byHand = ClipEdits.trimEnd(trimmed, id, 30L * RATE);
    Project longerByHand = withPictureOf(byHand, 300);
    assertThat(music(FitFollow.followed(byHand, longerByHand, SONGS).project()).endFrame())
        .isEqualTo(30L * RATE);
  }

  @Test
  void musicThatCameBeforeALongerFilmIsLooped() {
    Media film = Projects.film("film", 300, false, 25);
    Project alone = withoutPicture(project(300));
    assertThat(music(alone).endFrame()).isEqualTo(piece.sound().lengthFrames());
    assertThat(music(alone).fit().orElseThrow().mode()).isEqualTo(FitMode.TRIM);
    Project filmed = Placement.add(alone, film, 0, SONGS);
    Clip followed = music(FitFollow.followed(alone, filmed, SONGS).project());
    assertThat(followed.fit().orElseThrow().mode()).isEqualTo(FitMode.LOOP);
    assertThat(followed.endFrame()).isEqualTo(300L * RATE);
  }

  /** The same music, placed where there is no film. */
  private static Project withoutPicture(Project film) {
    Media song = film.media(music(film).mediaId()).orElseThrow();
    return Placement.add(Project.empty("p"), song, 0, SONGS);
  }

  @Test
  void tailoredMusicKeepsItsBeginningAndItsEndingLandsOnThePicturesEnd() {
    Project start = project(50);
    Project fitted = Fits.set(start, music(start).id(), FitMode.TAILOR, SONGS);
    Clip clip = music(fitted);
    assertThat(clip.startFrame()).isBetween(0L, RATE * 6L / 10);
    assertThat(clip.mediaStartFrame()).isEqualTo(song.analysis().soundStart());
    assertThat(clip.endFrame()).isEqualTo(50L * RATE);
    float[] ending = new float[RATE];
    Mixer.of(fitted, LIBRARY).render(49L * RATE, RATE, ending, new float[RATE]);
    float[] own = new float[RATE];
    piece.sound().read(song.analysis().soundEnd() - RATE, RATE, own, new float[RATE], 0);
    assertThat(ending).containsExactly(own);
  }

  @Test
  void aRejectedSeamDoesNotComeBackAndAMovedOneStays() {
    Project looped = project(300);
    Seam first = music(looped).seams().getFirst();
    Project other = Fits.rejectSeam(looped, music(looped).id(), 0, SONGS);
    Seam next = music(other).seams().getFirst();
    assertThat(next).isNotEqualTo(first);
    assertThat(
            Math.abs(next.fromFrame() - first.fromFrame())
                + Math.abs(next.toFrame() - first.toFrame()))
        .isGreaterThan(RATE / 4);
    Project guarded =
        Fits.refine(
            looped, music(looped).id(), f -> f.withProtected(12L * RATE, 12L * RATE), SONGS);
    first = music(guarded).seams().getFirst();
    Project moved = Fits.moveSeam(guarded, music(guarded).id(), 0, 4, SONGS);
    Seam shifted = music(moved).seams().getFirst();
    double beats = 4 * 60 / 104.0;
    assertThat((shifted.fromFrame() - first.fromFrame()) / (double) RATE)
        .isBetween(beats - 0.03, beats + 0.03);
    assertThat(music(moved).endFrame()).isEqualTo(300L * RATE);
    Project again = FitFollow.followed(withPictureOf(moved, 290), SONGS).project();
    assertThat(music(again).seams().getFirst()).isEqualTo(shifted);
  }

  @Test
  void protectedPartsAreNeverRepeated() {
    Project looped = project(300);
    long intro = 20L * RATE;
    long outro = 15L * RATE;
    Project guarded =
        Fits.refine(looped, music(looped).id(), f -> f.withProtected(intro, outro), SONGS);
    for (Seam seam : music(guarded).seams()) {
      assertThat(seam.toFrame()).isGreaterThan(intro - RATE);
      assertThat(seam.fromFrame()).isLessThan(song.analysis().soundEnd() - outro + RATE);
    }
  }

  @Test
  void whatCannotBeFittedIsSaidInWordsAndChangesNothing() {
    Project start = project(50);
    String id = music(start).id();
    Project tiny = withPictureOf(start, 1.5);
    assertThatThrownBy(() -> Fits.set(tiny, id, FitMode.TAILOR, SONGS))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("song.wav")
        .hasMessageContaining("choose trim or loop");
    assertThatThrownBy(() -> Fits.set(tiny, id, FitMode.LOOP, SONGS))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("shorten them");
    Project late = ClipEdits.move(start, java.util.Set.of(id), 60L * RATE, false);
    assertThat(FitFollow.followed(late, SONGS).problems())
        .singleElement()
        .asString()
        .contains("move it earlier");
    SampleSource brief = SampleSource.of(new float[RATE / 2]);
    assertThatThrownBy(() -> SongAnalyzer.analyze(brief, RATE, "b.wav", Progress.NONE))
        .hasMessageContaining("shorter than a second");
    SampleSource silent = SampleSource.of(new float[4 * RATE]);
    assertThatThrownBy(() -> SongAnalyzer.analyze(silent, RATE, "b.wav", Progress.NONE))
        .hasMessageContaining("is silent");
  }

  @Test
  void theFadeOfATrimmedSongBeginsAtAQuietPlaceOnABeat() {
    Project start = project(50);
    long at = TrimAdvice.fadeStart(song.analysis(), music(start)).orElseThrow();
    assertThat(50L * RATE - at).isBetween((long) RATE, 9L * RATE);
    assertThat(song.analysis().edges()).contains(at);
  }

  /** What is heard of a clip that was trimmed by hand: its music goes on to where it ends. */
  private void soundsToItsEnd(Project project) {
    Clip clip = music(project);
    float[] last = new float[RATE];
    Mixer.of(project, LIBRARY, t -> t.kind() == TrackKind.MUSIC)
        .render(
            clip.endFrame() - clip.fadeOut().visibleFrames() - RATE, RATE, last, new float[RATE]);
    double sum = 0;
    for (float s : last) {
      sum += s * s;
    }
    assertThat(Math.sqrt(sum / RATE)).isGreaterThan(0.01);
  }

  @Test
  void aLoopedClipWhoseEndIsDraggedFarOutGoesOnSounding() {
    Project start = project(70);
    String id = music(start).id();
    Project looped = Fits.set(start, id, FitMode.LOOP, SONGS);
    Project dragged = ClipEdits.trimEnd(looped, id, 250L * RATE);
    Project followed = FitFollow.followed(looped, dragged, SONGS).project();
    assertThat(music(followed).endFrame()).isEqualTo(250L * RATE);
    assertThat(music(followed).seams().size()).isGreaterThan(music(looped).seams().size());
    soundsToItsEnd(followed);
    Project shorter =
        FitFollow.followed(followed, ClipEdits.trimEnd(followed, id, 90L * RATE), SONGS).project();
    assertThat(music(shorter).endFrame()).isEqualTo(90L * RATE);
    soundsToItsEnd(shorter);
  }

  @Test
  void aTailoredClipWhoseEndIsDraggedKeepsItsOwnEnding() {
    Project start = project(70);
    String id = music(start).id();
    Project tailored = Fits.set(start, id, FitMode.TAILOR, SONGS);
    Project followed =
        FitFollow.followed(tailored, ClipEdits.trimEnd(tailored, id, 52L * RATE), SONGS).project();
    assertThat(music(followed).endFrame()).isEqualTo(52L * RATE);
    float[] ending = new float[RATE];
    Mixer.of(followed, LIBRARY, t -> t.kind() == TrackKind.MUSIC)
        .render(51L * RATE, RATE, ending, new float[RATE]);
    float[] own = new float[RATE];
    piece.sound().read(song.analysis().soundEnd() - RATE, RATE, own, new float[RATE], 0);
    assertThat(ending).containsExactly(own);
  }

  @Test
  void aClipTrimmedByHandKeepsItsLengthWhenItIsMoved() {
    Project start = project(70);
    String id = music(start).id();
    Project looped = Fits.set(start, id, FitMode.LOOP, SONGS);
    Project longer =
        FitFollow.followed(looped, ClipEdits.trimEnd(looped, id, 95L * RATE), SONGS).project();
    Project moved = ClipEdits.move(longer, java.util.Set.of(id), 5L * RATE, false);
    Clip clip = music(FitFollow.followed(longer, moved, SONGS).project());
    assertThat(clip.startFrame()).isEqualTo(5L * RATE);
    assertThat(clip.endFrame()).isEqualTo(100L * RATE);
    assertThat(clip.seams()).isEqualTo(music(longer).seams());
  }

  @Test
  void withoutSearchingWhatIsNotKnownIsLeftAndWhatIsKnownFollows() {
    Project start = project(70);
    String id = music(start).id();
    Project looped = Fits.set(start, id, FitMode.LOOP, SONGS);
    Project dragged = ClipEdits.trimEnd(looped, id, 187L * RATE);
    FitFollow.Followed first = FitFollow.followedAsKnown(looped, dragged, SONGS);
    assertThat(first.isComplete()).isFalse();
    assertThat(first.project()).isEqualTo(dragged);
    Project searched = FitFollow.followed(looped, dragged, SONGS).project();
    FitFollow.Followed second = FitFollow.followedAsKnown(looped, dragged, SONGS);
    assertThat(second.isComplete()).isTrue();
    assertThat(second.project()).isEqualTo(searched);
  }

  @Test
  void aSongThatHasYetToBeListenedToIsNoProblemAndNothingToSearch() {
    Project start = project(70);
    String id = music(start).id();
    Project looped = Fits.set(start, id, FitMode.LOOP, SONGS);
    Project dragged = ClipEdits.trimEnd(looped, id, 493L * RATE);
    FitFollow.Followed before = FitFollow.followedAsKnown(looped, dragged, Songs.NONE);
    assertThat(before.problems()).isEmpty();
    assertThat(before.isComplete()).isTrue();
    assertThat(before.awaitsListening()).isTrue();
    assertThat(before.project()).isEqualTo(dragged);
    FitFollow.Followed after = FitFollow.followed(looped, dragged, SONGS);
    assertThat(after.awaitsListening()).isFalse();
    assertThat(music(after.project()).endFrame()).isEqualTo(493L * RATE);
    assertThat(music(after.project()).seams()).isNotEmpty();
  }

  @Test
  void onlyTheMarkedPartOfASongIsEverHeard() {
    Span part = new Span(12L * RATE, 50L * RATE);
    Project film = project(70);
    String song = music(film).mediaId();
    Project marked = ShelfEdits.setUseful(film, song, part);
    String track = marked.firstTrack(TrackKind.MUSIC).orElseThrow().id();
    Project empty = marked.withTrack(track, t -> t.withClips(java.util.List.of()));
    for (double seconds : new double[] {30, 180}) {
      Project placed = withPictureOf(empty, Math.min(seconds, 70));
      Project project = Placement.place(placed, song, 0, SONGS);
      Clip clip = music(project);
      Project longer =
          FitFollow.followed(
                  project, ClipEdits.trimEnd(project, clip.id(), Math.round(seconds * RATE)), SONGS)
              .project();
      heardWithin(music(longer), part);
      heardWithin(clip, part);
    }
    Project plain = Placement.place(empty, song, 0, Songs.NONE);
    heardWithin(music(plain), part);
  }

  /** Walks through a clip's content; crossfades may reach over the part's ends. */
  private static void heardWithin(Clip clip, Span part) {
    for (long at = 0; at < clip.lengthFrames(); at += RATE / 10) {
      assertThat(clip.mediaFrameAt(at)).isBetween(part.startFrame() - RATE, part.endFrame() + RATE);
    }
  }
}
