package hushrise.media;

import java.util.List;

/** How sound is coded. */
public enum SoundCoding {
  PCM_16("pcm16"),
  PCM_24("pcm24"),
  PCM_32_FLOAT("float"),
  FLAC("flac"),
  ALAC("alac"),
  AAC("aac", 256, 96, 128, 160, 192, 256, 320),
  MP3("mp3", 256, 96, 128, 160, 192, 256, 320),
  OPUS("opus", 192, 64, 96, 128, 160, 192, 256);

  private final String word;
  private final int usualKbps;
  private final List<Integer> choices;

  SoundCoding(String word) {
    this.word = word;
    this.usualKbps = 0;
    this.choices = List.of();
  }

  SoundCoding(String word, int usualKbps, Integer... choices) {
    this.word = word;
    this.usualKbps = usualKbps;
    this.choices = List.of(choices);
  }

  /** What it is called on the command line. */
  public String word() {
    return word;
  }

  /** Whether what is decoded differs from what was encoded. */
  public boolean isLossy() {
    return usualKbps > 0;
  }

  /** Kilobits per second when none are chosen; 0 where there is nothing to choose. */
  public int usualKbps() {
    return usualKbps;
  }

  /** Kilobits per second to choose from; empty where there is nothing to choose. */
  public List<Integer> choices() {
    return choices;
  }

  /** Whether a number of kilobits per second can be asked for. */
  public boolean takes(int kbps) {
    return isLossy() && kbps >= choices.getFirst() && kbps <= choices.getLast();
  }
}
