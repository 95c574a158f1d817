package hushrise.media;

import hushrise.core.sound.Surface;

/** Stands in for a control surface where there is none: its faders are moved by a program. */
public final class RehearsalSurface implements Surface {

  static final String NAME = "rehearsal surface";

  private final Listener listener;
  private volatile boolean closed;

  public RehearsalSurface(Listener listener) {
    this.listener = listener;
  }

  @Override
  public String name() {
    return NAME;
  }

  /** Moves a fader, as a hand would, in the 128 steps that a control change has. */
  public void move(int fader, double position) {
    if (!closed) {
      listener.moved(fader, Math.round(Math.clamp(position, 0, 1) * 127) / 127.0);
    }
  }

  @Override
  public void close() {
    closed = true;
  }
}
