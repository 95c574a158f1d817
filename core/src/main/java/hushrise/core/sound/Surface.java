package hushrise.core.sound;

/** A control surface with faders, or a stand-in for one. */
public interface Surface extends AutoCloseable {

  /** Takes what faders do; on any thread. */
  @FunctionalInterface
  interface Listener {

    /**
     * A fader has moved.
     *
     * @param fader which one: the same number each time
     * @param position 0 (down) to 1 (up)
     */
    void moved(int fader, double position);
  }

  /** What a person should know it as. */
  String name();

  @Override
  void close();
}
