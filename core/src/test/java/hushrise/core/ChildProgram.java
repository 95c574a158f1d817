package hushrise.core;

import java.io.BufferedReader;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** A program in a process of its own, so that a test can kill it. */
public final class ChildProgram {

  private ChildProgram() {}

  /** Starts a class of the tests; what it complains of is not kept. */
  public static Process start(Class<?> main, String... arguments) throws IOException {
    List<String> command =
        new ArrayList<>(
            List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-XX:TieredStopAtLevel=1",
                "-cp",
                System.getProperty("java.class.path"),
                main.getName()));
    command.addAll(List.of(arguments));
    return new ProcessBuilder(command).redirectError(ProcessBuilder.Redirect.DISCARD).start();
  }

  /** What it says next; null once it has ended or was killed. */
  public static String next(BufferedReader said) {
    try {
      return said.readLine();
    } catch (IOException killed) {
      return null;
    }
  }
}
