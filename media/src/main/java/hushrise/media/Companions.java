package hushrise.media;

import static hushrise.media.Ffmpeg.allocated;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_alloc;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_free;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_unref;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_get_name;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_parameters_copy;
import static org.bytedeco.ffmpeg.global.avformat.AV_DISPOSITION_ATTACHED_PIC;
import static org.bytedeco.ffmpeg.global.avformat.AV_DISPOSITION_DEFAULT;
import static org.bytedeco.ffmpeg.global.avformat.avformat_close_input;
import static org.bytedeco.ffmpeg.global.avformat.avformat_new_stream;
import static org.bytedeco.ffmpeg.global.avformat.avformat_query_codec;
import static org.bytedeco.ffmpeg.global.avutil.AVMEDIA_TYPE_ATTACHMENT;
import static org.bytedeco.ffmpeg.global.avutil.AVMEDIA_TYPE_AUDIO;
import static org.bytedeco.ffmpeg.global.avutil.AVMEDIA_TYPE_SUBTITLE;
import static org.bytedeco.ffmpeg.global.avutil.AVMEDIA_TYPE_VIDEO;
import static org.bytedeco.ffmpeg.global.avutil.AV_NOPTS_VALUE;
import static org.bytedeco.ffmpeg.global.avutil.av_dict_copy;
import static org.bytedeco.ffmpeg.global.avutil.av_dict_get;
import static org.bytedeco.ffmpeg.global.avutil.av_dict_set;

import hushrise.media.Chapters.Chapter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.bytedeco.ffmpeg.avcodec.AVPacket;
import org.bytedeco.ffmpeg.avformat.AVChapter;
import org.bytedeco.ffmpeg.avformat.AVFormatContext;
import org.bytedeco.ffmpeg.avformat.AVStream;
import org.bytedeco.ffmpeg.avutil.AVDictionary;
import org.bytedeco.ffmpeg.avutil.AVDictionaryEntry;

/**
 * What a film carries besides its picture and the sound that is replaced: tags, chapters, subtitles
 * and further sound tracks. Each goes along as it is where the container takes it; what does not is
 * said.
 */
final class Companions implements AutoCloseable {

  static {
    Ffmpeg.load();
  }

  private static final int STANDARD_COMPLIANCE = 0;

  /** Tags that a container writes by itself. */
  private static final List<String> OWN_TAGS =
      List.of("major_brand", "minor_version", "compatible_brands", "encoder", "DURATION");

  private final Path film;
  private final AVFormatContext input;
  private final AVFormatContext output;
  private final double zeroSeconds;
  private final Map<Integer, AVStream> streams = new HashMap<>();
  private final List<String> leftOut = new ArrayList<>();
  private final AVPacket packet = allocated(av_packet_alloc());
  private boolean waiting;
  private boolean ended;

  /**
   * Adds streams, tags and chapters to an output whose picture and sound are there, and whose head
   * has yet to be written.
   *
   * @param sound the output's sound, which takes its language from the one it replaces
   * @param takesStreams whether subtitles and sound tracks may go along
   */
  Companions(
      Path film, AVFormatContext output, AVStream sound, FileHead head, boolean takesStreams) {
    this.film = film;
    this.output = output;
    input = Ffmpeg.openInput(film);
    zeroSeconds = TimeZero.of(input);
    output.metadata(copied(input.metadata(), output.metadata()));
    Chapters.set(output, Chapters.arranged(chapters(head), head));
    int replaced = Probe.soundStream(input);
    int picture = Probe.pictureStream(input);
    if (replaced >= 0) {
      languageOf(input.streams(replaced))
          .ifPresent(language -> sound.metadata(with(sound.metadata(), "language", language)));
    }
    for (int i = 0; i < input.nb_streams(); i++) {
      if (i != replaced && i != picture) {
        consider(input.streams(i), head.keepsTracks(), takesStreams);
      }
    }
    ended = streams.isEmpty();
  }

  /** What a film would lose that is put together from parts of it: in sentences. */
  static List<String> lostFrom(Path film) {
    AVFormatContext input = Ffmpeg.openInput(film);
    try {
      List<String> lost = new ArrayList<>();
      if (input.nb_chapters() > 0) {
        lost.add("The chapters of %s are left out, as its picture is cut.".formatted(nameOf(film)));
      }
      for (int i = 0; i < input.nb_streams(); i++) {
        int type = input.streams(i).codecpar().codec_type();
        boolean further = type == AVMEDIA_TYPE_AUDIO && i != Probe.soundStream(input);
        if (type == AVMEDIA_TYPE_SUBTITLE || further) {
          lost.add(
              "%s %d of %s is left out, as its picture is cut."
                  .formatted(wordFor(type), i + 1, nameOf(film)));
        }
      }
      return lost;
    } finally {
      avformat_close_input(input);
    }
  }

  private static String nameOf(Path film) {
    return String.valueOf(film.getFileName());
  }

  private static AVDictionary copied(AVDictionary from, AVDictionary into) {
    AVDictionary tags = into == null ? new AVDictionary(null) : into;
    av_dict_copy(tags, from, 0);
    OWN_TAGS.forEach(tag -> av_dict_set(tags, tag, (String) null, 0));
    return tags;
  }

  private static AVDictionary with(AVDictionary tags, String key, String value) {
    AVDictionary all = tags == null ? new AVDictionary(null) : tags;
    av_dict_set(all, key, value, 0);
    return all;
  }

  private static Optional<String> languageOf(AVStream stream) {
    AVDictionaryEntry entry = av_dict_get(stream.metadata(), "language", null, 0);
    return entry == null || entry.isNull()
        ? Optional.empty()
        : Optional.of(entry.value().getString());
  }

  /** The film's own chapters; none where others take their place, which is said. */
  private List<Chapter> chapters(FileHead head) {
    if (!head.marks().isEmpty() && input.nb_chapters() > 0) {
      leftOut.add(
          "The film's own chapters (%d) give way to the markers.".formatted(input.nb_chapters()));
      return List.of();
    }
    List<Chapter> kept = new ArrayList<>();
    for (int i = 0; i < input.nb_chapters(); i++) {
      AVChapter from = input.chapters(i);
      double tick = TimeZero.seconds(from.time_base());
      double start = Math.max(0, from.start() * tick - zeroSeconds);
      double end = Math.min(head.seconds(), from.end() * tick - zeroSeconds);
      if (start < end) {
        kept.add(new Chapter(start, end, from.metadata()));
      } else {
        leftOut.add("Chapter %d lies outside the film and is left out.".formatted(i + 1));
      }
    }
    return kept;
  }

  private void consider(AVStream stream, boolean keepsTracks, boolean takesStreams) {
    int type = stream.codecpar().codec_type();
    boolean sound = type == AVMEDIA_TYPE_AUDIO;
    if (sound && !keepsTracks) {
      return;
    }
    boolean cover = (stream.disposition() & AV_DISPOSITION_ATTACHED_PIC) != 0;
    boolean kind = sound || type == AVMEDIA_TYPE_SUBTITLE;
    int codec = stream.codecpar().codec_id();
    boolean taken =
        takesStreams
            && kind
            && avformat_query_codec(output.oformat(), codec, STANDARD_COMPLIANCE) == 1;
    if (taken) {
      AVStream to = allocated(avformat_new_stream(output, null));
      avcodec_parameters_copy(to.codecpar(), stream.codecpar());
      to.codecpar().codec_tag(0);
      to.time_base(stream.time_base());
      to.disposition(stream.disposition() & ~AV_DISPOSITION_DEFAULT);
      to.metadata(copied(stream.metadata(), null));
      streams.put(stream.index(), to);
    } else if (kind || cover || type == AVMEDIA_TYPE_ATTACHMENT || type == AVMEDIA_TYPE_VIDEO) {
      leftOut.add(
          "%s %d (%s) does not go into a %s file and is left out."
              .formatted(
                  cover ? "The cover picture, track" : wordFor(type),
                  stream.index() + 1,
                  avcodec_get_name(codec).getString(),
                  output.oformat().name().getString()));
    }
  }

  private static String wordFor(int type) {
    if (type == AVMEDIA_TYPE_AUDIO) {
      return "Sound track";
    }
    if (type == AVMEDIA_TYPE_SUBTITLE) {
      return "The subtitles, track";
    }
    return type == AVMEDIA_TYPE_VIDEO ? "Picture track" : "The attachment, track";
  }

  /** What could not go along, in sentences. */
  List<String> leftOut() {
    return List.copyOf(leftOut);
  }

  /** Hands over all packets up to a time, in seconds from the start. */
  void writeUntil(double seconds, PacketSink sink) {
    while (!ended) {
      if (!waiting && !read()) {
        ended = true;
        return;
      }
      AVStream to = output.streams(packet.stream_index());
      if (packet.dts() != AV_NOPTS_VALUE
          && packet.dts() * TimeZero.seconds(to.time_base()) > seconds) {
        return;
      }
      waiting = false;
      sink.write(packet);
    }
  }

  /** Reads the next packet that goes along, stamped in the output's time. */
  private boolean read() {
    while (Ffmpeg.read(input, packet, film)) {
      AVStream to = streams.get(packet.stream_index());
      if (to != null) {
        AVStream from = input.streams(packet.stream_index());
        long zero = Math.round(zeroSeconds / TimeZero.seconds(from.time_base()));
        Ffmpeg.moveTo(to, packet, from, zero);
        waiting = true;
        return true;
      }
      av_packet_unref(packet);
    }
    return false;
  }

  @Override
  public void close() {
    av_packet_free(packet);
    avformat_close_input(input);
  }
}
