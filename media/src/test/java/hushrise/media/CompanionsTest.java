package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.bytedeco.ffmpeg.global.avcodec.AV_CODEC_ID_SUBRIP;
import static org.bytedeco.ffmpeg.global.avcodec.av_new_packet;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_alloc;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_free;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_rescale_ts;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_get_name;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_parameters_copy;
import static org.bytedeco.ffmpeg.global.avformat.AVIO_FLAG_WRITE;
import static org.bytedeco.ffmpeg.global.avformat.av_interleaved_write_frame;
import static org.bytedeco.ffmpeg.global.avformat.av_write_trailer;
import static org.bytedeco.ffmpeg.global.avformat.avformat_alloc_output_context2;
import static org.bytedeco.ffmpeg.global.avformat.avformat_close_input;
import static org.bytedeco.ffmpeg.global.avformat.avformat_free_context;
import static org.bytedeco.ffmpeg.global.avformat.avformat_new_stream;
import static org.bytedeco.ffmpeg.global.avformat.avformat_write_header;
import static org.bytedeco.ffmpeg.global.avformat.avio_closep;
import static org.bytedeco.ffmpeg.global.avformat.avio_open;
import static org.bytedeco.ffmpeg.global.avutil.AVMEDIA_TYPE_SUBTITLE;
import static org.bytedeco.ffmpeg.global.avutil.av_dict_get;
import static org.bytedeco.ffmpeg.global.avutil.av_dict_set;

import hushrise.core.export.Delivered;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.Progress;
import hushrise.core.time.Span;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.bytedeco.ffmpeg.avcodec.AVPacket;
import org.bytedeco.ffmpeg.avformat.AVFormatContext;
import org.bytedeco.ffmpeg.avformat.AVIOContext;
import org.bytedeco.ffmpeg.avformat.AVStream;
import org.bytedeco.ffmpeg.avutil.AVDictionary;
import org.bytedeco.ffmpeg.avutil.AVDictionaryEntry;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What a film carries besides its picture and its sound goes along, or is said. */
class CompanionsTest extends MediaTestCase {

  private static final int SECONDS = 4;

  /** A film with a title, two chapters, sound in German and in French, and subtitles. */
  private Path rich() {
    Path plain = film("plain.mkv", OutputFormat.MKV, SECONDS * 25, true);
    Path file = folder.resolve("rich.mkv");
    AVFormatContext input = Ffmpeg.openInput(plain);
    AVFormatContext output = new AVFormatContext(null);
    avformat_alloc_output_context2(output, null, "matroska", "file:" + file);
    int sound = Probe.soundStream(input);
    int[] sources = {Probe.pictureStream(input), sound, sound};
    String[] languages = {"", "ger", "fre"};
    for (int i = 0; i < sources.length; i++) {
      AVStream to = avformat_new_stream(output, null);
      avcodec_parameters_copy(to.codecpar(), input.streams(sources[i]).codecpar());
      to.codecpar().codec_tag(0);
      to.time_base(input.streams(sources[i]).time_base());
      to.metadata(tag("language", languages[i]));
      to.disposition(i == 1 ? 1 : 0);
    }
    AVStream text = avformat_new_stream(output, null);
    text.codecpar().codec_type(AVMEDIA_TYPE_SUBTITLE);
    text.codecpar().codec_id(AV_CODEC_ID_SUBRIP);
    output.metadata(tag("title", "Harbour morning"));
    Chapters.set(
        output,
        List.of(
            Chapters.Chapter.titled(0, 1.5, "Quay"),
            Chapters.Chapter.titled(1.5, SECONDS, "Ferry")));
    AVIOContext io = new AVIOContext(null);
    avio_open(io, "file:" + file, AVIO_FLAG_WRITE);
    output.pb(io);
    avformat_write_header(output, (AVDictionary) null);
    subtitle(output, 0.5, "Good morning");
    AVPacket packet = av_packet_alloc();
    while (Ffmpeg.read(input, packet, plain)) {
      for (int i = 0; i < sources.length; i++) {
        if (packet.stream_index() == sources[i]) {
          AVPacket copy = org.bytedeco.ffmpeg.global.avcodec.av_packet_clone(packet);
          av_packet_rescale_ts(
              copy, input.streams(sources[i]).time_base(), output.streams(i).time_base());
          copy.stream_index(i);
          av_interleaved_write_frame(output, copy);
          av_packet_free(copy);
        }
      }
    }
    av_write_trailer(output);
    avio_closep(output.pb());
    avformat_free_context(output);
    avformat_close_input(input);
    av_packet_free(packet);
    return file;
  }

  private static void subtitle(AVFormatContext output, double at, String words) {
    byte[] bytes = words.getBytes(StandardCharsets.UTF_8);
    AVPacket packet = av_packet_alloc();
    av_new_packet(packet, bytes.length);
    packet.data().put(bytes, 0, bytes.length);
    packet.stream_index(3);
    long tick = Math.round(at / TimeZero.seconds(output.streams(3).time_base()));
    packet.pts(tick);
    packet.dts(tick);
    packet.duration(Math.round(1 / TimeZero.seconds(output.streams(3).time_base())));
    av_interleaved_write_frame(output, packet);
    av_packet_free(packet);
  }

  private static AVDictionary tag(String key, String value) {
    AVDictionary tags = new AVDictionary(null);
    av_dict_set(tags, key, value, 0);
    return tags;
  }

  private Project project(Path film) {
    Media picture = store.take(film, MediaKind.PICTURE, Progress.NONE);
    Media tone = store.take(tone(SECONDS), MediaKind.MUSIC, Progress.NONE);
    return Project.empty("Own name")
        .withMedia(picture)
        .withMedia(tone)
        .withTracks(
            List.of(
                Track.of(TrackKind.PICTURE, "Picture", List.of(Clip.whole(picture, 0))),
                Track.of(TrackKind.MUSIC, "Music", List.of(Clip.whole(tone, 0)))));
  }

  private record Found(
      List<String> codecs, List<String> languages, List<String> chapters, String title) {}

  private static Found look(Path file) {
    AVFormatContext input = Ffmpeg.openInput(file);
    List<String> codecs = new ArrayList<>();
    List<String> languages = new ArrayList<>();
    for (int i = 0; i < input.nb_streams(); i++) {
      codecs.add(avcodec_get_name(input.streams(i).codecpar().codec_id()).getString());
      languages.add(value(input.streams(i).metadata(), "language"));
    }
    List<String> chapters = new ArrayList<>();
    for (int i = 0; i < input.nb_chapters(); i++) {
      double start = input.chapters(i).start() * TimeZero.seconds(input.chapters(i).time_base());
      chapters.add("%.1f %s".formatted(start, value(input.chapters(i).metadata(), "title")));
    }
    Found found = new Found(codecs, languages, chapters, value(input.metadata(), "title"));
    avformat_close_input(input);
    return found;
  }

  private static String value(AVDictionary tags, String key) {
    AVDictionaryEntry entry = av_dict_get(tags, key, null, 0);
    return entry == null || entry.isNull() ? "" : entry.value().getString();
  }

  @Test
  void aContainerThatTakesAllKeepsAll() {
    Path out = folder.resolve("out.mkv");
    Delivered made = Exporter.export(project(rich()), store, out, OutputFormat.MKV, Progress.NONE);
    assertThat(made.notes()).isEmpty();
    Found found = look(out);
    assertThat(found.codecs()).containsExactly("h264", "aac", "aac", "subrip");
    assertThat(found.languages().subList(1, 3)).containsExactly("ger", "fre");
    assertThat(found.chapters()).containsExactly("0.0 Quay", "1.5 Ferry");
    assertThat(found.title()).isEqualTo("Harbour morning");
    assertThat(Probe.of(out).sound()).isPresent();
    float[] second = read(open(out), RATE, RATE);
    assertThat(frequency(second)).as("the new sound is the one that plays").isBetween(990, 1010);
  }

  @Test
  void whatDoesNotGoIntoAContainerIsSaid() {
    Path out = folder.resolve("out.mp4");
    Delivered made = Exporter.export(project(rich()), store, out, OutputFormat.MP4, Progress.NONE);
    assertThat(made.notes())
        .singleElement()
        .asString()
        .contains("The subtitles, track 4 (subrip)", "is left out");
    Found found = look(out);
    assertThat(found.codecs()).startsWith("h264", "aac", "aac");
    assertThat(found.chapters()).containsExactly("0.0 Quay", "1.5 Ferry");
    Path alone = folder.resolve("alone.mp4");
    Exporter.export(
        Order.of(project(rich()), alone, OutputFormat.MP4).withKeepsTracks(false),
        store,
        Progress.NONE);
    assertThat(look(alone).codecs().stream().filter("aac"::equals)).hasSize(1);
  }

  @Test
  void aPartOfAFilmSaysWhatItLosesAndCarriesTheProjectsName() {
    Path out = folder.resolve("part.mkv");
    Delivered made =
        Exporter.export(
            Order.of(project(rich()), out, OutputFormat.MKV)
                .withRange(Optional.of(new Span(RATE, 3L * RATE))),
            store,
            Progress.NONE);
    assertThat(made.notes().getFirst())
        .isEqualTo("The picture was encoded anew, as it is cut or put together.");
    assertThat(made.notes().subList(1, made.notes().size()))
        .hasSize(3)
        .allMatch(n -> n.contains("as its picture is cut"));
    assertThat(look(out).title()).isEqualTo("Own name");
    assertThat(Probe.of(out).picture().orElseThrow().seconds()).isBetween(1.95, 2.05);
  }

  @ParameterizedTest
  @ValueSource(strings = {"out.mp4", "out.mov"})
  void theIndexStandsInFront(String name) throws IOException {
    Path out = folder.resolve(name);
    Path film = film("film.mp4", OutputFormat.MP4, 50, true);
    Exporter.export(project(film), store, out, OutputFormat.of(out), Progress.NONE);
    String bytes = Files.readString(out, StandardCharsets.ISO_8859_1);
    assertThat(bytes.indexOf("moov")).isPositive().isLessThan(bytes.indexOf("mdat"));
  }

  @Test
  void aWavThatGrowsTooLargeBecomesAnRf64AndIsReadBackWhole() throws IOException {
    Path file = folder.resolve("large.wav");
    float[] tone = sine(440, 0.5, RATE);
    try (WavWriter writer =
        new WavWriter(FileHead.plain(file, RATE, 0), SoundCoding.PCM_24, 100_000)) {
      writer.write(tone, tone, tone.length);
      writer.finish();
    }
    byte[] head = Files.readAllBytes(file);
    assertThat(new String(head, 0, 4, StandardCharsets.US_ASCII)).isEqualTo("RF64");
    assertThat(open(file)).isInstanceOf(MappedWav.class);
    assertThat(open(file).lengthFrames()).isEqualTo(RATE);
    Probe probed = Probe.of(file);
    assertThat(probed.seconds()).isBetween(0.99, 1.01);
    Files.write(file, java.util.Arrays.copyOf(head, head.length / 2));
    assertThat(WavLayout.of(file).orElseThrow().isCutShort()).isTrue();
  }
}
