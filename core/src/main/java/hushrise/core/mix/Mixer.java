package hushrise.core.mix;

import hushrise.core.Decibels;
import hushrise.core.level.ClipEnvelope;
import hushrise.core.level.TrackCurve;
import hushrise.core.project.Media;
import hushrise.core.project.Project;
import hushrise.core.project.Track;
import hushrise.core.sound.SampleSource;
import hushrise.core.sound.SoundLibrary;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;

/**
 * Renders any stretch of a project into stereo floats. For the same project each frame comes out
 * the same to the bit, however a stretch is cut into calls: every factor depends on the frame's
 * time alone, and tracks and clips are added in their order. Rendering allocates nothing.
 *
 * <p>For one thread at a time.
 */
public final class Mixer {

  /** Frames rendered at once. */
  static final int BLOCK = 4096;

  /** Frames between two worked-out gain factors. */
  static final int CELL = 32;

  static final int CELLS = BLOCK / CELL;

  private final List<TrackVoice> tracks = new ArrayList<>();
  private final float master;
  private final float[] blockLeft = new float[BLOCK];
  private final float[] blockRight = new float[BLOCK];

  private Mixer(Project project, SoundLibrary library, Predicate<Track> heard) {
    master = (float) Decibels.toFactor(project.masterDb());
    Scratch scratch = new Scratch();
    for (Track track : project.tracks()) {
      if (heard.test(track) && track.levelDb() > Decibels.OFF_DB) {
        tracks.add(new TrackVoice(track, project, library, scratch));
      }
    }
  }

  /** A mixer of what a person hears: muted tracks left out, soloed ones alone. */
  public static Mixer of(Project project, SoundLibrary library) {
    return new Mixer(project, library, project.heardTracks());
  }

  /** A mixer of chosen tracks, muted or not. */
  public static Mixer of(Project project, SoundLibrary library, Predicate<Track> heard) {
    return new Mixer(project, library, heard);
  }

  /**
   * Renders frames of the timeline, replacing what the arrays hold.
   *
   * @param startFrame the first frame, at least 0
   * @param frames how many; at most the arrays' length
   */
  public void render(long startFrame, int frames, float[] left, float[] right) {
    for (int done = 0; done < frames; done += BLOCK) {
      int n = Math.min(BLOCK, frames - done);
      renderBlock(startFrame + done, n);
      System.arraycopy(blockLeft, 0, left, done, n);
      System.arraycopy(blockRight, 0, right, done, n);
    }
  }

  private void renderBlock(long startFrame, int frames) {
    Arrays.fill(blockLeft, 0, frames, 0);
    Arrays.fill(blockRight, 0, frames, 0);
    for (int i = 0; i < tracks.size(); i++) {
      tracks.get(i).addTo(startFrame, frames, blockLeft, blockRight);
    }
    if (master != 1) {
      for (int i = 0; i < frames; i++) {
        blockLeft[i] *= master;
      }
      for (int i = 0; i < frames; i++) {
        blockRight[i] *= master;
      }
    }
  }

  private static final class TrackVoice {

    private final TrackCurve curve;
    private final List<ClipVoice> clips = new ArrayList<>();
    private final float[] factors = new float[CELLS + 2];
    private final float panLeft;
    private final float panRight;
    private int interval;

    TrackVoice(Track track, Project project, SoundLibrary library, Scratch scratch) {
      curve = TrackCurve.of(track, project.sampleRate());
      panLeft = channelFactor(track.pan());
      panRight = channelFactor(-track.pan());
      Map<String, ClipEnvelope> envelopes = ClipEnvelope.of(track);
      track
          .clips()
          .forEach(
              clip -> {
                Media media = project.media(clip.mediaId()).orElseThrow();
                if (!media.hasSound()) {
                  return;
                }
                SampleSource source = library.samples(media, project.sampleRate());
                clips.add(new ClipVoice(clip, envelopes.get(clip.id()), source, scratch));
              });
    }

    /** The factor of the channel that a track panned by {@code away} moves away from. */
    private static float channelFactor(double away) {
      return away >= 1 ? 0 : away <= 0 ? 1 : (float) Math.cos(Math.PI / 2 * away);
    }

    void addTo(long startFrame, int frames, float[] left, float[] right) {
      boolean filled = false;
      for (int i = 0; i < clips.size(); i++) {
        ClipVoice clip = clips.get(i);
        if (clip.sounds(startFrame, frames)) {
          if (!filled) {
            long cell = Math.floorDiv(startFrame, CELL) * CELL;
            int count = (int) ((startFrame - cell + frames + CELL - 1) / CELL) + 1;
            interval = curve.fillFactors(cell, CELL, count, factors, interval);
            filled = true;
          }
          clip.addTo(startFrame, frames, factors, panLeft, panRight, left, right);
        }
      }
    }
  }
}
