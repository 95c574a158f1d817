package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.command.CommandId;
import hushrise.core.ear.Finding;
import hushrise.core.ear.SecondEar;
import hushrise.core.edit.ClipEdits;
import hushrise.core.edit.FadeEdits;
import hushrise.core.edit.HushEdits;
import hushrise.core.edit.LevelEdits;
import hushrise.core.edit.LoudMusic;
import hushrise.core.edit.ShelfEdits;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelLine;
import hushrise.core.project.level.Rise;
import hushrise.core.project.level.SegmentShape;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.time.Span;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.UnaryOperator;
import javafx.scene.control.Button;
import javafx.scene.input.KeyCode;

/** The demo as the Second Ear hears it, and ways to make it worse. */
abstract class HeardTestCase extends WindowTestCase {

  List<Finding> open() {
    return window
        .hearing()
        .now()
        .map(n -> SecondEar.open(n.findings(), project()))
        .orElse(List.of());
  }

  List<String> rules() {
    return open().stream().map(Finding::rule).toList();
  }

  void untilHeard() {
    untilQuiet();
    until(
        "the present project is heard",
        () -> window.hearing().now().filter(n -> n.project().equals(project())).isPresent());
  }

  void commit(UnaryOperator<Project> edit) {
    robot.interact(() -> window.session().commit("worse", edit));
    untilHeard();
  }

  /** The demo with its one remark mended: nothing is left to find. */
  void clean() {
    untilOpen();
    untilHeard();
    assertThat(rules()).containsExactly("voices.uneven");
    robot.interact(() -> this.<Button>find("remedy-voices-uneven").fire());
    untilHeard();
    robot.interact(() -> window.run(CommandId.HUSH_ALL));
    untilQuiet();
    press(KeyCode.ENTER);
    untilHeard();
    assertThat(rules()).isEmpty();
  }

  String song() {
    return music().clips().getFirst().id();
  }

  static long at(double seconds) {
    return Math.round(seconds * RATE);
  }

  Project withLine(Project project, double... secondsAndDb) {
    List<Keyframe> keyframes = new java.util.ArrayList<>();
    for (int i = 0; i < secondsAndDb.length; i += 2) {
      keyframes.add(new Keyframe(at(secondsAndDb[i]), secondsAndDb[i + 1], SegmentShape.SMOOTH));
    }
    return project.withTrack(music().id(), t -> t.withLine(LevelLine.of(keyframes)));
  }

  /** For each rule an edit that makes the clean demo worse by it. */
  Map<String, UnaryOperator<Project>> worsened() {
    Hush first = music().hushes().getFirst();
    String music = music().id();
    List<Clip> takes = project().firstTrack(TrackKind.VOICE).orElseThrow().clipsInTime();
    Map<String, UnaryOperator<Project>> all = new LinkedHashMap<>();
    all.put("passage.buried", p -> LevelEdits.setHushDepth(p, first.id(), -2));
    all.put("hush.late", p -> HushEdits.setTurn(p, first.id(), t -> t.withLead(-0.6)));
    all.put("hush.early", p -> HushEdits.setTurn(p, first.id(), t -> t.withTail(-0.6)));
    all.put(
        "music.short",
        p -> {
          Project free = hushrise.core.fit.Fits.remove(p, song());
          return ClipEdits.trimEnd(free, song(), at(80));
        });
    all.put(
        "music.long",
        p -> ClipEdits.move(hushrise.core.fit.Fits.remove(p, song()), Set.of(song()), at(6), true));
    all.put("music.noFade", p -> FadeEdits.setOut(p, song(), 0));
    all.put("music.abrupt", p -> FadeEdits.setIn(p, song(), 0));
    all.put("hush.alone", p -> HushEdits.add(p, music, Hush.over(new Span(at(17), at(19)), -6)));
    all.put(
        "hush.pumping",
        p -> HushEdits.add(p, music, Hush.over(second(first.endFrame() + at(1.5)), -12)));
    all.put(
        "voices.atOnce",
        p ->
            ClipEdits.move(
                p,
                Set.of(takes.get(1).id()),
                takes.get(0).endFrame() - takes.get(1).startFrame() - at(3),
                true));
    all.put("line.idleDip", p -> withLine(p, 17, 0, 17.5, -9, 19, -9, 20, 0));
    all.put("line.stray", p -> withLine(p, 5, 0, 5.5, -5, 10, -3, 10.5, 0));
    all.put("voices.uneven", p -> ClipEdits.setGain(p, Set.of(takes.get(1).id()), 6));
    all.put(
        "songs.uneven",
        p -> {
          Project free = hushrise.core.fit.Fits.remove(p, song());
          Project split = ClipEdits.split(free, Set.of(song()), at(40));
          String second = split.track(music).orElseThrow().clipsInTime().getLast().id();
          return ClipEdits.setGain(split, Set.of(second), -6);
        });
    all.put("music.overVoice", p -> LoudMusic.lower(p, -9));
    all.put("track.muted", p -> p.withTrack(music, t -> t.withMuted(true)));
    all.put("track.soloed", p -> p.withTrack(takesTrack(), t -> t.withSoloed(true)));
    all.put(
        "media.noCredit", p -> ShelfEdits.setCredit(p, music().clips().getFirst().mediaId(), ""));
    all.put(
        "rise.underSpeech",
        p ->
            HushEdits.addRise(
                p.withTrack(music, t -> t.withHushes(List.of()).withLevelDb(-30)),
                music,
                new Rise("r", at(3), at(12), 3, 1, 1)));
    return all;
  }

  static Span second(long from) {
    return new Span(from, from + RATE);
  }

  String takesTrack() {
    return project().firstTrack(TrackKind.VOICE).orElseThrow().id();
  }
}
