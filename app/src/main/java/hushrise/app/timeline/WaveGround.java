package hushrise.app.timeline;

import hushrise.app.look.Density;
import hushrise.app.look.Palette;
import hushrise.app.look.Pixels;
import hushrise.app.widget.PeaksCache;
import hushrise.core.level.ClipEnvelope;
import hushrise.core.level.TrackChange;
import hushrise.core.level.TrackCurve;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelLine;
import hushrise.core.project.media.Media;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.Peaks;
import hushrise.core.time.Span;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.beans.value.ObservableValue;
import javafx.scene.Node;
import javafx.scene.image.ImageView;

/** The waveforms of a sounding track. */
final class WaveGround implements Ground {

  /** A move counts as one of whole pixels up to this. */
  private static final double WHOLE_PIXEL = 0.02;

  private final Viewport view;
  private final PeaksCache peaks;
  private final ImageView shown = new ImageView();
  private final ObservableValue<Double> density = Density.of(shown);
  private Optional<WaveformImage> wave = Optional.empty();
  private Optional<Track> drawnTrack = Optional.empty();
  private Optional<Palette> drawnPalette = Optional.empty();
  private TimeAxis drawnAxis = new TimeAxis(0, 1);
  private boolean complete;
  private boolean hasAllBeads;

  WaveGround(Viewport view, PeaksCache peaks) {
    this.view = view;
    this.peaks = peaks;
  }

  @Override
  public Node node() {
    return shown;
  }

  @Override
  public boolean draw(Track track, TrackCurve curve, int width, int height) {
    double dense = density.getValue();
    boolean fresh = wave.filter(w -> w.pixels().fits(width, height, dense)).isEmpty();
    if (fresh) {
      wave = Optional.of(new WaveformImage(width, height, dense));
      wave.get().pixels().showIn(shown);
    }
    Pixels pixels = wave.get().pixels();
    pixels.setGround(view.palette().sunken());
    if (fresh || !complete || drawnPalette.filter(view.palette()::equals).isEmpty()) {
      pixels.clear();
    } else {
      clipToChange(track, pixels);
    }
    drawnTrack = Optional.of(track);
    drawnAxis = view.axis();
    drawnPalette = Optional.of(view.palette());
    complete = drawClipped(track, curve, wave.get(), height);
    pixels.publish();
    return complete;
  }

  @Override
  public void letGo() {
    wave = Optional.empty();
    shown.setImage(null);
  }

  /** Lets be drawn only what has come into view by scrolling, or what has changed in a track. */
  private void clipToChange(Track track, Pixels pixels) {
    Track was = drawnTrack.orElseThrow();
    double moved = pixels.density() * view.axis().xOf(drawnAxis.startFrame());
    int by = (int) Math.rint(moved);
    if (drawnAxis.equals(view.axis())) {
      clipToChange(was, track, pixels);
    } else if (was.equals(track) && isMovedByWholePixels(moved, by, pixels.width())) {
      pixels.shift(by);
      int margin = (int) Math.ceil(pixels.density() * GroundMarks.MARGIN);
      boolean right = by > 0;
      pixels.clip(right ? 0 : pixels.width() + by - margin, right ? by + margin : pixels.width());
    } else {
      pixels.clear();
    }
  }

  private boolean isMovedByWholePixels(double moved, int by, int width) {
    return drawnAxis.framesPerPixel() == view.axis().framesPerPixel()
        && by != 0
        && Math.abs(by) < width / 2
        && Math.abs(moved - by) < WHOLE_PIXEL;
  }

  private void clipToChange(Track was, Track track, Pixels pixels) {
    Optional<Span> change = TrackChange.between(was, track, view.session().shown().sampleRate());
    if (change.isEmpty() || !(hasAllBeads || hasSameTimes(was.line(), track.line()))) {
      pixels.clear();
      return;
    }
    double from = view.axis().xOf(change.get().startFrame()) - GroundMarks.MARGIN;
    double to = view.axis().xOf(change.get().endFrame()) + GroundMarks.MARGIN;
    pixels.clip(
        (int) Math.clamp(Math.floor(pixels.density() * from), 0, pixels.width()),
        (int) Math.clamp(Math.ceil(pixels.density() * to), 0, pixels.width()));
  }

  /** Whether two lines have their keyframes at the same places. */
  private static boolean hasSameTimes(LevelLine a, LevelLine b) {
    List<Keyframe> as = a.keyframes();
    List<Keyframe> bs = b.keyframes();
    if (as.size() != bs.size()) {
      return false;
    }
    for (int i = 0; i < as.size(); i++) {
      if (as.get(i).frame() != bs.get(i).frame()) {
        return false;
      }
    }
    return true;
  }

  /** Draws where the pixels may be drawn; gives whether all waveforms were there. */
  private boolean drawClipped(Track track, TrackCurve curve, WaveformImage image, int height) {
    int rate = view.session().shown().sampleRate();
    LaneGeometry geometry = new LaneGeometry(track, view.axis(), new LevelScale(height), rate);
    GroundMarks marks = new GroundMarks(image.pixels(), geometry, view.palette());
    Map<String, ClipEnvelope> envelopes = ClipEnvelope.of(track);
    boolean all = true;
    for (Clip clip : track.clips()) {
      Media media = view.session().shown().media(clip.mediaId()).orElseThrow();
      Optional<Peaks> found = peaks.get(media);
      all &= found.isPresent();
      found.ifPresent(
          p ->
              image.draw(
                  clip,
                  p,
                  curve,
                  envelopes.get(clip.id()),
                  view.axis(),
                  view.palette().of(track.kind())));
    }
    marks.grid();
    marks.edges();
    image.drawShape(track, curve, view.axis(), rate, view.palette());
    hasAllBeads = marks.beads();
    marks.handles();
    return all;
  }
}
