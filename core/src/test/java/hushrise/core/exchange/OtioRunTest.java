package hushrise.core.exchange;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.mix.Projects;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Seam;
import hushrise.core.project.timeline.Track;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Clips that lie over one another, as tracks of which each has one at a time. */
class OtioRunTest {

  private static final Media MEDIA = Projects.media("m", MediaKind.EFFECT, 1_000);

  private static Clip clip(int number, long start, long end, List<Seam> seams) {
    return Clip.whole(MEDIA, start).withId("" + number).withExtent(start, end - start, 100, seams);
  }

  private static Track track(TrackKind kind, String spans) {
    List<Clip> clips = new ArrayList<>();
    for (String span : spans.split(" ")) {
      String[] ends = span.split("-");
      clips.add(clip(clips.size(), Long.parseLong(ends[0]), Long.parseLong(ends[1]), List.of()));
    }
    return Track.of(kind, "t", clips);
  }

  private static String words(List<List<OtioRun>> layers) {
    return layers.stream()
        .map(
            runs ->
                runs.stream()
                    .map(
                        r ->
                            "%s:%d-%d%s"
                                .formatted(
                                    r.clip().id(),
                                    r.start(),
                                    r.end(),
                                    r.overlapAfter() > 0 ? "x" + r.overlapAfter() : ""))
                    .collect(Collectors.joining(" ")))
        .collect(Collectors.joining(" / "));
  }

  @ParameterizedTest
  @CsvSource({
    "0-100 98-200 200-300, 0:0-99x2 1:99-200 2:200-300",
    "0-100 20-40, 0:0-100 / 1:20-40", // what goes on after another is over
    "0-100 0-50, 0:0-100 / 1:0-50",
    "0-50 0-100, 0:0-50 / 1:0-100",
    "0-100 50-150 90-200, 0:0-75x50 1:75-150 / 2:90-200", // no crossfade within a crossfade
    "0-100 50-150 100-200, 0:0-75x50 1:75-125x50 2:125-200",
    "0-100 20-40 30-50 95-120, 0:0-97x5 3:97-120 / 1:20-35x10 2:35-50"
  })
  void soundThatLiesOverOtherSoundIsLostNowhere(String spans, String runs) {
    assertThat(words(OtioRun.layers(track(TrackKind.EFFECTS, spans)))).isEqualTo(runs);
  }

  @ParameterizedTest
  @CsvSource({
    "0-100 20-40, 0:0-20 1:20-40 0:40-100",
    "0-100 98-200, 0:0-98 1:98-200",
    "0-100 20-40 30-50, 0:0-20 1:20-30 2:30-50 0:50-100"
  })
  void ofPicturesTheOneThatBeginsLastIsSeen(String spans, String runs) {
    assertThat(words(OtioRun.layers(track(TrackKind.PICTURE, spans)))).isEqualTo(runs);
  }

  @Test
  void whereOneClipSoundsItsRunPlaysTheSameOfItsMedia() {
    Random random = new Random(7);
    for (int seed = 0; seed < 500; seed++) {
      List<Clip> clips = new ArrayList<>();
      for (int i = 1 + random.nextInt(6); i > 0; i--) {
        int start = random.nextInt(120);
        int length = 2 + random.nextInt(60);
        clips.add(clip(i, start, start + length, seams(random, length)));
      }
      List<List<OtioRun>> layers = OtioRun.layers(Track.of(TrackKind.MUSIC, "t", clips));
      layers.forEach(OtioRunTest::assertOneAfterAnother);
      for (long frame = 0; frame < 200; frame++) {
        long at = frame;
        List<Clip> sounding = clips.stream().filter(c -> c.span().contains(at)).toList();
        List<OtioRun> running =
            layers.stream()
                .flatMap(List::stream)
                .filter(r -> r.start() <= at && at < r.end())
                .toList();
        assertThat(sounding).containsAll(running.stream().map(OtioRun::clip).toList());
        for (OtioRun r : running) {
          assertThat(r.mediaStart() + frame - r.start())
              .isEqualTo(r.clip().mediaFrameAt(frame - r.clip().startFrame()));
        }
        if (sounding.size() == 1) {
          assertThat(running).as("seed %d at %d of %s", seed, frame, words(layers)).hasSize(1);
        }
      }
    }
  }

  private static List<Seam> seams(Random random, int length) {
    List<Seam> seams = new ArrayList<>();
    for (int at = 1 + random.nextInt(20); at < length; at += 1 + random.nextInt(20)) {
      seams.add(new Seam(at, 100 + at, 200 + random.nextInt(500), random.nextInt(12), 0));
    }
    return seams;
  }

  private static void assertOneAfterAnother(List<OtioRun> runs) {
    long end = 0;
    long crossedUntil = 0;
    for (int i = 0; i < runs.size(); i++) {
      OtioRun run = runs.get(i);
      assertThat(run.start()).as("%s", runs).isGreaterThanOrEqualTo(end);
      assertThat(run.length()).isPositive();
      assertThat(run.end() - run.overlapToItsEnd())
          .as("no two crossfades at once")
          .isGreaterThanOrEqualTo(crossedUntil);
      assertThat(run.overlapFromItsEnd())
          .isLessThanOrEqualTo(i + 1 < runs.size() ? runs.get(i + 1).length() : 0);
      end = run.end();
      crossedUntil = run.end() + run.overlapFromItsEnd();
    }
  }
}
