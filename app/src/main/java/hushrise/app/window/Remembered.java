package hushrise.app.window;

import hushrise.app.play.Loudspeaker;
import hushrise.app.play.SurfaceRides;
import hushrise.app.record.Background;
import hushrise.app.record.Recording;
import hushrise.app.session.Habits;
import hushrise.app.timeline.Viewport;
import hushrise.core.edit.SafeLevel;
import hushrise.core.project.Project;
import hushrise.core.project.media.TrackKind;
import hushrise.core.ride.RideRule;
import hushrise.core.sound.Devices;
import hushrise.core.sound.Surface;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.function.DoubleConsumer;
import java.util.function.DoubleSupplier;
import java.util.function.Supplier;
import java.util.prefs.Preferences;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ObjectProperty;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * What a person has set in the window, for the next time. What was not touched stays as it is kept:
 * a microphone that was not there this time is the one again when it is.
 */
final class Remembered {

  private static final Logger LOG = LoggerFactory.getLogger(Remembered.class);

  /** One thing that can be set: how it reads as text, and what takes such a text. */
  private record Setting(String key, Supplier<String> value, Consumer<String> take) {}

  private final Preferences preferences;
  private final List<Setting> settings = new ArrayList<>();
  private final Map<String, String> begun = new HashMap<>();

  Remembered(Preferences preferences) {
    this.preferences = preferences;
  }

  Remembered habits(Habits habits) {
    flag("carries-keyframes", habits.carriesKeyframesProperty());
    flag("snaps", habits.snapsProperty());
    flag("follows-playhead", habits.followsPlayheadProperty());
    number(
        "hot", SafeSheet.LEAST_HOT_DB, 0, habits.hotDbProperty()::get, habits.hotDbProperty()::set);
    return this;
  }

  Remembered heads(Viewport view) {
    number("head-width", 1, 1000, view.headWidthProperty()::get, view::setHeadWidth);
    return this;
  }

  Remembered safeLevels(ObjectProperty<SafeLevel.Rule> rule) {
    for (TrackKind kind : SafeSheet.KINDS) {
      number(
          "safe-" + kind,
          SafeSheet.LEAST_LUFS,
          SafeSheet.MOST_LUFS,
          () -> rule.get().usualLufs().get(kind),
          lufs -> rule.set(rule.get().withLufs(kind, lufs)));
    }
    return this;
  }

  Remembered rides(ObjectProperty<RideRule> rule) {
    number(
        "ride-tolerance",
        0,
        10,
        () -> rule.get().toleranceDb(),
        db -> rule.set(new RideRule(db, rule.get().glides(), rule.get().glideSeconds())));
    number(
        "ride-glide",
        0,
        60,
        () -> rule.get().glideSeconds(),
        s -> rule.set(new RideRule(rule.get().toleranceDb(), rule.get().glides(), s)));
    text(
        "ride-glides",
        () -> String.valueOf(rule.get().glides()),
        kept ->
            rule.set(
                new RideRule(rule.get().toleranceDb(), isTrue(kept), rule.get().glideSeconds())));
    return this;
  }

  Remembered recorder(Recording recording, Devices devices) {
    text(
        "recorder-input",
        recording.inputNameProperty()::get,
        kept -> {
          if (devices.inputs().contains(kept)) {
            recording.inputNameProperty().set(kept);
          }
        });
    text(
        "recorder-background",
        () -> recording.backgroundProperty().get().name(),
        kept -> recording.backgroundProperty().set(Background.valueOf(kept)));
    number(
        "recorder-count-in",
        0,
        60,
        recording.countInSecondsProperty()::get,
        s -> recording.countInSecondsProperty().set((int) s));
    flag("recorder-drafts", recording.draftsProperty());
    return this;
  }

  /** The output that was chosen, not the one that stood in where it was lost. */
  Remembered output(Loudspeaker loudspeaker, Devices devices) {
    text(
        "output",
        () -> loudspeaker.chosenOutput().orElse(""),
        kept -> {
          if (devices.outputs().contains(kept)) {
            loudspeaker.chooseOutput(devices.output(kept, Project.DEFAULT_SAMPLE_RATE));
          }
        });
    return this;
  }

  /** The control surface, and which of its faders moves which kind of track. */
  Remembered surface(SurfaceRides rides, Devices devices) {
    text("surface-faders", rides::learned, rides::recall);
    text(
        "surface",
        () -> rides.surface().map(Surface::name).orElse(""),
        kept -> {
          if (devices.surfaces().contains(kept)) {
            rides.open(devices, kept);
          }
        });
    return this;
  }

  private void text(String key, Supplier<String> value, Consumer<String> take) {
    settings.add(new Setting("set." + key, value, take));
  }

  private void flag(String key, BooleanProperty flag) {
    text(key, () -> String.valueOf(flag.get()), kept -> flag.set(isTrue(kept)));
  }

  private static boolean isTrue(String kept) {
    return switch (kept) {
      case "true" -> true;
      case "false" -> false;
      default -> throw new IllegalArgumentException(kept + " is neither true nor false");
    };
  }

  private void number(
      String key, double least, double most, DoubleSupplier value, DoubleConsumer take) {
    text(
        key,
        () -> String.valueOf(value.getAsDouble()),
        kept -> {
          double number = Double.parseDouble(kept);
          if (!(number >= least && number <= most)) {
            throw new IllegalArgumentException(kept + " is not between " + least + " and " + most);
          }
          take.accept(number);
        });
  }

  /** Sets everything as it was the last time. */
  void restore() {
    for (Setting setting : settings) {
      String kept = preferences.get(setting.key(), "");
      try {
        if (!kept.isEmpty()) {
          setting.take().accept(kept);
        }
      } catch (RuntimeException e) { // whatever a device does, the window opens
        LOG.warn("{} stays as usual", setting.key(), e);
      }
      begun.put(setting.key(), setting.value().get());
    }
  }

  /** Notes what has been set since. */
  void keep() {
    for (Setting setting : settings) {
      String value = setting.value().get();
      if (!value.equals(begun.get(setting.key()))) {
        preferences.put(setting.key(), value);
      }
    }
  }
}
