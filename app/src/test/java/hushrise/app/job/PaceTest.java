package hushrise.app.job;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;

class PaceTest {

  private final Pace pace = new Pace();

  private void at(double part, double seconds) {
    pace.at(part, Math.round(1e9 * seconds));
  }

  @Test
  void nothingIsGuessedBeforeSomethingHasBeenSeen() {
    assertThat(pace.secondsLeft()).isEmpty();
    at(0.5, 20);
    assertThat(pace.secondsLeft()).as("one time").isEmpty();
    at(0.51, 21);
    assertThat(pace.secondsLeft()).as("a hundredth of it").isEmpty();
  }

  @Test
  void whatItWaitedFirstDoesNotCount() {
    at(0, 100);
    at(0.2, 102);
    assertThat(pace.secondsLeft()).hasValueCloseTo(8.0, within(1e-6));
    at(0.5, 103);
    assertThat(pace.secondsLeft()).hasValueCloseTo(3.0, within(1e-6));
  }

  @Test
  void whatWasKnownAlreadyIsNotTakenForFast() {
    at(0.6, 10);
    at(0.8, 14);
    assertThat(pace.secondsLeft()).hasValueCloseTo(4.0, within(1e-6));
  }
}
