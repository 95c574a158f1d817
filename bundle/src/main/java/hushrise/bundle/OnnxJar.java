package hushrise.bundle;

import java.io.IOException;
import java.nio.file.FileSystem;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;

/**
 * The ONNX runtime's archive carries libraries for five platforms and their debug symbols. One
 * platform's are laid beside it, where the runtime finds them without unpacking; all leave it.
 */
final class OnnxJar {

  private static final List<String> LIBRARIES = List.of("onnxruntime", "onnxruntime4j_jni");

  private OnnxJar() {}

  /**
   * @param libraries the folder in which the archive lies
   * @param platform the platform's folder in it
   * @param natives gets the platform's libraries
   */
  static void unpack(Path libraries, String platform, Path natives) throws IOException {
    Path jar;
    try (Stream<Path> all = Files.list(libraries)) {
      jar =
          all.filter(p -> p.getFileName().toString().startsWith("onnxruntime-"))
              .findFirst()
              .orElseThrow();
    }
    try (FileSystem inside = FileSystems.newFileSystem(jar)) {
      Path packed = inside.getPath("ai/onnxruntime/native");
      for (String library : LIBRARIES) {
        String file = System.mapLibraryName(library);
        Files.copy(packed.resolve(platform).resolve(file), natives.resolve(file));
      }
      try (Stream<Path> all = Files.walk(packed)) {
        for (Path path : all.sorted(Comparator.reverseOrder()).toList()) {
          Files.delete(path);
        }
      }
    }
  }
}
