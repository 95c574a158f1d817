package hushrise.app.window;

import static hushrise.app.words.Texts.text;

import hushrise.app.command.CommandId;
import hushrise.app.job.Messages;
import hushrise.app.play.Transport;
import hushrise.app.session.Session;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Track;
import java.util.Optional;

/**
 * While S is held the selected track is heard alone, or the music when none is selected. From the
 * menu it stays so until it is chosen again.
 */
final class HearAlone {

  private final Session session;
  private final Transport transport;
  private final Messages messages;
  private boolean alone;

  HearAlone(Session session, Transport transport, Messages messages) {
    this.session = session;
    this.transport = transport;
    this.messages = messages;
  }

  void addTo(HeldKeys keys) {
    keys.add(CommandId.HEAR_ALONE, this::begin, this::end);
  }

  void toggle() {
    if (alone) {
      end();
    } else {
      begin();
    }
  }

  private void begin() {
    Optional<Track> track =
        session
            .present()
            .track(session.selection().trackId())
            .or(() -> session.present().firstTrack(TrackKind.MUSIC))
            .filter(t -> t.kind().sounds());
    if (track.isPresent()) {
      alone = true;
      transport.hearAlone(track.map(Track::id));
      messages.say(text("alone.begin", track.get().name()));
    } else {
      messages.say(text("level.noTrack"));
    }
  }

  private void end() {
    if (alone) {
      alone = false;
      transport.hearAlone(Optional.empty());
      messages.say(text("alone.end"));
    }
  }
}
