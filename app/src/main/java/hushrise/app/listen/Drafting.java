package hushrise.app.listen;

import static hushrise.app.words.Texts.text;

import hushrise.app.job.Jobs;
import hushrise.app.job.Messages;
import hushrise.app.session.Selection;
import hushrise.app.session.Session;
import hushrise.core.edit.HushEdits;
import hushrise.core.hush.HushDraft;
import hushrise.core.hush.HushDrafter;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.HushRule;
import hushrise.core.project.timeline.Track;
import java.util.Optional;
import java.util.function.UnaryOperator;

/**
 * Drafts hushes by the tracks' rules, shows the draft, and takes it or leaves it. While a draft is
 * shown and the project changes under it, it is drafted anew by the same rules.
 */
public final class Drafting {

  private final Session session;
  private final Hearing hearing;
  private final Jobs jobs;
  private final Messages messages;
  private int asked;

  /** What is being drafted, with rules that may be newer than those of the draft that is shown. */
  private Optional<Project> underWay = Optional.empty();

  private boolean takesNext;

  public Drafting(Session session, Hearing hearing, Jobs jobs, Messages messages) {
    this.session = session;
    this.hearing = hearing;
    this.jobs = jobs;
    this.messages = messages;
    session
        .presentProperty()
        .addListener((p, was, is) -> session.draft().ifPresent(d -> follow(d.before())));
  }

  /** Drafts for the present project. */
  public void start() {
    messages.say(text("hush.measuring"));
    draft(session.present());
  }

  /** Drafts anew after a change of a rule; both are taken together. */
  public void withRule(String trackId, UnaryOperator<HushRule> change) {
    draft(
        base()
            .withTrack(
                trackId,
                t ->
                    t.withRule(
                        Optional.of(
                            change.apply(
                                HushDrafter.ruleOf(t)
                                    .orElse(HushRule.of(HushRule.AMBIENCE_LU)))))));
  }

  /** Takes a track’s own rule away and drafts anew. */
  public void withoutRule(String trackId) {
    draft(base().withTrack(trackId, t -> t.withRule(Optional.empty())));
  }

  /** What to draft from: the present project with the rules that were asked for last. */
  private Project base() {
    return underWay
        .or(() -> session.draft().map(HushDraft::before))
        .map(this::withRulesOf)
        .orElse(session.present());
  }

  private Project withRulesOf(Project drafted) {
    return session
        .present()
        .withEachTrack(t -> drafted.track(t.id()).map(Track::rule).map(t::withRule).orElse(t));
  }

  private void follow(Project drafted) {
    Project now = base();
    if (!now.equals(underWay.orElse(drafted))) {
      draft(now);
    }
  }

  private void draft(Project project) {
    Project present = session.present();
    underWay = Optional.of(project);
    asked++;
    int number = asked;
    jobs.run(
        () -> HushDrafter.draft(project, hearing.library(), hearing.energies(project)),
        session.whileOpen(
            draft -> {
              if (number == asked) {
                arrived(draft, project, present);
              }
            }),
        () -> {
          if (number == asked) {
            forgetUnderWay();
          }
        });
  }

  private void arrived(HushDraft draft, Project of, Project present) {
    if (!session.present().equals(present)) {
      draft(withRulesOf(of));
      return;
    }
    boolean takes = takesNext;
    forgetUnderWay();
    show(draft);
    if (takes) {
      take();
    }
  }

  private void forgetUnderWay() {
    underWay = Optional.empty();
    takesNext = false;
  }

  private void show(HushDraft draft) {
    if (session.draft().isEmpty() && draft.changesNothing(session.present())) {
      if (draft.notes().isEmpty()) {
        messages.say(
            draft.lines().isEmpty()
                ? text("draft.nothing")
                : text("draft.same", draft.lines().size()));
      } else {
        messages.complain(text("draft.note." + draft.notes().getFirst().name()));
      }
      return;
    }
    session.showDraft(draft);
    messages.say(text("draft.shown"));
    draft.notes().stream()
        .findFirst()
        .ifPresent(n -> messages.complain(text("draft.note." + n.name())));
  }

  /** Leaves the draft that is shown. */
  public void leave() {
    asked++;
    forgetUnderWay();
    if (session.draft().isPresent()) {
      session.leaveDraft();
      messages.say(text("draft.left"));
    }
  }

  /** Takes the draft that is shown; while it is made anew, as soon as that is done. */
  public void take() {
    if (session.draft().isPresent() && underWay.isPresent()) {
      takesNext = true;
      messages.say(text("hush.measuring"));
    } else if (session.draft().isPresent()) {
      session.takeDraft(text("edit.draft"));
      messages.say(text("draft.taken"));
    }
  }

  /** Gives the selected hush back to the rule and drafts it anew. */
  public void forget() {
    if (!(session.selection() instanceof Selection.OfHush h)) {
      return;
    }
    Project given = HushEdits.forgetByHand(session.present(), h.hushId());
    jobs.run(
        () -> HushDrafter.draft(given, hearing.library(), hearing.energies(given)),
        session.whileOpen(
            draft -> {
              Optional<Hush> fresh =
                  draft.after().track(h.trackId()).flatMap(t -> t.hush(h.hushId()));
              session.commit(
                  text("edit.forget"),
                  p ->
                      HushEdits.forgetByHand(p, h.hushId())
                          .withEachTrack(t -> t.withHush(h.hushId(), old -> fresh.orElse(old))));
              messages.say(text("hush.forgotten"));
            }));
  }
}
