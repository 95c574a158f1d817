package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.bytedeco.javacpp.Loader;

/**
 * The FFmpeg program that comes with its libraries: makes test files and looks at results from
 * outside.
 */
final class FfmpegProgram {

  private FfmpegProgram() {}

  /** Runs it with arguments; {@code OUT} stands for the output. */
  static Path make(Path output, String arguments) {
    List<String> command =
        new ArrayList<>(
            List.of(Loader.load(org.bytedeco.ffmpeg.ffmpeg.class), "-v", "error", "-y"));
    command.addAll(List.of(arguments.split(" ")));
    command.add(output.toString());
    assertThat(run(command)).as("ffmpeg %s", arguments).isEmpty();
    return output;
  }

  /** A digest of the picture packets of a file, in order. */
  static String pictureDigest(Path file) {
    return run(
        List.of(
            Loader.load(org.bytedeco.ffmpeg.ffmpeg.class),
            "-v",
            "error",
            "-i",
            file.toString(),
            "-map",
            "0:v",
            "-c",
            "copy",
            "-f",
            "md5",
            "-"));
  }

  private static String run(List<String> command) {
    try {
      Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
      process.getOutputStream().close();
      String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
      process.waitFor();
      return said;
    } catch (IOException e) {
      throw new AssertionError(e);
    } catch (InterruptedException e) {
      throw new AssertionError(e);
    }
  }
}
