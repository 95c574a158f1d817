package hushrise.bundle;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.spi.ToolProvider;
import java.util.stream.Stream;

/**
 * Makes a program that needs no Java: the libraries, the demo, the manual and a runtime of its own,
 * put together by the JDK's jlink and jpackage for the platform that this runs on, then run once on
 * the demo for the cache of loaded and compiled classes.
 */
public final class MakeBundle {

  private static final String VERSION = "0.1.0";
  private static final String JAR = "hushrise-%s-0.1.0-SNAPSHOT.jar";

  private static final Instant DATE = Instant.parse("2026-11-24T00:00:00Z");

  /** What the libraries use of Java, and what JavaFX needs besides. */
  private static final String MODULES =
      "java.desktop,java.logging,java.management,java.naming,java.prefs,java.sql,java.xml,"
          + "jdk.charsets,jdk.jfr,jdk.localedata,jdk.unsupported,jdk.zipfs,javafx.controls";

  private final Path root;
  private final Path target;
  private final Platform platform = Platform.ofThis();

  private MakeBundle(Path root) {
    this.root = root;
    this.target = root.resolve("bundle/target/bundle");
  }

  /**
   * @param args the project's folder, in which app and cli are built
   */
  public static void main(String[] args) throws IOException {
    new MakeBundle(Path.of(args[0]).toAbsolutePath().normalize()).make();
  }

  private void make() throws IOException {
    remove(target);
    Files.createDirectories(target);
    Path input = gathered();
    Path runtime = target.resolve("runtime");
    say("Its own Java runtime ...");
    run(
        "jlink",
        List.of(
            "--module-path",
            root.resolve("app/target/javafx").toString(),
            "--add-modules",
            MODULES,
            "--no-header-files",
            "--no-man-pages",
            "--strip-java-debug-attributes",
            "--compress",
            "zip-6",
            "--output",
            runtime.toString()));
    say("The program ...");
    run("jpackage", imageOptions(input, runtime));
    Image image = platform.imageIn(target);
    date(image.libraries());
    say("Running it once on the demo, for Java's cache of classes ...");
    new Training(image, root.resolve("demo/data"), target.resolve("trial")).run();
    say("The program is in " + image.folder());
    if (platform.makesDeb()) {
      makeDeb(image);
      try (Stream<Path> all = Files.list(target)) {
        all.filter(p -> p.toString().endsWith(".deb")).forEach(p -> say("and " + p));
      }
    } else {
      say("(No .deb: that needs dpkg-deb and fakeroot.)");
    }
    for (Path used : List.of(input, runtime, target.resolve("trial"))) {
      remove(used);
    }
  }

  /** Everything that stands beside the runtime, in one folder. */
  private Path gathered() throws IOException {
    Path input = Files.createDirectories(target.resolve("input"));
    for (String module : List.of("app", "cli")) {
      Path built = root.resolve(module).resolve("target");
      copy(built.resolve(JAR.formatted(module)), input);
      copyAll(built.resolve("lib"), input);
    }
    copyAll(root.resolve("demo/data"), Files.createDirectories(input.resolve("demo")));
    OnnxJar.unpack(input, platform.onnxFolder(), Files.createDirectories(input.resolve("natives")));
    Manual.writeInto(Files.createDirectories(input.resolve("manual")));
    for (String text : List.of("LICENSE", "THIRD-PARTY.md")) {
      copy(root.resolve(text), input);
    }
    return input;
  }

  private List<String> imageOptions(Path input, Path runtime) throws IOException {
    Path second = target.resolve("hushrise.properties");
    Files.writeString(
        second,
        "main-jar=%s\nmain-class=hushrise.cli.HushRise\njava-options=%s\nwin-console=true\nlinux-shortcut=false\n"
            .formatted(JAR.formatted("cli"), String.join(" ", Launch.COMMAND_LINE.options())));
    List<String> options =
        new ArrayList<>(
            List.of(
                "--type",
                "app-image",
                "--name",
                "hush-rise",
                "--app-version",
                VERSION,
                "--description",
                "Puts music under narration.",
                "--vendor",
                "Hush Rise",
                "--input",
                input.toString(),
                "--runtime-image",
                runtime.toString(),
                "--main-jar",
                JAR.formatted("app"),
                "--main-class",
                "hushrise.app.window.Main",
                "--icon",
                platform
                    .icon(root.resolve("app/src/main/resources/hushrise/app/icon.png"), target)
                    .toString(),
                "--add-launcher",
                "hushrise=" + second,
                "--dest",
                target.toString()));
    for (String option : Launch.WINDOW.options()) {
      options.addAll(List.of("--java-options", option));
    }
    return options;
  }

  /**
   * As a process of its own, as dpkg-deb takes the date of the files from its environment: jpackage
   * gives its copies another, and then Java refuses the cache of classes.
   */
  private void makeDeb(Image image) throws IOException {
    ProcessBuilder jpackage = new ProcessBuilder(debCommand(image)).inheritIO();
    jpackage.environment().put("SOURCE_DATE_EPOCH", Long.toString(DATE.getEpochSecond()));
    try {
      int code = jpackage.start().waitFor();
      if (code != 0) {
        throw new IllegalStateException("jpackage ended with " + code + ".");
      }
    } catch (InterruptedException e) {
      throw new IllegalStateException("Making the .deb was interrupted.", e);
    }
  }

  private List<String> debCommand(Image image) {
    return List.of(
        Path.of(System.getProperty("java.home"), "bin", "jpackage").toString(),
        "--type",
        "deb",
        "--name",
        "hush-rise",
        "--app-version",
        VERSION,
        "--description",
        "Puts music under narration: places it, hushes it where somebody speaks",
        "--app-image",
        image.folder().toString(),
        "--file-associations",
        root.resolve("bundle/hushrise.properties").toString(),
        "--linux-menu-group",
        "AudioVideo",
        "--linux-deb-maintainer",
        "hush-rise@localhost",
        "--linux-package-deps",
        "libgtk-3-0t64 | libgtk-3-0, libgl1, libxxf86vm1",
        "--resource-dir",
        root.resolve("bundle/src/main/deb").toString(),
        "--dest",
        target.toString());
  }

  /** Gives all files one date, which they keep wherever they are copied to. */
  private static void date(Path folder) throws IOException {
    try (Stream<Path> all = Files.walk(folder)) {
      for (Path file : all.toList()) {
        Files.setLastModifiedTime(file, FileTime.from(DATE));
      }
    }
  }

  private static void run(String tool, List<String> options) {
    ToolProvider found =
        ToolProvider.findFirst(tool)
            .orElseThrow(() -> new IllegalStateException("This Java has no " + tool + "."));
    int code = found.run(System.out, System.err, options.toArray(String[]::new));
    if (code != 0) {
      throw new IllegalStateException(tool + " ended with " + code + ".");
    }
  }

  private static void copyAll(Path from, Path to) throws IOException {
    try (Stream<Path> all = Files.list(from)) {
      for (Path file : all.filter(Files::isRegularFile).toList()) {
        copy(file, to);
      }
    }
  }

  private static void copy(Path file, Path folder) throws IOException {
    Files.copy(
        file,
        folder.resolve(file.getFileName()),
        StandardCopyOption.REPLACE_EXISTING,
        StandardCopyOption.COPY_ATTRIBUTES);
  }

  /** Removes a folder with all that is in it, where it is there. */
  static void remove(Path folder) throws IOException {
    if (!Files.exists(folder)) {
      return;
    }
    try (Stream<Path> all = Files.walk(folder)) {
      all.sorted(Comparator.reverseOrder())
          .forEach(
              path -> {
                try {
                  Files.delete(path);
                } catch (IOException e) {
                  throw new UncheckedIOException(e);
                }
              });
    }
  }

  private static void say(String words) {
    System.err.println(words);
  }
}
