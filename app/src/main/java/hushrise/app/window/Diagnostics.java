package hushrise.app.window;

import ch.qos.logback.classic.LoggerContext;
import ch.qos.logback.classic.encoder.PatternLayoutEncoder;
import ch.qos.logback.classic.spi.ILoggingEvent;
import ch.qos.logback.core.rolling.FixedWindowRollingPolicy;
import ch.qos.logback.core.rolling.RollingFileAppender;
import ch.qos.logback.core.rolling.SizeBasedTriggeringPolicy;
import ch.qos.logback.core.util.FileSize;
import hushrise.app.session.Session;
import hushrise.core.project.Project;
import hushrise.core.project.timeline.Track;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.function.Function;
import java.util.regex.Pattern;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * A log on disk that cannot grow, and a report for whoever mends the program: versions, the last
 * steps, the last of the log, and of paths nothing but the names of files.
 */
final class Diagnostics {

  private static final Logger LOG = LoggerFactory.getLogger(Diagnostics.class);

  private static final String NAME = "hush-rise.log";
  private static final int MOST_STEPS = 25;
  private static final int MOST_LINES = 80;
  private static final FileSize MOST_BYTES = FileSize.valueOf("1MB");

  /** The folders before a file's name, as Linux and macOS or as Windows write them. */
  private static final Pattern FOLDERS =
      Pattern.compile("(?<!\\w)(?:[A-Za-z]:\\\\(?:[^\\\\\\n\"':]+\\\\)*|/(?:[^/\\n\"':]+/)+)");

  private final Path file;
  private final Session session;
  private final Deque<String> steps = new ArrayDeque<>();

  /**
   * @param folder where the log lies
   */
  Diagnostics(Path folder, Session session) {
    this.file = folder.resolve(NAME);
    this.session = session;
    session.presentProperty().addListener((p, was, is) -> note());
  }

  private void note() {
    steps.addLast(
        Instant.now().truncatedTo(ChronoUnit.SECONDS)
            + " "
            + session.undoName().orElse("nothing to undo"));
    if (steps.size() > MOST_STEPS) {
      steps.removeFirst();
    }
  }

  /** Writes what is logged to disk too; two files of a megabyte at most. */
  void keepLog() {
    if (!(LoggerFactory.getILoggerFactory() instanceof LoggerContext context)) {
      return;
    }
    RollingFileAppender<ILoggingEvent> appender = new RollingFileAppender<>();
    appender.setContext(context);
    appender.setFile(file.toString());
    PatternLayoutEncoder encoder = new PatternLayoutEncoder();
    encoder.setContext(context);
    encoder.setPattern("%d{yyyy-MM-dd HH:mm:ss} %-5level [%thread] %logger{20}: %msg%n%ex{12}");
    encoder.start();
    FixedWindowRollingPolicy older = new FixedWindowRollingPolicy();
    older.setContext(context);
    older.setParent(appender);
    older.setFileNamePattern(file + ".%i");
    older.setMinIndex(1);
    older.setMaxIndex(1);
    older.start();
    SizeBasedTriggeringPolicy<ILoggingEvent> full = new SizeBasedTriggeringPolicy<>();
    full.setContext(context);
    full.setMaxFileSize(MOST_BYTES);
    full.start();
    appender.setEncoder(encoder);
    appender.setRollingPolicy(older);
    appender.setTriggeringPolicy(full);
    appender.start();
    context.getLogger(Logger.ROOT_LOGGER_NAME).addAppender(appender);
  }

  /** What to send with a report, as text. */
  String report() {
    Project project = session.present();
    Runtime java = Runtime.getRuntime();
    StringBuilder report = new StringBuilder();
    report.append(
        "Hush Rise 0.1, Java %s, JavaFX %s%n"
            .formatted(Runtime.version(), System.getProperty("javafx.runtime.version")));
    report.append(
        "%s %s %s, %d processors, heap %d of %d MB%n"
            .formatted(
                System.getProperty("os.name"),
                System.getProperty("os.version"),
                System.getProperty("os.arch"),
                java.availableProcessors(),
                (java.totalMemory() - java.freeMemory()) >> 20,
                java.maxMemory() >> 20));
    report.append(
        "Project: %.1f s at %d Hz, %d files, %d tracks, %d clips, %d hushes%n"
            .formatted(
                project.seconds(project.lengthFrames()),
                project.sampleRate(),
                project.shelf().size(),
                project.tracks().size(),
                count(project, Track::clips),
                count(project, Track::hushes)));
    report.append("%nLast steps%n".formatted());
    steps.forEach(step -> report.append(step).append(System.lineSeparator()));
    report.append("%nLast of the log%n".formatted());
    lastLines().forEach(line -> report.append(line).append(System.lineSeparator()));
    return withoutFolders(report.toString());
  }

  private static int count(Project project, Function<Track, List<?>> what) {
    return project.tracks().stream().mapToInt(t -> what.apply(t).size()).sum();
  }

  private List<String> lastLines() {
    if (!Files.isRegularFile(file)) {
      return List.of();
    }
    try {
      List<String> all = Files.readAllLines(file);
      return all.subList(Math.max(0, all.size() - MOST_LINES), all.size());
    } catch (IOException e) {
      LOG.debug("The log cannot be read", e);
      return List.of();
    }
  }

  /** A text in which of each path only the file's name is left. */
  static String withoutFolders(String text) {
    return FOLDERS.matcher(text).replaceAll("");
  }
}
