package hushrise.core.store;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.Optional;

/** What tells contents from one another: SHA-256, in hexadecimal digits. */
public final class ContentDigest {

  private ContentDigest() {}

  /** That of some bytes. */
  public static String of(byte[] bytes) {
    try {
      return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException("Every Java has SHA-256", e);
    }
  }

  /** The first digits of a text's, enough to name a file by. */
  static String shortOf(String text) {
    return of(text.getBytes(StandardCharsets.UTF_8)).substring(0, 12);
  }

  /** That of a small file; empty when it is not there or cannot be read. */
  public static Optional<String> ofFile(Path file) {
    try {
      return Optional.of(of(Files.readAllBytes(file)));
    } catch (IOException e) {
      return Optional.empty();
    }
  }
}
