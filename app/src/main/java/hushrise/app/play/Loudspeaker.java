package hushrise.app.play;

import static hushrise.app.words.Texts.text;

import hushrise.app.job.Jobs;
import hushrise.app.job.Messages;
import hushrise.core.play.Ears;
import hushrise.core.play.Player;
import hushrise.core.project.Project;
import hushrise.core.sound.AudioOutput;
import hushrise.core.sound.TimeStretch;
import java.util.Optional;
import java.util.function.Supplier;
import javafx.application.Platform;
import javafx.beans.property.ReadOnlyDoubleProperty;
import javafx.beans.property.ReadOnlyDoubleWrapper;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;

/**
 * Where sound goes and how it is listened to: the device, the listening level and what it is heard
 * through, and the speed. None of it is part of the film.
 */
public final class Loudspeaker implements AutoCloseable {

  private static final double SLOWEST = 0.5;
  private static final double FASTEST = 2;

  private final Jobs jobs;
  private final Messages messages;
  private final TimeStretch.Maker stretches;
  private final Player player;
  private final ReadOnlyDoubleWrapper speed = new ReadOnlyDoubleWrapper(1);
  private final ReadOnlyObjectWrapper<Ears> ears = new ReadOnlyObjectWrapper<>(Ears.PLAIN);
  private final ReadOnlyObjectWrapper<String> outputName;
  private Optional<String> chosen = Optional.empty();

  /**
   * @param output closed together with this
   * @param standIn makes the output that goes on where one is lost
   */
  public Loudspeaker(
      Jobs jobs,
      Messages messages,
      AudioOutput output,
      Supplier<AudioOutput> standIn,
      TimeStretch.Maker stretches) {
    this.jobs = jobs;
    this.messages = messages;
    this.stretches = stretches;
    outputName = new ReadOnlyObjectWrapper<>(output.name());
    player = new Player(Project.DEFAULT_SAMPLE_RATE, output, standIn, new Told());
  }

  private final class Told implements Player.Listener {
    @Override
    public void failed(Throwable why) {
      Platform.runLater(() -> messages.complain(text("play.failed", why.getMessage())));
    }

    @Override
    public void outputLost(String lost, String now) {
      Platform.runLater(
          () -> {
            outputName.set(now);
            messages.complain(text("output.lost", lost, now));
          });
    }
  }

  /** What plays through it. */
  public Player player() {
    return player;
  }

  /** How fast the film goes by, 0.5 to 2. */
  public ReadOnlyDoubleProperty speedProperty() {
    return speed.getReadOnlyProperty();
  }

  public ReadOnlyObjectProperty<Ears> earsProperty() {
    return ears.getReadOnlyProperty();
  }

  /** Where sound goes, in words. */
  public ReadOnlyObjectProperty<String> outputNameProperty() {
    return outputName.getReadOnlyProperty();
  }

  /** The output that a person chose, whatever stands in for it now; empty when nobody did. */
  public Optional<String> chosenOutput() {
    return chosen;
  }

  public void setEars(Ears how) {
    ears.set(how);
    player.setEars(how);
  }

  /** Goes on through another output, as a person wants it. */
  public void chooseOutput(AudioOutput next) {
    chosen = Optional.of(next.name());
    outputName.set(next.name());
    player.setOutput(next);
  }

  /** Lets the film go by slower or faster, at the same pitch. */
  public void setSpeed(double wanted) {
    double held = Math.clamp(wanted, SLOWEST, FASTEST);
    speed.set(held);
    jobs.run(
        () ->
            held == 1
                ? Optional.<TimeStretch>empty()
                : Optional.of(stretches.of(Project.DEFAULT_SAMPLE_RATE, held)),
        made -> {
          if (speed.get() == held) {
            player.setStretch(made);
          } else {
            made.ifPresent(TimeStretch::close);
          }
        },
        () -> speed.set(1));
  }

  @Override
  public void close() {
    player.close();
  }
}
