package hushrise.media;

import static hushrise.media.Ffmpeg.allocated;
import static org.bytedeco.ffmpeg.global.avutil.av_dict_copy;
import static org.bytedeco.ffmpeg.global.avutil.av_dict_set;
import static org.bytedeco.ffmpeg.global.avutil.av_malloc;
import static org.bytedeco.ffmpeg.global.avutil.av_mallocz;

import java.util.List;
import org.bytedeco.ffmpeg.avformat.AVChapter;
import org.bytedeco.ffmpeg.avformat.AVFormatContext;
import org.bytedeco.ffmpeg.avutil.AVDictionary;
import org.bytedeco.ffmpeg.avutil.AVRational;
import org.bytedeco.javacpp.Pointer;
import org.bytedeco.javacpp.PointerPointer;

/** Gives an output its chapters, before its head is written. */
final class Chapters {

  private static final int TICKS_PER_SECOND = 1000;

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

  /** Sets all chapters of an output; it frees them with itself, so FFmpeg has to allocate them. */
  static void set(AVFormatContext output, List<Chapter> chapters) {
    if (chapters.isEmpty()) {
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
