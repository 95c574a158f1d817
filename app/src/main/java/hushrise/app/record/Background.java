package hushrise.app.record;

import static hushrise.app.words.Texts.text;

import hushrise.core.Decibels;
import hushrise.core.project.Project;
import hushrise.core.project.timeline.Clip;

/** What is heard of the film while a take is spoken over it. Nothing of it is an edit. */
public enum Background {
  /** Everything but the voice is silent. */
  OFF(Decibels.OFF_DB),
  /** Everything but the voice is 12 dB lower. */
  LOWERED(-12),
  /** Everything is as loud as it is. */
  AS_IT_IS(0);

  private final double byDb;

  Background(double byDb) {
    this.byDb = byDb;
  }

  public String words() {
    return text("record.background." + name());
  }

  /**
   * A project as it is heard meanwhile.
   *
   * @param at where the take begins: what was spoken there before is not heard
   */
  Project under(Project project, long at) {
    return project.withEachTrack(
        t -> {
          if (t.isVoice()) {
            return t.withClips(t.clips().stream().filter(c -> !covers(c, at)).toList());
          }
          return this == OFF ? t.withMuted(true) : t.withLevelDb(t.levelDb() + byDb);
        });
  }

  private static boolean covers(Clip clip, long frame) {
    return clip.startFrame() <= frame && frame < clip.endFrame();
  }
}
