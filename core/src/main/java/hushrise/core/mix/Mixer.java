package hushrise.core.mix;

import hushrise.core.Decibels;
import hushrise.core.level.ClipEnvelope;
import hushrise.core.level.Pan;
import hushrise.core.level.TrackCurve;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.SampleSource;
import hushrise.core.sound.SoundLibrary;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
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

  /** How much a factor may change from one cell to the next after an edit: 2.4 dB. */
  static final float MOST_STEP = (float) Decibels.toFactor(2.4);

  /** Factors under this count as silence when a voice begins or ends after an edit. */
  static final float FLOOR = (float) Decibels.toFactor(-66);

  private final List<TrackVoice> tracks = new ArrayList<>();
  private final float master;
  private final float[] blockLeft = new float[BLOCK];
  private final float[] blockRight = new float[BLOCK];
  private List<TrackVoice> ending = List.of();
  private Optional<Mixer> before = Optional.empty();
  private float lastMaster;
  private boolean slewsMaster;

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
   * Prepares this mixer to go on where another one stands, as its project has been edited while it
   * sounds: no voice's level will jump by more than 0.1 dB from one sample to the next. What the
   * other one plays and this one does not fades out, what is new fades in, within some 20 ms. Takes
   * effect with {@link #begin}; until then the other one may go on rendering.
   */
  public void follow(Mixer sounding) {
    Mixer playing = sounding.before.orElse(sounding);
    for (TrackVoice track : tracks) {
      for (ClipVoice voice : track.clips) {
        voice.follow(
            playing.tracks.stream()
                .filter(t -> t.hasPanOf(track))
                .flatMap(t -> t.clips.stream())
                .filter(voice::isSameSound)
                .findFirst());
      }
    }
    List<TrackVoice> left = new ArrayList<>();
    for (TrackVoice track : playing.tracks) {
      List<ClipVoice> gone =
          track.clips.stream()
              .filter(v -> tracks.stream().noneMatch(t -> t.hasPanOf(track) && t.plays(v)))
              .toList();
      if (!gone.isEmpty()) {
        left.add(track.only(gone));
      }
    }
    ending = left;
    before = Optional.of(playing);
  }

  /**
   * Begins to go on where the followed mixer stands. On the rendering thread; allocates nothing.
   */
  public void begin() {
    if (before.isPresent()) {
      lastMaster = before.get().lastMaster;
      slewsMaster = true;
      for (int i = 0; i < tracks.size(); i++) {
        tracks.get(i).beginFollowing();
      }
      for (int i = 0; i < ending.size(); i++) {
        ending.get(i).beginEnding();
      }
      before = Optional.empty();
    }
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
    for (int i = 0; i < ending.size(); i++) {
      ending.get(i).addTo(startFrame, frames, blockLeft, blockRight);
    }
    if (slewsMaster) {
      slewMaster(frames);
      return;
    }
    lastMaster = master;
    if (master != 1) {
      for (int i = 0; i < frames; i++) {
        blockLeft[i] *= master;
      }
      for (int i = 0; i < frames; i++) {
        blockRight[i] *= master;
      }
    }
  }

  private void slewMaster(int frames) {
    float step = (float) Decibels.toFactor(0.08);
    float at = lastMaster;
    for (int i = 0; i < frames; i++) {
      at = at < master ? Math.min(master, at * step) : Math.max(master, at / step);
      blockLeft[i] *= at;
      blockRight[i] *= at;
    }
    lastMaster = at;
    slewsMaster = at != master;
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
      panLeft = Pan.left(track.pan());
      panRight = Pan.right(track.pan());
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

    private TrackVoice(TrackVoice of, List<ClipVoice> some) {
      curve = of.curve;
      panLeft = of.panLeft;
      panRight = of.panRight;
      clips.addAll(some);
    }

    TrackVoice only(List<ClipVoice> some) {
      return new TrackVoice(this, some);
    }

    boolean hasPanOf(TrackVoice other) {
      return panLeft == other.panLeft && panRight == other.panRight;
    }

    boolean plays(ClipVoice voice) {
      return clips.stream().anyMatch(voice::isSameSound);
    }

    void beginFollowing() {
      for (int i = 0; i < clips.size(); i++) {
        clips.get(i).beginFollowing();
      }
    }

    void beginEnding() {
      for (int i = 0; i < clips.size(); i++) {
        clips.get(i).beginEnding();
      }
    }

    void addTo(long startFrame, int frames, float[] left, float[] right) {
      boolean filled = false;
      for (int i = 0; i < clips.size(); i++) {
        ClipVoice clip = clips.get(i);
        if (clip.sounds(startFrame, frames) && !clip.hasEnded()) {
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
