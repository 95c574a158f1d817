package hushrise.app.window;

import hushrise.app.command.ClipCommands;
import hushrise.app.command.Commands;
import hushrise.app.command.DraftCommands;
import hushrise.app.command.EarCommands;
import hushrise.app.command.FadeCommands;
import hushrise.app.command.FitCommands;
import hushrise.app.command.HistoryCommands;
import hushrise.app.command.LevelCommands;
import hushrise.app.command.ListenCommands;
import hushrise.app.command.RideCommands;
import hushrise.app.command.SafeCommands;
import hushrise.app.command.ShapeCommands;
import hushrise.app.command.SpeechCommands;
import hushrise.app.command.TravelCommands;
import hushrise.app.file.FileChoice;
import hushrise.app.file.Questions;
import hushrise.app.job.Messages;
import hushrise.app.listen.Hearing;
import hushrise.app.listen.PictureCuts;
import hushrise.app.play.Riders;
import hushrise.app.session.Session;
import hushrise.app.timeline.Viewport;
import hushrise.core.ear.Finding;
import java.util.List;
import java.util.function.Consumer;

/** What commands do that change or play the project, wherever they are called from. */
final class CommandSets {

  private final FitCommands fits;
  private final EarCommands ear;
  private final LevelCommands levels;
  private final SafeCommands safe;
  private final List<Consumer<Commands.Builder>> sets;

  /**
   * @param askAside asks why a finding is put aside
   */
  CommandSets(
      Backstage backstage,
      Viewport view,
      FileChoice choice,
      Questions questions,
      Consumer<Finding> askAside,
      Messages messages) {
    Session session = backstage.session();
    Hearing hearing = backstage.heard().hearing();
    PictureCuts cuts = backstage.heard().cuts();
    Riders riders = backstage.transport().riders();
    fits = new FitCommands(session, backstage.transport(), backstage.intake(), cuts, messages);
    ear = new EarCommands(session, hearing, view::reveal, askAside, messages);
    levels = new LevelCommands(session, riders, messages);
    safe = new SafeCommands(session, hearing, backstage.jobs(), messages);
    sets =
        List.of(
            new HistoryCommands(session, messages)::addTo,
            new TravelCommands(session, view, cuts, messages)::addTo,
            new ListenCommands(session, backstage.transport(), backstage.meters(), messages)::addTo,
            new RideCommands(session, riders, levels, messages)::addTo,
            safe::addTo,
            fits::addTo,
            levels::addTo,
            new ClipCommands(session, messages, levels, fits)::addTo,
            new FadeCommands(session, cuts, messages)::addTo,
            new ShapeCommands(session, hearing, cuts, backstage.jobs(), messages)::addTo,
            new SpeechCommands(
                    session,
                    backstage.heard().speech(),
                    hearing,
                    choice,
                    questions,
                    backstage.jobs(),
                    messages)
                ::addTo,
            new DraftCommands(backstage.drafting())::addTo,
            ear::addTo);
  }

  FitCommands fits() {
    return fits;
  }

  EarCommands ear() {
    return ear;
  }

  LevelCommands levels() {
    return levels;
  }

  SafeCommands safe() {
    return safe;
  }

  void addTo(Commands.Builder table) {
    sets.forEach(set -> set.accept(table));
  }
}
