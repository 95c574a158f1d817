package hushrise.media;

import ai.onnxruntime.OrtEnvironment;
import hushrise.core.Problem;
import hushrise.core.store.AtomicFile;
import java.io.IOException;
import java.io.InputStream;
import java.net.URL;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * The ONNX runtime's own libraries. By itself it unpacks them into the temporary folder at each
 * start, where they stay when the program is killed; here they are unpacked once, beside FFmpeg's.
 */
final class OnnxLibraries {

  private static final Logger LOG = LoggerFactory.getLogger(OnnxLibraries.class);

  /** Where the runtime looks for them, when it is told. */
  private static final String PLACE = "onnxruntime.native.path";

  private OnnxLibraries() {}

  /**
   * Sees to it that they lie where the runtime finds them; where that fails it unpacks them itself.
   */
  static synchronized void unpackOnce() {
    if (System.getProperty(PLACE) != null) {
      return;
    }
    try {
      Path folder = UserFolders.libraries().resolve("onnxruntime");
      Files.createDirectories(folder);
      for (String name : List.of("onnxruntime", "onnxruntime4j_jni")) {
        unpack(System.mapLibraryName(name), folder);
      }
      System.setProperty(PLACE, folder.toString());
    } catch (IOException | Problem e) {
      LOG.debug("The ONNX runtime unpacks its libraries itself", e);
    }
  }

  private static void unpack(String file, Path folder) throws IOException {
    URL packed = OrtEnvironment.class.getResource("native/" + platform() + "/" + file);
    if (packed == null) {
      throw new IOException("No library " + file + " for " + platform());
    }
    Path target = folder.resolve(file);
    var connection = packed.openConnection();
    try (InputStream in = connection.getInputStream()) {
      if (!Files.exists(target) || Files.size(target) != connection.getContentLengthLong()) {
        AtomicFile.write(target, in.readAllBytes());
      }
    }
  }

  /** The name of this platform's folder in the runtime's archive. */
  private static String platform() {
    String system = System.getProperty("os.name").toLowerCase(Locale.ROOT);
    boolean arm = System.getProperty("os.arch").equals("aarch64");
    String name = system.startsWith("windows") ? "win" : system.startsWith("mac") ? "osx" : "linux";
    return name + (arm ? "-aarch64" : "-x64");
  }
}
