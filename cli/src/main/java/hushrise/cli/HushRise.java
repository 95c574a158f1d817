package hushrise.cli;

import hushrise.core.Problem;
import hushrise.media.CacheFolder;
import hushrise.media.FirstLook;
import java.io.PrintStream;
import java.io.PrintWriter;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
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
    version = HushRise.VERSION,
    synopsisSubcommandLabel = "COMMAND",
    footer = {
      "",
      "Exit codes: 0 done, 1 it failed (one line says what and what to do), 2 wrong usage."
    })
public final class HushRise implements Runnable {

  static final String VERSION = "Hush Rise 0.1";

  private static final Map<String, Supplier<Object>> COMMANDS = new LinkedHashMap<>();

  static {
    COMMANDS.put("make", MakeCommand::new);
    COMMANDS.put("render", RenderCommand::new);
    COMMANDS.put("fit", FitCommand::new);
    COMMANDS.put("measure", MeasureCommand::new);
    COMMANDS.put("speech", SpeechCommand::new);
    COMMANDS.put("credits", CreditsCommand::new);
    COMMANDS.put("collect", CollectCommand::new);
    COMMANDS.put("exchange", ExchangeCommand::new);
    COMMANDS.put("recover", RecoverCommand::new);
  }

  /** Those that use decoded sound more than once, so that having it decoded elsewhere is free. */
  private static final Set<String> LOOKING_FIRST = Set.of("make", "render", "fit", "speech");

  @Spec private CommandSpec spec;

  @Option(
      names = "--verbose",
      scope = ScopeType.INHERIT,
      description = "Shows details and the place in the program where something failed.")
  private boolean verbose;

  public static void main(String[] args) {
    Locale.setDefault(Locale.Category.FORMAT, Locale.ROOT);
    PrintWriter out = writer(System.out);
    PrintWriter err = writer(System.err);
    if (args.length > 0 && LOOKING_FIRST.contains(args[0])) {
      FirstLook.inForce(CacheFolder::ofUser);
    }
    int code = run(args, out, err);
    if (out.checkError() && code == 0) {
      err.println(
          "What there is to say could not be written: the disk may be full, or nobody reads it.");
      code = 1;
    }
    System.exit(code);
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
    if (List.of(args).equals(List.of("--version")) || List.of(args).equals(List.of("-V"))) {
      out.println(VERSION); // what scripts call most does not wait for a parser
      return 0;
    }
    HushRise root = new HushRise();
    CommandLine line = lineOf(root, List.of(args)).setOut(out).setErr(err);
    line.setExecutionStrategy(
        parsed -> {
          if (CommandLine.executeHelpRequest(parsed) instanceof Integer code) {
            return code;
          }
          root.applyVerbosity();
          return new CommandLine.RunLast().execute(parsed);
        });
    line.setParameterExceptionHandler((e, wrong) -> explainUsage(e));
    line.setExecutionExceptionHandler((e, failed, parsed) -> root.explain(e, failed));
    try {
      return line.execute(args);
    } catch (StackOverflowError | InternalError e) {
      return root.explain(e, line);
    } catch (OutOfMemoryError e) {
      err.println(
          "There is not enough memory for this: close other programs, or work on a shorter stretch with --range.");
      return 1;
    }
  }

  /** All commands, for help, the manual and completion. */
  public static CommandLine whole() {
    return lineOf(new HushRise(), List.of());
  }

  /**
   * The root with the command that is called. The others are left out, as reading one takes picocli
   * tens of milliseconds; where none is called there are all of them.
   */
  private static CommandLine lineOf(HushRise root, List<String> args) {
    CommandLine line = new CommandLine(root);
    Optional<String> called = args.stream().filter(COMMANDS::containsKey).findFirst();
    COMMANDS.forEach(
        (name, command) -> {
          if (called.isEmpty() || called.get().equals(name)) {
            line.addSubcommand(command.get());
          }
        });
    line.getSubcommands()
        .values()
        .forEach(sub -> sub.getCommandSpec().version(line.getCommandSpec().version()));
    return line;
  }

  /** What is wrong and where to read on; the whole help would hide it. */
  private static int explainUsage(CommandLine.ParameterException found) {
    CommandLine failed = found.getCommandLine();
    CommandLine.ParameterException e = unknownFirst(found);
    PrintWriter err = failed.getErr();
    err.println(wordsOf(e));
    if (failed.getParent() == null) {
      err.printf("The commands: %s.%n", String.join(", ", COMMANDS.keySet()));
    } else if (!CommandLine.UnmatchedArgumentException.printSuggestions(e, err)) {
      err.println(failed.getHelp().synopsis(0).strip());
    }
    err.printf("'%s --help' tells more.%n", failed.getCommandSpec().qualifiedName());
    return failed.getCommandSpec().exitCodeOnInvalidInput();
  }

  /** An option that there is not, as by a slip, is often why another seems to be missing. */
  private static CommandLine.ParameterException unknownFirst(CommandLine.ParameterException e) {
    List<String> unmatched = e.getCommandLine().getUnmatchedArguments();
    return e instanceof CommandLine.MissingParameterException
            && unmatched.stream().anyMatch(HushRise::isOption)
        ? new CommandLine.UnmatchedArgumentException(e.getCommandLine(), unmatched)
        : e;
  }

  private static boolean isOption(String word) {
    return word.matches("--?[A-Za-z].*");
  }

  private static String wordsOf(CommandLine.ParameterException e) {
    if (!(e instanceof CommandLine.UnmatchedArgumentException unknown)) {
      return e.getMessage().replace("is not a double", "is not a number");
    }
    List<String> unmatched = unknown.getUnmatched();
    List<String> options = unmatched.stream().filter(HushRise::isOption).toList();
    if (!options.isEmpty()) {
      return "There is no option %s.".formatted(String.join(", ", options));
    }
    return e.getCommandLine().getParent() == null
        ? "There is no command '%s'.".formatted(unmatched.getFirst())
        : ("It is not clear what '%s' is for: an option before it says so, as those below; "
                + "a name with spaces needs quotes around it.")
            .formatted(unmatched.getFirst());
  }

  private void applyVerbosity() {
    if (LoggerFactory.getLogger("hushrise") instanceof ch.qos.logback.classic.Logger logger) {
      logger.setLevel(
          verbose ? ch.qos.logback.classic.Level.DEBUG : ch.qos.logback.classic.Level.ERROR);
    }
  }

  private int explain(Throwable e, CommandLine failed) {
    PrintWriter err = failed.getErr();
    err.println(
        e instanceof Problem
            ? e.getMessage()
            : e instanceof InternalError
                ? "A file became shorter, or its disk went away, while it was read: check that it is there and whole, and run it again."
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
