package hushrise.bundle;

import java.io.ByteArrayOutputStream;
import java.io.DataOutputStream;
import java.io.File;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.stream.Stream;

/** What differs between systems: where jpackage puts things, and the kind of icon it takes. */
enum Platform {
  LINUX,
  WINDOWS,
  MAC;

  static Platform ofThis() {
    String name = System.getProperty("os.name").toLowerCase(Locale.ROOT);
    return name.startsWith("windows") ? WINDOWS : name.startsWith("mac") ? MAC : LINUX;
  }

  /** The folder of this platform's libraries in the ONNX runtime's archive. */
  String onnxFolder() {
    String system =
        switch (this) {
          case LINUX -> "linux";
          case WINDOWS -> "win";
          case MAC -> "osx";
        };
    return system + (System.getProperty("os.arch").equals("aarch64") ? "-aarch64" : "-x64");
  }

  Image imageIn(Path target) {
    return switch (this) {
      case LINUX -> {
        Path folder = target.resolve("hush-rise");
        yield new Image(folder, folder.resolve("lib/app"), folder.resolve("lib/runtime/bin/java"));
      }
      case WINDOWS -> {
        Path folder = target.resolve("hush-rise");
        yield new Image(folder, folder.resolve("app"), folder.resolve("runtime/bin/java.exe"));
      }
      case MAC -> {
        Path folder = target.resolve("hush-rise.app");
        yield new Image(
            folder,
            folder.resolve("Contents/app"),
            folder.resolve("Contents/runtime/Contents/Home/bin/java"));
      }
    };
  }

  /** Whether a Debian package can be made here. */
  boolean makesDeb() {
    return this == LINUX && onPath("dpkg-deb") && onPath("fakeroot");
  }

  private static boolean onPath(String program) {
    return Stream.of(System.getenv("PATH").split(File.pathSeparator))
        .anyMatch(folder -> Files.isExecutable(Path.of(folder, program)));
  }

  /** The icon in this system's kind of file, around the same PNG of 256 by 256 pixels. */
  Path icon(Path png, Path folder) throws IOException {
    byte[] picture = Files.readAllBytes(png);
    return switch (this) {
      case LINUX -> png;
      case WINDOWS -> Files.write(folder.resolve("icon.ico"), ico(picture));
      case MAC -> Files.write(folder.resolve("icon.icns"), icns(picture));
    };
  }

  /**
   * One picture in an ICO: a folder of one entry (width and height 0 stand for 256), then the PNG.
   */
  private static byte[] ico(byte[] png) {
    return ByteBuffer.allocate(22 + png.length)
        .order(ByteOrder.LITTLE_ENDIAN)
        .putShort((short) 0)
        .putShort((short) 1)
        .putShort((short) 1)
        .putInt(0)
        .putShort((short) 1)
        .putShort((short) 32)
        .putInt(png.length)
        .putInt(22)
        .put(png)
        .array();
  }

  /** One picture in an ICNS: kind {@code ic08} is a PNG of 256 by 256 pixels. */
  private static byte[] icns(byte[] png) throws IOException {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try (DataOutputStream out = new DataOutputStream(bytes)) {
      out.write("icns".getBytes(StandardCharsets.US_ASCII));
      out.writeInt(16 + png.length);
      out.write("ic08".getBytes(StandardCharsets.US_ASCII));
      out.writeInt(8 + png.length);
      out.write(png);
    }
    return bytes.toByteArray();
  }
}
