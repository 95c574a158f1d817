package hushrise.core.time;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;

/** Sums and differences of stretches of time. */
class SpanTest {

  private static List<Span> some(Random random) {
    List<Span> spans = new ArrayList<>();
    for (int i = random.nextInt(6); i > 0; i--) {
      spans.add(Span.ofLength(random.nextInt(40), 1 + random.nextInt(12)));
    }
    return Span.joined(spans, 0);
  }

  private static boolean contain(List<Span> spans, long frame) {
    return spans.stream().anyMatch(s -> s.contains(frame));
  }

  @Test
  void whatIsLeftLiesInTheOnesAndNotInTheOthers() {
    Random random = new Random(4);
    for (int i = 0; i < 2_000; i++) {
      List<Span> ones = some(random);
      List<Span> others = some(random);
      List<Span> left = Span.without(ones, others);
      assertThat(LongStream.range(0, 60).filter(f -> contain(left, f)))
          .as("%s without %s", ones, others)
          .containsExactlyElementsOf(
              LongStream.range(0, 60)
                  .filter(f -> contain(ones, f) && !contain(others, f))
                  .boxed()
                  .toList());
      assertThat(Span.joined(left, -1)).as("in order and apart").isEqualTo(left);
      assertThat(left).allMatch(s -> s.lengthFrames() > 0);
    }
  }
}
