package hushrise.core.mix;

import hushrise.core.loudness.LoudnessLibrary;
import hushrise.core.loudness.LoudnessSteps;
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
import hushrise.core.project.timeline.FadeShape;
import hushrise.core.project.timeline.Seam;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import hushrise.core.sound.SoundLibrary;
import hushrise.core.time.FrameRate;
import hushrise.core.time.Span;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;

/** Small projects over sounds in memory. */
public final class Projects {

  public static final int RATE = 48_000;

  private Projects() {}

  /** A library of named sounds. */
  public static final class Sounds implements SoundLibrary, LoudnessLibrary {
    private final Map<String, SampleSource> byId = new HashMap<>();
    private final Map<String, LoudnessSteps> steps = new HashMap<>();

    /** Adds a sound and gives the media item for it. */
    public Media add(String id, MediaKind kind, float[]... planar) {
      byId.put(id, SampleSource.of(planar));
      return media(id, kind, planar[0].length);
    }

    @Override
    public LoudnessSteps steps(Media media) {
      return steps.computeIfAbsent(
          media.id(), id -> LoudnessSteps.of(byId.get(id), RATE, Progress.NONE));
    }

    @Override
    public SampleSource samples(Media media, int sampleRate) {
      return byId.get(media.id());
    }
  }

  /** A film of a length, at so many pictures a second. */
  public static Media film(String id, double seconds, boolean hasSound, int rate) {
    return new Media(
        id,
        Path.of("/" + id + ".mp4"),
        MediaKind.PICTURE,
        Math.round(seconds * RATE),
        hasSound,
        Optional.of(new FrameRate(rate, 1)),
        "");
  }

  public static Media media(String id, MediaKind kind, long length) {
    return new Media(id, Path.of("/media", id + ".wav"), kind, length, true, Optional.empty(), "");
  }

  public static float[] noise(long seed, int frames, double level) {
    Random random = new Random(seed);
    float[] samples = new float[frames];
    for (int i = 0; i < frames; i++) {
      samples[i] = (float) ((random.nextDouble() * 2 - 1) * level);
    }
    return samples;
  }

  public static float[] constant(int frames, double value) {
    float[] samples = new float[frames];
    java.util.Arrays.fill(samples, (float) value);
    return samples;
  }

  /** A project of one track over a constant of 1, which makes its mix the gain itself. */
  public static Project ofTrack(Sounds sounds, Track track, int frames) {
    Media one = sounds.add("one", MediaKind.MUSIC, constant(frames, 1));
    Clip clip = Clip.whole(one, 0);
    return Project.empty("gain").withMedia(one).withTracks(List.of(track.withClips(List.of(clip))));
  }

  /** Three tracks with everything a track can have. */
  public static Project rich(Sounds sounds) {
    Media voice = sounds.add("voice", MediaKind.VOICE, noise(1, 4 * RATE, 0.3));
    Media music =
        sounds.add("music", MediaKind.MUSIC, noise(2, 6 * RATE, 0.5), noise(3, 6 * RATE, 0.5));
    Media horn = sounds.add("horn", MediaKind.EFFECT, noise(4, RATE, 0.2), noise(5, RATE, 0.2));
    Clip song =
        new Clip(
            "song",
            music.id(),
            1_000,
            9L * RATE,
            500,
            List.of(new Seam(5L * RATE, 5L * RATE + 500, 30_000, 9_600, 0.5)),
            -2,
            new Fade(RATE, FadeShape.SMOOTH),
            new Fade(2L * RATE, FadeShape.EQUAL_POWER));
    LevelLine line =
        LevelLine.of(
            List.of(
                new Keyframe(2L * RATE, 0, SegmentShape.STRAIGHT),
                new Keyframe(3L * RATE, -7, SegmentShape.HOLD),
                new Keyframe(4L * RATE + 7, 3, SegmentShape.SMOOTH),
                new Keyframe(8L * RATE, -60, SegmentShape.STRAIGHT)));
    Track musicTrack =
        Track.of(TrackKind.MUSIC, "Music", List.of(song))
            .withLine(line)
            .withHushes(
                List.of(
                    Hush.over(new Span(100_003, 180_001), -9),
                    Hush.over(new Span(200_000, 260_000), -12)))
            .withRises(List.of(Rise.over(new Span(290_000, 400_000), 4)));
    return Project.empty("rich")
        .withMedia(voice)
        .withMedia(music)
        .withMedia(horn)
        .withMasterDb(-1.5)
        .withTracks(
            List.of(
                Track.of(TrackKind.VOICE, "Narration", List.of(Clip.whole(voice, 90_001))),
                musicTrack,
                Track.of(
                        TrackKind.EFFECTS,
                        "Effects",
                        List.of(Clip.whole(horn, 12_345).withGainDb(-6)))
                    .withLevelDb(-3)));
  }

  /** The left channel of a stretch of a mix. */
  public static float[] left(Project project, SoundLibrary library, long from, int frames) {
    float[] left = new float[frames];
    Mixer.of(project, library).render(from, frames, left, new float[frames]);
    return left;
  }
}
