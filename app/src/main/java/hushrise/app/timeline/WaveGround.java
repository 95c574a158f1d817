package hushrise.app.timeline;

import hushrise.core.level.ClipEnvelope;
import hushrise.core.level.TrackCurve;
import hushrise.core.project.Clip;
import hushrise.core.project.Media;
import hushrise.core.project.Track;
import java.util.Map;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.image.ImageView;

/** The waveforms of a sounding track. */
final class WaveGround implements Ground {

  private final Viewport view;
  private final PeaksShelf peaks;
  private final ImageView shown = new ImageView();
  private Optional<WaveformImage> wave = Optional.empty();

  WaveGround(Viewport view, PeaksShelf peaks) {
    this.view = view;
    this.peaks = peaks;
  }

  @Override
  public Node node() {
    return shown;
  }

  @Override
  public void draw(Track track, TrackCurve curve, int width, int height, Runnable onArrival) {
    if (wave.isEmpty() || !wave.get().hasSize(width, height)) {
      wave = Optional.of(new WaveformImage(width, height));
      shown.setImage(wave.get().pixels().image());
    }
    WaveformImage image = wave.get();
    image.pixels().clear();
    int rate = view.session().project().sampleRate();
    LaneGeometry geometry = new LaneGeometry(track, view.axis(), new LevelScale(height), rate);
    GroundMarks marks = new GroundMarks(image.pixels(), geometry, view.palette());
    Map<String, ClipEnvelope> envelopes = ClipEnvelope.of(track);
    for (Clip clip : track.clips()) {
      Media media = view.session().project().media(clip.mediaId()).orElseThrow();
      peaks
          .get(media, onArrival)
          .ifPresent(
              p ->
                  image.draw(
                      clip,
                      p,
                      curve,
                      envelopes.get(clip.id()),
                      view.axis(),
                      LanePainter.colorOf(track, view.palette())));
    }
    marks.grid();
    marks.edges();
    image.drawShape(track, curve, view.axis(), rate, view.palette());
    marks.beads();
    marks.handles();
    image.pixels().publish();
  }
}
