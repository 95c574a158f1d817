package hushrise.media;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** Stands in for {@link LookingMain}; what it meets with is what the file is called. */
public final class HarmedLooker {

  private HarmedLooker() {}

  static List<String> command() {
    return List.of(
        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
        "-cp",
        System.getProperty("java.class.path"),
        HarmedLooker.class.getName());
  }

  public static void main(String[] args) throws IOException, InterruptedException {
    BufferedReader asked =
        new BufferedReader(new InputStreamReader(System.in, StandardCharsets.US_ASCII));
    for (String line = asked.readLine(); line != null; line = asked.readLine()) {
      String file = LookingMain.Asked.in(line).file().toString();
      if (file.contains("dies")) {
        Runtime.getRuntime().halt(134);
      } else if (file.contains("hangs")) {
        Thread.sleep(600_000);
      } else if (file.contains("eats")) {
        eat();
      }
      System.out.println(LookingMain.DONE);
    }
  }

  private static void eat() throws InterruptedException {
    List<ByteBuffer> eaten = new ArrayList<>();
    for (int i = 0; i < 12; i++) {
      ByteBuffer piece = ByteBuffer.allocateDirect(16 << 20);
      while (piece.hasRemaining()) {
        piece.put((byte) i);
      }
      eaten.add(piece);
    }
    Thread.sleep(600_000);
    System.out.println(eaten);
  }
}
