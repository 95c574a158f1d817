package hushrise.core.exchange;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;

/** What of a timeline could not be taken over, in sentences. */
final class OtioLosses {

  /** Something that a timeline can hold and a project cannot. */
  enum Kind {
    NO_FILE(
        "1 clip plays no file of this machine (a title, a colour, pictures one by one) and is left"
            + " out.",
        "%d clips play no file of this machine (titles, colours, pictures one by one) and are"
            + " left out."),
    OFF(
        "1 clip that is switched off there is left out.",
        "%d clips that are switched off there are left out."),
    UNFIT(
        "1 clip asks its file for a picture or a sound that it does not have, and is left out.",
        "%d clips ask their files for a picture or a sound that they do not have, and are left"
            + " out."),
    OUTSIDE(
        "1 clip lies outside its file and is left out: link its media again where it was made.",
        "%d clips lie outside their files and are left out: link their media again where they"
            + " were made."),
    SHORTER(
        "1 clip is longer than its file and ends with it.",
        "%d clips are longer than their files and end with them."),
    SPEED(
        "1 clip is faster, slower or frozen there; here it plays as it was recorded.",
        "%d clips are faster, slower or frozen there; here they play as they were recorded."),
    EFFECT("1 effect is not taken over.", "%d effects are not taken over."),
    TURN(
        "1 transition between pictures becomes a cut.",
        "%d transitions between pictures become cuts."),
    TRACK(
        "1 track that is neither picture nor sound is left out.",
        "%d tracks that are neither picture nor sound are left out."),
    TIMELINE(
        "1 more timeline in the file is left out.", "%d more timelines in the file are left out.");

    private final String one;
    private final String many;

    Kind(String one, String many) {
      this.one = one;
      this.many = many;
    }
  }

  private final Map<Kind, Integer> counts = new EnumMap<>(Kind.class);

  void add(Kind kind) {
    add(kind, 1);
  }

  void add(Kind kind, int count) {
    if (count > 0) {
      counts.merge(kind, count, Integer::sum);
    }
  }

  List<String> sentences() {
    List<String> sentences = new ArrayList<>();
    counts.forEach(
        (kind, count) -> sentences.add(count == 1 ? kind.one : kind.many.formatted(count)));
    return sentences;
  }
}
