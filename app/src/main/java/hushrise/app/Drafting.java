package hushrise.app;

import static hushrise.app.look.Texts.text;

import hushrise.core.hush.HushDraft;
import hushrise.core.hush.HushDrafter;
import hushrise.core.project.HushRule;
import hushrise.core.project.Project;
import hushrise.media.MediaStore;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;

/** Drafts hushes by the tracks' rules, shows the draft, and takes it or leaves it. */
public final class Drafting {

  private final Session session;
  private final MediaStore store;
  private final Hearing hearing;
  private final Background background;
  private final Window window;
  private int asked;

  Drafting(
      Session session, MediaStore store, Hearing hearing, Background background, Window window) {
    this.session = session;
    this.store = store;
    this.hearing = hearing;
    this.background = background;
    this.window = window;
  }

  List<Command> all() {
    return List.of(
        Command.of("hush", "Shift+H", this::start),
        Command.of("draft.take", "ENTER", this::take),
        Command.withoutKeys("draft.leave", this::leave),
        Command.withoutKeys("hush.forget", this::forget));
  }

  /** Drafts for the present project. */
  public void start() {
    window.say(text("hush.measuring"));
    draft(session.present());
  }

  /** Drafts anew after a change of a rule; both are taken together. */
  public void withRule(String trackId, UnaryOperator<HushRule> change) {
    Project base = session.draft().map(HushDraft::before).orElse(session.present());
    draft(
        base.withTrack(
            trackId,
            t ->
                t.withRule(
                    Optional.of(
                        change.apply(
                            HushDrafter.ruleOf(t).orElse(HushRule.of(HushRule.AMBIENCE_LU)))))));
  }

  /** Takes a track’s own rule away and drafts anew. */
  public void withoutRule(String trackId) {
    Project base = session.draft().map(HushDraft::before).orElse(session.present());
    draft(base.withTrack(trackId, t -> t.withRule(Optional.empty())));
  }

  private void draft(Project project) {
    Project present = session.present();
    asked++;
    int number = asked;
    background.run(
        () -> HushDrafter.draft(project, store, hearing.energies(project)),
        draft -> {
          if (number == asked && session.present().equals(present)) {
            show(draft);
          }
        });
  }

  private void show(HushDraft draft) {
    boolean nothing = draft.lines().isEmpty() && draft.rises() == 0;
    if (nothing && session.draft().isEmpty() && draft.before().equals(session.present())) {
      if (draft.notes().isEmpty()) {
        window.say(text("draft.nothing"));
      } else {
        window.complain(text("draft.note." + draft.notes().getFirst().name()));
      }
      return;
    }
    session.showDraft(draft);
    window.say(text("draft.shown"));
    draft.notes().stream()
        .findFirst()
        .ifPresent(n -> window.complain(text("draft.note." + n.name())));
  }

  /** Leaves the draft that is shown. */
  public void leave() {
    if (session.draft().isPresent()) {
      session.leaveDraft();
      window.say(text("draft.left"));
    }
  }

  /** Takes the draft that is shown. */
  public void take() {
    session
        .draft()
        .ifPresent(
            d -> {
              session.takeDraft(text("edit.draft"));
              window.say(text("draft.taken"));
            });
  }

  /** Gives the selected hush back to the rule and drafts it anew. */
  private void forget() {
    if (session.selection() instanceof Selection.OfHush h) {
      Project given = hushrise.core.edit.HushEdits.forgetByHand(session.present(), h.hushId());
      HushDraft draft = HushDrafter.draft(given, store, hearing.energies(given));
      Project after =
          draft
              .after()
              .track(h.trackId())
              .flatMap(t -> t.hush(h.hushId()))
              .map(fresh -> given.withEachTrack(t -> t.withHush(h.hushId(), old -> fresh)))
              .orElse(given);
      session.commit(text("edit.forget"), p -> after);
      window.say(text("hush.forgotten"));
    } else {
      window.say(text("hush.choose"));
    }
  }
}
