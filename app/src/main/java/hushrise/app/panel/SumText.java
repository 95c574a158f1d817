package hushrise.app.panel;

import static hushrise.app.look.Texts.text;

import hushrise.core.level.LevelSum;
import hushrise.core.project.LevelText;
import hushrise.core.project.Project;
import hushrise.core.project.Track;

/** The sum of a level at a place, term by term, in words. */
final class SumText {

  private SumText() {}

  static String of(Project project, Track track, long frame) {
    LevelSum sum = LevelSum.at(project, track, frame);
    StringBuilder words = new StringBuilder();
    if (!sum.hasClip()) {
      return text("sum.noClip");
    }
    line(words, "sum.clip", sum.clipDb(), "sum.fade", sum.fadeDb());
    line(words, "sum.track", sum.trackDb(), "sum.line", sum.lineDb());
    line(words, "sum.rise", sum.riseDb(), "sum.hush", sum.hushDb());
    line(words, "sum.master", sum.masterDb(), "sum.total", sum.totalDb());
    return words.toString().stripTrailing();
  }

  private static void line(StringBuilder words, String a, double x, String b, double y) {
    words.append(
        "%-8s%9s    %-8s%9s%n"
            .formatted(text(a), LevelText.format(x), text(b), LevelText.format(y)));
  }
}
