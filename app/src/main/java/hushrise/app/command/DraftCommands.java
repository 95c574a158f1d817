package hushrise.app.command;

import hushrise.app.listen.Drafting;

/** What keys and buttons do with drafts. */
public final class DraftCommands {

  private final Drafting drafting;

  public DraftCommands(Drafting drafting) {
    this.drafting = drafting;
  }

  /** Sets what its commands do. */
  public void addTo(Commands.Builder table) {
    table
        .set(CommandId.HUSH_ALL, drafting::start)
        .set(CommandId.DRAFT_TAKE, drafting::take)
        .set(CommandId.DRAFT_LEAVE, drafting::leave)
        .set(CommandId.HUSH_FORGET, drafting::forget);
  }
}
