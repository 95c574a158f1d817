package hushrise.core.hush;

import hushrise.core.Ids;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.HushRule;
import hushrise.core.project.media.Media;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.speech.Passages;
import hushrise.core.speech.Passages.Passage;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.TreeMap;

/**
 * Lets hushes follow the speech they lie under. Whatever an edit did to narration or to its
 * passages (move, trim, split, delete), each hush goes where its passages went, keeps its distance
 * from them, falls apart where they now lie far from one another, and goes when they are gone.
 */
public final class HushFollow {

  private final Project before;
  private final List<String> voicesBefore;

  /** What is known of the speech before; found out once an edit moves some. */
  private Optional<Was> was = Optional.empty();

  private HushFollow(Project before) {
    this.before = before;
    voicesBefore = voiceIds(before);
  }

  /** Edits of one project, such as those that a drag tries one after another. For one thread. */
  public static HushFollow from(Project before) {
    return new HushFollow(before);
  }

  /**
   * The edited project with its hushes where the speech is. Hushes that the edit itself changed
   * stay as it left them.
   */
  public static Project followed(Project before, Project after) {
    return from(before).follow(after);
  }

  /** What the edits are edits of. */
  public Project before() {
    return before;
  }

  /** As {@link #followed(Project, Project)}. */
  public Project follow(Project after) {
    if (!voicesBefore.equals(voiceIds(after))) {
      return after;
    }
    List<Passage> leaving = leaving(before, after);
    if (leaving.isEmpty()) {
      return after;
    }
    Was known = was.orElseGet(() -> Was.in(before));
    was = Optional.of(known);
    return new Edit(known, before, after, leaving).all();
  }

  /**
   * The speech before an edit.
   *
   * @param passages in order of time
   * @param until up to each of the passages, when the last of them ends
   * @param mediaByClip which media each clip plays
   */
  @SuppressWarnings("ArrayRecordComponent") // never compared
  private record Was(List<Passage> passages, long[] until, Map<String, String> mediaByClip) {

    static Was in(Project project) {
      List<Passage> passages = Passages.each(project, t -> true);
      long[] until = new long[passages.size()];
      long last = 0;
      for (int i = 0; i < until.length; i++) {
        last = Math.max(last, passages.get(i).span().endFrame());
        until[i] = last;
      }
      return new Was(passages, until, HushFollow.mediaByClip(project));
    }

    /** The passages that lay over a span: they are in order, so few are looked at. */
    List<Passage> over(Span span) {
      List<Passage> over = new ArrayList<>();
      int at = Arrays.binarySearch(until, span.startFrame());
      for (int i = at < 0 ? -at - 1 : at; i < passages.size(); i++) {
        Span passage = passages.get(i).span();
        if (passage.startFrame() >= span.endFrame()) {
          break;
        }
        if (passage.overlaps(span)) {
          over.add(passages.get(i));
        }
      }
      return over;
    }
  }

  private static List<String> voiceIds(Project project) {
    return project.voiceTracks().map(Track::id).toList();
  }

  /** The passages that are no longer where they were. */
  private static List<Passage> leaving(Project before, Project after) {
    boolean sameShelf = before.shelf().equals(after.shelf());
    List<Passage> leaving = new ArrayList<>();
    for (Track old : before.voiceTracks().toList()) {
      Track track = after.track(old.id()).orElseThrow();
      if (sameShelf && track.clips().equals(old.clips())) {
        continue;
      }
      Map<String, Clip> now = new HashMap<>();
      track.clips().forEach(c -> now.put(c.id(), c));
      for (Clip clip : old.clips()) {
        Optional<Media> media = before.media(clip.mediaId());
        boolean stays =
            clip.equals(now.get(clip.id()))
                && (sameShelf || after.media(clip.mediaId()).equals(media));
        if (!stays && media.isPresent()) {
          List<Passage> stay =
              Optional.ofNullable(now.get(clip.id()))
                  .flatMap(c -> after.media(c.mediaId()).map(m -> Passages.in(track, c, m)))
                  .orElse(List.of());
          List<Passage> were = new ArrayList<>(Passages.in(old, clip, media.get()));
          were.removeAll(new HashSet<>(stay));
          leaving.addAll(were);
        }
      }
    }
    return leaving;
  }

  /** One edit. */
  private static final class Edit {

    private final Was was;
    private final Project before;
    private final Project after;
    private final TreeMap<Long, Span> leavingByEnd = new TreeMap<>();
    private final Map<String, List<Passage>> isByClip = new HashMap<>();
    private final Map<String, List<Passage>> isInNewClipsByMedia = new HashMap<>();
    private final Map<String, String> mediaByClip;

    Edit(Was was, Project before, Project after, List<Passage> leaving) {
      this.was = was;
      this.before = before;
      this.after = after;
      Span.joined(leaving.stream().map(Passage::span).toList(), 0)
          .forEach(s -> leavingByEnd.put(s.endFrame(), s));
      mediaByClip = HushFollow.mediaByClip(after);
      for (Passage p : Passages.each(after, t -> true)) {
        boolean isNew = !was.mediaByClip().containsKey(p.clipId());
        Map<String, List<Passage>> found = isNew ? isInNewClipsByMedia : isByClip;
        String key = isNew ? mediaByClip.get(p.clipId()) : p.clipId();
        found.computeIfAbsent(key, k -> new ArrayList<>()).add(p);
      }
    }

    private Project all() {
      return after.withEachTrack(
          track -> {
            if (track.hushes().isEmpty()) {
              return track;
            }
            Map<String, Hush> old = new HashMap<>();
            before.track(track.id()).ifPresent(t -> t.hushes().forEach(h -> old.put(h.id(), h)));
            double gapSeconds =
                track
                    .rule()
                    .map(HushRule::shortestGapSeconds)
                    .orElse(HushRule.of(0).shortestGapSeconds());
            List<Hush> hushes = new ArrayList<>();
            for (Hush hush : track.hushes()) {
              if (liesUnderLeaving(hush) && hush.equals(old.get(hush.id()))) {
                hushes.addAll(moved(hush, after.frames(gapSeconds)));
              } else {
                hushes.add(hush);
              }
            }
            hushes.sort(Comparator.comparingLong(Hush::startFrame));
            return hushes.equals(track.hushes()) ? track : track.withHushes(hushes);
          });
    }

    /** Whether some of a hush's passages are no longer where they were: most edits touch few. */
    private boolean liesUnderLeaving(Hush hush) {
      Map.Entry<Long, Span> next = leavingByEnd.higherEntry(hush.startFrame());
      return next != null && next.getValue().overlaps(hush.passage());
    }

    private List<Hush> moved(Hush hush, long shortestGap) {
      Span passage = hush.passage();
      List<Passage> members = was.over(passage);
      List<Span> images = new ArrayList<>();
      long gap = shortestGap;
      for (int i = 0; i < members.size(); i++) {
        Passage member = members.get(i);
        long lead = i == 0 ? hush.startFrame() - member.span().startFrame() : 0;
        boolean last = i == members.size() - 1;
        long tail = last ? hush.endFrame() - member.span().endFrame() : 0;
        if (!last) {
          gap = Math.max(gap, members.get(i + 1).span().startFrame() - member.span().endFrame());
        }
        for (Passage image : imagesOf(member)) {
          long start = Math.max(0, image.span().startFrame() + lead);
          images.add(new Span(start, Math.max(start + 1, image.span().endFrame() + tail)));
        }
      }
      List<Span> places = Span.joined(images, gap);
      List<Hush> result = new ArrayList<>();
      for (Span place : places) {
        Hush moved = hush.withPassage(place);
        result.add(result.isEmpty() ? moved : moved.withId(Ids.fresh("hush")));
      }
      return result;
    }

    /** What became of a passage: in the clip it was in, or in one that a split has made of it. */
    private List<Passage> imagesOf(Passage old) {
      String mediaId = was.mediaByClip().get(old.clipId());
      List<Passage> images = new ArrayList<>();
      for (List<Passage> found :
          List.of(
              isByClip.getOrDefault(old.clipId(), List.of()),
              isInNewClipsByMedia.getOrDefault(mediaId, List.of()))) {
        for (Passage p : found) {
          if (p.inMedia().overlaps(old.inMedia())
              && Objects.equals(mediaByClip.get(p.clipId()), mediaId)) {
            images.add(p);
          }
        }
      }
      return images;
    }
  }

  private static Map<String, String> mediaByClip(Project project) {
    Map<String, String> media = new HashMap<>();
    project.tracks().forEach(t -> t.clips().forEach(c -> media.put(c.id(), c.mediaId())));
    return media;
  }
}
