package hushrise.core.play;

import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.SampleSource;
import hushrise.core.sound.SoundLibrary;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;

/**
 * A little film of a few seconds with one short tone at the beginning of each, the last one higher:
 * what is heard before something begins. Also any other sound as a film of its own.
 *
 * @param project plays it
 * @param library where its sound comes from
 */
public record CountIn(Project project, SoundLibrary library) {

  private static final double TONE_SECONDS = 0.08;
  private static final double TONE_HZ = 660;
  private static final double LAST_HZ = 880;
  private static final double LEVEL = 0.25;

  /** A count of so many seconds. */
  public static CountIn of(int seconds, int sampleRate) {
    float[] samples = new float[seconds * sampleRate];
    for (int second = 0; second < seconds; second++) {
      double hertz = second == seconds - 1 ? LAST_HZ : TONE_HZ;
      int count = (int) (TONE_SECONDS * sampleRate);
      for (int i = 0; i < count; i++) {
        double window = Math.sin(Math.PI * i / count);
        samples[second * sampleRate + i] =
            (float) (LEVEL * window * Math.sin(2 * Math.PI * hertz * i / sampleRate));
      }
    }
    return ofSound(samples, sampleRate);
  }

  /** A film of one sound. */
  public static CountIn ofSound(float[] samples, int sampleRate) {
    Media media =
        new Media(
            "sound",
            Path.of("sound"),
            MediaKind.EFFECT,
            samples.length,
            true,
            Optional.empty(),
            "");
    Project project =
        Project.empty("")
            .withSampleRate(sampleRate)
            .withMedia(media)
            .withTracks(List.of(Track.of(TrackKind.EFFECTS, "", List.of(Clip.whole(media, 0)))));
    SampleSource source = SampleSource.of(samples);
    return new CountIn(project, (m, rate) -> source);
  }
}
