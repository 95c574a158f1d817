package hushrise.bundle;

import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/**
 * Runs the program's real work once, so that Java keeps which classes it loaded, how they hang
 * together and what was worth compiling (JEP 483, 514, 515).
 *
 * @param image what is run
 * @param demo the demo's files
 * @param scratch a folder for what comes out, which is not kept
 */
record Training(Image image, Path demo, Path scratch) {

  void run() throws IOException {
    Files.createDirectories(scratch);
    train(
        Launch.COMMAND_LINE,
        "hushrise",
        List.of(),
        List.of("hushrise.cli.TrialRun", demo.toString(), scratch.toString()));
    train(
        Launch.WINDOW,
        "hush-rise",
        List.of("-Dglass.platform=Headless", "-Dprism.order=sw"),
        List.of(
            "hushrise.app.window.Main",
            demo.resolve("first-ferry.hushrise").toString(),
            "--trial"));
  }

  private void train(Launch launch, String launcher, List<String> unseen, List<String> arguments)
      throws IOException {
    List<String> command = new ArrayList<>();
    command.add(image.java().toString());
    command.add("-XX:AOTCacheOutput=" + image.libraries().resolve(launch.cache()));
    command.add("-Xlog:disable");
    for (String option : launch.trainingOptions()) {
      command.add(option.replace("$APPDIR", image.libraries().toString()));
    }
    command.addAll(unseen);
    command.add("-cp");
    command.add(String.join(File.pathSeparator, image.classPath(launcher)));
    command.addAll(arguments);
    ProcessBuilder process = new ProcessBuilder(command).redirectErrorStream(true);
    process.environment().put("HUSHRISE_FIRST_LOOK", "off");
    process.environment().put("HUSHRISE_CACHE", scratch.resolve("cache").toString());
    process.environment().put("HUSHRISE_SETTINGS", scratch.resolve("settings").toString());
    process.redirectOutput(scratch.resolve(launch.cache() + ".log").toFile());
    try {
      int code = process.start().waitFor();
      if (code != 0 || !Files.exists(image.libraries().resolve(launch.cache()))) {
        throw new IllegalStateException(
            "The trial run ended with %d: %s"
                .formatted(code, Files.readString(scratch.resolve(launch.cache() + ".log"))));
      }
    } catch (InterruptedException e) {
      throw new IllegalStateException("The trial run was interrupted.", e);
    }
  }
}
