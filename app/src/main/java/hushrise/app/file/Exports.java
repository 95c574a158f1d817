package hushrise.app.file;

import static hushrise.app.words.Texts.figure;
import static hushrise.app.words.Texts.text;

import hushrise.app.job.Job;
import hushrise.app.job.Jobs;
import hushrise.app.job.Messages;
import hushrise.core.Problem;
import hushrise.core.export.Delivered;
import hushrise.core.sound.SoundLibrary;
import hushrise.media.Order;
import hushrise.media.OrderQueue;
import hushrise.media.OrderQueue.Ticket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.application.Platform;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Orders that are carried out while work goes on: each is shown, can be ended, and says its end.
 */
public final class Exports implements AutoCloseable {

  private static final Logger LOG = LoggerFactory.getLogger(Exports.class);

  private final OrderQueue queue;
  private final Jobs jobs;
  private final Messages messages;
  private final List<Ticket> under = new ArrayList<>();
  private final List<Consumer<Boolean>> waiting = new ArrayList<>();
  private boolean isAllWell = true;

  /**
   * @param messages are told how each order ended
   */
  public Exports(SoundLibrary library, Jobs jobs, Messages messages) {
    this.queue = new OrderQueue(library);
    this.jobs = jobs;
    this.messages = messages;
  }

  /** Whether anything is being written or waits for it. */
  public boolean isRunning() {
    return !under.isEmpty();
  }

  /**
   * Runs once nothing is under way any more.
   *
   * @param then hears whether all that was under way meanwhile has been written
   */
  public void whenOver(Consumer<Boolean> then) {
    waiting.add(then);
    isAllWell = true;
    tellOver();
  }

  private void tellOver() {
    if (under.isEmpty()) {
      List<Consumer<Boolean>> told = List.copyOf(waiting);
      waiting.clear();
      told.forEach(then -> then.accept(isAllWell));
    }
  }

  /** Whether an order that is under way writes a file. */
  public boolean writes(Path file) {
    return under.stream().anyMatch(t -> t.order().target().equals(file));
  }

  /** Ends everything that is under way; older files stay as they were. */
  public void cancel() {
    List.copyOf(under).forEach(Ticket::cancel);
  }

  /** Puts an order into the queue. */
  public void add(Order order) {
    Job job = jobs.begin(text("export.under", String.valueOf(order.target().getFileName())));
    Ticket ticket = queue.add(order, job.progress());
    under.add(ticket);
    job.onCancel(ticket::cancel);
    ticket.whenOver(
        () -> {
          boolean isThere = Files.exists(order.target());
          Platform.runLater(
              () -> {
                under.remove(ticket);
                jobs.end(job);
                say(ticket, isThere);
                isAllWell &= ticket.state() == OrderQueue.State.DONE;
                tellOver();
              });
        });
  }

  /**
   * @param isThere whether there is a file of its name now
   */
  private void say(Ticket ticket, boolean isThere) {
    Path file = ticket.order().target();
    switch (ticket.state()) {
      case DONE -> messages.say(words(file, ticket.delivered().orElseThrow()));
      case CANCELLED ->
          messages.say(text(isThere ? "export.cancelledOld" : "export.cancelled", file));
      default -> {
        Throwable failure = ticket.failure().orElseThrow();
        if (!(failure instanceof Problem)) {
          LOG.error("An export failed", failure);
        }
        messages.complain(
            failure instanceof Problem
                ? failure.getMessage()
                : text("failed", String.valueOf(failure.getMessage())));
      }
    }
  }

  private static String words(Path file, Delivered made) {
    String done =
        text(
            made.pictureCopied() ? "export.doneCopied" : "export.done",
            file,
            number(made.measurement().integratedLufs()),
            number(made.measurement().truePeakDbtp()));
    StringBuilder words = new StringBuilder(done);
    if (made.limiterMostDb() > 0) {
      words.append(' ').append(text("export.limited", number(made.limiterMostDb())));
    }
    made.notes().forEach(note -> words.append(' ').append(note));
    return words.toString();
  }

  private static String number(double value) {
    return figure("%.1f", value);
  }

  @Override
  public void close() {
    cancel();
    queue.close();
  }
}
