package hushrise.media;

import static hushrise.media.Ffmpeg.allocated;
import static org.bytedeco.ffmpeg.global.avutil.av_dict_copy;
import static org.bytedeco.ffmpeg.global.avutil.av_dict_get;
import static org.bytedeco.ffmpeg.global.avutil.av_dict_set;
import static org.bytedeco.ffmpeg.global.avutil.av_malloc;
import static org.bytedeco.ffmpeg.global.avutil.av_mallocz;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import org.bytedeco.ffmpeg.avformat.AVChapter;
import org.bytedeco.ffmpeg.avformat.AVFormatContext;
import org.bytedeco.ffmpeg.avutil.AVDictionary;
import org.bytedeco.ffmpeg.avutil.AVDictionaryEntry;
import org.bytedeco.ffmpeg.avutil.AVRational;
import org.bytedeco.javacpp.Pointer;
import org.bytedeco.javacpp.PointerPointer;

/** Gives an output its chapters, before its head is written. */
final class Chapters {

  private static final int TICKS_PER_SECOND = 1000;

  /** How long the chapter of the credits lasts at most, and what part of a short film. */
  private static final double CREDITS_SECONDS = 5;

  private static final double CREDITS_PART = 0.1;

  private static final List<String> OGG = List.of("ogg", "opus");

  /** Chapters shorter than a tick are none. */
  private static final double SHORTEST_SECONDS = 1.0 / TICKS_PER_SECOND;

  private Chapters() {}

  /**
   * A chapter.
   *
   * @param startSeconds from the film's start
   * @param endSeconds likewise
   * @param tags such as its title
   */
  record Chapter(double startSeconds, double endSeconds, AVDictionary tags) {

    static Chapter titled(double startSeconds, double endSeconds, String title) {
      AVDictionary tags = new AVDictionary(null);
      av_dict_set(tags, "title", title, 0);
      return new Chapter(startSeconds, endSeconds, tags);
    }
  }

  /**
   * What chapters a file has: those of its source, or in their place those that its marks begin;
   * and at the end one for its credits. They cover all of it.
   *
   * @param own those of its source
   */
  static List<Chapter> arranged(List<Chapter> own, FileHead head) {
    List<Chapter> all = new ArrayList<>(head.marks().isEmpty() ? own : fromMarks(head));
    if (head.credits().isPresent()) {
      double end = head.seconds();
      double last = all.isEmpty() ? 0 : all.getLast().startSeconds();
      double start =
          Math.max(end - Math.min(CREDITS_SECONDS, CREDITS_PART * end), (last + end) / 2);
      if (all.isEmpty()) {
        all.add(Chapter.titled(0, start, titleOf(head)));
      } else {
        all.add(new Chapter(last, Math.min(start, end), all.removeLast().tags()));
      }
      all.add(Chapter.titled(start, end, head.credits().get()));
    }
    return all;
  }

  private static List<Chapter> fromMarks(FileHead head) {
    List<FileHead.Mark> marks = new ArrayList<>(head.marks());
    if (marks.getFirst().seconds() > SHORTEST_SECONDS) {
      marks.addFirst(new FileHead.Mark(0, titleOf(head)));
    }
    List<Chapter> all = new ArrayList<>();
    for (int i = 0; i < marks.size(); i++) {
      double end = i + 1 < marks.size() ? marks.get(i + 1).seconds() : head.seconds();
      if (end - marks.get(i).seconds() >= SHORTEST_SECONDS) {
        all.add(Chapter.titled(marks.get(i).seconds(), end, marks.get(i).title()));
      }
    }
    return all;
  }

  /**
   * Sets chapters as Ogg has them, among its comments (Xiph.org, Chapter Extension). FFmpeg would
   * write them a second late where they begin in a second's later half.
   */
  private static void setInComments(AVFormatContext output, List<Chapter> chapters) {
    AVDictionary tags = output.metadata() == null ? new AVDictionary(null) : output.metadata();
    for (int i = 0; i < chapters.size(); i++) {
      Chapter chapter = chapters.get(i);
      long millis = Math.round(chapter.startSeconds() * 1000);
      Duration start = Duration.ofMillis(millis);
      String key = "CHAPTER%03d".formatted(i);
      String time =
          "%02d:%02d:%02d.%03d"
              .formatted(
                  start.toHours(), start.toMinutesPart(), start.toSecondsPart(), millis % 1000);
      av_dict_set(tags, key, time, 0);
      AVDictionaryEntry title = av_dict_get(chapter.tags(), "title", null, 0);
      if (title != null) {
        av_dict_set(tags, key + "NAME", title.value().getString(StandardCharsets.UTF_8), 0);
      }
    }
    output.metadata(tags);
  }

  private static String titleOf(FileHead head) {
    return head.title().orElse("Beginning");
  }

  /** Sets all chapters of an output; it frees them with itself, so FFmpeg has to allocate them. */
  static void set(AVFormatContext output, List<Chapter> chapters) {
    if (chapters.isEmpty()) {
      return;
    }
    if (OGG.contains(output.oformat().name().getString())) {
      setInComments(output, chapters);
      return;
    }
    long pointer = Pointer.sizeof(PointerPointer.class);
    PointerPointer<AVChapter> all =
        new PointerPointer<>(allocated(av_malloc(chapters.size() * pointer)));
    for (int i = 0; i < chapters.size(); i++) {
      Chapter chapter = chapters.get(i);
      AVChapter to = new AVChapter(allocated(av_mallocz(Pointer.sizeof(AVChapter.class))));
      to.id(i + 1);
      to.time_base(new AVRational().num(1).den(TICKS_PER_SECOND));
      to.start(Math.round(chapter.startSeconds() * TICKS_PER_SECOND));
      to.end(Math.round(chapter.endSeconds() * TICKS_PER_SECOND));
      AVDictionary tags = new AVDictionary(null);
      av_dict_copy(tags, chapter.tags(), 0);
      to.metadata(tags);
      all.put(i, to);
    }
    output.chapters(all);
    output.nb_chapters(chapters.size());
  }
}
