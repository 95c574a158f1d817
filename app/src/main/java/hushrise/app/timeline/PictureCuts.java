package hushrise.app.timeline;

import hushrise.app.Background;
import hushrise.app.Session;
import hushrise.core.picture.PictureFacts;
import hushrise.core.project.Clip;
import hushrise.core.project.Media;
import hushrise.core.project.MediaKind;
import hushrise.core.project.Project;
import hushrise.core.project.TrackKind;
import hushrise.core.time.Span;
import hushrise.media.PictureScan;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * The cuts of the picture and its fade to black, on the timeline. What has not been looked at yet
 * is looked at in the background. Used by the window's thread.
 */
public final class PictureCuts {

  private final Session session;
  private final PictureScan scan;
  private final Background background;
  private final Map<String, PictureFacts> known = new HashMap<>();

  public PictureCuts(Session session, PictureScan scan, Background background) {
    this.session = session;
    this.scan = scan;
    this.background = background;
  }

  /** Looks at films that are new in the project. */
  public void look(Runnable onArrival) {
    for (Media media : session.project().shelf()) {
      if (media.kind() == MediaKind.PICTURE && !known.containsKey(media.id())) {
        known.put(media.id(), PictureFacts.NONE);
        background.run(
            hushrise.app.look.Texts.text("job.looking", media.title()),
            progress -> scan.facts(media, progress),
            facts -> {
              known.put(media.id(), facts);
              onArrival.run();
            });
      }
    }
  }

  private PictureFacts of(Clip clip) {
    return known.getOrDefault(clip.mediaId(), PictureFacts.NONE);
  }

  /** The cuts on the timeline, in no particular order. */
  public List<Long> frames() {
    List<Long> frames = new ArrayList<>();
    Project project = session.project();
    project
        .tracksOf(TrackKind.PICTURE)
        .flatMap(t -> t.clips().stream())
        .forEach(
            clip -> {
              for (long cut : of(clip).cuts()) {
                long at = cut - clip.mediaStartFrame();
                if (at > 0 && at < clip.lengthFrames()) {
                  frames.add(clip.startFrame() + at);
                }
              }
            });
    return frames;
  }

  /** Where the picture fades out at its end, up to its end; empty where it does not. */
  public Optional<Span> fadeToBlack() {
    Project project = session.project();
    return project
        .tracksOf(TrackKind.PICTURE)
        .flatMap(t -> t.clipsInTime().reversed().stream())
        .findFirst()
        .flatMap(
            clip ->
                of(clip)
                    .fadeToBlack()
                    .map(f -> f.startFrame() - clip.mediaStartFrame() + clip.startFrame())
                    .filter(start -> start > clip.startFrame() && start < clip.endFrame())
                    .map(start -> new Span(start, clip.endFrame())));
  }
}
