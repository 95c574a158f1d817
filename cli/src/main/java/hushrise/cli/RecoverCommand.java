package hushrise.cli;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import hushrise.core.Problem;
import hushrise.core.journal.Journals;
import hushrise.core.journal.Recovered;
import hushrise.core.store.ProjectFile;
import hushrise.media.UserFolders;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Gives back what a crash of the window has left. */
@Command(
    name = "recover",
    mixinStandardHelpOptions = true,
    description =
        "Lists what the window had not saved when it ended by force, or writes one of it into a project.")
final class RecoverCommand implements Callable<Integer> {

  private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm:ss");

  @Spec private CommandSpec spec;

  @Option(names = "--list", description = "Lists what there is; so does the command alone.")
  private boolean list;

  @Option(
      names = "--to",
      paramLabel = "PROJECT",
      description = "Writes the latest, or the one numbered, into a new project file.")
  private Path to;

  @Parameters(
      arity = "0..1",
      paramLabel = "NUMBER",
      defaultValue = "1",
      description = "Which of the list, 1 the latest (default: ${DEFAULT-VALUE}).")
  private int number;

  @Option(names = "--json", description = "Prints one JSON object instead of text.")
  private boolean json;

  @Override
  public Integer call() {
    Journals journals = new Journals(UserFolders.work().resolve("journals"));
    List<Recovered> left = journals.left();
    PrintWriter out = spec.commandLine().getOut();
    if (to == null) {
      List<Path> unreadable = journals.unreadable();
      out.println(json ? jsonOf(left, unreadable) : textOf(left, unreadable));
      return 0;
    }
    if (number < 1 || number > left.size()) {
      throw new Problem(
          left.isEmpty()
              ? "There is nothing to give back: everything was saved."
              : "There is no number %d: 'hushrise recover' lists %d."
                  .formatted(number, left.size()));
    }
    if (Files.exists(to)) {
      throw new Problem("%s is there already: give another name.".formatted(to));
    }
    Recovered chosen = left.get(number - 1);
    ProjectFile.save(chosen.history().present(), to);
    journals.discard(chosen);
    out.println(
        json
            ? factsOf(chosen).put("output", to.toString()).toString()
            : "%s: %s, %s, the last %s"
                .formatted(to, nameOf(chosen), stepsOf(chosen), timeOf(chosen)));
    return 0;
  }

  private static String jsonOf(List<Recovered> left, List<Path> unreadable) {
    ArrayNode all = JsonNodeFactory.instance.arrayNode();
    left.forEach(recovered -> all.add(factsOf(recovered)));
    for (Path journal : unreadable) {
      ObjectNode facts = all.addObject();
      facts.putNull("project");
      facts.put("name", journal.getFileName().toString());
      facts.putNull("lastEditAt");
      facts.putNull("steps");
      facts.put("recoverable", false);
    }
    return JsonNodeFactory.instance.objectNode().set("left", all).toString();
  }

  private static ObjectNode factsOf(Recovered recovered) {
    ObjectNode facts = JsonNodeFactory.instance.objectNode();
    facts.put("project", recovered.project().map(Path::toString).orElse(null));
    facts.put("name", recovered.name());
    facts.put("lastEditAt", recovered.lastEditAt().toString());
    facts.put("steps", recovered.steps());
    facts.put("recoverable", true);
    return facts;
  }

  private static String textOf(List<Recovered> left, List<Path> unreadable) {
    if (left.isEmpty() && unreadable.isEmpty()) {
      return "Nothing is left to give back: everything was saved.";
    }
    StringBuilder text = new StringBuilder();
    for (int i = 0; i < left.size(); i++) {
      Recovered one = left.get(i);
      text.append(
          "%2d  %s, %s not saved, the last %s, %s%n"
              .formatted(
                  i + 1,
                  nameOf(one),
                  stepsOf(one),
                  timeOf(one),
                  one.project().map(Path::toString).orElse("never saved")));
    }
    for (Path journal : unreadable) {
      text.append(" -  %s holds nothing that can be given back%n".formatted(journal));
    }
    return text + "'hushrise recover --to PROJECT [NUMBER]' writes one into a project.";
  }

  private static String stepsOf(Recovered one) {
    return one.steps() == 1 ? "one step" : one.steps() + " steps";
  }

  private static String nameOf(Recovered one) {
    return one.name().isBlank() ? "a project without a name" : one.name();
  }

  private static String timeOf(Recovered one) {
    return TIME.format(one.lastEditAt().atZone(ZoneId.systemDefault()));
  }
}
