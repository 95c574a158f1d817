package hushrise.core.ear;

import static hushrise.core.hush.Talk.at;
import static hushrise.core.mix.Projects.RATE;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import hushrise.core.edit.ClipEdits;
import hushrise.core.edit.EvenVoices;
import hushrise.core.edit.FadeEdits;
import hushrise.core.edit.HushEdits;
import hushrise.core.edit.LevelEdits;
import hushrise.core.edit.LoudMusic;
import hushrise.core.edit.ShelfEdits;
import hushrise.core.fit.Song;
import hushrise.core.fit.SongAnalyzer;
import hushrise.core.fit.Songs;
import hushrise.core.hush.HushDrafter;
import hushrise.core.hush.Talk;
import hushrise.core.loudness.FilmLoudness;
import hushrise.core.mix.Projects;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelLine;
import hushrise.core.project.level.Rise;
import hushrise.core.project.level.SegmentShape;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Fade;
import hushrise.core.project.timeline.Seam;
import hushrise.core.project.timeline.Side;
import hushrise.core.project.timeline.Track;
import hushrise.core.separation.Energies;
import hushrise.core.separation.Separation;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;

/** Each rule finds what it is for in an otherwise clean film, and its remedies mend it. */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class SecondEarTest {

  private static final Offset<Double> NEAR = within(0.02);

  private final Talk talk = new Talk(40, new double[] {4, 9}, new double[] {20, 26});
  private final String music = talk.music().id();
  private final String song = talk.music().clips().getFirst().id();
  private final String take = talk.voice().clips().getFirst().id();
  private final Project clean = clean();

  private Project clean() {
    Media film = Projects.media("film", MediaKind.PICTURE, at(40));
    List<Track> tracks = new ArrayList<>(talk.project.tracks());
    tracks.add(0, Track.of(TrackKind.PICTURE, "Picture", List.of(Clip.whole(film, 0))));
    Project project = talk.project.withMedia(film).withTracks(tracks);
    project = FadeEdits.setIn(project, song, at(2));
    project = FadeEdits.setOut(project, song, at(4));
    project = ShelfEdits.setCredit(project, talk.song.id(), "Made up");
    return HushDrafter.draft(project, talk.sounds).after();
  }

  private List<Finding> hear(Project project) {
    return hear(project, Songs.NONE);
  }

  private List<Finding> hear(Project project, Songs songs) {
    Energies energies = Energies.of(project, talk.sounds);
    return SecondEar.hear(
        new Heard(energies, Separation.of(energies, 10), talk.sounds, songs, List.of()));
  }

  /** The one finding of a rule, which must be the only one at all. */
  private Finding only(String rule, Project project) {
    List<Finding> all = hear(project);
    assertThat(all).extracting(Finding::rule).containsExactly(rule);
    return all.getFirst();
  }

  private void mends(Project project, Finding finding, int remedy) {
    Project mended = finding.remedies().get(remedy).edit().apply(project);
    assertThat(mended).isNotEqualTo(project);
    assertThat(hear(mended)).isEmpty();
  }

  private Hush firstHush() {
    return clean.track(music).orElseThrow().hushes().getFirst();
  }

  @Test
  void aFileThatSeemsCutShortIsSaidWithWhatItHolds() {
    Project cut = clean.withShelf(clean.shelf().stream().map(m -> m.withCutShort(true)).toList());
    List<Finding> found = hear(cut).stream().filter(f -> f.rule().equals(CutShortFile.ID)).toList();
    assertThat(found)
        .hasSize((int) clean.shelf().stream().filter(m -> clean.isUsed(m.id())).count());
    assertThat(found.getFirst().figures().getFirst().toString()).isNotBlank();
    assertThat((double) found.getFirst().figures().getLast()).isPositive();
  }

  @Test
  void aCleanFilmHasNoFindings() {
    assertThat(hear(clean)).isEmpty();
    assertThat(hear(Project.empty("p"))).isEmpty();
    assertThat(SecondEar.RULES).extracting(EarRule::id).doesNotHaveDuplicates().hasSize(25);
  }

  /** The talk as the film's own sound, with nothing known of it, or of what is spoken in it. */
  private Project inTheCamera(Optional<List<Span>> speech) {
    return clean
        .withShelf(
            clean.shelf().stream()
                .map(m -> m.kind() == MediaKind.VOICE ? m.withSpeech(speech) : m)
                .toList())
        .withTrack(music, t -> t.withHushes(List.of()))
        .withTrack(talk.voice().id(), t -> t.withKind(TrackKind.CAMERA).withName("Camera sound"));
  }

  @Test
  void talkInTheFilmsOwnSoundThatNobodyHasCalledTheVoice() {
    List<Span> spoken =
        talk.project
            .media(talk.voice().clips().getFirst().mediaId())
            .orElseThrow()
            .speech()
            .orElseThrow();
    Project vlog = inTheCamera(Optional.of(spoken));
    Finding finding = only("camera.speaks", vlog);
    assertThat(finding.place()).isEqualTo(new Span(at(4), at(9)));
    assertThat(finding.figures()).containsExactly("Camera sound", 11.0);
    Project mended = finding.remedies().getFirst().edit().apply(vlog);
    assertThat(mended.track(talk.voice().id()).orElseThrow().isVoice()).isTrue();
    assertThat(hear(mended)).extracting(Finding::rule).contains("passage.buried");
    assertThat(hear(inTheCamera(Optional.empty()))).isEmpty();
    assertThat(hear(inTheCamera(Optional.of(List.of(new Span(0, at(1))))))).isEmpty();
    assertThat(hear(vlog.withTrack(talk.voice().id(), t -> t.withMuted(true)))).isEmpty();
  }

  @Test
  void aPassageThatIsBuried() {
    Project shallow = LevelEdits.setHushDepth(clean, firstHush().id(), -2);
    Finding finding = only("passage.buried", shallow);
    assertThat(finding.place()).isEqualTo(new Span(at(4), at(9)));
    assertThat((double) finding.figures().getFirst()).isBetween(-5.0, 9.0);
    mends(shallow, finding, 0);
    Project raised = finding.remedies().get(1).edit().apply(shallow);
    Separation separation = Separation.of(Energies.of(raised, talk.sounds), 10);
    assertThat(separation.passages().getFirst().separationLu()).isCloseTo(10, within(0.1));
    Project without = clean.withTrack(music, t -> t.withoutHush(firstHush().id()));
    mends(without, only("passage.buried", without), 0);
  }

  @Test
  void aHushThatIsLateOrEarly() {
    Project late = HushEdits.setTurn(clean, firstHush().id(), t -> t.withLead(-0.5));
    Finding finding =
        hear(late).stream().filter(f -> f.rule().equals("hush.late")).findFirst().get();
    assertThat((double) finding.figures().getFirst()).isCloseTo(0.5, within(1e-6));
    mends(late, finding, 0);
    Project early = HushEdits.setTurn(clean, firstHush().id(), t -> t.withTail(-0.6));
    finding = hear(early).stream().filter(f -> f.rule().equals("hush.early")).findFirst().get();
    assertThat((double) finding.figures().getFirst()).isCloseTo(0.6, within(1e-6));
    mends(early, finding, 0);
    Project hidden = HushEdits.setTurn(clean, firstHush().id(), t -> t.withLead(-0.1));
    assertThat(hear(hidden)).noneMatch(f -> f.rule().startsWith("hush"));
  }

  @Test
  void musicThatStopsBeforeThePictureDoes() {
    Project shorter = ClipEdits.trimEnd(clean, song, at(35));
    Finding finding = only("music.short", shorter);
    assertThat((double) finding.figures().getFirst()).isCloseTo(5, within(1e-6));
    assertThat(finding.remedies()).isEmpty();
    Project cut = FadeEdits.setOut(shorter, song, 0);
    assertThat(hear(cut)).extracting(Finding::rule).contains("music.short", "music.noFade");
  }

  @Test
  void aSeamThatWillBeNoticedUnlessSomebodySpeaksOverIt() {
    assertThat(hear(withSeam(30, 0.2))).extracting(Finding::rule).containsExactly("music.seam");
    assertThat(hear(withSeam(30, 0.9))).isEmpty();
    assertThat(hear(withSeam(6, 0.2))).isEmpty();
  }

  private Project withSeam(double seconds, double score) {
    Seam seam = new Seam(at(seconds), at(seconds), at(seconds), 480, score);
    return clean.withEachTrack(
        t -> t.withClip(song, c -> c.withContent(c.lengthFrames(), List.of(seam))));
  }

  @Test
  void musicThatRunsPastThePicture() {
    Project longer =
        clean.withTrack(
            clean.firstTrack(TrackKind.PICTURE).orElseThrow().id(),
            t -> t.withClips(List.of(t.clips().getFirst().withContent(at(35), List.of()))));
    List<Finding> found = hear(longer);
    assertThat(found).extracting(Finding::rule).contains("music.long");
    mends(longer, found.stream().filter(f -> f.rule().equals("music.long")).findFirst().get(), 0);
  }

  @Test
  void musicThatIsCutOffOrThereAllAtOnce() {
    Project noFade = FadeEdits.setOut(clean, song, 0);
    mends(noFade, only("music.noFade", noFade), 0);
    Project abrupt = FadeEdits.setIn(clean, song, 0);
    mends(abrupt, only("music.abrupt", abrupt), 0);
    Project split = ClipEdits.split(clean, Set.of(song), at(15));
    assertThat(hear(split)).isEmpty();
  }

  @Test
  void aHushWithoutItsPassage() {
    Project alone = HushEdits.add(clean, music, Hush.over(new Span(at(12), at(14)), -6));
    mends(alone, only("hush.alone", alone), 0);
    Project moved = HushEdits.setPassage(clean, firstHush().id(), new Span(at(12), at(15)));
    List<Finding> found = hear(moved);
    assertThat(found).extracting(Finding::rule).containsExactly("passage.buried", "hush.alone");
    mends(moved, found.get(1), 1);
  }

  private Project withLine(double... secondsAndDb) {
    List<Keyframe> keyframes = new ArrayList<>();
    for (int i = 0; i < secondsAndDb.length; i += 2) {
      keyframes.add(new Keyframe(at(secondsAndDb[i]), secondsAndDb[i + 1], SegmentShape.SMOOTH));
    }
    return clean.withTrack(music, t -> t.withLine(LevelLine.of(keyframes)));
  }

  @Test
  void aDipWhereNobodySpeaks() {
    Project dip = withLine(12, 0, 12.5, -9, 14, -9, 15, 0);
    Finding finding = only("line.idleDip", dip);
    assertThat(finding.figures()).containsExactly(-9.0);
    mends(dip, finding, 0);
    assertThat(hear(withLine(3, 0, 3.9, -4, 9.2, -4, 10, 0))).isEmpty();
  }

  @Test
  void aKeyframeThatWasForgotten() {
    Project stray = withLine(3, 0, 3.9, -11.6, 9.2, -6, 10, 0);
    Finding finding = only("line.stray", stray);
    assertThat(finding.figures()).containsExactly(-6.0, -11.6);
    mends(stray, finding, 0);
    Project three = withLine(3, 0, 3.9, -11.6, 6, -9, 9.2, -11.6, 10, 0);
    assertThat(only("line.stray", three).figures()).containsExactly(-9.0, -11.6);
    Project ridden = withLine(3, 0, 3.9, -7, 5, -8.4, 6, -9.6, 8, -8.3, 9.2, -7.1, 10, 0);
    assertThat(hear(ridden)).noneMatch(f -> f.rule().equals("line.stray"));
  }

  @Test
  void voicesOfUnequalLoudness() {
    Project split = ClipEdits.split(clean, Set.of(take), at(15));
    String second = split.firstTrack(TrackKind.VOICE).orElseThrow().clipsInTime().getLast().id();
    Project uneven = ClipEdits.setGain(split, Set.of(second), 3);
    Finding finding = only("voices.uneven", uneven);
    assertThat((double) finding.figures().getFirst()).isCloseTo(3, within(0.2));
    mends(uneven, finding, 0);
    mends(uneven, finding, 1);
    Energies energies = Energies.of(uneven, talk.sounds);
    Project even = EvenVoices.even(uneven, Set.of(take, second), energies, talk.sounds);
    List<Double> after = List.copyOf(EvenVoices.loudness(Energies.of(even, talk.sounds)).values());
    assertThat(after.get(0)).isCloseTo(after.get(1), within(0.01));
  }

  @Test
  void aSongThatIsLouderThanTheOneItFollows() {
    Project split = ClipEdits.split(clean, Set.of(song), at(18));
    String second = split.track(music).orElseThrow().clipsInTime().getLast().id();
    Project softer = ClipEdits.setGain(split, Set.of(second), -6);
    Finding finding = only("songs.uneven", softer);
    assertThat(finding.subject()).isEqualTo(second);
    double lu = (double) finding.figures().get(1);
    assertThat(lu).isCloseTo(6, within(0.5));
    Finding more = only("songs.uneven", ClipEdits.setGain(split, Set.of(second), -8));
    assertThat((double) more.figures().get(1)).isCloseTo(lu + 2, within(0.001));
    assertThat(finding.figures().get(2)).isEqualTo(-1.0);
    mends(softer, finding, 0);
    assertThat(hear(ClipEdits.setGain(split, Set.of(second), -2))).isEmpty();
    Project apart = ClipEdits.move(softer, Set.of(second), at(6), false);
    assertThat(hear(apart)).noneMatch(f -> f.rule().equals("songs.uneven"));
  }

  @Test
  void musicThatIsMuchLouderThanTheVoiceWhereNobodySpeaks() {
    Project loud = LoudMusic.lower(clean, -6);
    Finding finding = only("music.overVoice", loud);
    double louder = (double) finding.figures().getFirst();
    assertThat(louder).isBetween(LoudMusic.MOST_LU, 12.0);
    assertThat(finding.remedies()).hasSize(1);
    mends(loud, finding, 0);
    assertThat(standing(finding.remedies().getFirst().edit().apply(loud))).isCloseTo(0, NEAR);
    // What rises on purpose is no fault.
    Rise rise = new Rise("r", at(11), at(18), 8, 1, 1);
    assertThat(hear(HushEdits.addRise(clean, music, rise))).isEmpty();
    assertThat(hear(loud.withTrack(music, t -> t.withMuted(true))))
        .noneMatch(f -> f.rule().equals("music.overVoice"));
  }

  @Test
  void musicWhoseFileGoesOnInSilence() {
    float[] sound = Arrays.copyOf(Projects.noise(4, (int) at(25), 0.1), (int) at(40));
    Media ends = talk.sounds.add("ends", MediaKind.MUSIC, sound);
    Song listened =
        new Song(
            SongAnalyzer.analyze(SampleSource.of(sound), RATE, "ends", Progress.NONE),
            SampleSource.of(sound));
    Project project =
        clean
            .withMedia(ends)
            .withTrack(
                music,
                t -> t.withClips(List.of(Clip.whole(ends, 0).withFadeOut(Fade.ofLength(at(4))))));
    assertThat(hear(project)).noneMatch(f -> f.rule().equals("music.short"));
    Songs songs = media -> media.equals(ends) ? Optional.of(listened) : Optional.empty();
    assertThat(hear(project, songs))
        .filteredOn(f -> f.rule().equals("music.short"))
        .singleElement()
        .satisfies(
            f -> {
              assertThat((double) f.figures().getFirst()).isCloseTo(15, within(0.05));
              Project looped = f.remedies().getFirst().edit().apply(project);
              assertThat(hear(looped, songs)).noneMatch(g -> g.rule().equals("music.short"));
            });
    Project nothing =
        project.withTrack(
            music,
            t -> t.withClips(List.of(Clip.whole(ends, 0).withExtent(0, at(8), at(32), List.of()))));
    assertThat(hear(nothing, songs))
        .filteredOn(f -> f.rule().equals("music.short"))
        .extracting(Finding::place)
        .containsExactly(new Span(0, at(40)));
  }

  private double standing(Project project) {
    return LoudMusic.of(Energies.of(project, talk.sounds), talk.sounds).orElseThrow().louderLu();
  }

  @Test
  void aQuietVoiceIsRaisedRatherThanTheMusicLoweredAlone() {
    Project quiet = ClipEdits.setGain(clean, Set.of(take), -16);
    quiet = quiet.withTrack(music, t -> deepened(t, -16));
    Finding finding = only("music.overVoice", quiet);
    assertThat(finding.remedies()).hasSize(2);
    double raise = (double) finding.remedies().getFirst().figures().getFirst();
    assertThat(raise).isGreaterThan(6);
    mends(quiet, finding, 0);
    mends(quiet, finding, 1);
    Project mended = finding.remedies().getFirst().edit().apply(quiet);
    assertThat(mended.clip(take).orElseThrow().gainDb()).isCloseTo(raise - 16, NEAR);
    assertThat(standing(mended)).isCloseTo(0, NEAR);
    Separation was = Separation.of(Energies.of(quiet, talk.sounds), 10);
    Separation is = Separation.of(Energies.of(mended, talk.sounds), 10);
    for (int i = 0; i < was.passages().size(); i++) {
      assertThat(is.passages().get(i).separationLu())
          .isCloseTo(was.passages().get(i).separationLu(), NEAR);
    }
  }

  private static Track deepened(Track track, double db) {
    return track.withHushes(
        track.hushes().stream().map(h -> h.withDepthDb(h.depthDb() + db)).toList());
  }

  @Test
  void evenVoicesNeverClip() {
    Project split = ClipEdits.split(clean, Set.of(take), at(15));
    String second = split.firstTrack(TrackKind.VOICE).orElseThrow().clipsInTime().getLast().id();
    Project loud = ClipEdits.setGain(split, Set.of(second), 30);
    Energies energies = Energies.of(loud, talk.sounds);
    Project asLoud = EvenVoices.asOthers(loud, take, energies, talk.sounds);
    double gain = asLoud.clip(take).orElseThrow().gainDb();
    double peak = 20 * Math.log10(0.2);
    assertThat(gain + peak).isBetween(-1.0, -0.9);
    Energies ofOne = Energies.of(clean, talk.sounds);
    assertThat(EvenVoices.asOthers(clean, take, ofOne, talk.sounds)).isEqualTo(clean);
  }

  @Test
  void tracksThatWereLeftMutedOrSoloed() {
    Project muted = clean.withTrack(music, t -> t.withMuted(true));
    mends(muted, only("track.muted", muted), 0);
    Project soloed = clean.withTrack(talk.voice().id(), t -> t.withSoloed(true));
    mends(soloed, only("track.soloed", soloed), 0);
  }

  private Project withEffect(Media media) {
    List<Track> tracks = new ArrayList<>(clean.tracks());
    tracks.add(Track.of(TrackKind.EFFECTS, "Effects", List.of(Clip.whole(media, at(11)))));
    return clean.withMedia(media).withTracks(tracks);
  }

  @Test
  void clippedSamplesAndOneSilentSide() {
    float[] loud = Projects.noise(4, RATE, 0.1);
    java.util.Arrays.fill(loud, 24_000, 24_020, 1f);
    Project clipped = withEffect(talk.sounds.add("loud", MediaKind.EFFECT, loud));
    Finding finding = only("clip.clipped", clipped);
    assertThat(finding.figures()).containsExactly("loud.wav", 20);
    assertThat(finding.place().startFrame()).isBetween(at(11.48), at(11.51));
    assertThat(finding.remedies().getFirst().edit().apply(clipped).markers()).hasSize(1);
    Media half =
        talk.sounds.add("half", MediaKind.EFFECT, new float[RATE], Projects.noise(6, RATE, 0.1));
    Project oneSided = withEffect(half);
    finding = only("clip.oneSided", oneSided);
    mends(oneSided, finding, 0);
    Project both = finding.remedies().getFirst().edit().apply(oneSided);
    assertThat(both.tracks().getLast().clips().getFirst().side()).isEqualTo(Side.RIGHT);
  }

  @Test
  void musicWithoutACredit() {
    Project bare = ShelfEdits.setCredit(clean, talk.song.id(), " ");
    mends(bare, only("media.noCredit", bare), 0);
  }

  @Test
  void voicesAtOnceAndRisesUnderSpeech() {
    Project two = ClipEdits.duplicate(clean, Set.of(take), true).project();
    String copy = two.firstTrack(TrackKind.VOICE).orElseThrow().clipsInTime().getLast().id();
    Project atOnce = ClipEdits.move(two, Set.of(copy), -at(37), true);
    Finding finding =
        hear(atOnce).stream().filter(f -> f.rule().equals("voices.atOnce")).findFirst().get();
    Project mended = finding.remedies().getFirst().edit().apply(atOnce);
    assertThat(hear(mended))
        .noneMatch(f -> f.key().equals(finding.key()) && f.place().equals(finding.place()));
    Project quiet = clean.withTrack(music, t -> t.withHushes(List.of()).withLevelDb(-30));
    Project risen = HushEdits.addRise(quiet, music, new Rise("r", at(14), at(23), 4, 1, 1));
    Finding rise = only("rise.underSpeech", risen);
    mends(risen, rise, 0);
    mends(risen, rise, 1);
  }

  @Test
  void aPeakOverTheLimit() {
    assertThat(PeakOver.hear(FilmLoudness.of(clean, talk.sounds, Progress.NONE))).isEmpty();
    Project loud = clean.withMasterDb(12);
    Finding finding =
        PeakOver.hear(FilmLoudness.of(loud, talk.sounds, Progress.NONE)).orElseThrow();
    assertThat((double) finding.figures().getFirst()).isGreaterThan(-1);
    Project mended = finding.remedies().getFirst().edit().apply(loud);
    assertThat(PeakOver.hear(FilmLoudness.of(mended, talk.sounds, Progress.NONE))).isEmpty();
  }

  @Test
  void whatWasPutAsideStaysAsideWithItsReason() {
    Project muted = clean.withTrack(music, t -> t.withMuted(true));
    Finding finding = only("track.muted", muted);
    Project aside = SecondEar.putAside(muted, finding, " meant so ");
    assertThat(aside.asides())
        .singleElement()
        .satisfies(
            a -> {
              assertThat(a.finding()).isEqualTo("track.muted:" + music);
              assertThat(a.reason()).isEqualTo("meant so");
            });
    assertThat(SecondEar.open(hear(aside), aside)).isEmpty();
    Project back = SecondEar.takenBack(aside, finding);
    assertThat(SecondEar.open(hear(back), back)).hasSize(1);
    assertThat(Optional.of(back.asides())).contains(List.of());
  }

  @Test
  void aVoiceThatGoesOnAfterThePicture() {
    Project late = ClipEdits.move(clean, Set.of(take), at(16.5), false);
    Finding finding =
        hear(late).stream().filter(f -> f.rule().equals("voice.long")).findFirst().orElseThrow();
    assertThat(finding.figures().get(1)).isEqualTo(2.5);
    assertThat(finding.place().endFrame()).isEqualTo(at(40));
    for (Finding.Remedy remedy : finding.remedies()) {
      assertThat(hear(remedy.edit().apply(late))).noneMatch(f -> f.rule().equals("voice.long"));
    }
    assertThat(finding.remedies()).hasSize(2);
  }
}
