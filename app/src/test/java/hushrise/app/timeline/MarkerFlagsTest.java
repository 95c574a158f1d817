package hushrise.app.timeline;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.project.Marker;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** Flags of markers: a pixel is a frame here. */
class MarkerFlagsTest {

  private static final TimeAxis AXIS = new TimeAxis(0, 1);
  private static final double WIDTH = 1000;

  private static final Marker HARBOUR = new Marker("a", "the harbour wall", 100);
  private static final Marker BELL = new Marker("b", "the bell", 150);

  private static MarkerFlags flags(Optional<String> selected, Marker... markers) {
    return new MarkerFlags(List.of(markers), AXIS, WIDTH, selected);
  }

  private static Optional<String> at(MarkerFlags flags, double x) {
    return flags.at(x).map(Marker::id);
  }

  @Test
  void aFlagThatIsPressedIsTheOneThatIsSeen() {
    MarkerFlags flags = flags(Optional.empty(), BELL, HARBOUR);
    assertThat(at(flags, 120)).hasValue("a");
    assertThat(at(flags, 149)).hasValue("a");
    assertThat(at(flags, 151)).hasValue("b");
    assertThat(at(flags, 150 + 12 + 8 * 5.8)).hasValue("b");
    assertThat(at(flags, 260)).isEmpty();
    assertThat(at(flags, 97)).as("just left of it").hasValue("a");
    assertThat(at(flags, 94)).isEmpty();
  }

  @Test
  void aNameIsCutOffWhereTheNextMarkerIs() {
    assertThat(flags(Optional.empty(), BELL, HARBOUR).drawn())
        .extracting(MarkerFlags.Flag::words)
        .containsExactly("the h\u2026", "the bell");
  }

  @Test
  void theFlagOfTheSelectedMarkerLiesWholeOverTheOthers() {
    MarkerFlags flags = flags(Optional.of("a"), BELL, HARBOUR);
    assertThat(flags.drawn().getLast().words()).isEqualTo("the harbour wall");
    assertThat(at(flags, 151)).hasValue("a");
    assertThat(at(flags, 100 + 12 + 16 * 5.8 + 1)).hasValue("b");
  }

  @Test
  void markersWithoutRoomAreStrokesThatCanBePressed() {
    Marker[] close =
        IntStream.range(0, 20)
            .mapToObj(i -> new Marker("m" + i, "cut " + i, 100 + 4 * i))
            .toArray(Marker[]::new);
    MarkerFlags flags = flags(Optional.empty(), close);
    assertThat(flags.drawn().subList(0, 19)).allMatch(MarkerFlags.Flag::isStroke);
    assertThat(flags.drawn().getLast().words()).isEqualTo("cut 19");
    assertThat(at(flags, 108)).hasValue("m2");
    assertThat(at(flags, 110)).hasValue("m2");
  }

  @Test
  void ofTwoMarkersInOnePlaceTheLaterOneIsSeen() {
    MarkerFlags flags = flags(Optional.empty(), HARBOUR, new Marker("c", "again", 100));
    assertThat(at(flags, 110)).hasValue("c");
    assertThat(flags.drawn().getLast().words()).isEqualTo("again");
  }

  @Test
  void whatIsOutOfSightIsNotDrawn() {
    MarkerFlags flags =
        new MarkerFlags(
            List.of(HARBOUR, BELL, new Marker("far", "far", 5000)),
            new TimeAxis(180, 1),
            WIDTH,
            Optional.empty());
    assertThat(flags.drawn()).extracting(f -> f.marker().id()).containsExactly("b");
  }
}
