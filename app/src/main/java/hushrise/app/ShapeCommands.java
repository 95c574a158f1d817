package hushrise.app;

import static hushrise.app.look.Texts.text;

import hushrise.core.edit.HushEdits;
import hushrise.core.hush.HushDrafter;
import hushrise.core.hush.SingleHush;
import hushrise.core.loudness.LoudnessLibrary;
import hushrise.core.project.Hush;
import hushrise.core.project.HushNumber;
import hushrise.core.project.HushRule;
import hushrise.core.project.Ids;
import hushrise.core.project.Project;
import hushrise.core.project.Rise;
import hushrise.core.project.Track;
import hushrise.core.project.TrackKind;
import hushrise.core.speech.Passages;
import hushrise.core.time.Span;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/** What keys do with hushes, rises and versions of a track's shaping. */
final class ShapeCommands {

  /** The depth of a hush under no speech, which nothing can be measured for. */
  private static final double USUAL_DEPTH_DB = -10;

  /** A passage this near to the playhead counts as under it. */
  private static final double NEAR_SECONDS = 1;

  private final Session session;
  private final LoudnessLibrary library;
  private final Hearing hearing;
  private final Background background;
  private final Window window;

  ShapeCommands(
      Session session,
      LoudnessLibrary library,
      Hearing hearing,
      Background background,
      Window window) {
    this.session = session;
    this.library = library;
    this.hearing = hearing;
    this.background = background;
    this.window = window;
  }

  List<Command> all() {
    return List.of(
        Command.of("hush.here", "H", this::hushHere),
        Command.of("rise.here", "U", this::riseHere),
        Command.of("melt", "Shift+M", this::melt),
        Command.of("hush.toNext", "Shift+N", () -> copyNumbers(HushEdits.Reach.NEXT)),
        Command.withoutKeys("hush.toTrack", () -> copyNumbers(HushEdits.Reach.TRACK)),
        Command.withoutKeys("hush.toProject", () -> copyNumbers(HushEdits.Reach.PROJECT)),
        Command.withoutKeys("hush.merge", this::merge),
        Command.withoutKeys("hush.equal", this::equalDepth),
        Command.of("hush.toPassage", "P", this::toPassage),
        Command.of("shaping.swap", "X", this::swap),
        Command.of("shaping.keep", "Shift+X", this::keep));
  }

  private Project project() {
    return session.present();
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
    return Passages.joined(Passages.of(project()), project().frames(gap) - 1).stream()
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
      window.complain(
          text(Passages.of(project()).isEmpty() ? "hush.noVoice" : "hush.noPassageHere"));
      return;
    }
    if (track.isEmpty()) {
      window.complain(text("hush.noMusic"));
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
    window.say(text("hush.measuring"));
    background.run(
        () ->
            SingleHush.of(
                measured,
                library,
                hearing.energies(measured),
                track.get().id(),
                span.get(),
                session.lastTurn()),
        hush -> take(track.get(), hush, "hush.placed"));
  }

  private void take(Track track, Optional<Hush> hush, String words) {
    if (hush.isEmpty()) {
      window.say(text("hush.notNeeded"));
      return;
    }
    Hush placed = hush.get().withTurn(session.lastTurn());
    session.commit(text("edit.hush"), p -> HushEdits.add(p, track.id(), placed));
    session.select(new Selection.OfHush(track.id(), placed.id()));
    window.say(text(words));
  }

  private void riseHere() {
    Optional<Track> track = background();
    if (track.isEmpty()) {
      window.complain(text("hush.noMusic"));
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
                    session.lastRiseDb(),
                    1,
                    1))
            : HushEdits.riseForGap(project(), id, session.playhead(), session.lastRiseDb());
    if (rise.isEmpty()) {
      window.complain(text("rise.noGap"));
      return;
    }
    session.commit(text("edit.rise"), p -> HushEdits.addRise(p, id, rise.get()));
    session.select(new Selection.OfRise(id, rise.get().id()));
    window.say(text("rise.placed"));
  }

  private void melt() {
    switch (session.selection()) {
      case Selection.OfHush h ->
          session.commit(text("edit.melt"), p -> HushEdits.melt(p, h.trackId(), h.hushId()));
      case Selection.OfRise r ->
          session.commit(text("edit.melt"), p -> HushEdits.meltRise(p, r.trackId(), r.riseId()));
      default -> window.say(text("hush.choose"));
    }
  }

  private void copyNumbers(HushEdits.Reach reach) {
    if (session.selection() instanceof Selection.OfHush h) {
      session.commit(text("edit.hushNumbers"), p -> HushEdits.copyNumbers(p, h.hushId(), reach));
    } else {
      window.say(text("hush.choose"));
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
      window.say(text("hush.toPassage.how"));
    }
  }

  private void swap() {
    background()
        .ifPresent(
            t -> {
              if (t.other().isEmpty()) {
                window.say(text("shaping.none"));
              } else {
                session.commit(text("edit.swapShaping"), p -> HushEdits.swapShaping(p, t.id()));
                window.say(text("shaping.swapped", t.name()));
              }
            });
  }

  private void keep() {
    background()
        .ifPresent(
            t -> {
              session.commit(text("edit.keepShaping"), p -> HushEdits.keepShaping(p, t.id()));
              window.say(text("shaping.kept", t.name()));
            });
  }
}
