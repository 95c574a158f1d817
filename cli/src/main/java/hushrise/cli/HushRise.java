package hushrise.cli;

import hushrise.core.Problem;
import java.io.PrintStream;
import java.io.PrintWriter;
import java.util.Locale;
import org.slf4j.LoggerFactory;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ScopeType;
import picocli.CommandLine.Spec;

/** The command line: the same core as the window, without one. */
@Command(
    name = "hushrise",
    description =
        "Puts music under narration: places it, hushes it where somebody speaks, exports the film.",
    mixinStandardHelpOptions = true,
    version = "Hush Rise 0.1",
    subcommands = {
      MakeCommand.class,
      RenderCommand.class,
      FitCommand.class,
      MeasureCommand.class,
      SpeechCommand.class,
      CreditsCommand.class,
      CollectCommand.class,
      ExchangeCommand.class
    },
    synopsisSubcommandLabel = "COMMAND",
    footer = {
      "",
      "Exit codes: 0 done, 1 it failed (one line says what and what to do), 2 wrong usage."
    })
public final class HushRise implements Runnable {

  @Spec private CommandSpec spec;

  @Option(
      names = "--verbose",
      scope = ScopeType.INHERIT,
      description = "Shows details and the place in the program where something failed.")
  private boolean verbose;

  public static void main(String[] args) {
    Locale.setDefault(Locale.Category.FORMAT, Locale.ROOT);
    System.exit(run(args, writer(System.out), writer(System.err)));
  }

  private static PrintWriter writer(PrintStream stream) {
    return new PrintWriter(stream, true, stream.charset());
  }

  /**
   * Runs a command line.
   *
   * @param out receives results
   * @param err receives progress and problems
   * @return the exit code
   */
  static int run(String[] args, PrintWriter out, PrintWriter err) {
    HushRise root = new HushRise();
    CommandLine line = new CommandLine(root).setOut(out).setErr(err);
    line.setExecutionStrategy(
        parsed -> {
          root.applyVerbosity();
          return new CommandLine.RunLast().execute(parsed);
        });
    line.setExecutionExceptionHandler((e, failed, parsed) -> root.explain(e, failed));
    return line.execute(args);
  }

  private void applyVerbosity() {
    if (LoggerFactory.getLogger("hushrise") instanceof ch.qos.logback.classic.Logger logger) {
      logger.setLevel(
          verbose ? ch.qos.logback.classic.Level.DEBUG : ch.qos.logback.classic.Level.ERROR);
    }
  }

  private int explain(Exception e, CommandLine failed) {
    PrintWriter err = failed.getErr();
    err.println(
        e instanceof Problem
            ? e.getMessage()
            : "Something went wrong inside Hush Rise (%s): run it again with --verbose and report what it shows."
                .formatted(String.valueOf(e.getMessage()).lines().findFirst().orElse("")));
    if (verbose) {
      e.printStackTrace(err);
    }
    return 1;
  }

  @Override
  public void run() {
    throw new CommandLine.ParameterException(
        spec.commandLine(), "Say what to do: a command is missing.");
  }
}
