package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowable;
import static org.assertj.core.api.Assertions.within;

import hushrise.core.Problem;
import hushrise.core.export.Delivered;
import hushrise.core.loudness.LoudnessGoal;
import hushrise.core.loudness.Measurement;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.Progress;
import hushrise.core.time.Span;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.function.IntToDoubleFunction;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Exports that were asked for at a loudness are decoded and measured. */
class DeliveryTest extends MediaTestCase {

  private static final int SECONDS = 12;

  private Project project(String name, boolean mono, IntToDoubleFunction sample) {
    Path file = folder.resolve(name + ".wav");
    float[] left = new float[SECONDS * RATE];
    float[] right = new float[SECONDS * RATE];
    for (int i = 0; i < left.length; i++) {
      left[i] = (float) sample.applyAsDouble(i);
      right[i] = mono ? left[i] : (float) sample.applyAsDouble((i + 4_800) % left.length);
    }
    try (FileMixWriter writer = FileMixWriter.ofSound(file, OutputFormat.WAV_32_FLOAT, RATE)) {
      writer.write(left, right, left.length);
      writer.finish();
    }
    Media media = store.take(file, MediaKind.MUSIC, Progress.NONE);
    return Project.empty(name)
        .withMedia(media)
        .withTracks(List.of(Track.of(TrackKind.MUSIC, "Music", List.of(Clip.whole(media, 0)))));
  }

  private Project hard(String kind) {
    Random random = new Random(9);
    float[] noise = new float[SECONDS * RATE];
    for (int i = 0; i < noise.length; i++) {
      noise[i] = (float) random.nextGaussian();
    }
    IntToDoubleFunction tune =
        i ->
            0.15
                * (Math.sin(i * 0.03) + Math.sin(i * 0.071))
                * (0.2 + 0.8 * Math.abs(Math.sin(i * 2e-5)));
    return switch (kind) {
      case "dynamic" ->
          project(kind, false, i -> 0.3 * noise[i] * Math.pow(10, -2 + 2 * Math.sin(i * 1e-5)));
      case "clipped" ->
          project(kind, false, i -> Math.clamp(20 * tune.applyAsDouble(i), -0.99, 0.99));
      case "half silent" ->
          project(kind, false, i -> i < SECONDS * RATE / 2 ? 0 : tune.applyAsDouble(i));
      case "mono" -> project(kind, true, tune);
      default ->
          project(kind, false, i -> i % 400_000 == 200_000 ? 0.95 : 0.4 * tune.applyAsDouble(i));
    };
  }

  private Delivered deliver(Project project, OutputFormat format, LoudnessGoal goal) {
    Path out = folder.resolve("out-" + format + "." + format.ending());
    return Exporter.export(
        Order.of(project, out, format).withGoal(Optional.of(goal)), store, Progress.NONE);
  }

  private void assertDelivered(Delivered delivered, LoudnessGoal goal, String what) {
    Path file = delivered.outputs().getFirst();
    Measurement decoded = FileLoudness.of(file, store, Progress.NONE);
    assertThat(decoded.integratedLufs()).as(what).isCloseTo(goal.lufs(), within(0.2));
    assertThat(decoded.truePeakDbtp()).as(what).isLessThanOrEqualTo(goal.ceilingDbtp());
    assertThat(delivered.measurement().truePeakDbtp())
        .as(what)
        .isCloseTo(decoded.truePeakDbtp(), within(0.05));
  }

  @ParameterizedTest
  @EnumSource(
      value = OutputFormat.class,
      names = {
        "WAV_16",
        "WAV_24",
        "WAV_32_FLOAT",
        "AIFF_24",
        "AIFF_16",
        "FLAC",
        "ALAC",
        "MP3",
        "AAC",
        "OPUS",
        "OGG"
      })
  void everyCodingComesOutAtTheLoudnessUnderTheCeiling(OutputFormat format) {
    for (String kind : List.of("dynamic", "one crack", "clipped")) {
      LoudnessGoal goal = new LoudnessGoal(kind.equals("clipped") ? -9 : -18, -1, 20);
      assertDelivered(deliver(hard(kind), format, goal), goal, format + ", " + kind);
    }
  }

  @Test
  void everyPresetIsReachedInHardCases() {
    for (Preset preset : Preset.SHIPPED) {
      if (preset.goal().isPresent()) {
        LoudnessGoal asked = preset.goal().get();
        LoudnessGoal goal = new LoudnessGoal(asked.lufs(), asked.ceilingDbtp(), 20);
        for (String kind : List.of("half silent", "mono")) {
          assertDelivered(
              deliver(hard(kind), preset.sound().orElseThrow(), goal),
              goal,
              preset.name() + ", " + kind);
        }
      }
    }
  }

  @Test
  void whatPassesFullScaleIsSaidUnlessItIsHeldDownOrWrittenAsFloats() {
    Project loud = hard("clipped").withMasterDb(4);
    assertThat(noted(loud, OutputFormat.WAV_24)).anyMatch(n -> n.contains("full scale by 3.9 dB"));
    assertThat(noted(loud, OutputFormat.WAV_32_FLOAT)).isEmpty();
    assertThat(noted(loud.withMasterDb(0), OutputFormat.WAV_24)).isEmpty();
    assertThat(deliver(loud, OutputFormat.WAV_24, new LoudnessGoal(-9, -1, 20)).notes()).isEmpty();
  }

  private List<String> noted(Project project, OutputFormat format) {
    Path out = folder.resolve("noted." + format.ending());
    return Exporter.export(Order.of(project, out, format), store, Progress.NONE).notes();
  }

  @Test
  void whatCannotBeReachedIsSaidAndNothingIsWritten() throws IOException {
    Path out = folder.resolve("loud.flac");
    Files.writeString(out, "an older file");
    Order order =
        Order.of(hard("one crack"), out, OutputFormat.FLAC)
            .withGoal(Optional.of(new LoudnessGoal(-14, -1, 1)));
    assertThatThrownBy(() -> Exporter.export(order, store, Progress.NONE))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("dB of limiting, and 1.0 dB are allowed");
    assertThat(out).hasContent("an older file");
    try (var files = Files.list(folder)) {
      assertThat(files.filter(f -> f.toString().endsWith(".part"))).isEmpty();
    }
  }

  @Test
  void whatACodingMovesCountsAmongTheLimitingThatIsAllowed() {
    for (OutputFormat format : List.of(OutputFormat.WAV_24, OutputFormat.MP3)) {
      Project project = hard("one crack");
      String said =
          catchThrowable(() -> deliver(project, format, new LoudnessGoal(-14, -1, 1))).getMessage();
      double needed = Double.parseDouble(said.replaceFirst(".*need ([0-9.]+) dB.*", "$1"));
      Delivered delivered = deliver(project, format, new LoudnessGoal(-14, -1, needed));
      assertThat(delivered.limiterMostDb()).as(format.name()).isBetween(needed - 0.2, needed + 0.1);
    }
  }

  @Test
  void aPartIsExportedWithItsStemsAndReports() throws IOException {
    Project project = hard("dynamic");
    Path out = folder.resolve("part.wav");
    Path stems = folder.resolve("stems");
    List<Path> reports =
        List.of(folder.resolve("r.json"), folder.resolve("r.txt"), folder.resolve("r.html"));
    Delivered delivered =
        Exporter.export(
            Order.of(project, out, OutputFormat.WAV_24)
                .withRange(Optional.of(new Span(2L * RATE, 5L * RATE)))
                .withGoal(Optional.of(LoudnessGoal.of(-20)))
                .withStems(Optional.of(stems))
                .withReports(reports),
            store,
            Progress.NONE);
    assertThat(delivered.outputs()).contains(out, stems.resolve("music.wav")).containsAll(reports);
    assertThat(open(out).lengthFrames()).isEqualTo(3L * RATE);
    assertThat(open(stems.resolve("music.wav")).lengthFrames()).isEqualTo(3L * RATE);
    assertThat(delivered.measurement().integratedLufs()).isCloseTo(-20, within(0.2));
    assertThat(Files.readString(reports.get(0))).contains("\"targetLufs\":-20.0");
    assertThat(Files.readString(reports.get(1))).contains("Brought from");
    assertThat(Files.readString(reports.get(2))).contains("<svg").contains("</html>");
    Order wrong =
        Order.of(project, out, OutputFormat.WAV_24).withReports(List.of(folder.resolve("r.pdf")));
    assertThatThrownBy(() -> Exporter.export(wrong, store, Progress.NONE))
        .hasMessageContaining("end its name in .html, .txt or .json");
  }

  @Test
  void anOrderThatFailsLeavesTheOthersToBeCarriedOut() {
    Project project = hard("mono");
    try (OrderQueue queue = new OrderQueue(store)) {
      Path nowhere = folder.resolve("missing").resolve("a.wav");
      var failing = queue.add(Order.of(project, nowhere, OutputFormat.WAV_24));
      var going = queue.add(Order.of(project, folder.resolve("b.wav"), OutputFormat.WAV_16));
      var unwanted = queue.add(Order.of(project, folder.resolve("c.wav"), OutputFormat.WAV_24));
      unwanted.cancel();
      assertThat(going.await(60_000)).isTrue();
      assertThat(failing.state()).isEqualTo(OrderQueue.State.FAILED);
      assertThat(failing.failure().orElseThrow()).hasMessageContaining("does not exist");
      assertThat(going.state()).isEqualTo(OrderQueue.State.DONE);
      assertThat(going.delivered()).isPresent();
      assertThat(unwanted.await(60_000)).isTrue();
      assertThat(unwanted.state()).isEqualTo(OrderQueue.State.CANCELLED);
    }
    assertThat(folder.resolve("b.wav")).exists();
    assertThat(folder.resolve("c.wav")).doesNotExist();
  }

  @Test
  void anOrderIsCancelledWhileItIsCarriedOut() {
    Project project = hard("mono");
    try (OrderQueue queue = new OrderQueue(store)) {
      OrderQueue.Ticket[] self = new OrderQueue.Ticket[1];
      self[0] = queue.add(Order.of(project, folder.resolve("d.opus"), OutputFormat.OPUS));
      self[0].cancel();
      assertThat(self[0].await(60_000)).isTrue();
      assertThat(self[0].state()).isEqualTo(OrderQueue.State.CANCELLED);
    }
    assertThat(folder.resolve("d.opus")).doesNotExist();
  }

  @Test
  void presetsAreKeptAndFoundByName() {
    Presets presets = new Presets(folder.resolve("settings"));
    assertThat(presets.of("broadcast").goal().orElseThrow().lufs()).isEqualTo(-23);
    Preset own =
        new Preset(
            "Harbour radio",
            Optional.empty(),
            Optional.of(OutputFormat.MP3),
            128,
            Optional.of(LoudnessGoal.of(-18)));
    presets.keep(own);
    assertThat(new Presets(folder.resolve("settings")).of("harbour-radio")).isEqualTo(own);
    presets.forget("Harbour radio");
    assertThatThrownBy(() -> presets.of("harbour-radio"))
        .hasMessageContaining("web-video, podcast");
  }
}
