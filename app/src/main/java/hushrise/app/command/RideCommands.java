package hushrise.app.command;

import static hushrise.app.words.Texts.text;

import hushrise.app.job.Messages;
import hushrise.app.play.Riders;
import hushrise.app.session.Selection;
import hushrise.app.session.Session;
import hushrise.core.project.Project;
import hushrise.core.project.timeline.Track;
import hushrise.core.ride.RideHushes;
import hushrise.core.ride.RideRule;

/** Riding: which tracks are armed, and what becomes of a ride. */
public final class RideCommands {

  private final Session session;
  private final Riders riders;
  private final LevelCommands levels;
  private final Messages messages;

  public RideCommands(Session session, Riders riders, LevelCommands levels, Messages messages) {
    this.session = session;
    this.riders = riders;
    this.levels = levels;
    this.messages = messages;
  }

  /** Sets what its commands do. */
  public void addTo(Commands.Builder table) {
    table
        .set(CommandId.RIDE_ARM, this::arm)
        .set(CommandId.RIDE_AFTER, this::changeAfter)
        .set(CommandId.RIDE_HUSHES, () -> levels.onTrack(this::makeHushes));
  }

  private void arm() {
    levels.onTrack(
        t -> {
          riders.toggle(t.id());
          boolean armed = riders.armed().contains(t.id());
          if (armed) {
            session.select(new Selection.OfTrack(t.id()));
          }
          messages.say(text(armed ? "ride.armed" : "ride.disarmed", t.name()));
        });
  }

  private void changeAfter() {
    RideRule rule = riders.ruleProperty().get();
    riders
        .ruleProperty()
        .set(new RideRule(rule.toleranceDb(), !rule.glides(), rule.glideSeconds()));
    messages.say(text(rule.glides() ? "ride.stays" : "ride.glides"));
  }

  private void makeHushes(Track track) {
    Project made = RideHushes.of(session.present(), track.id());
    int more = made.track(track.id()).orElseThrow().hushes().size() - track.hushes().size();
    if (more == 0) {
      messages.say(text("ride.noDips", track.name()));
    } else {
      session.commit(text("edit.rideHushes"), p -> RideHushes.of(p, track.id()));
      messages.say(text("ride.hushes", more));
    }
  }
}
