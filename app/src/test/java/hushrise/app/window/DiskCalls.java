package hushrise.app.window;

import java.io.IOException;
import java.nio.file.Path;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import jdk.jfr.Recording;
import jdk.jfr.consumer.RecordedEvent;
import jdk.jfr.consumer.RecordedFrame;
import jdk.jfr.consumer.RecordedMethod;
import jdk.jfr.consumer.RecordingFile;

/**
 * Notes who has a thread ask a disk for something, by the flight recorder's tracing of methods: all
 * that Java has for files goes through one class for each kind of system.
 */
final class DiskCalls implements AutoCloseable {

  private static final String TRACED =
      "sun.nio.fs.UnixFileSystemProvider;sun.nio.ch.FileChannelImpl::force";

  private final long threadId;
  private final Path file;
  private final Recording recording = new Recording();

  /**
   * @param file where the recording goes
   */
  DiskCalls(Thread of, Path file) {
    threadId = of.threadId();
    this.file = file;
    recording.enable("jdk.MethodTrace").with("filter", TRACED).withStackTrace();
    recording.start();
  }

  /** Ends the recording; gives the calls that this program made, innermost first, and how often. */
  Map<String, Integer> made() throws IOException {
    recording.stop();
    recording.dump(file);
    Map<String, Integer> calls = new TreeMap<>();
    try (RecordingFile events = new RecordingFile(file)) {
      while (events.hasMoreEvents()) {
        RecordedEvent event = events.readEvent();
        if (event.getThread() != null && event.getThread().getJavaThreadId() == threadId) {
          calls.merge(chain(event), 1, Integer::sum);
        }
      }
    }
    calls.remove("");
    return calls;
  }

  /** The program's own methods, up to the test's; nothing where classes or pictures are loaded. */
  private static String chain(RecordedEvent event) {
    Set<String> methods = new LinkedHashSet<>();
    for (RecordedFrame frame : event.getStackTrace().getFrames()) {
      RecordedMethod method = frame.getMethod();
      String type = method.getType().getName();
      if (type.startsWith("jdk.internal.loader.")) {
        return "";
      }
      if (type.startsWith("hushrise.") && !method.isHidden()) {
        if (isOfTests(type)) {
          break;
        }
        methods.add(type.substring(type.lastIndexOf('.') + 1) + "." + method.getName());
      }
    }
    return String.join(" < ", methods);
  }

  private static boolean isOfTests(String type) {
    try {
      Class<?> found = Class.forName(type, false, DiskCalls.class.getClassLoader());
      return found
          .getProtectionDomain()
          .getCodeSource()
          .getLocation()
          .equals(DiskCalls.class.getProtectionDomain().getCodeSource().getLocation());
    } catch (ClassNotFoundException lambda) {
      return false;
    }
  }

  @Override
  public void close() {
    recording.close();
  }
}
