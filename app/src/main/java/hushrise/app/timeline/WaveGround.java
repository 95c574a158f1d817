package hushrise.app.timeline;

import hushrise.app.look.Palette;
import hushrise.core.level.ClipEnvelope;
import hushrise.core.level.TrackCurve;
import hushrise.core.project.Clip;
import hushrise.core.project.Media;
import hushrise.core.project.Track;
import hushrise.core.sound.Peaks;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import javafx.scene.Node;
import javafx.scene.image.ImageView;

/** The waveforms of a sounding track. */
final class WaveGround implements Ground {

  /** A move counts as one of whole pixels up to this. */
  private static final double WHOLE_PIXEL = 0.02;

  private final Viewport view;
  private final PeaksShelf peaks;
  private final ImageView shown = new ImageView();
  private Optional<WaveformImage> wave = Optional.empty();
  private Optional<Track> drawnTrack = Optional.empty();
  private Optional<Palette> drawnPalette = Optional.empty();
  private TimeAxis drawnAxis = new TimeAxis(0, 1);
  private boolean complete;

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
    boolean fresh = wave.isEmpty() || !wave.get().hasSize(width, height);
    if (fresh) {
      wave = Optional.of(new WaveformImage(width, height));
      shown.setImage(wave.get().pixels().image());
    }
    Pixels pixels = wave.get().pixels();
    pixels.setGround(view.palette().sunken());
    OptionalInt moved = fresh ? OptionalInt.empty() : moved(track, width);
    if (moved.isPresent()) {
      int by = moved.getAsInt();
      pixels.shift(by);
      boolean right = by > 0;
      pixels.clip(
          right ? 0 : width + by - GroundMarks.MARGIN, right ? by + GroundMarks.MARGIN : width);
    } else {
      pixels.clear();
    }
    drawnTrack = Optional.of(track);
    drawnAxis = view.axis();
    drawnPalette = Optional.of(view.palette());
    complete = drawClipped(track, curve, wave.get(), height, onArrival);
    pixels.publish();
  }

  /**
   * By how many columns the picture has moved since it was drawn, when nothing else has changed:
   * then only what comes into view has to be drawn.
   */
  private OptionalInt moved(Track track, int width) {
    boolean same =
        complete
            && drawnTrack.filter(track::equals).isPresent()
            && drawnPalette.filter(view.palette()::equals).isPresent()
            && drawnAxis.framesPerPixel() == view.axis().framesPerPixel();
    if (!same) {
      return OptionalInt.empty();
    }
    double by = view.axis().xOf(drawnAxis.startFrame());
    boolean whole = Math.abs(by - Math.rint(by)) < WHOLE_PIXEL;
    return whole && Math.abs(by) < width / 2.0 && Math.rint(by) != 0
        ? OptionalInt.of((int) Math.rint(by))
        : OptionalInt.empty();
  }

  /** Draws where the pixels may be drawn; gives whether all waveforms were there. */
  private boolean drawClipped(
      Track track, TrackCurve curve, WaveformImage image, int height, Runnable onArrival) {
    int rate = view.session().project().sampleRate();
    LaneGeometry geometry = new LaneGeometry(track, view.axis(), new LevelScale(height), rate);
    GroundMarks marks = new GroundMarks(image.pixels(), geometry, view.palette());
    Map<String, ClipEnvelope> envelopes = ClipEnvelope.of(track);
    boolean all = true;
    for (Clip clip : track.clips()) {
      Media media = view.session().project().media(clip.mediaId()).orElseThrow();
      Optional<Peaks> found = peaks.get(media, onArrival);
      all &= found.isPresent();
      found.ifPresent(
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
    return all;
  }
}
