package hushrise.bundle;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;

/** The two ways in, and how Java is started for each. */
enum Launch {
  WINDOW(
      "window.aot",
      List.of(
          "-Xms160m",
          "-Xmx512m",
          "-XX:+AlwaysPreTouch",
          "-XX:MetaspaceSize=128m",
          "--enable-native-access=ALL-UNNAMED,javafx.graphics",
          "--add-modules=javafx.controls",
          "-Dhushrise.demo=$APPDIR/demo/first-ferry.hushrise")),
  COMMAND_LINE("command-line.aot", List.of("-Xmx1g", "--enable-native-access=ALL-UNNAMED"));

  private static final List<String> BOTH =
      List.of(
          "-XX:+UseSerialGC",
          "--sun-misc-unsafe-memory-access=allow",
          "-Donnxruntime.native.path=$APPDIR/natives");

  private final String cache;
  private final List<String> own;

  Launch(String cache, List<String> own) {
    this.cache = cache;
    this.own = own;
  }

  /** The file of loaded and compiled classes, beside the libraries. */
  String cache() {
    return cache;
  }

  /**
   * Lets compiling, and what works unseen, stand back behind drawing and sound; and has the memory
   * that is touched ahead come in large pages, which is three times as fast.
   */
  private static final List<String> ON_LINUX =
      List.of(
          "-XX:ThreadPriorityPolicy=1",
          "-XX:CompilerThreadPriority=10",
          "-XX:+UseTransparentHugePages",
          "-XX:-PrintWarnings");

  /** Options of Java with which the cache is made. */
  List<String> trainingOptions() {
    return Stream.concat(BOTH.stream(), own.stream()).toList();
  }

  /** Options of Java; {@code $APPDIR} is where the libraries lie. */
  List<String> options() {
    List<String> options =
        new ArrayList<>(List.of("-XX:AOTCache=$APPDIR/" + cache, "-Xlog:disable"));
    if (this == COMMAND_LINE) {
      options.add("-Dhushrise.classes=$APPDIR/" + cache);
    } else if (Platform.ofThis() == Platform.LINUX) {
      options.addAll(ON_LINUX);
    }
    options.addAll(trainingOptions());
    return options;
  }
}
