package hushrise.app.play;

import static hushrise.app.words.Texts.text;

import hushrise.app.session.Session;
import hushrise.core.project.Project;
import hushrise.core.project.level.Keyframe;
import hushrise.core.ride.Hand;
import hushrise.core.ride.Hands;
import hushrise.core.ride.Pass;
import hushrise.core.ride.Ride;
import hushrise.core.ride.RideRule;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import javafx.animation.PauseTransition;
import javafx.beans.property.IntegerProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleIntegerProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.collections.FXCollections;
import javafx.collections.ObservableSet;
import javafx.collections.SetChangeListener;
import javafx.util.Duration;

/**
 * Which tracks are armed, the hands that are on their faders while the film plays, and what those
 * have done. When playing stops, all that was done in the pass becomes keyframes, as one step.
 */
public final class Riders implements Hands {

  /** How long a step by key or wheel keeps the fader held. */
  private static final Duration KEY_HOLDS = Duration.millis(700);

  private final Session session;
  private final ObservableSet<String> armed = FXCollections.observableSet();
  private final ObjectProperty<RideRule> rule = new SimpleObjectProperty<>(RideRule.DEFAULT);
  private final IntegerProperty countIn = new SimpleIntegerProperty();
  private final Map<String, Hand> hands = new ConcurrentHashMap<>();
  private final Map<String, Pass> passes = new HashMap<>();
  private final Map<String, PauseTransition> lettingGo = new HashMap<>();

  /**
   * @param changed is told when tracks are armed or no longer armed
   */
  Riders(Session session, Runnable changed) {
    this.session = session;
    armed.addListener(
        (SetChangeListener<String>)
            c -> {
              if (c.wasRemoved()) {
                end(Set.of(c.getElementRemoved()));
              }
              changed.run();
            });
  }

  /** The ids of the tracks that will be ridden when the film plays. */
  public ObservableSet<String> armed() {
    return armed;
  }

  /** How a ride is written. */
  public ObjectProperty<RideRule> ruleProperty() {
    return rule;
  }

  /** How long is counted before a ride begins; 0: not at all. */
  public IntegerProperty countInProperty() {
    return countIn;
  }

  int countInSeconds() {
    return countIn.get();
  }

  public void toggle(String trackId) {
    if (!armed.remove(trackId)) {
      armed.add(trackId);
    }
  }

  @Override
  public Optional<Hand> of(String trackId) {
    return Optional.ofNullable(hands.get(trackId));
  }

  /** Whether a hand is on a track's fader, or would be heard there. */
  public boolean isRiding(String trackId) {
    return hands.containsKey(trackId);
  }

  boolean areRiding() {
    return !hands.isEmpty();
  }

  Set<String> riding() {
    return Set.copyOf(hands.keySet());
  }

  /** What the hand on a track has done so far; empty while it has touched nothing. */
  public Optional<Pass> passOf(String trackId) {
    return Optional.ofNullable(passes.get(trackId)).filter(p -> !p.isEmpty());
  }

  /** Moves the fader of a track. */
  public void hold(String trackId, double levelDb) {
    of(trackId).ifPresent(h -> h.hold(levelDb));
  }

  public void letGo(String trackId) {
    of(trackId).ifPresent(Hand::letGo);
  }

  /** Moves the fader of a track by a step, as with a key or the wheel, and soon lets it go. */
  public void nudge(String trackId, double byDb) {
    of(trackId)
        .ifPresent(
            hand -> {
              double from = hand.isHolding() ? hand.wantedDb() : hand.heardDb();
              hand.hold(Math.min(Keyframe.MAX_DB, from + byDb));
              PauseTransition letting =
                  lettingGo.computeIfAbsent(trackId, id -> new PauseTransition(KEY_HOLDS));
              letting.setOnFinished(e -> letGo(trackId));
              letting.playFromStart();
            });
  }

  /** Puts hands near the faders of what is armed. */
  void begin(int sampleRate) {
    for (String trackId : armed) {
      if (session.present().track(trackId).filter(t -> t.kind().sounds()).isPresent()) {
        hands.computeIfAbsent(trackId, id -> rule.get().hand(sampleRate));
      }
    }
  }

  /** Keeps what was heard of the hands up to now. */
  void follow() {
    hands.forEach((id, hand) -> hand.takeInto(passes.computeIfAbsent(id, i -> new Pass())));
  }

  /** Writes what was done. */
  void end() {
    end(Set.copyOf(hands.keySet()));
  }

  private void end(Set<String> trackIds) {
    follow();
    Map<String, Pass> done = new HashMap<>();
    for (String id : trackIds) {
      hands.remove(id);
      Optional.ofNullable(passes.remove(id))
          .filter(p -> !p.strokes().isEmpty())
          .ifPresent(p -> done.put(id, p));
    }
    if (!done.isEmpty()) {
      RideRule written = rule.get();
      session.commit(text("edit.ride"), p -> written(p, done, written));
    }
  }

  private static Project written(Project project, Map<String, Pass> passes, RideRule rule) {
    Project result = project;
    for (Map.Entry<String, Pass> entry : passes.entrySet()) {
      result =
          result.withTrack(
              entry.getKey(),
              t ->
                  t.withLine(Ride.written(t.line(), entry.getValue(), rule, project.sampleRate())));
    }
    return result;
  }
}
