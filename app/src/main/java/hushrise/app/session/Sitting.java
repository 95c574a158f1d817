package hushrise.app.session;

import java.util.function.Consumer;

/** The time during which one project is open: what was begun in it goes into no other. */
final class Sitting {

  private Object now = new Object();

  /** Ends the one there was, as another project is opened. */
  void begin() {
    now = new Object();
  }

  /** What takes a result, but nothing that comes once this sitting is over. */
  <T> Consumer<T> only(Consumer<T> then) {
    Object mine = now;
    return result -> {
      if (now == mine) {
        then.accept(result);
      }
    };
  }

  /** As {@link #only(Consumer)}, for what needs no result. */
  Runnable only(Runnable then) {
    Consumer<Runnable> later = only(Runnable::run);
    return () -> later.accept(then);
  }
}
