package hushrise.app.command;

import static hushrise.app.words.Texts.text;

import hushrise.app.job.Jobs;
import hushrise.app.job.Messages;
import hushrise.app.listen.Hearing;
import hushrise.app.listen.PictureCuts;
import hushrise.app.session.Selection;
import hushrise.app.session.Session;
import hushrise.core.Ids;
import hushrise.core.edit.HushEdits;
import hushrise.core.fit.Starts;
import hushrise.core.hush.HushDrafter;
import hushrise.core.hush.RiseGaps;
import hushrise.core.hush.SingleHush;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.HushNumber;
import hushrise.core.project.level.HushRule;
import hushrise.core.project.level.Rise;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Track;
import hushrise.core.speech.Passages;
import hushrise.core.time.Span;
import java.util.Comparator;
import java.util.Optional;
import java.util.OptionalLong;

/** What keys do with hushes, rises and versions of a track's shaping. */
public final class ShapeCommands {

  /** The depth of a hush under no speech, which nothing can be measured for. */
  private static final double USUAL_DEPTH_DB = -10;

  /** A downbeat or cut this near to a rise's height may carry it. */
  private static final double LANDING_SECONDS = 3;

  /** A passage this near to the playhead counts as under it. */
  private static final double NEAR_SECONDS = 1;

  private final Session session;
  private final Hearing hearing;
  private final PictureCuts cuts;
  private final Jobs jobs;
  private final Messages messages;

  public ShapeCommands(
      Session session, Hearing hearing, PictureCuts cuts, Jobs jobs, Messages messages) {
    this.session = session;
    this.hearing = hearing;
    this.cuts = cuts;
    this.jobs = jobs;
    this.messages = messages;
  }

  /** Sets what its commands do. */
  public void addTo(Commands.Builder table) {
    table
        .set(CommandId.HUSH_HERE, this::hushHere)
        .set(CommandId.RISE_HERE, this::riseHere)
        .set(CommandId.RISE_TO_BEAT, this::landOnBeat)
        .set(CommandId.RISE_TO_CUT, this::landOnCut)
        .set(CommandId.MELT, this::melt)
        .set(CommandId.HUSH_TO_NEXT, () -> copyNumbers(HushEdits.Reach.NEXT))
        .set(CommandId.HUSH_TO_TRACK, () -> copyNumbers(HushEdits.Reach.TRACK))
        .set(CommandId.HUSH_TO_PROJECT, () -> copyNumbers(HushEdits.Reach.PROJECT))
        .set(CommandId.HUSH_MERGE, this::merge)
        .set(CommandId.HUSH_EQUAL, this::equalDepth)
        .set(CommandId.HUSH_TO_PASSAGE, this::toPassage)
        .set(CommandId.SHAPING_SWAP, this::swap)
        .set(CommandId.SHAPING_KEEP, this::keep);
  }

  private Project project() {
    return session.present();
  }

  /** Where the selected rise reaches its height. */
  private Optional<Long> top() {
    return selectedRise().map(r -> r.knots(project().sampleRate()).floorStart());
  }

  private Optional<Rise> selectedRise() {
    return session.selection() instanceof Selection.OfRise s
        ? project().track(s.trackId()).flatMap(t -> t.rise(s.riseId()))
        : Optional.empty();
  }

  private void landOnBeat() {
    Optional<Track> track = project().track(session.selection().trackId());
    OptionalLong beat =
        top().isEmpty()
            ? OptionalLong.empty()
            : Starts.downbeatNear(
                project(),
                track.orElseThrow(),
                session.songs(),
                top().get(),
                project().frames(LANDING_SECONDS));
    land(beat, "rise.noBeat");
  }

  private void landOnCut() {
    long top = top().orElse(0L);
    long within = project().frames(LANDING_SECONDS);
    OptionalLong cut =
        cuts.frames().stream()
            .filter(c -> Math.abs(c - top) <= within)
            .min(Comparator.comparingLong(c -> Math.abs(c - top)))
            .map(OptionalLong::of)
            .orElse(OptionalLong.empty());
    land(cut, "rise.noCut");
  }

  private void land(OptionalLong at, String otherwise) {
    Optional<Rise> rise = selectedRise();
    if (rise.isEmpty()) {
      messages.say(text("rise.choose"));
    } else if (at.isEmpty()) {
      messages.say(text(otherwise));
    } else {
      session.commit(
          text("edit.rise"), p -> HushEdits.landRise(p, rise.get().id(), at.getAsLong()));
    }
  }

  /** The track to shape: the selected one when it lies under the voice, else the music. */
  private Optional<Track> background() {
    return project()
        .track(session.selection().trackId())
        .filter(Track::isBackground)
        .or(() -> project().firstTrack(TrackKind.MUSIC));
  }

  /**
   * What the hush is for: the selected stretch, else the passage under or next to the playhead;
   * passages too near to it for the music to come up between go with it.
   */
  private Optional<Span> wanted() {
    if (session.selection() instanceof Selection.OfSpan s) {
      return Optional.of(s.span());
    }
    double gap =
        background()
            .flatMap(HushDrafter::ruleOf)
            .orElse(HushRule.of(HushRule.AMBIENCE_LU))
            .shortestGapSeconds();
    return Span.joined(Passages.of(project()), project().frames(gap) - 1).stream()
        .filter(p -> away(p) <= project().frames(NEAR_SECONDS))
        .min(Comparator.comparingLong(this::away));
  }

  /** How far the playhead lies from a passage. */
  private long away(Span passage) {
    return Math.max(
        0,
        Math.max(
            passage.startFrame() - session.playhead(), session.playhead() - passage.endFrame()));
  }

  private void hushHere() {
    Optional<Track> track = background();
    Optional<Span> span = wanted();
    if (span.isEmpty()) {
      messages.complain(
          text(Passages.of(project()).isEmpty() ? "hush.noVoice" : "hush.noPassageHere"));
      return;
    }
    if (track.isEmpty()) {
      messages.complain(text("hush.noMusic"));
      return;
    }
    boolean speech = Passages.of(project()).stream().anyMatch(span.get()::overlaps);
    if (!speech) {
      Hush byHand =
          Hush.over(span.get(), USUAL_DEPTH_DB).setByHand(HushNumber.PLACE, HushNumber.DEPTH);
      take(track.get(), Optional.of(byHand), "hush.placed");
      return;
    }
    Project measured = project();
    messages.say(text("hush.measuring"));
    jobs.run(
        () ->
            SingleHush.of(
                measured,
                hearing.library(),
                hearing.energies(measured),
                track.get().id(),
                span.get(),
                session.habits().lastTurn()),
        session.whileOpen(hush -> take(track.get(), hush, "hush.placed")));
  }

  private void take(Track track, Optional<Hush> hush, String words) {
    if (hush.isEmpty()) {
      messages.say(text("hush.notNeeded"));
      return;
    }
    Hush placed = hush.get().withTurn(session.habits().lastTurn());
    session.commit(text("edit.hush"), p -> HushEdits.add(p, track.id(), placed));
    session.select(new Selection.OfHush(track.id(), placed.id()));
    messages.say(text(words));
  }

  private void riseHere() {
    Optional<Track> track = background();
    if (track.isEmpty()) {
      messages.complain(text("hush.noMusic"));
      return;
    }
    String id = track.get().id();
    Optional<Rise> rise =
        session.selection() instanceof Selection.OfSpan s
            ? Optional.of(
                new Rise(
                    Ids.fresh("rise"),
                    s.span().startFrame(),
                    s.span().endFrame(),
                    session.habits().lastRiseDb(),
                    1,
                    1))
            : new RiseGaps(project(), id).rise(session.playhead(), session.habits().lastRiseDb());
    if (rise.isEmpty()) {
      messages.complain(text("rise.noGap"));
      return;
    }
    session.commit(text("edit.rise"), p -> HushEdits.addRise(p, id, rise.get()));
    session.select(new Selection.OfRise(id, rise.get().id()));
    messages.say(text("rise.placed"));
  }

  private void melt() {
    switch (session.selection()) {
      case Selection.OfHush h ->
          session.commit(text("edit.melt"), p -> HushEdits.melt(p, h.trackId(), h.hushId()));
      case Selection.OfRise r ->
          session.commit(text("edit.melt"), p -> HushEdits.meltRise(p, r.trackId(), r.riseId()));
      default -> throw new IllegalStateException("Nothing to melt");
    }
  }

  private void copyNumbers(HushEdits.Reach reach) {
    if (session.selection() instanceof Selection.OfHush h) {
      session.commit(text("edit.hushNumbers"), p -> HushEdits.copyNumbers(p, h.hushId(), reach));
    }
  }

  private void merge() {
    if (session.selection() instanceof Selection.OfHush h) {
      session.commit(
          text("edit.mergeHushes"), p -> HushEdits.mergeWithNext(p, h.trackId(), h.hushId()));
    }
  }

  private void equalDepth() {
    if (session.selection() instanceof Selection.OfSpan s) {
      session.commit(text("edit.hushDepth"), p -> HushEdits.equalDepth(p, s.trackId(), s.span()));
    }
  }

  /** Moves the selected hush under the passage at the playhead. */
  private void toPassage() {
    Optional<Span> passage =
        Passages.of(project()).stream().filter(p -> p.contains(session.playhead())).findFirst();
    if (session.selection() instanceof Selection.OfHush h && passage.isPresent()) {
      session.commit(
          text("edit.hushNumbers"), p -> HushEdits.setPassage(p, h.hushId(), passage.get()));
    } else {
      messages.say(text("hush.toPassage.how"));
    }
  }

  private void swap() {
    background()
        .ifPresentOrElse(
            t -> {
              if (t.other().isEmpty()) {
                messages.say(text("shaping.none"));
              } else {
                session.commit(text("edit.swapShaping"), p -> HushEdits.swapShaping(p, t.id()));
                messages.say(text("shaping.swapped", t.name()));
              }
            },
            () -> messages.say(text("hush.noMusic")));
  }

  private void keep() {
    background()
        .ifPresentOrElse(
            t -> {
              session.commit(text("edit.keepShaping"), p -> HushEdits.keepShaping(p, t.id()));
              messages.say(text("shaping.kept", t.name()));
            },
            () -> messages.say(text("hush.noMusic")));
  }
}
