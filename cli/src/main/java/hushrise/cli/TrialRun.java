package hushrise.cli;

import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.List;

/**
 * Runs the commands that people use, one after another, on the demo. Java keeps which classes that
 * took and what was worth compiling, so that each of them starts as fast as a program can.
 */
public final class TrialRun {

  private TrialRun() {}

  /**
   * @param args the demo's folder, and one for what comes out
   */
  public static void main(String[] args) {
    PrintWriter out = new PrintWriter(System.out, true);
    PrintWriter err = new PrintWriter(System.err, true);
    for (List<String> command : commands(Path.of(args[0]), Path.of(args[1]))) {
      int code = HushRise.run(command.toArray(String[]::new), out, err);
      if (code != 0) {
        err.println("The trial run failed at: hushrise " + String.join(" ", command));
        System.exit(code);
      }
    }
  }

  static List<List<String>> commands(Path demo, Path folder) {
    String voice = demo.resolve("narration-1.flac").toString();
    String music = demo.resolve("harbour-tune.mp3").toString();
    String project = folder.resolve("trial.hushrise").toString();
    String sound = folder.resolve("trial.wav").toString();
    return List.of(
        List.of(
            "make",
            "--picture=" + demo.resolve("first-ferry.mp4"),
            "--voice=" + voice + "@6",
            "--music=" + music,
            "--loudness=-16",
            "--to=" + folder.resolve("trial.mp4"),
            "--save=" + project,
            "--json"),
        List.of("render", project, "--to=" + sound),
        List.of("measure", sound),
        List.of("measure", music, "--json"),
        List.of("speech", voice),
        List.of("fit", music, "--length=60", "--to=" + folder.resolve("fitted.wav")),
        List.of("credits", project),
        List.of("exchange", project, "--to=" + folder.resolve("trial.otio")),
        List.of("--version"));
  }
}
