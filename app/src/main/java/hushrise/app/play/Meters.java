package hushrise.app.play;

import hushrise.core.Decibels;
import hushrise.core.loudness.GatedLoudness;
import hushrise.core.play.BlockLog;
import hushrise.core.project.Project;
import hushrise.core.project.timeline.Track;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalLong;
import java.util.function.Supplier;
import javafx.animation.AnimationTimer;

/**
 * How loud everything is that sounds, for all meters of the window: one reader of the player's log,
 * asked once for each picture of the window, that passes over no block.
 */
public final class Meters {

  /** The lowest level that a meter shows. */
  public static final double LOWEST_DB = -60;

  private static final double FALL_DB_PER_SECOND = 24;
  private static final double HOLD_SECONDS = 1.5;

  /** A voice under this is a breath or a room, and stands above nothing. */
  private static final double SPEAKS_LUFS = -45;

  private static final double MOMENTARY_SECONDS = 0.4;
  private static final double SHORT_TERM_SECONDS = 3;

  /** What the meter of one bus shows; left and right. */
  public static final class Meter {
    private final double[] db = {LOWEST_DB, LOWEST_DB};
    private final double[] held = {LOWEST_DB, LOWEST_DB};
    private final double[] heldFor = new double[2];
    private final float[] fresh = new float[2];
    private double highestDb = Double.NEGATIVE_INFINITY;
    private long overFrame = -1;

    /** The level now, falling slowly, in dBFS; {@code channel} 0 is left, 1 right. */
    public double db(int channel) {
      return db[channel];
    }

    /** The highest level of the last moments. */
    public double heldDb(int channel) {
      return held[channel];
    }

    /** The highest sample since playing began or {@link #clear}; minus infinity for silence. */
    public double highestDb() {
      return highestDb;
    }

    /** Where full scale was passed first. */
    public OptionalLong over() {
      return overFrame < 0 ? OptionalLong.empty() : OptionalLong.of(overFrame);
    }

    /** Forgets what was highest. */
    public void clear() {
      highestDb = Double.NEGATIVE_INFINITY;
      overFrame = -1;
    }

    private void take(BlockLog.Block block, int bus) {
      for (int c = 0; c < 2; c++) {
        float peak = block.peak(bus, c);
        fresh[c] = Math.max(fresh[c], peak);
        if (peak > 1 && overFrame < 0) {
          overFrame = block.frame();
        }
      }
    }

    private void step(double seconds) {
      for (int c = 0; c < 2; c++) {
        double now = Decibels.ofFactor(fresh[c]);
        fresh[c] = 0;
        db[c] = Math.max(Math.max(now, LOWEST_DB), db[c] - seconds * FALL_DB_PER_SECOND);
        heldFor[c] += seconds;
        if (now >= held[c]) {
          held[c] = now;
          heldFor[c] = 0;
        } else if (heldFor[c] > HOLD_SECONDS) {
          held[c] = Math.max(db[c], held[c] - seconds * FALL_DB_PER_SECOND);
        }
        highestDb = Math.max(highestDb, now);
      }
    }

    private boolean rests() {
      return Math.max(db[0], db[1]) <= LOWEST_DB && Math.max(held[0], held[1]) <= LOWEST_DB;
    }
  }

  /** The mean energy of the last so many blocks. */
  private static final class Window {
    private final float[] energies;
    private int next;
    private int filled;
    private double sum;

    Window(double seconds, int sampleRate) {
      energies = new float[(int) Math.ceil(seconds * sampleRate / 512)];
    }

    void add(double energy) {
      sum += (float) energy - (filled == energies.length ? energies[next] : 0);
      energies[next] = (float) energy;
      next = (next + 1) % energies.length;
      filled = Math.min(filled + 1, energies.length);
    }

    double lufs() {
      return filled == 0 ? Double.NEGATIVE_INFINITY : GatedLoudness.lufs(Math.max(0, sum / filled));
    }

    void clear() {
      filled = 0;
      next = 0;
      sum = 0;
    }
  }

  private final Transport transport;
  private final Supplier<Project> project;
  private final BlockLog.Reader reader;
  private final Map<String, Meter> tracks = new HashMap<>();
  private final Meter mix = new Meter();
  private final Window momentary;
  private final Window shortTerm;
  private final Window voice;
  private final Window rest;
  private final List<Runnable> followers = new ArrayList<>();
  private Map<String, Boolean> voices = Map.of();
  private long lastNanos;
  private final AnimationTimer timer =
      new AnimationTimer() {
        @Override
        public void handle(long now) {
          step(now);
        }
      };

  public Meters(Transport transport, Supplier<Project> project) {
    this.transport = transport;
    this.project = project;
    int rate = Project.DEFAULT_SAMPLE_RATE;
    reader = transport.player().log().reader();
    momentary = new Window(MOMENTARY_SECONDS, rate);
    shortTerm = new Window(SHORT_TERM_SECONDS, rate);
    voice = new Window(MOMENTARY_SECONDS, rate);
    rest = new Window(MOMENTARY_SECONDS, rate);
    transport
        .stateProperty()
        .addListener(
            (p, was, now) -> {
              if (!now.isStopped() && was.isStopped()) {
                begin();
              }
            });
  }

  /** The meter of a track. */
  public Meter track(String trackId) {
    return tracks.computeIfAbsent(trackId, id -> new Meter());
  }

  public Meter mix() {
    return mix;
  }

  /** The loudness of the last 400 ms, in LUFS. */
  public double momentaryLufs() {
    return momentary.lufs();
  }

  /** The loudness of the last 3 s, in LUFS. */
  public double shortTermLufs() {
    return shortTerm.lufs();
  }

  /** How far the voice stands above the rest in the last 400 ms, in LU; NaN without a voice. */
  public double separationLu() {
    double of = voice.lufs();
    return of > SPEAKS_LUFS ? of - rest.lufs() : Double.NaN;
  }

  /** Is told when meters have moved; a new one takes the place of nobody. */
  public void follow(Runnable moved) {
    followers.add(moved);
  }

  public void unfollow(Runnable moved) {
    followers.remove(moved);
  }

  private void begin() {
    tracks.values().forEach(Meter::clear);
    mix.clear();
    momentary.clear();
    shortTerm.clear();
    voice.clear();
    rest.clear();
    Project now = project.get();
    Map<String, Boolean> speaking = new HashMap<>();
    now.tracks().forEach(t -> speaking.put(t.id(), t.isVoice()));
    voices = speaking;
    now.tracks().stream().map(Track::id).forEach(this::track);
    lastNanos = System.nanoTime();
    timer.start();
  }

  private void take(BlockLog.Block block) {
    mix.take(block, -1);
    List<String> ids = block.trackIds();
    double ofVoice = 0;
    double ofRest = 0;
    for (int bus = 0; bus < ids.size(); bus++) {
      String id = ids.get(bus);
      Meter meter = tracks.get(id);
      if (meter != null) {
        meter.take(block, bus);
      }
      if (voices.getOrDefault(id, false)) {
        ofVoice += block.energy(bus);
      } else {
        ofRest += block.energy(bus);
      }
    }
    momentary.add(block.energy(-1));
    shortTerm.add(block.energy(-1));
    voice.add(ofVoice);
    rest.add(ofRest);
  }

  private void step(long now) {
    double seconds = Math.min(0.25, (now - lastNanos) / 1e9);
    lastNanos = now;
    transport.player().takeSounded(reader, this::take);
    mix.step(seconds);
    boolean rests = mix.rests();
    for (Meter meter : tracks.values()) {
      meter.step(seconds);
      rests &= meter.rests();
    }
    followers.forEach(Runnable::run);
    if (rests && transport.stateProperty().get().isStopped()) {
      timer.stop();
    }
  }
}
