package hushrise.core;

import java.util.concurrent.ThreadLocalRandom;

/** Names for things that edits refer to. */
public final class Ids {

  private Ids() {}

  /** A new id such as {@code clip-3f9k2m7qa1}, practically unique. */
  public static String fresh(String what) {
    long random = ThreadLocalRandom.current().nextLong() & Long.MAX_VALUE;
    return what + "-" + Long.toString(random, 36);
  }
}
