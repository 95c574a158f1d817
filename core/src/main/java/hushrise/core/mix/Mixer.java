package hushrise.core.mix;

import hushrise.core.Decibels;
import hushrise.core.level.ClipEnvelope;
import hushrise.core.level.Pan;
import hushrise.core.level.TrackCurve;
import hushrise.core.project.Project;
import hushrise.core.project.level.LevelLine;
import hushrise.core.project.media.Media;
import hushrise.core.project.timeline.Track;
import hushrise.core.ride.Hand;
import hushrise.core.ride.Hands;
import hushrise.core.sound.SampleSource;
import hushrise.core.sound.SoundLibrary;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.stream.Collectors;

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
  private final List<String> trackIds;
  private final float master;
  private final float[] blockLeft = new float[BLOCK];
  private final float[] blockRight = new float[BLOCK];
  private final float[] busLeft = new float[BLOCK];
  private final float[] busRight = new float[BLOCK];
  private List<TrackVoice> ending = List.of();
  private Optional<Mixer> before = Optional.empty();
  private float lastMaster;
  private boolean slewsMaster;

  private Mixer(Project project, SoundLibrary library, Predicate<Track> heard, Hands hands) {
    master = (float) Decibels.toFactor(project.masterDb());
    lastMaster = master;
    trackIds = project.tracks().stream().map(Track::id).toList();
    Scratch scratch = new Scratch();
    for (int bus = 0; bus < project.tracks().size(); bus++) {
      Track track = project.tracks().get(bus);
      if (heard.test(track) && track.levelDb() > Decibels.OFF_DB) {
        tracks.add(new TrackVoice(bus, track, project, library, scratch, hands.of(track.id())));
      }
    }
  }

  /** A mixer of what a person hears: muted tracks left out, soloed ones alone. */
  public static Mixer of(Project project, SoundLibrary library) {
    return of(project, library, project.heardTracks());
  }

  /** A mixer of chosen tracks, muted or not. */
  public static Mixer of(Project project, SoundLibrary library, Predicate<Track> heard) {
    return of(project, library, heard, Hands.NONE);
  }

  /** A mixer of chosen tracks, on some of which a hand may take the place of the level line. */
  public static Mixer of(
      Project project, SoundLibrary library, Predicate<Track> heard, Hands hands) {
    return new Mixer(project, library, heard, hands);
  }

  /** The ids of the project's tracks, heard or not: a bus's place in it is its number. */
  public List<String> trackIds() {
    return trackIds;
  }

  /**
   * Brings near what will be rendered soon, so that rendering it waits for no disk. Other threads
   * may call this at any time.
   */
  public void touch(long startFrame, int frames) {
    for (TrackVoice track : tracks) {
      for (ClipVoice clip : track.clips) {
        clip.touch(startFrame, frames);
      }
    }
  }

  /**
   * Prepares this mixer to go on where another one stands, as its project has been edited while it
   * sounds: no voice's level will jump by more than 0.1 dB from one sample to the next. What the
   * other one plays and this one does not fades out, what is new fades in, within some 20 ms. Takes
   * effect with {@link #begin}; until then the other one may go on rendering.
   */
  public void follow(Mixer sounding) {
    Mixer playing = sounding.before.orElse(sounding);
    Map<String, List<Placed>> sounds = byClip(playing.tracks);
    for (TrackVoice track : tracks) {
      for (ClipVoice voice : track.clips) {
        voice.follow(sameSound(sounds, track, voice));
      }
    }
    Map<String, List<Placed>> own = byClip(tracks);
    List<TrackVoice> left = new ArrayList<>();
    for (TrackVoice track : playing.tracks) {
      List<ClipVoice> gone =
          track.clips.stream().filter(v -> sameSound(own, track, v).isEmpty()).toList();
      if (!gone.isEmpty()) {
        left.add(track.only(gone));
      }
    }
    ending = left;
    before = Optional.of(playing);
  }

  /** A voice and the track it sounds on. */
  private record Placed(TrackVoice track, ClipVoice voice) {}

  private static Map<String, List<Placed>> byClip(List<TrackVoice> tracks) {
    return tracks.stream()
        .flatMap(t -> t.clips.stream().map(v -> new Placed(t, v)))
        .collect(Collectors.groupingBy(p -> p.voice().clipId()));
  }

  /** The voice that gives the same sound as another one, at the pan of its track. */
  private static Optional<ClipVoice> sameSound(
      Map<String, List<Placed>> sounds, TrackVoice track, ClipVoice voice) {
    return sounds.getOrDefault(voice.clipId(), List.of()).stream()
        .filter(p -> p.track().hasPanOf(track))
        .map(Placed::voice)
        .filter(voice::isSameSound)
        .findFirst();
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
    render(startFrame, frames, left, right, BusTap.NONE);
  }

  /** As {@link #render(long, int, float[], float[])}, while somebody looks at each track. */
  public void render(long startFrame, int frames, float[] left, float[] right, BusTap tap) {
    for (int done = 0; done < frames; done += BLOCK) {
      int n = Math.min(BLOCK, frames - done);
      renderBlock(startFrame + done, n, tap);
      System.arraycopy(blockLeft, 0, left, done, n);
      System.arraycopy(blockRight, 0, right, done, n);
    }
  }

  private void renderBlock(long startFrame, int frames, BusTap tap) {
    Arrays.fill(blockLeft, 0, frames, 0);
    Arrays.fill(blockRight, 0, frames, 0);
    for (int i = 0; i < tracks.size(); i++) {
      TrackVoice track = tracks.get(i);
      if (track.render(startFrame, frames, busLeft, busRight)) {
        tap.bus(track.bus, busLeft, busRight, frames);
        add(busLeft, blockLeft, frames);
        add(busRight, blockRight, frames);
      }
    }
    for (int i = 0; i < ending.size(); i++) {
      if (ending.get(i).render(startFrame, frames, busLeft, busRight)) {
        add(busLeft, blockLeft, frames);
        add(busRight, blockRight, frames);
      }
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

  private static void add(float[] bus, float[] mix, int frames) {
    for (int i = 0; i < frames; i++) {
      mix[i] += bus[i];
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

    private final int bus;
    private final Optional<Hand> hand;
    private final LevelLine line;
    private final TrackCurve curve;
    private final List<ClipVoice> clips = new ArrayList<>();
    private final float[] factors = new float[CELLS + 2];
    private final float panLeft;
    private final float panRight;
    private int interval;

    TrackVoice(
        int bus,
        Track track,
        Project project,
        SoundLibrary library,
        Scratch scratch,
        Optional<Hand> hand) {
      this.bus = bus;
      this.hand = hand;
      line = track.line();
      curve =
          TrackCurve.of(
                  hand.isPresent() ? track.withLine(LevelLine.EMPTY) : track, project.sampleRate())
              .whole();
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
      bus = of.bus;
      hand = Optional.empty();
      line = of.line;
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

    /**
     * Renders the track's sound of a block, replacing what the arrays hold.
     *
     * @return whether it has any; if not, the arrays are left as they are
     */
    boolean render(long startFrame, int frames, float[] left, float[] right) {
      if (hand.isPresent()) {
        hand.get().move(startFrame, frames, line);
      }
      boolean filled = false;
      for (int i = 0; i < clips.size(); i++) {
        ClipVoice clip = clips.get(i);
        if (clip.sounds(startFrame, frames) && !clip.hasEnded()) {
          if (!filled) {
            Arrays.fill(left, 0, frames, 0);
            Arrays.fill(right, 0, frames, 0);
            fillFactors(startFrame, frames);
            filled = true;
          }
          clip.addTo(startFrame, frames, factors, panLeft, panRight, left, right);
        }
      }
      return filled;
    }

    private void fillFactors(long startFrame, int frames) {
      long cell = Math.floorDiv(startFrame, CELL) * CELL;
      int count = (int) ((startFrame - cell + frames + CELL - 1) / CELL) + 1;
      interval = curve.fillFactors(cell, CELL, count, factors, interval);
      if (hand.isPresent()) {
        hand.get().multiply(cell, CELL, count, factors, line);
      }
    }
  }
}
