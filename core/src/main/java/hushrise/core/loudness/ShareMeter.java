package hushrise.core.loudness;

import hushrise.core.mix.Mixer;
import hushrise.core.project.Project;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.SoundLibrary;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Stream;

/**
 * Measures what each track gives to a film, second by second, from any second on ({@link
 * TrackShares}).
 */
final class ShareMeter {

  private static final int BLOCK = 4_096;

  /** How many products are summed side by side, which lets them be reckoned many at a time. */
  private static final int LANES = 240;

  private final int rate;
  private final long length;
  private final Mixer mixer;
  private final Voice[] voices;
  private final TruePeakMeter meter = new TruePeakMeter();
  private final Channel silence;
  private final float[] mix = new float[BLOCK];
  private final float[] lanes = new float[LANES];
  private long next;

  /** A channel of a track: the second that is measured with what lies around it, and weighted. */
  private static final class Channel {

    private final KWeighting filter;
    private final float[] sound;
    private final float[] weighted;

    /**
     * The same by tenths, each in rows as long as there are lanes; the last one ends in silence.
     */
    private final float[][][] rows;

    private float peak;

    Channel(int rate) {
      filter = new KWeighting(rate);
      sound = new float[rate + 2 * PieceMeter.MARGIN];
      weighted = new float[rate];
      rows = new float[PieceMeter.HOPS][Math.ceilDiv(rate / PieceMeter.HOPS + 1, LANES)][LANES];
    }

    boolean isLike(Channel other) {
      return filter.standsLike(other.filter) && Arrays.equals(sound, other.sound);
    }

    boolean isSilent() {
      return peak == 0 && filter.isAtRest();
    }

    static void weigh(Channel one, Channel other, int offset, int n) {
      KWeighting.weigh(
          one.filter,
          other.filter,
          one.sound,
          other.sound,
          offset,
          n,
          one.weighted,
          other.weighted);
    }

    /** Puts what was weighted into rows. */
    void arrange() {
      for (int hop = 0; hop < rows.length; hop++) {
        int at = hop * weighted.length / PieceMeter.HOPS;
        int end = (hop + 1) * weighted.length / PieceMeter.HOPS;
        for (float[] row : rows[hop]) {
          int n = Math.min(end - at, LANES);
          System.arraycopy(weighted, at, row, 0, n);
          Arrays.fill(row, n, LANES, 0);
          at += n;
        }
      }
    }

    /** Has heard what another one has. */
    void follow(Channel other) {
      peak = other.peak;
      filter.follow(other.filter);
    }

    /** Keeps the end of n frames as what lies before the next. */
    void moveOn(int n) {
      System.arraycopy(sound, n, sound, 0, 2 * PieceMeter.MARGIN);
      Arrays.fill(sound, 2 * PieceMeter.MARGIN, sound.length, 0);
    }
  }

  /** A track; without channels before its first sound. */
  private static final class Voice {

    private final String track;
    private Channel[] channels = {};
    private boolean mono;

    Voice(String track) {
      this.track = track;
    }

    void keep(float[] left, float[] right, int frames, int to, int rate) {
      if (channels.length == 0) {
        channels = new Channel[] {new Channel(rate), new Channel(rate)};
      }
      System.arraycopy(left, 0, channels[0].sound, to, frames);
      System.arraycopy(right, 0, channels[1].sound, to, frames);
    }

    /** Lets the filters hear what lies before the first second. */
    void warmUp(int early) {
      if (channels.length > 0) {
        Channel.weigh(channels[0], channels[1], 2 * PieceMeter.MARGIN, early);
        moveOn(early + PieceMeter.MARGIN);
      }
    }

    void findPeaks(TruePeakMeter meter) {
      mono = channels.length > 0 && channels[1].isLike(channels[0]);
      own().forEach(c -> c.peak = meter.within(c.sound, 0, c.sound.length, 0));
    }

    /** Its channels, of which one stands for two that are alike. */
    Stream<Channel> own() {
      return Arrays.stream(channels).limit(mono ? 1 : 2);
    }

    Channel channel(int number) {
      return channels[mono ? 0 : number];
    }

    void arrange() {
      own().forEach(Channel::arrange);
      if (mono) {
        channels[1].follow(channels[0]);
      }
    }

    void moveOn(int n) {
      for (Channel channel : channels) {
        channel.moveOn(n);
      }
    }

    boolean isSilent() {
      return Arrays.stream(channels).allMatch(Channel::isSilent);
    }
  }

  /**
   * @param project of which only levels, pans, mutes and solos of tracks do not count
   * @param firstPiece the first second to measure
   */
  ShareMeter(Project project, SoundLibrary library, int firstPiece) {
    rate = project.sampleRate();
    silence = new Channel(rate);
    length = project.lengthFrames();
    List<Track> plain = project.tracks().stream().map(ShareMeter::plain).toList();
    mixer = Mixer.of(project.withTracks(plain).withMasterDb(0), library, t -> t.kind().sounds());
    voices = mixer.trackIds().stream().map(Voice::new).toArray(Voice[]::new);
    long first = (long) firstPiece * rate;
    int early = (int) Math.min(first, PieceMeter.preroll(rate));
    next = first - early;
    read(2 * PieceMeter.MARGIN, early + PieceMeter.MARGIN);
    for (Voice voice : voices) {
      voice.warmUp(early);
    }
  }

  /** A track without what {@link TrackFactors} holds. */
  static Track plain(Track track) {
    return track.withLevelDb(0).withPan(0);
  }

  private void read(int at, int n) {
    for (int done = 0; done < n; ) {
      int take = Math.min(BLOCK, n - done);
      int to = at + done;
      if (next < length) {
        int there = (int) Math.min(take, length - next);
        mixer.render(
            next,
            there,
            mix,
            mix,
            (bus, left, right, frames) -> voices[bus].keep(left, right, frames, to, rate));
      }
      next += take;
      done += take;
    }
  }

  /**
   * Measures the next second.
   *
   * @param factors those of the project
   * @param mixPeaks those of the mix with these
   */
  TrackShares next(TrackFactors factors, float[] mixPeaks) {
    read(2 * PieceMeter.MARGIN, rate);
    for (Voice voice : voices) {
      voice.findPeaks(meter);
    }
    weigh(Arrays.stream(voices).flatMap(Voice::own).toList());
    for (Voice voice : voices) {
      voice.arrange();
    }
    Voice[] sounding = Arrays.stream(voices).filter(v -> !v.isSilent()).toArray(Voice[]::new);
    TrackShares shares = sharesOf(sounding, factors, mixPeaks);
    for (Voice voice : voices) {
      voice.moveOn(rate);
    }
    return shares;
  }

  /** Two at a time, as neither waits for the other; silence goes with the last of an odd number. */
  private void weigh(List<Channel> channels) {
    channels.stream().filter(Channel::isSilent).forEach(c -> Arrays.fill(c.weighted, 0));
    List<Channel> awake = channels.stream().filter(c -> !c.isSilent()).toList();
    for (int i = 0; i < awake.size(); i += 2) {
      Channel other = i + 1 < awake.size() ? awake.get(i + 1) : silence;
      Channel.weigh(awake.get(i), other, PieceMeter.MARGIN, rate);
    }
  }

  private TrackShares sharesOf(Voice[] sounding, TrackFactors factors, float[] mixPeaks) {
    int n = sounding.length;
    float[] products = new float[2 * PieceMeter.HOPS * (n * (n + 1) / 2)];
    float[] peaks = new float[2 * n];
    int at = 0;
    for (int c = 0; c < 2; c++) {
      for (int hop = 0; hop < PieceMeter.HOPS; hop++) {
        for (int i = 0; i < n; i++) {
          for (int j = i; j < n; j++) {
            boolean known = c == 1 && sounding[i].mono && sounding[j].mono;
            products[at] =
                known
                    ? products[at - products.length / 2]
                    : product(sounding[i].channel(c), sounding[j].channel(c), hop);
            at++;
          }
        }
      }
      for (int i = 0; i < n; i++) {
        peaks[c * n + i] = sounding[i].channel(c).peak;
      }
    }
    String[] ids = Arrays.stream(sounding).map(v -> v.track).toArray(String[]::new);
    return new TrackShares(ids, products, peaks, mixPeaks, factors);
  }

  /** The mean product of two weighted sounds over a tenth of the second. */
  private float product(Channel one, Channel other, int hop) {
    int frames = (hop + 1) * rate / PieceMeter.HOPS - hop * rate / PieceMeter.HOPS;
    float[] sums = lanes;
    Arrays.fill(sums, 0);
    for (int row = 0; row < one.rows[hop].length; row++) {
      addProducts(one.rows[hop][row], other.rows[hop][row], sums);
    }
    double sum = 0;
    for (float lane : sums) {
      sum += lane;
    }
    return (float) (sum / frames);
  }

  private static void addProducts(float[] a, float[] b, float[] sums) {
    for (int lane = 0; lane < LANES; lane++) {
      sums[lane] += a[lane] * b[lane];
    }
  }
}
