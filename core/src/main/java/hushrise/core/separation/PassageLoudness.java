package hushrise.core.separation;

import hushrise.core.loudness.Measurement;
import hushrise.core.mix.Mixer;
import hushrise.core.project.Project;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.SoundLibrary;
import hushrise.core.time.Span;
import java.util.List;
import java.util.function.Predicate;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * How loud voice and background are over one passage.
 *
 * @param passage where somebody speaks
 * @param voiceLufs gated loudness of the voice tracks; minus infinity for silence
 * @param backgroundLufs gated loudness of everything else; minus infinity for silence
 */
public record PassageLoudness(Span passage, double voiceLufs, double backgroundLufs) {

  /** Voice minus background in LU; infinite where there is no background. */
  public double separationLu() {
    return voiceLufs - backgroundLufs;
  }

  /** How deep the background must go for a wanted separation, in dB; at most 0. */
  public double depthForDb(double wantedSeparationLu) {
    double depth = voiceLufs - backgroundLufs - wantedSeparationLu;
    return Double.isFinite(depth) ? Math.min(0, depth) : 0;
  }

  /** Measures passages in a project as it is heard, voices and background at the same time. */
  public static List<PassageLoudness> measure(
      Project project, SoundLibrary library, List<Span> passages) {
    List<List<Double>> both =
        Stream.<Predicate<Track>>of(Track::isVoice, Track::isBackground)
            .parallel()
            .map(tracks -> lufs(project, library, passages, tracks))
            .toList();
    return IntStream.range(0, passages.size())
        .mapToObj(i -> new PassageLoudness(passages.get(i), both.get(0).get(i), both.get(1).get(i)))
        .toList();
  }

  private static List<Double> lufs(
      Project project, SoundLibrary library, List<Span> passages, Predicate<Track> tracks) {
    Mixer mixer = Mixer.of(project, library, project.heardTracks().and(tracks));
    return passages.stream()
        .map(p -> Measurement.integratedLufs(mixer, p, project.sampleRate()))
        .toList();
  }
}
