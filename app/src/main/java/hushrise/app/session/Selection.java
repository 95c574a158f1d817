package hushrise.app.session;

import hushrise.core.project.Project;
import hushrise.core.project.level.Rise;
import hushrise.core.project.media.Media;
import hushrise.core.project.timeline.Clip;
import hushrise.core.speech.Passages;
import hushrise.core.time.Span;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** What is selected: what the detail area shows, and what keys act on. */
public sealed interface Selection {

  /** Nothing. */
  record Nothing() implements Selection {}

  /** A track. */
  record OfTrack(String trackId) implements Selection {}

  /**
   * One clip or several.
   *
   * @param trackId the track of the clip chosen last
   * @param all their ids, the one chosen last at the end; never empty
   */
  record OfClip(String trackId, List<String> all) implements Selection {

    public OfClip {
      all = List.copyOf(all);
    }

    public OfClip(String trackId, String clipId) {
      this(trackId, List.of(clipId));
    }

    /** The clip chosen last. */
    public String clipId() {
      return all.getLast();
    }

    public boolean has(String clipId) {
      return all.contains(clipId);
    }

    /** With one more clip, or without it when it is there already. */
    Selection toggled(String onTrack, String clipId) {
      Set<String> ids = new LinkedHashSet<>(all);
      if (!ids.remove(clipId)) {
        ids.add(clipId);
      }
      return ids.isEmpty() ? nothing() : new OfClip(onTrack, List.copyOf(ids));
    }
  }

  /** A seam of a fitted clip. */
  record OfSeam(String trackId, String clipId, int index) implements Selection {}

  /**
   * One keyframe of a track's line or several, told by their instants.
   *
   * @param all their instants, that of the one chosen last at the end; never empty
   */
  record OfKeyframe(String trackId, List<Long> all) implements Selection {

    public OfKeyframe {
      all = List.copyOf(all);
    }

    public OfKeyframe(String trackId, long frame) {
      this(trackId, List.of(frame));
    }

    /** The one chosen last. */
    public long frame() {
      return all.getLast();
    }

    /** With one more, or without it when it is there already. */
    Selection toggled(long frame) {
      Set<Long> frames = new LinkedHashSet<>(all);
      if (!frames.remove(frame)) {
        frames.add(frame);
      }
      return frames.isEmpty() ? nothing() : new OfKeyframe(trackId, List.copyOf(frames));
    }
  }

  /** A rise on a track. */
  record OfRise(String trackId, String riseId) implements Selection {}

  /** A stretch of time on a track. */
  record OfSpan(String trackId, Span span) implements Selection {}

  /**
   * A stretch of speech in a clip.
   *
   * @param index which of its media's stretches
   */
  record OfPassage(String trackId, String clipId, String mediaId, int index) implements Selection {}

  /** A hush on a track. */
  record OfHush(String trackId, String hushId) implements Selection {}

  /** A marker. */
  record OfMarker(String markerId) implements Selection {}

  /** The empty selection. */
  static Selection nothing() {
    return new Nothing();
  }

  /** With a clip taken in or out, whatever was selected before. */
  default Selection with(String trackId, String clipId) {
    return this instanceof OfClip c ? c.toggled(trackId, clipId) : new OfClip(trackId, clipId);
  }

  /** With a keyframe taken in or out, whatever was selected before. */
  default Selection withKeyframe(String trackId, long frame) {
    return this instanceof OfKeyframe k && k.trackId().equals(trackId)
        ? k.toggled(frame)
        : new OfKeyframe(trackId, frame);
  }

  /** Whether what is selected is still there. */
  default boolean isIn(Project now) {
    return switch (this) {
      case Selection.Nothing n -> true;
      case Selection.OfTrack t -> now.track(t.trackId()).isPresent();
      case Selection.OfClip c -> c.clipIds().stream().allMatch(id -> now.clip(id).isPresent());
      case Selection.OfSeam s ->
          now.clip(s.clipId()).filter(c -> s.index() < c.seams().size()).isPresent();
      case Selection.OfMarker m ->
          now.markers().stream().anyMatch(marker -> marker.id().equals(m.markerId()));
      case Selection.OfKeyframe k ->
          now.track(k.trackId())
              .filter(t -> k.all().stream().allMatch(f -> t.line().at(f).isPresent()))
              .isPresent();
      case Selection.OfRise r ->
          now.track(r.trackId()).flatMap(t -> t.rise(r.riseId())).isPresent();
      case Selection.OfSpan s -> now.track(s.trackId()).isPresent();
      case Selection.OfPassage p ->
          now.clip(p.clipId()).isPresent()
              && now.media(p.mediaId())
                  .flatMap(Media::speech)
                  .filter(spans -> p.index() < spans.size())
                  .isPresent();
      case Selection.OfHush h ->
          now.track(h.trackId())
              .filter(t -> t.hushes().stream().anyMatch(hush -> hush.id().equals(h.hushId())))
              .isPresent();
    };
  }

  /** The clips that are selected; the clip of a selected seam counts. */
  default Set<String> clipIds() {
    return switch (this) {
      case OfClip c -> Set.copyOf(c.all());
      case OfSeam s -> Set.of(s.clipId());
      case Nothing n -> Set.of();
      case OfTrack t -> Set.of();
      case OfKeyframe k -> Set.of();
      case OfHush h -> Set.of();
      case OfRise r -> Set.of();
      case OfSpan s -> Set.of();
      case OfMarker m -> Set.of();
      case OfPassage p -> Set.of();
    };
  }

  /** The clip chosen last. */
  default Optional<String> oneClip() {
    return switch (this) {
      case OfClip c -> Optional.of(c.clipId());
      case OfSeam s -> Optional.of(s.clipId());
      default -> Optional.empty();
    };
  }

  /** The track that the selection lies on; empty without one. */
  default String trackId() {
    return switch (this) {
      case Nothing n -> "";
      case OfMarker m -> "";
      case OfTrack t -> t.trackId();
      case OfClip c -> c.trackId();
      case OfSeam s -> s.trackId();
      case OfKeyframe k -> k.trackId();
      case OfHush h -> h.trackId();
      case OfRise r -> r.trackId();
      case OfSpan s -> s.trackId();
      case OfPassage p -> p.trackId();
    };
  }

  /** Where what is selected lies in a project; empty when it is no longer there. */
  default Optional<Span> spanIn(Project now) {
    int rate = now.sampleRate();
    return switch (this) {
      case Nothing n -> Optional.empty();
      case OfTrack t -> Optional.empty();
      case OfMarker m ->
          now.markers().stream()
              .filter(marker -> marker.id().equals(m.markerId()))
              .findFirst()
              .map(marker -> new Span(marker.frame(), marker.frame()));
      case OfClip c ->
          c.all().stream()
              .flatMap(id -> now.clip(id).stream())
              .map(Clip::span)
              .reduce(Span::around);
      case OfSeam s ->
          now.clip(s.clipId())
              .filter(c -> s.index() < c.seams().size())
              .map(
                  c ->
                      new Span(
                          c.startFrame() + c.seams().get(s.index()).startFrame(),
                          c.startFrame() + c.seams().get(s.index()).endFrame()));
      case OfKeyframe k ->
          k.all().stream().map(frame -> new Span(frame, frame)).reduce(Span::around);
      case OfHush h ->
          now.track(h.trackId())
              .flatMap(t -> t.hush(h.hushId()))
              .map(hush -> hush.knots(rate))
              .map(k -> new Span(Math.max(0, k.start()), k.end()));
      case OfRise r -> now.track(r.trackId()).flatMap(t -> t.rise(r.riseId())).map(Rise::span);
      case OfSpan s -> Optional.of(s.span());
      case OfPassage p ->
          now.track(p.trackId())
              .flatMap(
                  t ->
                      t.clip(p.clipId())
                          .flatMap(
                              c ->
                                  now.media(p.mediaId())
                                      .flatMap(
                                          m ->
                                              Passages.in(t, c, m).stream()
                                                  .map(Passages.Passage::span)
                                                  .skip(p.index())
                                                  .findFirst())));
    };
  }
}
