package hushrise.bench;

import hushrise.core.Ids;
import hushrise.core.Problem;
import hushrise.core.exchange.Otio;
import hushrise.core.exchange.OtioReader;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.sound.Progress;
import hushrise.core.speech.Captions;
import hushrise.core.store.ProjectFile;
import java.io.IOException;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Optional;

/**
 * What Jazzer feeds: it changes files and keeps those that reach code that none reached before. The
 * first byte says which reader takes the rest. Each has to be read, or refused with one of our own
 * sentences.
 */
public final class GuidedFuzz {

  private static final OtioReader.Taker ANYTHING =
      new OtioReader.Taker() {
        @Override
        public Media take(Path file, MediaKind kind, Progress progress) {
          return new Media(Ids.fresh("m"), file, kind, 10L * RATE, true, Optional.empty(), "");
        }

        @Override
        public MediaKind guessKind(Path file, Progress progress) {
          return MediaKind.MUSIC;
        }
      };

  private static final String[] ENDINGS = {".hushrise", ".vtt", ".otio"};
  private static final int RATE = 48_000;

  private static Path folder;

  private GuidedFuzz() {}

  /**
   * Writes what the search begins with.
   *
   * @param args the demo's folder, and a folder for files to begin with
   */
  public static void main(String[] args) throws IOException {
    Path demo = Path.of(args[0]).toAbsolutePath().resolve("first-ferry.hushrise");
    Path seeds = Files.createDirectories(Path.of(args[1]));
    Project project = ProjectFile.load(demo);
    seed(seeds, 0, Files.readAllBytes(demo));
    seed(seeds, 1, Fuzz.captions().getBytes(StandardCharsets.UTF_8));
    seed(seeds, 2, Otio.bytes(project, demo));
  }

  private static void seed(Path seeds, int reader, byte[] content) throws IOException {
    byte[] all = new byte[content.length + 1];
    all[0] = (byte) reader;
    System.arraycopy(content, 0, all, 1, content.length);
    Files.write(seeds.resolve("seed" + ENDINGS[reader]), all);
  }

  /** Called by Jazzer, once. */
  public static void fuzzerInitialize() throws IOException {
    folder = Scratch.folder();
  }

  /** Called by Jazzer with each input; what it throws is a finding. */
  public static void fuzzerTestOneInput(byte[] input) throws IOException {
    if (input.length == 0) {
      return;
    }
    int reader = Math.floorMod(input[0], ENDINGS.length);
    Path file = folder.resolve("tried" + ENDINGS[reader]);
    Files.write(file, Arrays.copyOfRange(input, 1, input.length));
    try {
      read(reader, file);
    } catch (Problem | CharacterCodingException refused) {
      requireSentence(refused);
    }
  }

  private static void read(int reader, Path file) throws IOException {
    switch (reader) {
      case 0 -> ProjectFile.load(file);
      case 1 -> Captions.read(file, RATE);
      default -> OtioReader.read(file, ANYTHING, Progress.NONE);
    }
  }

  private static void requireSentence(Exception refused) {
    boolean said = refused.getMessage() != null && refused.getMessage().contains(" ");
    if (refused instanceof Problem && !said) {
      throw new IllegalStateException("Refused without a sentence", refused);
    }
  }
}
