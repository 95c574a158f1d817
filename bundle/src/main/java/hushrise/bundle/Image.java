package hushrise.bundle;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;

/**
 * The program as jpackage has put it together.
 *
 * @param folder all of it
 * @param libraries where its libraries lie
 * @param java its runtime's java
 */
record Image(Path folder, Path libraries, Path java) {

  /** What stands on the class path, in the order in which the launchers have it. */
  List<String> classPath(String launcher) throws IOException {
    String entry = "app.classpath=$APPDIR";
    return Files.readAllLines(libraries.resolve(launcher + ".cfg")).stream()
        .filter(line -> line.startsWith(entry))
        .map(line -> libraries + line.substring(entry.length()))
        .toList();
  }
}
