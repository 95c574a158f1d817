package hushrise.core.ear;

import static hushrise.core.hush.Talk.at;
import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.Problem;
import hushrise.core.fit.Songs;
import hushrise.core.hush.Talk;
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
import hushrise.core.project.timeline.Track;
import hushrise.core.separation.Energies;
import hushrise.core.separation.Separation;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;
import java.util.NoSuchElementException;
import java.util.Random;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;

/** What holds for any film, as while its parts are being arranged. */
class SecondEarProperties {

  private static final int LENGTH = 8;

  private final Talk talk = new Talk(LENGTH, new double[] {1, 3}, new double[] {5, 7, 0.02});

  private List<Finding> hear(Project project) {
    Energies energies = Energies.of(project, talk.sounds);
    return SecondEar.hear(
        new Heard(energies, Separation.of(energies, 10), talk.sounds, Songs.NONE, List.of()));
  }

  /** A place up to half the takes' length behind their end. */
  private static long place(Random random) {
    return random.nextLong(at(1.5 * LENGTH));
  }

  /** One to three parts of a take, anywhere, none over another. */
  private static List<Clip> parts(Media media, Random random) {
    List<Clip> clips = new ArrayList<>();
    long from = random.nextInt(3) == 0 ? place(random) : 0;
    for (int i = random.nextInt(3); i >= 0; i--) {
      long begin = random.nextLong(media.lengthFrames());
      long length = 1 + random.nextLong(media.lengthFrames() - begin);
      Clip clip = Clip.whole(media, 0);
      clips.add(
          random.nextInt(3) == 0
              ? clip.withExtent(from, clip.lengthFrames(), 0, List.of())
              : clip.withExtent(from, length, begin, List.of()));
      from = clips.getLast().endFrame() + (random.nextBoolean() ? 0 : place(random));
    }
    return clips;
  }

  private static Track shaped(Track track, Random random) {
    List<Keyframe> keyframes =
        random
            .longs(random.nextInt(6), 0, at(1.5 * LENGTH))
            .sorted()
            .distinct()
            .mapToObj(f -> new Keyframe(f, -30 + 36 * random.nextDouble(), SegmentShape.HOLD))
            .toList();
    List<Hush> hushes =
        IntStream.range(0, random.nextInt(4))
            .mapToObj(i -> Hush.over(span(random), -24 * random.nextDouble()))
            .toList();
    List<Rise> rises = new ArrayList<>();
    if (random.nextInt(3) == 0) {
      Span span = span(random);
      rises.add(new Rise("r" + track.id(), span.startFrame(), span.endFrame(), 6, 1, 0.5));
    }
    return track
        .withLine(LevelLine.of(keyframes))
        .withHushes(hushes)
        .withRises(rises)
        .withMuted(random.nextInt(8) == 0)
        .withSoloed(random.nextInt(8) == 0);
  }

  private static Span span(Random random) {
    return Span.ofLength(place(random), 1 + random.nextLong(at(3)));
  }

  private Project film(Random random) {
    List<Track> tracks = new ArrayList<>();
    Project project = talk.project;
    if (random.nextInt(4) > 0) {
      Media film = Projects.media("film", MediaKind.PICTURE, 1 + place(random));
      project = project.withMedia(film);
      tracks.add(Track.of(TrackKind.PICTURE, "Picture", List.of(Clip.whole(film, 0))));
    }
    for (TrackKind kind :
        new TrackKind[] {TrackKind.VOICE, TrackKind.VOICE, TrackKind.MUSIC, TrackKind.MUSIC}) {
      Media media = kind == TrackKind.VOICE ? talk.take : talk.song;
      if (random.nextInt(5) > 0) {
        tracks.add(shaped(Track.of(kind, kind.name(), parts(media, random)), random));
      }
    }
    return project.withTracks(tracks);
  }

  @Property(tries = 100)
  void itIsHeardAndSoIsWhatItsRemediesMakeOfIt(@ForAll long seed) {
    Project film = film(new Random(seed));
    for (Finding finding : hear(film)) {
      assertThat(finding.place().startFrame()).isNotNegative();
      assertThat(finding.remedies())
          .allSatisfy(remedy -> assertThat(hear(remedy.edit().apply(film))).isNotNull());
    }
  }

  /** Some of a film's tracks, clips, shapes and keyframes are gone. */
  private static Project lessOf(Project film, Random random) {
    return film.withTracks(
        film.tracks().stream()
            .filter(t -> random.nextInt(4) > 0)
            .map(
                t ->
                    t.withClips(some(t.clips(), random))
                        .withHushes(some(t.hushes(), random))
                        .withRises(some(t.rises(), random))
                        .withLine(LevelLine.of(some(t.line().keyframes(), random))))
            .toList());
  }

  private static <T> List<T> some(List<T> all, Random random) {
    return all.stream().filter(one -> random.nextBoolean()).toList();
  }

  @Property(tries = 200)
  void aRemedyForWhatIsGoneMeanwhileFindsNothingToMend(@ForAll long seed) {
    Random random = new Random(seed);
    Project film = film(random);
    Project less = lessOf(film, random);
    for (Finding finding : hear(film)) {
      for (Finding.Remedy remedy : finding.remedies()) {
        try {
          assertThat(hear(remedy.edit().apply(less))).isNotNull();
        } catch (Problem | NoSuchElementException e) {
          assertThat(less).as("where all is there it can be made").isNotEqualTo(film);
        }
      }
    }
  }
}
