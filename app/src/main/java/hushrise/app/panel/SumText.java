package hushrise.app.panel;

import static hushrise.app.words.Texts.text;

import hushrise.core.level.LevelSum;
import hushrise.core.project.Project;
import hushrise.core.project.level.LevelText;
import hushrise.core.project.timeline.Track;

/** The sum of a level at a place, term by term, in words. */
final class SumText {

  private SumText() {}

  /**
   * @param pairs how many terms stand in a line, 1 or 2
   */
  static String of(Project project, Track track, long frame, int pairs) {
    LevelSum sum = LevelSum.at(project, track, frame);
    StringBuilder words = new StringBuilder();
    if (!sum.hasClip()) {
      return text("sum.noClip");
    }
    String gap = pairs == 1 ? "%n" : "    ";
    line(words, gap, "sum.clip", sum.clipDb(), "sum.fade", sum.fadeDb());
    line(words, gap, "sum.track", sum.trackDb(), "sum.line", sum.lineDb());
    line(words, gap, "sum.rise", sum.riseDb(), "sum.hush", sum.hushDb());
    line(words, gap, "sum.master", sum.masterDb(), "sum.total", sum.totalDb());
    return words.toString().stripTrailing();
  }

  private static void line(
      StringBuilder words, String gap, String a, double x, String b, double y) {
    words.append(
        ("%-8s%9s" + gap + "%-8s%9s%n")
            .formatted(text(a), LevelText.format(x), text(b), LevelText.format(y)));
  }
}
