package hushrise.core.project.level;

import hushrise.core.Ids;
import hushrise.core.time.Span;

/**
 * A swell of a background track where nobody speaks: up, a top, and back, as one object. Both turns
 * are raised cosines in dB and lie inside the span.
 *
 * @param id unique in the project
 * @param startFrame where it begins to rise
 * @param endFrame where it is back
 * @param heightDb how far up, at least 0
 * @param swellSeconds how long it takes up
 * @param returnSeconds how long it takes back
 * @param drafted whether a draft made it and nobody has touched it since
 */
public record Rise(
    String id,
    long startFrame,
    long endFrame,
    double heightDb,
    double swellSeconds,
    double returnSeconds,
    boolean drafted) {

  public Rise {
    if (endFrame < startFrame || !(heightDb >= 0)) {
      throw new IllegalArgumentException(
          "Not a rise: " + startFrame + ".." + endFrame + " at " + heightDb + " dB");
    }
  }

  /** A rise made by hand. */
  public Rise(
      String id,
      long startFrame,
      long endFrame,
      double heightDb,
      double swellSeconds,
      double returnSeconds) {
    this(id, startFrame, endFrame, heightDb, swellSeconds, returnSeconds, false);
  }

  public static Rise over(Span gap, double heightDb) {
    return new Rise(Ids.fresh("rise"), gap.startFrame(), gap.endFrame(), heightDb, 1.0, 1.0);
  }

  public Rise withHeightDb(double db) {
    return new Rise(id, startFrame, endFrame, Math.max(0, db), swellSeconds, returnSeconds);
  }

  public Rise withSpan(Span span) {
    return new Rise(id, span.startFrame(), span.endFrame(), heightDb, swellSeconds, returnSeconds);
  }

  public Rise withTurns(double newSwellSeconds, double newReturnSeconds) {
    return new Rise(
        id,
        startFrame,
        endFrame,
        heightDb,
        Math.max(0, newSwellSeconds),
        Math.max(0, newReturnSeconds));
  }

  public Rise withId(String newId) {
    return new Rise(newId, startFrame, endFrame, heightDb, swellSeconds, returnSeconds, drafted);
  }

  public Rise withDrafted(boolean isDrafted) {
    return new Rise(id, startFrame, endFrame, heightDb, swellSeconds, returnSeconds, isDrafted);
  }

  public Span span() {
    return new Span(startFrame, endFrame);
  }

  /** Where the line bends, at a sample rate; turns that do not fit are shortened alike. */
  public Hush.Knots knots(int sampleRate) {
    double length = (double) endFrame - startFrame;
    double wanted = (swellSeconds + returnSeconds) * sampleRate;
    double scale = wanted > length ? length / wanted : 1;
    long topStart = startFrame + Math.round(swellSeconds * sampleRate * scale);
    long topEnd = Math.max(topStart, endFrame - Math.round(returnSeconds * sampleRate * scale));
    return new Hush.Knots(startFrame, topStart, topEnd, endFrame, heightDb);
  }
}
