package hushrise.core.edit;

import hushrise.core.project.Project;
import hushrise.core.project.media.Credit;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.time.Span;
import java.nio.file.Path;
import java.util.List;
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
    return ClipEdits.delete(project, clips, false, false)
        .withEachTrack(t -> t.withClips(t.clips().stream().map(c -> without(c, mediaId)).toList()))
        .withoutMedia(mediaId);
  }

  private static Clip without(Clip clip, String mediaId) {
    return clip.otherTakes().stream().noneMatch(t -> t.mediaId().equals(mediaId))
        ? clip
        : clip.withOtherTakes(
            clip.otherTakes().stream().filter(t -> !t.mediaId().equals(mediaId)).toList());
  }

  /**
   * Takes over what an item's file holds now that it has been written anew. A clip that played to
   * the old end plays to the new one, and none goes on after it; passages are looked for afresh.
   *
   * @param fresh what was found in the file
   */
  public static Project refresh(Project project, String mediaId, Media fresh) {
    Media old = project.media(mediaId).orElseThrow();
    return project
        .withMedia(
            mediaId,
            m ->
                new Media(
                    m.id(),
                    m.file(),
                    m.kind(),
                    fresh.lengthFrames(),
                    fresh.hasSound(),
                    fresh.pictureRate(),
                    m.credit(),
                    m.useful().flatMap(u -> held(u, fresh.lengthFrames())),
                    Optional.empty(),
                    fresh.content(),
                    fresh.cutShort()))
        .withEachTrack(
            track ->
                track.withClips(
                    track.clips().stream()
                        .map(
                            c ->
                                c.mediaId().equals(mediaId)
                                        && c.seams().isEmpty()
                                        && old.kind() != MediaKind.STILL
                                    ? reaching(c, old.lengthFrames(), fresh.lengthFrames())
                                    : c)
                        .toList()));
  }

  private static Optional<Span> held(Span span, long length) {
    return span.startFrame() >= length
        ? Optional.empty()
        : Optional.of(new Span(span.startFrame(), Math.min(span.endFrame(), length)));
  }

  private static Clip reaching(Clip clip, long oldLength, long newLength) {
    long room = Math.max(1, newLength - clip.mediaStartFrame());
    boolean whole = clip.mediaStartFrame() + clip.lengthFrames() == oldLength;
    long length = whole ? room : Math.min(clip.lengthFrames(), room);
    return length == clip.lengthFrames()
        ? clip
        : clip.withContent(length, List.of()).withFittingFades();
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
