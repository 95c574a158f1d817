package hushrise.core.ear;

import hushrise.core.ear.Finding.Remedy;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.speech.Passages;
import hushrise.core.time.Span;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * Somebody speaks in the film's own sound, there is no other voice, and music lies over it: then
 * the film's own sound is the voice, and nobody has said so.
 */
public final class UnheardTalk implements EarRule {

  /** Less than this may be a call from afar. */
  private static final double LEAST_SECONDS = 3;

  @Override
  public String id() {
    return "camera.speaks";
  }

  @Override
  public List<Finding> hear(Heard heard) {
    return mayBeVoice(heard.project())
        .map(t -> finding(heard.project(), t))
        .flatMap(Optional::stream)
        .toList();
  }

  /** The film's own sound where it is heard, there is music, and nothing else can be the voice. */
  public static Stream<Track> mayBeVoice(Project project) {
    boolean hasMusic = project.tracksOf(TrackKind.MUSIC).anyMatch(t -> !t.clips().isEmpty());
    return project.hasVoice() || !hasMusic
        ? Stream.empty()
        : project.tracksOf(TrackKind.CAMERA).filter(project.heardTracks());
  }

  private Optional<Finding> finding(Project project, Track track) {
    List<Span> talk =
        track.clipsInTime().stream()
            .flatMap(c -> spoken(project, track, c).stream())
            .filter(s -> s.startFrame() < project.lengthFrames())
            .toList();
    double seconds =
        talk.stream().mapToLong(Span::lengthFrames).sum() / (double) project.sampleRate();
    if (seconds < LEAST_SECONDS) {
      return Optional.empty();
    }
    Remedy voice =
        new Remedy(
            "remedy.speaks",
            List.of(track.name()),
            now -> now.withTrack(track.id(), t -> t.withSpeaks(true)));
    return Optional.of(
        new Finding(
            id(),
            track.id(),
            talk.getFirst(),
            track.id(),
            List.of(track.name(), seconds),
            List.of(voice)));
  }

  /** Where somebody was found to speak; nothing where nobody has looked. */
  private static List<Span> spoken(Project project, Track track, Clip clip) {
    Optional<Media> known = project.media(clip.mediaId()).filter(m -> m.speech().isPresent());
    return known.map(m -> Passages.in(track, clip, m)).orElse(List.of()).stream()
        .map(Passages.Passage::span)
        .toList();
  }
}
