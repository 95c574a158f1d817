package hushrise.core.fit;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import hushrise.core.Problem;
import hushrise.core.project.timeline.Fit;
import hushrise.core.project.timeline.FitMode;
import hushrise.core.sound.SampleSource;
import hushrise.core.time.Span;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;

/**
 * A song that can be fitted: its analysis and its samples. What is worked out for one fit is kept
 * for the next. Safe for any number of threads.
 */
public final class Song {

  /** How many lengths a song is kept at. */
  private static final long KEPT = 256;

  /**
   * A length that is wished for.
   *
   * @param fit its mode, its protected parts and its jumps count
   * @param mediaStartFrame where in the song it begins
   * @param lengthFrames how long it is to be
   * @param covered where somebody speaks, in frames from where it begins: a seam is heard less
   *     there
   */
  record Wish(Fit fit, long mediaStartFrame, long lengthFrames, List<Span> covered) {

    Wish(Fit fit, long mediaStartFrame, long lengthFrames) {
      this(fit, mediaStartFrame, lengthFrames, List.of());
    }

    Wish {
      fit = fit.withAnchorFrame(0).withUntilFrame(Optional.empty());
      covered = List.copyOf(covered);
    }
  }

  /** What came of a search: one of the two. */
  private record Result(Optional<Arrangement> arrangement, Optional<Problem> problem) {

    Arrangement orThrow() {
      return arrangement.orElseThrow(() -> problem.orElseThrow());
    }
  }

  private final SongAnalysis analysis;
  private final SampleSource source;
  private final Map<Joint, Splice> splices = new ConcurrentHashMap<>();
  private final Map<Span, Song> parts = new ConcurrentHashMap<>();
  private volatile List<Sections.Section> sections;
  private final Cache<Wish, Result> results = Caffeine.newBuilder().maximumSize(KEPT).build();

  public Song(SongAnalysis analysis, SampleSource source) {
    this.analysis = analysis;
    this.source = source;
  }

  public SongAnalysis analysis() {
    return analysis;
  }

  /** Its sections, worked out once. */
  public List<Sections.Section> sections() {
    List<Sections.Section> known = sections;
    if (known == null) {
      known = Sections.of(analysis);
      sections = known;
    }
    return known;
  }

  /** Whether a wish has been searched for before. */
  boolean knows(Wish wish) {
    return results.getIfPresent(wish) != null;
  }

  /**
   * The song at a length; searched for when that has not been done before.
   *
   * @param name what a person knows the song as
   * @throws Problem when it cannot be brought to that length
   */
  Arrangement arrangement(Wish wish, String name) {
    return results.get(wish, w -> search(w, name)).orThrow();
  }

  private Result search(Wish wish, String name) {
    Song song = wish.fit().part().map(this::within).orElse(this);
    try {
      return new Result(
          Optional.of(
              wish.fit().mode() == FitMode.TAILOR
                  ? TailorFit.arrange(song, wish, name)
                  : LoopFit.arrange(song, wish, name)),
          Optional.empty());
    } catch (Problem e) {
      return new Result(Optional.empty(), Optional.of(e));
    }
  }

  /** A part of the song as a song of its own, in the same media frames. */
  private Song within(Span part) {
    return parts.computeIfAbsent(part, p -> new Song(analysis.within(p), source));
  }

  /** A jump, aligned to the sample. */
  Splice splice(Joint joint) {
    return splices.computeIfAbsent(joint, j -> new Aligner(analysis, source).align(j));
  }
}
