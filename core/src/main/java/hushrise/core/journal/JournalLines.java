package hushrise.core.journal;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.Optional;
import java.util.zip.CRC32C;

/**
 * The lines of a journal: eight hexadecimal digits of a checksum (CRC-32C of the number of the line
 * and its text), a space, and JSON. What follows the first line that is not whole does not count.
 */
final class JournalLines {

  private static final ObjectMapper JSON = new ObjectMapper();
  private static final int DIGITS = 8;

  private final byte[] bytes;
  private int number;
  private int at;

  /** Reads the lines of a journal. */
  JournalLines(byte[] bytes) {
    this.bytes = bytes;
  }

  /** A line as it is written. */
  static byte[] line(int number, JsonNode record) {
    try {
      byte[] text = JSON.writeValueAsBytes(record);
      byte[] line = new byte[DIGITS + 1 + text.length + 1];
      byte[] sum = sum(number, text).getBytes(StandardCharsets.US_ASCII);
      System.arraycopy(sum, 0, line, 0, DIGITS);
      line[DIGITS] = ' ';
      System.arraycopy(text, 0, line, DIGITS + 1, text.length);
      line[line.length - 1] = '\n';
      return line;
    } catch (JsonProcessingException e) {
      throw new IllegalStateException("A record that is no JSON", e);
    }
  }

  /** The next line's record; empty at the end of what is whole. */
  Optional<JsonNode> next() {
    int end = at;
    while (end < bytes.length && bytes[end] != '\n') {
      end++;
    }
    if (end >= bytes.length || end < at + DIGITS + 1 || bytes[at + DIGITS] != ' ') {
      return Optional.empty();
    }
    byte[] text = Arrays.copyOfRange(bytes, at + DIGITS + 1, end);
    String sum = new String(bytes, at, DIGITS, StandardCharsets.US_ASCII);
    if (!sum.equals(sum(number, text))) {
      return Optional.empty();
    }
    try {
      JsonNode record = JSON.readTree(text);
      at = end + 1;
      number++;
      return Optional.of(record);
    } catch (IOException e) {
      return Optional.empty();
    }
  }

  /** How many lines were whole so far. */
  int number() {
    return number;
  }

  /** Where the lines that were whole so far end, in bytes. */
  int end() {
    return at;
  }

  private static String sum(int number, byte[] text) {
    CRC32C crc = new CRC32C();
    crc.update(number & 0xFF);
    crc.update(number >> 8 & 0xFF);
    crc.update(number >> 16 & 0xFF);
    crc.update(number >> 24 & 0xFF);
    crc.update(text);
    return HexFormat.of().toHexDigits((int) crc.getValue());
  }
}
