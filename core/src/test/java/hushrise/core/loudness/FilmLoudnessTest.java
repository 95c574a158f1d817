package hushrise.core.loudness;

import static hushrise.core.mix.Projects.RATE;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import hushrise.core.Decibels;
import hushrise.core.mix.Mixer;
import hushrise.core.mix.Projects;
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
import hushrise.core.sound.Blocks;
import hushrise.core.sound.SampleSource;
import hushrise.core.sound.SoundLibrary;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.Test;

/** The loudness of a film as it is edited, against measuring all of it. */
class FilmLoudnessTest {

  private final Projects.Sounds sounds = new Projects.Sounds();
  private final Project rich = Projects.rich(sounds);

  private Measurement whole(Project project) {
    Mixer mixer = Mixer.of(project, sounds);
    Measurement.Running running = new Measurement.Running(project.sampleRate(), 2);
    Blocks.each(
        new Span(0, project.lengthFrames()),
        mixer::render,
        (planar, n, at) -> running.add(planar, n));
    return running.result();
  }

  private void assertEqual(FilmLoudness film, Project project) {
    Measurement all = whole(project);
    assertThat(film.integratedLufs()).isCloseTo(all.integratedLufs(), within(0.005));
    assertThat(film.loudnessRangeLu()).isCloseTo(all.loudnessRangeLu(), within(0.02));
    assertThat(film.truePeakDbtp()).isCloseTo(all.truePeakDbtp(), within(0.001));
  }

  @Test
  void piecesGiveWhatMeasuringInOneGoGives() {
    FilmLoudness film = FilmLoudness.of(rich, sounds, f -> {});
    assertEqual(film, rich);
    assertThat(film.truePeakPlace().startFrame()).isBetween(0L, rich.lengthFrames());
  }

  @Test
  void aSecondThatBeginsAtTheTopOfAWaveHasNoPeakOfItsOwnThere() {
    float[] wave = new float[5 * RATE];
    for (int i = 0; i < wave.length; i++) {
      wave[i] = (float) (0.9 * Math.cos(2 * Math.PI * (i + 32) / RATE));
    }
    Media media = sounds.add("wave", MediaKind.MUSIC, wave);
    Project film =
        Project.empty("Wave")
            .withMedia(media)
            .withTracks(List.of(Track.of(TrackKind.MUSIC, "Music", List.of(Clip.whole(media, 0)))));
    FilmLoudness measured = FilmLoudness.of(film, sounds, f -> {});
    Span inside = new Span(RATE, 4L * RATE);
    // The standard's filter raises the lowest tones by 0.014 dB.
    assertThat(measured.truePeakDbtp(inside)).isCloseTo(Decibels.ofFactor(0.9), within(0.02));
  }

  private Project edited(Project p, Random random) {
    Track track = p.tracks().get(random.nextInt(p.tracks().size()));
    long at = random.nextLong(p.lengthFrames() - 1);
    return switch (random.nextInt(9)) {
      case 0 -> p.withTrack(track.id(), t -> t.withLevelDb(-random.nextInt(20)));
      case 1 ->
          p.withTrack(
              track.id(), t -> t.withHushes(List.of(Hush.over(Span.ofLength(at, 40_001), -12))));
      case 2 ->
          p.withTrack(
              track.id(),
              t ->
                  t.withLine(
                      LevelLine.of(
                          List.of(
                              new Keyframe(at / 2, -3, SegmentShape.SMOOTH),
                              new Keyframe(at + 7, -random.nextInt(15), SegmentShape.STRAIGHT)))));
      case 3 -> p.withTrack(track.id(), t -> t.withMuted(!t.muted()));
      case 4 -> p.withTrack(track.id(), t -> t.withSoloed(!t.soloed()));
      case 5 -> p.withMasterDb(-random.nextInt(9));
      case 6 -> p.withTrack(track.id(), t -> t.withPan(random.nextInt(5) / 2.0 - 1));
      case 7 ->
          p.withTrack(
              track.id(),
              t ->
                  t.withClips(
                      t.clips().stream()
                          .map(c -> c.withStartFrame(c.startFrame() + 10_007).withGainDb(-4))
                          .toList()));
      default ->
          p.withTracks(
              p.tracks().stream().filter(t -> t != track || p.tracks().size() < 3).toList());
    };
  }

  @Test
  void afterAnyEditsItIsWhatMeasuringAnewGives() {
    for (int seed = 0; seed < 12; seed++) {
      Random random = new Random(seed);
      Project project = rich;
      FilmLoudness film = FilmLoudness.of(project, sounds, f -> {});
      for (int step = 0; step < 6; step++) {
        project = edited(project, random);
        film = film.following(project, sounds, f -> {});
      }
      assertEqual(film, project);
    }
  }

  @Test
  void soItIsWhenWhatEachTrackGivesWasMeasuredInBetween() {
    for (int seed = 0; seed < 24; seed++) {
      Random random = new Random(seed);
      Project project = rich;
      FilmLoudness film = FilmLoudness.of(project, sounds, f -> {});
      for (int step = 0; step < 8; step++) {
        film = film.settled(random.nextInt(4), sounds, f -> {});
        project = edited(project, random);
        film = film.following(project, sounds, f -> {});
      }
      assertEqual(film, project);
      film = film.settled(Integer.MAX_VALUE, sounds, f -> {});
      assertThat(film.isSettled()).isTrue();
      assertEqual(film, project);
      FilmLoudness anew = FilmLoudness.of(project, sounds, f -> {});
      for (long at = 0; at < project.lengthFrames(); at += project.sampleRate()) {
        Span second = Span.ofLength(at, project.sampleRate());
        assertThat(Math.max(film.truePeakDbtp(second), -90))
            .isCloseTo(Math.max(anew.truePeakDbtp(second), -90), within(0.001));
      }
    }
  }

  @Test
  void turningATrackReadsOnlyWhereTheHighestPeakMayBe() {
    AtomicLong read = new AtomicLong();
    SoundLibrary counting = counting(read);
    Track effects = rich.tracks().getLast();
    Project loudOnce =
        rich.withTrack(
            effects.id(),
            t -> t.withClip(t.clips().getFirst().id(), c -> c.withGainDb(18)).withLevelDb(0));
    FilmLoudness film =
        FilmLoudness.of(loudOnce, counting, f -> {}).settled(Integer.MAX_VALUE, counting, f -> {});
    read.set(0);
    for (double levelDb : new double[] {-3, -1, -2}) {
      for (Track track : loudOnce.tracks()) {
        film =
            film.following(
                film.project().withTrack(track.id(), t -> t.withLevelDb(levelDb).withPan(-0.3)),
                counting,
                f -> {});
        assertThat(film.integratedLufs()).isFinite();
      }
    }
    long turning = read.getAndSet(0);
    FilmLoudness anew = FilmLoudness.of(film.project(), counting, f -> {});
    assertThat(turning / 9).isLessThan(read.get() / 2);
    assertThat(film.truePeakDbtp()).isEqualTo(anew.truePeakDbtp());
  }

  @Test
  void ofNoiseOnAllTracksOnlyFiftiethsOfSecondsAreLookedInto() {
    Project film = Project.empty("Noise");
    for (int i = 0; i < 12; i++) {
      Media media = sounds.add("noise " + i, MediaKind.EFFECT, Projects.noise(i, 30 * RATE, 0.1));
      Track track = Track.of(TrackKind.EFFECTS, "Noise " + i, List.of(Clip.whole(media, 0)));
      List<Track> tracks = new ArrayList<>(film.tracks());
      tracks.add(track);
      film = film.withMedia(media).withTracks(tracks);
    }
    AtomicLong read = new AtomicLong();
    SoundLibrary counting = counting(read);
    FilmLoudness known =
        FilmLoudness.of(film, counting, f -> {}).settled(Integer.MAX_VALUE, counting, f -> {});
    read.set(0);
    String first = film.tracks().getFirst().id();
    Project turned = film.withTrack(first, t -> t.withLevelDb(-6));
    FilmLoudness followed = known.following(turned, counting, f -> {});
    long turning = read.getAndSet(0);
    FilmLoudness anew = FilmLoudness.of(turned, counting, f -> {});
    assertThat(turning).isLessThan(read.get() / 4);
    assertThat(followed.truePeakDbtp()).isCloseTo(anew.truePeakDbtp(), within(0.001));
    assertThat(followed.integratedLufs()).isCloseTo(anew.integratedLufs(), within(0.005));
  }

  private SoundLibrary counting(AtomicLong read) {
    return (media, rate) -> {
      SampleSource source = sounds.samples(media, rate);
      return new SampleSource() {
        @Override
        public int channels() {
          return source.channels();
        }

        @Override
        public long lengthFrames() {
          return source.lengthFrames();
        }

        @Override
        public void read(long start, int frames, float[] left, float[] right, int offset) {
          read.addAndGet(frames);
          source.read(start, frames, left, right, offset);
        }
      };
    };
  }

  @Test
  void onlyWhatChangedIsRead() {
    AtomicLong read = new AtomicLong();
    SoundLibrary counting = counting(read);
    FilmLoudness film = FilmLoudness.of(rich, counting, f -> {});
    long all = read.getAndSet(0);
    Project louder = rich.withMasterDb(-3);
    film = film.following(louder, counting, f -> {});
    assertThat(read.get()).as("the level of the mix is a factor").isZero();
    Track music = rich.tracks().getFirst();
    Project hushed =
        louder.withTrack(
            music.id(), t -> t.withHushes(List.of(Hush.over(Span.ofLength(60_000, 20_000), -9))));
    var _ = film.following(hushed, counting, f -> {});
    assertThat(read.get()).isPositive().isLessThan(all);
  }
}
