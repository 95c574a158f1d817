package hushrise.core.exchange;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/**
 * Files as timelines name them: {@code file:} addresses (RFC 8089), or paths beside the timeline.
 */
final class FileUrl {

  private static final String FILE = "file://";
  private static final String SCHEME = "file:";

  /** An address of another kind; one letter is a drive. */
  private static final Pattern ELSEWHERE = Pattern.compile("(?s)(?!file:)[A-Za-z][\\w+.-]+:.*");

  private static final Pattern WINDOWS = Pattern.compile("(?s)[A-Za-z]:\\\\.*");
  private static final String PLAIN = "-._~/:";

  private FileUrl() {}

  /** A file's address. */
  static String of(Path file) {
    String path = file.toAbsolutePath().normalize().toString().replace('\\', '/');
    StringBuilder url = new StringBuilder(FILE).append(path.startsWith("/") ? "" : "/");
    for (byte b : path.getBytes(StandardCharsets.UTF_8)) {
      char c = (char) (b & 0xFF);
      boolean plain = c < 0x80 && (Character.isLetterOrDigit(c) || PLAIN.indexOf(c) >= 0);
      url.append(plain ? String.valueOf(c) : "%%%02X".formatted((int) c));
    }
    return url.toString();
  }

  /**
   * The file that an address or a path means.
   *
   * @param folder from which a path counts
   * @throws IllegalArgumentException when it is no file of this machine
   */
  static Path pathOf(String url, Path folder) {
    if (!url.startsWith(SCHEME)) {
      return folder.resolve(url);
    }
    String rest = url.substring(SCHEME.length());
    if (rest.startsWith("//")) {
      int slash = rest.indexOf('/', 2);
      String host = rest.substring(2, slash < 0 ? rest.length() : slash);
      if (slash < 0 || !(host.isEmpty() || host.equals("localhost"))) {
        throw new IllegalArgumentException("on another machine: " + url);
      }
      rest = rest.substring(slash);
    }
    String path = decoded(rest);
    return Path.of(path.matches("/[A-Za-z]:.*") ? path.substring(1) : path);
  }

  /**
   * The file that is meant: the first that is there of what the address says, of that with its
   * codes resolved, and of a file with that name beside the timeline; where none is there, what the
   * address says.
   *
   * @param folder the timeline's
   * @return empty when it is no file of this machine
   */
  static Optional<Path> find(String url, Path folder) {
    String said = WINDOWS.matcher(url).matches() ? url.replace('\\', '/') : url;
    if (ELSEWHERE.matcher(said).matches()) {
      return Optional.empty();
    }
    try {
      Path plain = pathOf(said, folder);
      Path decoded = said.startsWith(SCHEME) ? plain : folder.resolve(decoded(said));
      Path name = decoded.getFileName();
      Path beside = name == null ? decoded : folder.resolve(name);
      return Stream.of(plain, decoded, beside)
          .filter(Files::exists)
          .findFirst()
          .or(() -> Optional.of(decoded))
          .map(p -> p.toAbsolutePath().normalize());
    } catch (IllegalArgumentException e) {
      return Optional.empty();
    }
  }

  private static String decoded(String text) {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    for (int i = 0; i < text.length(); i++) {
      boolean coded = text.charAt(i) == '%' && text.substring(i).matches("(?s)%[0-9A-Fa-f]{2}.*");
      if (coded) {
        bytes.write(Integer.parseInt(text.substring(i + 1, i + 3), 16));
        i += 2;
      } else {
        bytes.writeBytes(text.substring(i, i + 1).getBytes(StandardCharsets.UTF_8));
      }
    }
    return bytes.toString(StandardCharsets.UTF_8);
  }
}
