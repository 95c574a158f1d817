package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import ch.qos.logback.classic.Level;
import ch.qos.logback.classic.Logger;
import ch.qos.logback.classic.spi.ILoggingEvent;
import ch.qos.logback.classic.spi.IThrowableProxy;
import ch.qos.logback.core.AppenderBase;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import org.junit.jupiter.api.extension.AfterEachCallback;
import org.junit.jupiter.api.extension.BeforeEachCallback;
import org.junit.jupiter.api.extension.ExtensionContext;
import org.slf4j.LoggerFactory;

/**
 * Fails a test during which something went wrong that nobody expected: the window's thread, work in
 * the background or the player threw, or the toolkit complained of a style or a binding. A person
 * would see a sentence in the status line at most, and a test that looks elsewhere nothing.
 */
final class NothingWentWrong implements BeforeEachCallback, AfterEachCallback {

  private final Heard heard = new Heard();

  @Override
  public void beforeEach(ExtensionContext context) {
    heard.complaints.clear();
    heard.setContext(root().getLoggerContext());
    heard.start();
    root().addAppender(heard);
  }

  @Override
  public void afterEach(ExtensionContext context) {
    root().detachAppender(heard);
    heard.stop();
    assertThat(heard.complaints).as("what went wrong unseen").isEmpty();
  }

  private static Logger root() {
    return (Logger) LoggerFactory.getLogger(org.slf4j.Logger.ROOT_LOGGER_NAME);
  }

  private static final class Heard extends AppenderBase<ILoggingEvent> {

    private final List<String> complaints = new CopyOnWriteArrayList<>();

    @Override
    protected void append(ILoggingEvent event) {
      boolean toolkit = event.getLoggerName().startsWith("javafx.");
      Level bad = toolkit ? Level.WARN : Level.ERROR;
      if (event.getLevel().isGreaterOrEqual(bad)) {
        IThrowableProxy thrown = event.getThrowableProxy();
        complaints.add(
            event.getFormattedMessage()
                + (thrown == null ? "" : ": " + thrown.getClassName() + " " + where(thrown)));
      }
    }

    private static String where(IThrowableProxy thrown) {
      StringBuilder words = new StringBuilder(String.valueOf(thrown.getMessage()));
      for (int i = 0; i < Math.min(8, thrown.getStackTraceElementProxyArray().length); i++) {
        words.append("\n  ").append(thrown.getStackTraceElementProxyArray()[i]);
      }
      return words.toString();
    }
  }
}
