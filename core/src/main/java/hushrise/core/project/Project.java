package hushrise.core.project;

import com.fasterxml.jackson.annotation.JsonInclude;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.FrameRate;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * Everything a film's sound is made of, as one immutable value. An edit makes another project that
 * shares what it did not touch.
 *
 * @param name as shown in the window
 * @param sampleRate sample frames per second of every time in it
 * @param pictureRate the picture's frame rate, for display, snapping and stepping
 * @param masterDb the level of the whole mix
 * @param shelf its media, placed or not
 * @param tracks its tracks, top to bottom
 * @param markers named places, in no particular order
 * @param asides findings that were put aside
 * @param script what is to be read as narration, an empty line between passages; empty for none
 * @param unknown what a newer or another program wrote into its file, kept for the next save
 */
@RecordBuilder
public record Project(
    String name,
    int sampleRate,
    FrameRate pictureRate,
    double masterDb,
    List<Media> shelf,
    List<Track> tracks,
    List<Marker> markers,
    List<Aside> asides,
    @JsonInclude(JsonInclude.Include.NON_ABSENT) Optional<String> script,
    UnknownFields unknown)
    implements ProjectBuilder.With {

  /** The rate of a project that does not say otherwise, in Hz. */
  public static final int DEFAULT_SAMPLE_RATE = 48_000;

  /** The longest script, in characters: more than anybody reads in a day. */
  public static final int LONGEST_SCRIPT = 1_000_000;

  public Project {
    shelf = Shelf.of(shelf);
    tracks = List.copyOf(tracks);
    markers = markers == null ? List.of() : List.copyOf(markers);
    asides = asides == null ? List.of() : List.copyOf(asides);
    script = script == null ? Optional.empty() : script;
    unknown = unknown == null ? UnknownFields.NONE : unknown;
  }

  public static Project empty(String name) {
    return new Project(
        name,
        DEFAULT_SAMPLE_RATE,
        FrameRate.DEFAULT,
        0,
        List.of(),
        List.of(),
        List.of(),
        List.of(),
        Optional.empty(),
        UnknownFields.NONE);
  }

  /** This project with one more item on its Shelf. */
  public Project withMedia(Media media) {
    List<Media> more = new ArrayList<>(shelf);
    more.add(media);
    return withShelf(more);
  }

  /** This project without an item of its Shelf; its file stays where it is. */
  public Project withoutMedia(String mediaId) {
    return withShelf(shelf.stream().filter(m -> !m.id().equals(mediaId)).toList());
  }

  /** This project with one item of its Shelf changed. */
  public Project withMedia(String mediaId, UnaryOperator<Media> change) {
    return withShelf(
        shelf.stream().map(m -> m.id().equals(mediaId) ? change.apply(m) : m).toList());
  }

  /** This project with one track changed; the same tracks when it has no such track. */
  public Project withTrack(String trackId, UnaryOperator<Track> change) {
    return withTracks(
        tracks.stream().map(t -> t.id().equals(trackId) ? change.apply(t) : t).toList());
  }

  /** This project with every track changed. */
  public Project withEachTrack(UnaryOperator<Track> change) {
    return withTracks(tracks.stream().map(change).toList());
  }

  public Optional<Track> track(String trackId) {
    return tracks.stream().filter(t -> t.id().equals(trackId)).findFirst();
  }

  /** The first track of a kind. */
  public Optional<Track> firstTrack(TrackKind kind) {
    return tracksOf(kind).findFirst();
  }

  public Stream<Track> tracksOf(TrackKind kind) {
    return tracks.stream().filter(t -> t.kind() == kind);
  }

  public Optional<Media> media(String mediaId) {
    return Shelf.of(shelf).item(mediaId);
  }

  /** The first clip of the first track that plays a media item; empty when none does. */
  public Optional<Clip> firstClipOf(String mediaId) {
    return tracks.stream()
        .flatMap(t -> t.clips().stream())
        .filter(c -> c.mediaId().equals(mediaId))
        .findFirst();
  }

  /** The first clip of the first picture track: the film. */
  public Optional<Clip> pictureClip() {
    return firstTrack(TrackKind.PICTURE).flatMap(t -> t.clips().stream().findFirst());
  }

  /** The film's media item; empty without a picture. */
  public Optional<Media> pictureMedia() {
    return pictureClip().flatMap(c -> media(c.mediaId()));
  }

  /** Where the picture ends; empty without a picture. */
  public OptionalLong pictureEndFrame() {
    return tracksOf(TrackKind.PICTURE).mapToLong(Track::endFrame).filter(end -> end > 0).max();
  }

  /**
   * How long the film is, in sample frames: to the picture's end where there is a picture, else to
   * the last clip's end.
   */
  public long lengthFrames() {
    return pictureEndFrame()
        .orElseGet(() -> tracks.stream().mapToLong(Track::endFrame).max().orElse(0));
  }

  /** The track that a clip lies on. */
  public Optional<Track> trackOfClip(String clipId) {
    return tracks.stream().filter(t -> t.clip(clipId).isPresent()).findFirst();
  }

  public Optional<Clip> clip(String clipId) {
    return tracks.stream().flatMap(t -> t.clip(clipId).stream()).findFirst();
  }

  /** Whether a clip shows a picture that does not move. */
  public boolean isStill(Clip clip) {
    return media(clip.mediaId()).filter(m -> m.kind() == MediaKind.STILL).isPresent();
  }

  /** The ids of what lies on the timeline. */
  public Set<String> usedMediaIds() {
    return tracks.stream()
        .flatMap(t -> t.clips().stream())
        .map(Clip::mediaId)
        .collect(Collectors.toSet());
  }

  /** Whether an item of the Shelf lies on the timeline. */
  public boolean isUsed(String mediaId) {
    return tracks.stream().anyMatch(t -> t.clips().stream().anyMatch(c -> c.plays(mediaId)));
  }

  /** The tracks whose sound counts as voice. */
  public Stream<Track> voiceTracks() {
    return tracks.stream().filter(Track::isVoice);
  }

  /** Whether something lies on a voice track. */
  public boolean hasVoice() {
    return voiceTracks().anyMatch(t -> !t.clips().isEmpty());
  }

  /** Which tracks are heard: the soloed ones where there are any, else all; never muted ones. */
  public Predicate<Track> heardTracks() {
    boolean anySolo = tracks.stream().anyMatch(t -> t.soloed() && t.kind().sounds());
    return t -> t.kind().sounds() && !t.muted() && (!anySolo || t.soloed());
  }

  public double seconds(long frames) {
    return frames / (double) sampleRate;
  }

  public long frames(double seconds) {
    return Math.round(seconds * sampleRate);
  }
}
