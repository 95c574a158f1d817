package hushrise.core.fit;

import hushrise.core.sound.SampleSource;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

/**
 * A song that can be fitted: its analysis and its samples. What is worked out for one fit is kept
 * for the next. Safe for any number of threads.
 */
public final class Song {

  private final SongAnalysis analysis;
  private final SampleSource source;
  private final Map<Long, Splice> splices = new ConcurrentHashMap<>();
  private volatile Likeness likeness;

  public Song(SongAnalysis analysis, SampleSource source) {
    this.analysis = analysis;
    this.source = source;
  }

  public SongAnalysis analysis() {
    return analysis;
  }

  Likeness likeness() {
    Likeness made = likeness;
    if (made == null) {
      synchronized (this) {
        made = likeness == null ? new Likeness(analysis) : likeness;
        likeness = made;
      }
    }
    return made;
  }

  /** The jump between two edges, aligned to the sample. */
  Splice splice(int fromEdge, int toEdge) {
    long key = (long) fromEdge << 32 | toEdge;
    return splices.computeIfAbsent(
        key,
        k -> {
          double score = Likeness.scoreOf(likeness().cost(fromEdge, toEdge));
          return new Aligner(analysis, source).align(fromEdge, toEdge, score);
        });
  }
}
