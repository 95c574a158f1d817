package hushrise.core.hush;

import static hushrise.core.mix.Projects.RATE;

import hushrise.core.mix.Projects;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;

/** Made-up talk: bursts of noise of uneven loudness, with their places known, over music. */
public final class Talk {

  public final Projects.Sounds sounds = new Projects.Sounds();
  public final Project project;
  public final Media take;
  public final Media song;

  /**
   * @param seconds how long the film is
   * @param bursts when each passage begins and ends, in seconds
   */
  public Talk(int seconds, double[]... bursts) {
    this(seconds, 0.3, bursts);
  }

  private Talk(int seconds, double musicLevel, double[][] bursts) {
    float[] voice = new float[seconds * RATE];
    Random random = new Random(7);
    List<Span> speech = new ArrayList<>();
    for (double[] burst : bursts) {
      Span span = new Span(Math.round(burst[0] * RATE), Math.round(burst[1] * RATE));
      speech.add(span);
      double level = burst.length > 2 ? burst[2] : 0.2;
      for (long i = span.startFrame(); i < span.endFrame(); i++) {
        double syllable = 0.6 + 0.4 * Math.sin(2 * Math.PI * 4 * i / RATE);
        voice[(int) i] = (float) ((random.nextDouble() * 2 - 1) * level * syllable);
      }
    }
    take = sounds.add("take", MediaKind.VOICE, voice).withSpeech(Optional.of(speech));
    song =
        sounds.add(
            "song",
            MediaKind.MUSIC,
            music(2, seconds * RATE, musicLevel),
            music(3, seconds * RATE, musicLevel));
    project =
        Project.empty("talk")
            .withMedia(take)
            .withMedia(song)
            .withTracks(
                List.of(
                    Track.of(TrackKind.VOICE, "Narration", List.of(Clip.whole(take, 0))),
                    Track.of(TrackKind.MUSIC, "Music", List.of(Clip.whole(song, 0)))));
  }

  /** Noise that swells and sinks over some seconds. */
  private static float[] music(long seed, int frames, double level) {
    float[] samples = Projects.noise(seed, frames, level);
    for (int i = 0; i < frames; i++) {
      samples[i] *= (float) (0.7 + 0.3 * Math.sin(2 * Math.PI * i / (5.3 * RATE)));
    }
    return samples;
  }

  public Track music() {
    return project.firstTrack(TrackKind.MUSIC).orElseThrow();
  }

  public Track voice() {
    return project.firstTrack(TrackKind.VOICE).orElseThrow();
  }

  /** The project with one more track over its whole length. */
  public Project with(TrackKind kind, double level) {
    Media media =
        sounds.add("more", MediaKind.EFFECT, Projects.noise(5, (int) song.lengthFrames(), level));
    List<Track> tracks = new ArrayList<>(project.tracks());
    tracks.add(Track.of(kind, "More", List.of(Clip.whole(media, 0))));
    return project.withMedia(media).withTracks(tracks);
  }

  public static long at(double seconds) {
    return Math.round(seconds * RATE);
  }
}
