package hushrise.bench;

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
import hushrise.core.sound.Progress;
import hushrise.core.time.Span;
import hushrise.media.FileMixWriter;
import hushrise.media.MediaStore;
import hushrise.media.OutputFormat;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;

/** Two hours on twelve tracks with 5 000 keyframes, 1 080 hushes and 1 380 stretches of speech. */
final class LongProject {

  private static final int RATE = 48_000;
  private static final long HOURS_2 = 7_200L * RATE;

  private LongProject() {}

  static Project of(MediaStore store, Path folder) throws IOException {
    Path file = folder.resolve("noise.wav");
    Random random = new Random(1);
    try (FileMixWriter writer = FileMixWriter.ofSound(file, OutputFormat.WAV_16, RATE)) {
      float[] block = new float[RATE];
      for (int second = 0; second < 300; second++) {
        double level = 0.1 + 0.3 * Math.abs(Math.sin(second / 7.0));
        for (int i = 0; i < block.length; i++) {
          block[i] = (float) (level * (random.nextDouble() * 2 - 1));
        }
        writer.write(block, block, block.length);
      }
      writer.finish();
    }
    Project project = Project.empty("bench");
    TrackKind[] kinds = {
      TrackKind.VOICE,
      TrackKind.VOICE,
      TrackKind.VOICE,
      TrackKind.MUSIC,
      TrackKind.MUSIC,
      TrackKind.MUSIC,
      TrackKind.EFFECTS,
      TrackKind.EFFECTS,
      TrackKind.EFFECTS,
      TrackKind.CAMERA,
      TrackKind.CAMERA,
      TrackKind.CAMERA
    };
    Media media = store.take(file, MediaKind.EFFECT, Progress.NONE);
    Media take = store.take(file, MediaKind.VOICE, Progress.NONE).withSpeech(Optional.of(speech()));
    project = project.withMedia(media).withMedia(take);
    List<Track> tracks = new ArrayList<>();
    for (int t = 0; t < kinds.length; t++) {
      List<Clip> clips = new ArrayList<>();
      for (long at = t * 5L * RATE; at + media.lengthFrames() < HOURS_2; at += 310L * RATE) {
        clips.add(Clip.whole(kinds[t] == TrackKind.VOICE ? take : media, at));
      }
      Track track = Track.of(kinds[t], "Track " + t, clips);
      tracks.add(kinds[t] == TrackKind.MUSIC ? shaped(track, random) : track);
    }
    return project.withTracks(tracks);
  }

  /** Five seconds of speech every fifteen: the three voices speak one after another. */
  private static List<Span> speech() {
    List<Span> all = new ArrayList<>();
    for (long at = 2L * RATE; at < 290L * RATE; at += 15L * RATE) {
      all.add(new Span(at, at + 5L * RATE - RATE / 2));
    }
    return all;
  }

  /** A third of the keyframes, and a hush every 20 seconds. */
  private static Track shaped(Track track, Random random) {
    List<Keyframe> keyframes = new ArrayList<>();
    for (int i = 0; i < 5_000 / 3; i++) {
      keyframes.add(
          new Keyframe(
              HOURS_2 / (5_000 / 3) * i,
              i % 4 < 2 ? 0 : -6 * random.nextDouble(),
              SegmentShape.SMOOTH));
    }
    List<Hush> hushes = new ArrayList<>();
    for (long at = 10L * RATE; at < HOURS_2; at += 20L * RATE) {
      hushes.add(Hush.over(new Span(at, at + 8L * RATE), -10));
    }
    return track.withLine(LevelLine.of(keyframes)).withHushes(hushes);
  }
}
