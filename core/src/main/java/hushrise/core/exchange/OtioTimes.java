package hushrise.core.exchange;

import com.fasterxml.jackson.databind.JsonNode;
import hushrise.core.Problem;
import hushrise.core.project.Limits;
import hushrise.core.time.FrameRate;
import java.nio.file.Path;
import java.util.Optional;
import java.util.Set;

/**
 * A timeline's times as sample frames. They are not rounded, so that a thousand clips of 29.97
 * frames a second end where they should.
 *
 * @param file the timeline, for what is said of it
 * @param sampleRate in Hz
 */
record OtioTimes(Path file, int sampleRate) {

  /** The longest project, in seconds. */
  private static final double MOST_SECONDS = Limits.MOST_HOURS * 3600.0;

  /** Timecodes of media begin anywhere within days. */
  private static final double LATEST_SECONDS = 1e7;

  private static final double MOST_PICTURES_A_SECOND = 121;

  /** The rates of pictures that are also used a thousandth slower. */
  private static final Set<Long> SLOWED = Set.of(24L, 30L, 48L, 60L, 120L);

  /** How far a rate that was written with few digits lies beside what is meant. */
  private static final double ROUNDED = 0.005;

  /** A stretch of time in sample frames. */
  record Range(double start, double length) {
    double end() {
      return start + length;
    }
  }

  /**
   * A time; 0 where there is none.
   *
   * @throws Problem when it cannot be believed
   */
  double frames(JsonNode time) {
    double rate = time.path("rate").asDouble(1);
    double seconds = time.path("value").asDouble(0) / exact(rate);
    requireBelievable(rate > 0 && Math.abs(seconds) <= LATEST_SECONDS);
    return seconds * sampleRate;
  }

  /**
   * A length; 0 where there is none.
   *
   * @throws Problem when it cannot be believed
   */
  double length(JsonNode time) {
    double frames = frames(time);
    requireBelievable(frames >= 0 && isOnTimeline(frames));
    return frames;
  }

  /**
   * A range of time; empty where there is none.
   *
   * @throws Problem when it cannot be believed
   */
  Optional<Range> range(JsonNode range) {
    return range.isObject()
        ? Optional.of(new Range(frames(range.path("start_time")), length(range.path("duration"))))
        : Optional.empty();
  }

  /** The longest project, in sample frames. */
  double most() {
    return MOST_SECONDS * sampleRate;
  }

  /** Whether a project can be that long. */
  boolean isOnTimeline(double frames) {
    return frames <= most();
  }

  void requireBelievable(boolean fine) {
    if (!fine) {
      throw new Problem("%s has times or counts that cannot be: export it again.".formatted(file));
    }
  }

  /** The rate of a range's pictures; empty where it counts something else. */
  static Optional<FrameRate> pictureRate(JsonNode range) {
    double rate = range.path("duration").path("rate").asDouble(0);
    if (!(rate >= 1 && rate <= MOST_PICTURES_A_SECOND)) {
      return Optional.empty();
    }
    int nominal = (int) Math.round(rate);
    if (isThousandthSlower(rate)) {
      return Optional.of(new FrameRate(nominal * 1000, 1001));
    }
    return Optional.of(
        rate == nominal
            ? new FrameRate(nominal, 1)
            : new FrameRate((int) Math.round(rate * 1000), 1000));
  }

  /** 29.97 stands for 30000/1001, and 23.98 for 24000/1001. */
  private static double exact(double rate) {
    return isThousandthSlower(rate) ? Math.round(rate) * 1000 / 1001.0 : rate;
  }

  private static boolean isThousandthSlower(double rate) {
    long nominal = Math.round(rate);
    return SLOWED.contains(nominal) && Math.abs(rate - nominal * 1000 / 1001.0) < ROUNDED;
  }
}
