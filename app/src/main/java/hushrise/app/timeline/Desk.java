package hushrise.app.timeline;

import hushrise.app.play.Meters;
import hushrise.app.play.Riders;
import hushrise.app.play.Transport;

/**
 * What the heads of the tracks need to be the mixer.
 *
 * @param transport what sounds
 * @param meters how loud it is
 */
public record Desk(Transport transport, Meters meters) {

  Riders riders() {
    return transport.riders();
  }
}
