package hushrise.app.record;

import java.util.prefs.Preferences;

/** How much later than it was spoken a sample arrives, as it was measured for pairs of devices. */
final class Latencies {

  private final Preferences kept = Preferences.userNodeForPackage(Latencies.class);

  private static String key(String output, String input) {
    String key = "latency." + output + ">" + input;
    return key.length() <= Preferences.MAX_KEY_LENGTH ? key : Integer.toHexString(key.hashCode());
  }

  /** In frames; 0 where it was never measured. */
  long frames(String output, String input) {
    return kept.getLong(key(output, input), 0);
  }

  void keep(String output, String input, long frames) {
    kept.putLong(key(output, input), frames);
  }
}
