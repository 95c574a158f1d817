package hushrise.core.project.level;

import java.util.List;

/**
 * One version of how a track's level is shaped.
 *
 * @param line its level line
 * @param hushes its dips
 * @param rises its swells
 */
public record Shaping(LevelLine line, List<Hush> hushes, List<Rise> rises) {

  public static final Shaping NONE = new Shaping(LevelLine.EMPTY, List.of(), List.of());

  public Shaping {
    line = line == null ? LevelLine.EMPTY : line;
    hushes = hushes == null ? List.of() : List.copyOf(hushes);
    rises = rises == null ? List.of() : List.copyOf(rises);
  }
}
