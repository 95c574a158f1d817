package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_alloc;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_free;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_unref;
import static org.bytedeco.ffmpeg.global.avformat.av_read_frame;
import static org.bytedeco.ffmpeg.global.avformat.avformat_close_input;

import hushrise.core.Problem;
import hushrise.core.edit.Placement;
import hushrise.core.export.Delivered;
import hushrise.core.fit.Songs;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.stream.Stream;
import org.bytedeco.ffmpeg.avcodec.AVPacket;
import org.bytedeco.ffmpeg.avformat.AVFormatContext;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;

class WritingTest extends MediaTestCase {

  private Path tone(String name, int seconds) {
    Path file = folder.resolve(name);
    float[] tone = sine(500, 0.3, RATE * seconds);
    try (FileMixWriter writer = FileMixWriter.ofSound(file, OutputFormat.WAV_24, RATE)) {
      writer.write(tone, tone, tone.length);
      writer.finish();
    }
    return file;
  }

  private Project project(Path film, Path music) {
    Media picture = store.take(film, MediaKind.PICTURE, Progress.NONE);
    Media song = store.take(music, MediaKind.MUSIC, Progress.NONE);
    return Placement.add(
        Placement.add(Project.empty("p"), picture, 0, Songs.NONE), song, 0, Songs.NONE);
  }

  private List<String> names() throws IOException {
    try (Stream<Path> files = Files.list(folder)) {
      return files.map(p -> p.getFileName().toString()).sorted().toList();
    }
  }

  @ParameterizedTest
  @EnumSource(
      mode = EnumSource.Mode.EXCLUDE,
      names = {
        "MP4",
        "MP4_OPUS",
        "MP4_FLAC",
        "MOV",
        "MOV_PCM",
        "MOV_ALAC",
        "MKV",
        "MKV_OPUS",
        "MKV_FLAC",
        "MKV_PCM",
        "WEBM"
      })
  void aMixComesBackAsItWasExported(OutputFormat format) {
    Path file = folder.resolve("mix." + format.ending());
    float[] left = sine(1_000, 0.5, 3 * RATE + 17);
    float[] right = sine(500, 0.25, 3 * RATE + 17);
    try (FileMixWriter writer = FileMixWriter.ofSound(file, format, RATE)) {
      for (int at = 0; at < left.length; at += 10_000) {
        int n = Math.min(10_000, left.length - at);
        writer.write(
            java.util.Arrays.copyOfRange(left, at, at + n),
            java.util.Arrays.copyOfRange(right, at, at + n),
            n);
      }
      writer.finish();
    }
    SampleSource sound = open(file);
    assertThat(sound.lengthFrames() - left.length).isBetween(-2_000L, 2_000L);
    float[] l = new float[RATE];
    float[] r = new float[RATE];
    sound.read(RATE, RATE, l, r, 0);
    assertThat(frequency(l)).isBetween(999, 1_001);
    assertThat(frequency(r)).isBetween(499, 501);
    assertThat(rms(l)).isCloseTo(0.5 * Math.sqrt(0.5), within(0.01));
    boolean exact = !format.coding().isLossy();
    if (exact) {
      assertThat(sound.lengthFrames()).isEqualTo(left.length);
      assertThat(read(sound, 1_234, 1)[0]).isCloseTo(left[1_234], within(4e-5f));
    }
  }

  @ParameterizedTest
  @ValueSource(strings = {"out.mp4", "out.mov", "out.mkv"})
  void thePicturesPacketsAreCopiedUntouched(String name) {
    Path film = film("film.mp4", OutputFormat.MP4, 100, true);
    Project project = project(film, tone("tone.wav", 3));
    Path out = folder.resolve(name);
    Delivered result = Exporter.export(project, store, out, OutputFormat.of(out), Progress.NONE);
    assertThat(result.pictureCopied()).isTrue();
    assertThat(picturePackets(out)).hasSize(100).isEqualTo(picturePackets(film));
    Probe probe = Probe.of(out);
    assertThat(probe.picture().orElseThrow().codec()).isEqualTo("h264");
    assertThat(probe.seconds()).isCloseTo(4, within(0.08));
    assertThat(probe.sound().orElseThrow().codec()).isEqualTo("aac");
  }

  /** The bytes of the picture's packets, in order. */
  private static List<String> picturePackets(Path file) {
    AVFormatContext input = Ffmpeg.openInput(file);
    int stream = Probe.pictureStream(input);
    AVPacket packet = av_packet_alloc();
    List<String> packets = new ArrayList<>();
    while (av_read_frame(input, packet) >= 0) {
      if (packet.stream_index() == stream) {
        byte[] bytes = new byte[packet.size()];
        packet.data().get(bytes);
        packets.add(HexFormat.of().formatHex(bytes));
      }
      av_packet_unref(packet);
    }
    av_packet_free(packet);
    avformat_close_input(input);
    return packets;
  }

  @Test
  void aContainerThatDoesNotTakeThePictureGetsItEncodedAnewAndSaysSo() {
    Path film = film("film.mp4", OutputFormat.MP4, 50, false);
    Path out = folder.resolve("out.webm");
    Delivered result =
        Exporter.export(
            project(film, tone("tone.wav", 3)), store, out, OutputFormat.WEBM, Progress.NONE);
    assertThat(result.pictureCopied()).isFalse();
    assertThat(result.notes())
        .containsExactly("The picture was encoded anew: a .webm file does not take it as it is.");
    Probe probe = Probe.of(out);
    assertThat(probe.picture().orElseThrow().codec()).isEqualTo("vp9");
    assertThat(probe.sound().orElseThrow().codec()).isEqualTo("opus");
    try (PictureReader reader = new PictureReader(out, 96, 64)) {
      assertThat(reader.at(1.01).orElseThrow().argb()[3_000] & 0xFF)
          .isCloseTo(greyOf(25), within(6));
    }
  }

  @Test
  void theExportedSoundIsTheMixAndBeginsWithThePicture() {
    Path film = film("film.mp4", OutputFormat.MP4, 100, false);
    Path music = folder.resolve("click.wav");
    float[] click = new float[4 * RATE];
    click[3 * RATE] = 0.9f;
    try (FileMixWriter writer = FileMixWriter.ofSound(music, OutputFormat.WAV_24, RATE)) {
      writer.write(click, click, click.length);
      writer.finish();
    }
    Project project =
        project(film, music)
            .withEachTrack(
                t ->
                    t.withClips(
                        t.clips().stream()
                            .map(c -> c.withFadeOut(hushrise.core.project.timeline.Fade.NONE))
                            .toList()));
    Path out = folder.resolve("out.mp4");
    Exporter.export(project, store, out, OutputFormat.MP4, Progress.NONE);
    float[] sound = read(open(out), 0, 4 * RATE);
    int loudest = 0;
    for (int i = 0; i < sound.length; i++) {
      loudest = Math.abs(sound[i]) > Math.abs(sound[loudest]) ? i : loudest;
    }
    assertThat(loudest).isCloseTo(3 * RATE, within(48));
  }

  @Test
  void cancellingLeavesNoPartAndTheOldFileWhole() throws IOException {
    Project project = project(film("film.mp4", OutputFormat.MP4, 100, false), tone("tone.wav", 3));
    Path out = Files.writeString(folder.resolve("out.mp4"), "the old film");
    assertThatThrownBy(
            () ->
                Exporter.export(
                    project,
                    store,
                    out,
                    OutputFormat.MP4,
                    fraction -> {
                      if (fraction > 0.5) {
                        throw new CancellationException();
                      }
                    }))
        .isInstanceOf(CancellationException.class);
    assertThat(Files.readString(out)).isEqualTo("the old film");
    assertThat(names()).containsExactly("cache", "film.mp4", "out.mp4", "tone.wav");
  }

  @Test
  void anOutputThatIsAnInputIsRefused() {
    Path film = film("film.mp4", OutputFormat.MP4, 25, false);
    Project project = project(film, tone("tone.wav", 2));
    assertThatThrownBy(() -> Exporter.export(project, store, film, OutputFormat.MP4, Progress.NONE))
        .isInstanceOf(Problem.class)
        .hasMessageContaining(film.toString())
        .hasMessageContaining("choose another name");
    Path linked = folder.resolve("link.mp4");
    assertThat(link(linked, film)).isTrue();
    assertThatThrownBy(
            () -> Exporter.export(project, store, linked, OutputFormat.MP4, Progress.NONE))
        .isInstanceOf(Problem.class);
    assertThat(Probe.of(film).picture()).isPresent();
  }

  private static boolean link(Path from, Path to) {
    try {
      return Files.isSymbolicLink(Files.createSymbolicLink(from, to));
    } catch (IOException e) {
      return false;
    }
  }

  @Test
  void whatCannotBeExportedIsSaidInWords() {
    Project noPicture =
        Placement.add(
            Project.empty("p"),
            store.take(tone("tone.wav", 2), MediaKind.MUSIC, Progress.NONE),
            0,
            Songs.NONE);
    assertProblem(noPicture, folder.resolve("out.mp4"), "has no picture");
    assertProblem(noPicture, folder.resolve("nowhere/out.wav"), "does not exist");
    assertProblem(Project.empty("p"), folder.resolve("out.wav"), "empty");
    assertThatThrownBy(() -> OutputFormat.of(Path.of("film.xyz")))
        .isInstanceOf(Problem.class)
        .hasMessageContaining(".mp4");
    assertThat(OutputFormat.of(Path.of("Mix.WAV"))).isEqualTo(OutputFormat.WAV_24);
  }

  private void assertProblem(Project project, Path out, String words) {
    assertThatThrownBy(
            () -> Exporter.export(project, store, out, OutputFormat.of(out), Progress.NONE))
        .isInstanceOf(Problem.class)
        .hasMessageContaining(words);
    assertThat(out).doesNotExist();
  }

  @Test
  void theSilentOutputTakesEverythingAndCountsItAsItSounds() {
    SilentOutput output = new SilentOutput(RATE);
    output.keep(1_000);
    float[] ramp = new float[600];
    for (int i = 0; i < ramp.length; i++) {
      ramp[i] = i;
    }
    assertThat(output.framesSounded()).isZero();
    output.write(ramp, ramp, 600);
    output.write(ramp, ramp, 600);
    assertThat(output.kept()).hasSize(1_000);
    assertThat(output.kept()[599]).isEqualTo(599);
    while (output.framesSounded() < 1_200) {
      Thread.onSpinWait();
    }
    assertThat(output.framesSounded()).isEqualTo(1_200);
    output.flush();
    assertThat(output.framesSounded()).isZero();
  }
}
