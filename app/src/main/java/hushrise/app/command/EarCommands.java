package hushrise.app.command;

import static hushrise.app.words.Texts.text;

import hushrise.app.job.Messages;
import hushrise.app.listen.Hearing;
import hushrise.app.session.Session;
import hushrise.core.ear.Finding;
import hushrise.core.ear.SecondEar;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.LongConsumer;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;

/** What keys and buttons do with the findings of the Second Ear. */
public final class EarCommands {

  private final Session session;
  private final Hearing hearing;
  private final LongConsumer reveal;
  private final Consumer<Finding> askAside;
  private final Messages messages;
  private final ReadOnlyObjectWrapper<Optional<Finding>> chosen =
      new ReadOnlyObjectWrapper<>(Optional.empty());

  public EarCommands(
      Session session,
      Hearing hearing,
      LongConsumer reveal,
      Consumer<Finding> askAside,
      Messages messages) {
    this.session = session;
    this.hearing = hearing;
    this.reveal = reveal;
    this.askAside = askAside;
    this.messages = messages;
    hearing
        .nowProperty()
        .addListener((p, was, is) -> chosen.set(chosen.get().flatMap(this::still)));
  }

  /** Sets what its commands do. */
  public void addTo(Commands.Builder table) {
    table
        .set(CommandId.EAR_NEXT, () -> step(1))
        .set(CommandId.EAR_PREVIOUS, () -> step(-1))
        .set(CommandId.EAR_MEND, () -> mend(0))
        .set(CommandId.EAR_MEND_OTHER, () -> mend(1))
        .set(CommandId.EAR_ASIDE, this::askAside);
  }

  /** The finding that keys act on; empty while none was gone to. */
  public ReadOnlyObjectProperty<Optional<Finding>> chosenProperty() {
    return chosen.getReadOnlyProperty();
  }

  /** The findings that nobody has put aside, in order of time. */
  public List<Finding> open() {
    return hearing
        .now()
        .map(n -> SecondEar.open(n.findings(), session.present()))
        .orElse(List.of());
  }

  /** The findings that were put aside and would still be found. */
  public List<Finding> aside() {
    return hearing
        .now()
        .map(
            n ->
                n.findings().stream().filter(f -> SecondEar.isAside(f, session.present())).toList())
        .orElse(List.of());
  }

  private Optional<Finding> still(Finding finding) {
    return open().stream().filter(f -> f.key().equals(finding.key())).findFirst();
  }

  private void step(int by) {
    List<Finding> all = open();
    if (all.isEmpty()) {
      messages.say(text("ear.none"));
      return;
    }
    int at = chosen.get().map(all::indexOf).orElse(-1);
    int next = at < 0 ? (by > 0 ? 0 : all.size() - 1) : Math.floorMod(at + by, all.size());
    goTo(all.get(next));
  }

  /** Goes to where a finding is to be heard. */
  public void goTo(Finding finding) {
    chosen.set(Optional.of(finding));
    session.seek(finding.place().startFrame());
    reveal.accept(finding.place().startFrame());
  }

  private void mend(int remedy) {
    Optional<Finding> finding = chosen.get().or(() -> open().stream().findFirst());
    if (finding.isEmpty() || remedy >= finding.get().remedies().size()) {
      messages.say(text(finding.isEmpty() ? "ear.none" : "ear.noRemedy"));
      return;
    }
    mend(finding.get().remedies().get(remedy));
  }

  /** Makes a remedy one step. */
  public void mend(Finding.Remedy remedy) {
    session.commit(words(remedy), remedy.edit());
  }

  /** What a finding says. */
  public static String words(Finding finding) {
    return text("ear." + finding.rule(), finding.figures().toArray());
  }

  /** What a remedy does. */
  public static String words(Finding.Remedy remedy) {
    return text(remedy.words(), remedy.figures().toArray());
  }

  private void askAside() {
    chosen.get().ifPresentOrElse(askAside, () -> messages.say(text("ear.choose")));
  }

  /** Puts a finding aside. */
  public void putAside(Finding finding, String reason) {
    session.commit(text("edit.putAside"), p -> SecondEar.putAside(p, finding, reason));
  }

  /** Takes a finding up again. */
  public void takeBack(Finding finding) {
    session.commit(text("edit.takeBack"), p -> SecondEar.takenBack(p, finding));
  }
}
