package hushrise.core.edit;

import hushrise.core.project.MediaKind;
import hushrise.core.project.Project;
import hushrise.core.time.Span;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/** Edits of the Shelf: each is a function from project to project. No file is ever touched. */
public final class ShelfEdits {

  private ShelfEdits() {}

  /** Takes an item off the Shelf, with every clip that plays it. */
  public static Project remove(Project project, String mediaId) {
    Set<String> clips =
        project.tracks().stream()
            .flatMap(t -> t.clips().stream())
            .filter(c -> c.mediaId().equals(mediaId))
            .map(c -> c.id())
            .collect(Collectors.toSet());
    return ClipEdits.delete(project, clips, false, false).withoutMedia(mediaId);
  }

  /** Says what an item is for; clips that are placed stay where they are. */
  public static Project setKind(Project project, String mediaId, MediaKind kind) {
    return project.withMedia(mediaId, m -> m.withKind(kind));
  }

  public static Project setCredit(Project project, String mediaId, String credit) {
    return project.withMedia(mediaId, m -> m.withCredit(credit.strip()));
  }

  /** Marks the part of an item that is worth placing; the whole of it is no mark. */
  public static Project setUseful(Project project, String mediaId, Span part) {
    return project.withMedia(
        mediaId,
        m -> {
          Span held =
              new Span(
                  Math.clamp(part.startFrame(), 0, m.lengthFrames() - 1),
                  Math.clamp(part.endFrame(), 1, m.lengthFrames()));
          boolean whole = held.equals(new Span(0, m.lengthFrames())) || held.lengthFrames() < 1;
          return m.withUseful(whole ? Optional.empty() : Optional.of(held));
        });
  }
}
