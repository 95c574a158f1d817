package hushrise.app.listen;

import hushrise.app.job.Jobs;
import hushrise.app.job.LateAnswers;
import hushrise.app.session.Session;
import hushrise.app.words.Texts;
import hushrise.core.picture.PictureFacts;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.time.Span;
import hushrise.media.PictureScan;
import java.nio.file.Path;
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
  private final Jobs jobs;
  private final LateAnswers late = new LateAnswers();
  private final Map<Path, PictureFacts> known = new HashMap<>();

  public PictureCuts(Session session, PictureScan scan, Jobs jobs) {
    this.session = session;
    this.scan = scan;
    this.jobs = jobs;
  }

  /** Forgets what was seen in a file, as the file has changed. */
  public void forget(Path file) {
    late.forget(file);
    known.remove(file);
  }

  /** Looks at films that are new in the project. */
  public void look(Runnable onArrival) {
    for (Media media : session.shown().shelf()) {
      if (media.kind() == MediaKind.PICTURE && !known.containsKey(media.file())) {
        known.put(media.file(), PictureFacts.NONE);
        jobs.look(
            media.file(),
            Texts.text("job.looking", media.title()),
            progress -> scan.facts(media, progress),
            late.unlessForgotten(
                media.file(),
                facts -> {
                  known.put(media.file(), facts);
                  onArrival.run();
                }));
      }
    }
  }

  private PictureFacts of(Clip clip) {
    return session
        .shown()
        .media(clip.mediaId())
        .map(m -> known.getOrDefault(m.file(), PictureFacts.NONE))
        .orElse(PictureFacts.NONE);
  }

  /** The cuts on the timeline, in no particular order. */
  public List<Long> frames() {
    List<Long> frames = new ArrayList<>();
    Project project = session.shown();
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
    Project project = session.shown();
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
