package hushrise.core.fit;

import static hushrise.core.fit.Pieces.RATE;
import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.Problem;
import hushrise.core.mix.Projects;
import hushrise.core.project.Project;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.FitMode;
import hushrise.core.sound.SampleSource;
import hushrise.core.time.Span;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;

/** What holds for any sound that somebody takes for music, however short or dull. */
class FitProperties {

  private static final List<Pieces.Piece> PIECES =
      List.of(
          piece("a second", Projects.noise(1, RATE, 0.3)),
          piece("a breath", Projects.noise(3, RATE * 6 / 5, 0.01)),
          piece("a stroke", struck(2 * RATE)),
          new Pieces.Piece("a tune", Pieces.wandering(2, 4), new double[0]),
          new Pieces.Piece("a longer tune", Pieces.wandering(7, 5), new double[0]),
          Pieces.drone("a drone", 3, 6),
          Pieces.pads("pads", 12, 7),
          Pieces.steady("four bars", 140, 4, 4, 8),
          Pieces.steady("one bar", 90, 4, 1, 9));

  private static final List<Song> SONGS = PIECES.stream().map(Pieces.Piece::analysed).toList();

  private static Pieces.Piece piece(String name, float[] samples) {
    return new Pieces.Piece(name, SampleSource.of(samples), new double[0]);
  }

  /** A stroke, and then nothing. */
  private static float[] struck(int frames) {
    float[] samples = new float[frames];
    System.arraycopy(Projects.noise(2, RATE / 20, 0.3), 0, samples, RATE / 2, RATE / 20);
    return samples;
  }

  /** What somebody may ask for; what has no fit, or no seam, has none to change. */
  private static Project asked(Project project, Songs songs, long length, Random random) {
    Clip clip = FitsTest.music(project);
    int seam = clip.seams().isEmpty() ? 0 : random.nextInt(clip.seams().size());
    long frame = random.nextLong(length);
    boolean isFitted = clip.fit().isPresent();
    return switch (random.nextInt(!isFitted ? 4 : clip.seams().isEmpty() ? 5 : 8)) {
      case 0, 1 ->
          Fits.set(
              project, clip.id(), FitMode.values()[random.nextInt(FitMode.values().length)], songs);
      case 2 -> Starts.at(project, clip.id(), frame, songs);
      case 3 -> Starts.peakAt(project, clip.id(), random.nextLong(project.lengthFrames()), songs);
      case 4 ->
          Fits.refine(
              project,
              clip.id(),
              f -> f.withPart(Optional.of(new Span(frame, frame + random.nextLong(length) + 1))),
              songs);
      case 5 -> Fits.rejectSeam(project, clip.id(), seam, songs);
      default -> Fits.moveSeam(project, clip.id(), seam, random.nextInt(17) - 8, songs);
    };
  }

  @Property(tries = 60)
  void whatIsAskedForIsDoneOrRefusedInWords(@ForAll long seed) {
    Random random = new Random(seed);
    int index = random.nextInt(PIECES.size());
    Songs songs = media -> Optional.of(SONGS.get(index));
    long length = PIECES.get(index).sound().lengthFrames();
    Project project = FitsTest.film(PIECES.get(index), songs, 0.1 + 30 * random.nextDouble());
    for (int i = 0; i < 6; i++) {
      try {
        project = asked(project, songs, length, random);
      } catch (Problem refused) {
        assertThat(refused).hasMessageMatching(".* .*\\.");
      }
      assertThat(FitsTest.music(project).lengthFrames()).isPositive();
    }
  }
}
