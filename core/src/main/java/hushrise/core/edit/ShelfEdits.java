package hushrise.core.edit;

import hushrise.core.project.Project;
import hushrise.core.project.media.Credit;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.time.Span;
import java.nio.file.Path;
import java.util.Map;
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
    return ClipRemoval.delete(project, clips, false, false)
        .withEachTrack(t -> t.withClips(t.clips().stream().map(c -> without(c, mediaId)).toList()))
        .withoutMedia(mediaId);
  }

  private static Clip without(Clip clip, String mediaId) {
    return clip.otherTakes().stream().noneMatch(t -> t.mediaId().equals(mediaId))
        ? clip
        : clip.withOtherTakes(
            clip.otherTakes().stream().filter(t -> !t.mediaId().equals(mediaId)).toList());
  }

  /** Says what an item is for; clips that are placed stay where they are. */
  public static Project setKind(Project project, String mediaId, MediaKind kind) {
    return project.withMedia(mediaId, m -> m.withKind(kind));
  }

  /** Notes who made an item, in a person's own words. */
  public static Project setCredit(Project project, String mediaId, String note) {
    return setCredit(project, mediaId, Credit.ofNote(note));
  }

  public static Project setCredit(Project project, String mediaId, Credit credit) {
    return project.withMedia(mediaId, m -> m.withCredit(credit));
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

  /** Lets media lie in other files, with all that is known and set of them. */
  public static Project relink(Project project, Map<String, Path> files) {
    return project.withShelf(
        project.shelf().stream()
            .map(m -> files.containsKey(m.id()) ? m.withFile(files.get(m.id())) : m)
            .toList());
  }

  /** Notes what tells the contents of files from any other, where that is not known yet. */
  public static Project withContents(Project project, Map<Path, String> contents) {
    return project.withShelf(
        project.shelf().stream()
            .map(
                m ->
                    m.content().isEmpty() && contents.containsKey(m.file())
                        ? m.withContent(Optional.of(contents.get(m.file())))
                        : m)
            .toList());
  }
}
