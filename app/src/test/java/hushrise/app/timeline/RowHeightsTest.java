package hushrise.app.timeline;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import hushrise.core.edit.TrackEdits;
import hushrise.core.project.Project;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Track;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

class RowHeightsTest {

  private static List<Track> tracks(TrackKind... kinds) {
    Project project = Project.empty("Rows");
    for (TrackKind kind : kinds) {
      project = TrackEdits.add(project, kind, kind.name());
    }
    return project.tracks();
  }

  private static double sum(List<Double> heights) {
    return heights.stream().mapToDouble(Double::doubleValue).sum();
  }

  @Test
  void rowsThatCannotBeLowerLeaveTheOthersLess() {
    List<Track> tracks =
        tracks(
            TrackKind.PICTURE,
            TrackKind.VOICE,
            TrackKind.MUSIC,
            TrackKind.EFFECTS,
            TrackKind.CAMERA);
    assertThat(RowHeights.of(tracks, 360, 1)).containsExactly(41.0, 74.0, 151.0, 46.0, 46.0);
  }

  @Test
  void aHeightThatWasGivenIsKept() {
    List<Track> tracks =
        tracks(TrackKind.VOICE, TrackKind.MUSIC).stream()
            .map(t -> t.isVoice() ? t.withRowHeight(30) : t)
            .toList();
    assertThat(RowHeights.of(tracks, 226, 1)).containsExactly(30.0, 196.0);
  }

  /** Whatever tracks there are, and however fine the screen. */
  @Test
  void rowsTakeJustTheRoomThereIsAndEndOnPixels() {
    Random random = new Random(11);
    int fitted = 0;
    for (int i = 0; i < 2_000; i++) {
      TrackKind[] kinds =
          random
              .ints(1 + random.nextInt(7), 0, TrackKind.values().length)
              .mapToObj(k -> TrackKind.values()[k])
              .toArray(TrackKind[]::new);
      List<Track> tracks = tracks(kinds);
      double density = List.of(1.0, 1.25, 1.5, 1.75, 2.0, 3.0).get(random.nextInt(6));
      double room = 100 + random.nextInt(900);
      List<Double> heights = RowHeights.of(tracks, room, density);
      heights.forEach(h -> assertThat(h * density).isCloseTo(Math.rint(h * density), within(1e-9)));
      double lowest = sum(RowHeights.of(tracks, 0, density));
      double highest = sum(RowHeights.of(tracks, 1e6, density));
      if (room >= lowest + tracks.size() && room <= highest) {
        fitted++;
        assertThat(sum(heights)).isBetween(room - tracks.size() - 1e-6, room + 1e-6);
      }
    }
    assertThat(fitted).isGreaterThan(500);
  }
}
