package hushrise.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.io.TempDir;

/** Calls the command line on the demo's own files. */
abstract class CommandLineTestCase {

  static final Path DEMO = Path.of("../demo/data");
  static final ObjectMapper JSON = new ObjectMapper();

  @TempDir Path folder;

  /**
   * What a call gave.
   *
   * @param code exit code
   * @param out standard output
   * @param err standard error
   */
  record Answer(int code, String out, String err) {
    JsonNode json() throws IOException {
      assertThat(code).as(err).isZero();
      assertThat(out.strip().lines()).hasSize(1);
      return JSON.readTree(out);
    }
  }

  static Answer call(String... args) {
    StringWriter out = new StringWriter();
    StringWriter err = new StringWriter();
    int code = HushRise.run(args, new PrintWriter(out, true), new PrintWriter(err, true));
    return new Answer(code, out.toString(), err.toString());
  }

  String[] make(String output, String... more) {
    List<String> args =
        new ArrayList<>(
            List.of(
                "make",
                "--picture",
                DEMO.resolve("first-ferry.mp4").toString(),
                "--voice",
                DEMO.resolve("narration-1.flac") + "@6",
                "--voice",
                DEMO.resolve("narration-2.flac") + "@25.5",
                "--voice",
                DEMO.resolve("narration-3.flac") + "@47",
                "--music",
                DEMO.resolve("harbour-tune.mp3").toString(),
                "--effects",
                DEMO.resolve("ferry-horn.flac") + "@18.2",
                "--to",
                folder.resolve(output).toString()));
    args.addAll(List.of(more));
    return args.toArray(String[]::new);
  }

  /** The program in a process of its own; what it says of either kind is its output. */
  Process start(String... arguments) throws IOException {
    return startAfter(List.of(), arguments);
  }

  /**
   * Likewise, at the end of another command.
   *
   * @param before such as a shell that sets limits
   */
  Process startAfter(List<String> before, String... arguments) throws IOException {
    List<String> command = new ArrayList<>(before);
    command.addAll(
        List.of(
            Path.of(System.getProperty("java.home"), "bin", "java").toString(),
            "-XX:TieredStopAtLevel=1",
            "-XX:-UsePerfData",
            "--enable-native-access=ALL-UNNAMED",
            "--sun-misc-unsafe-memory-access=allow",
            "-cp",
            System.getProperty("java.class.path"),
            HushRise.class.getName()));
    command.addAll(List.of(arguments));
    ProcessBuilder builder = new ProcessBuilder(command).redirectErrorStream(true);
    builder.environment().put("HUSHRISE_CACHE", folder.resolve("cache").toString());
    return builder.start();
  }
}
