package hushrise.cli;

import hushrise.core.Problem;
import hushrise.core.export.Delivered;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SoundLibrary;
import hushrise.media.Order;
import hushrise.media.OrderQueue;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Has orders carried out and waits for them.
 *
 * @param first what became of the first one, with the files of all; empty when it failed
 * @param failures what went wrong with the others
 */
record Deliveries(Optional<Delivered> first, List<Throwable> failures) {

  private static final long LOOK_MILLIS = 200;

  static Deliveries of(List<Order> orders, SoundLibrary library, ProgressLine line) {
    List<Delivered> done = new ArrayList<>();
    List<Throwable> failures = new ArrayList<>();
    try (OrderQueue queue = new OrderQueue(library)) {
      List<OrderQueue.Ticket> tickets = orders.stream().map(queue::add).toList();
      for (OrderQueue.Ticket ticket : tickets) {
        Progress progress = line.of("Writing " + ticket.order().target().getFileName());
        while (!ticket.await(LOOK_MILLIS)) {
          progress.at(ticket.fraction());
        }
        ticket.delivered().ifPresent(done::add);
        ticket.failure().ifPresent(failures::add);
      }
    }
    line.end();
    List<Path> outputs = done.stream().flatMap(d -> d.outputs().stream()).toList();
    return new Deliveries(done.stream().findFirst().map(d -> d.with(outputs)), failures);
  }

  /**
   * Says what went wrong with some orders while others were carried out.
   *
   * @return the exit code
   * @throws RuntimeException the failure itself, when nothing was delivered
   */
  int finish(PrintWriter err) {
    if (first.isEmpty()) {
      rethrow(failures.getFirst());
    }
    failures.forEach(
        f -> err.println(f instanceof Problem ? f.getMessage() : "It failed: " + f.getMessage()));
    return failures.isEmpty() ? 0 : 1;
  }

  private static void rethrow(Throwable failure) {
    switch (failure) {
      case RuntimeException e -> throw e;
      case Error e -> throw e;
      default -> throw new IllegalStateException(failure);
    }
  }
}
