package hushrise.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import hushrise.core.project.Project;
import hushrise.core.store.ProjectFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

/** What make and render can be asked to deliver. */
class DeliveryCommandTest extends CommandLineTestCase {

  private JsonNode measured(String file) throws IOException {
    return call("measure", folder.resolve(file).toString(), "--json").json();
  }

  @Test
  void aFilmIsMadeAtALoudness() throws IOException {
    JsonNode film = call(make("film.mp4", "--loudness", "-16", "--json")).json();
    JsonNode loudness = film.get("loudness");
    assertThat(loudness.get("targetLufs").asDouble()).isEqualTo(-16);
    assertThat(loudness.get("beforeLufs").asDouble()).isNotEqualTo(-16);
    assertThat(loudness.get("afterLufs").asDouble()).isCloseTo(-16, within(0.2));
    assertThat(loudness.get("truePeakDbtp").asDouble()).isLessThanOrEqualTo(-1);
    JsonNode decoded = measured("film.mp4");
    assertThat(decoded.get("integratedLufs").asDouble()).isCloseTo(-16, within(0.2));
    assertThat(decoded.get("truePeakDbtp").asDouble()).isLessThanOrEqualTo(-1);
    for (JsonNode passage : film.get("passages")) {
      assertThat(passage.get("separationLu").asDouble()).isCloseTo(10, within(0.1));
    }
  }

  @Test
  void severalFilesStemsAndAReportComeOfOneCall() throws IOException {
    Path saved = folder.resolve("film.hushrise");
    assertThat(call(make("film.wav", "--save", saved.toString())).code()).isZero();
    Path report = folder.resolve("report.html");
    JsonNode made =
        call(
                "render",
                saved.toString(),
                "--to",
                folder.resolve("a.mp3").toString(),
                "--preset",
                "podcast",
                "--stems",
                folder.resolve("stems").toString(),
                "--report",
                report.toString(),
                "--range",
                "10-40",
                "--json")
            .json();
    List<String> outputs = new ArrayList<>();
    made.get("outputs").forEach(o -> outputs.add(Path.of(o.asText()).getFileName().toString()));
    assertThat(outputs)
        .containsExactlyInAnyOrder(
            "a.mp3", "voice.wav", "music.wav", "effects.wav", "camera.wav", "report.html");
    assertThat(made.get("durationSeconds").asDouble()).isEqualTo(30);
    assertThat(made.get("passages").get(1).get("startSeconds").asDouble())
        .isCloseTo(15.7, within(0.3));
    assertThat(measured("a.mp3").get("integratedLufs").asDouble()).isCloseTo(-16, within(0.2));
    assertThat(report).content().contains("Asked for -16.0 LUFS", "<svg");

    JsonNode both =
        call(
                "render",
                saved.toString(),
                "--to",
                folder.resolve("b.flac").toString(),
                folder.resolve("b.opus").toString(),
                "--loudness",
                "-20",
                "--json")
            .json();
    assertThat(both.get("outputs")).hasSize(2);
    assertThat(measured("b.flac").get("integratedLufs").asDouble()).isCloseTo(-20, within(0.2));
    assertThat(measured("b.opus").get("integratedLufs").asDouble()).isCloseTo(-20, within(0.2));
  }

  @Test
  void creditsAreToldInEveryForm() throws IOException {
    String project = DEMO.resolve("first-ferry.hushrise").toString();
    assertThat(call("credits", project).out()).contains("Music\n", "Harbour Tune");
    assertThat(call("credits", project, "--markdown").out())
        .contains("## Music", "- \u201cHarbour Tune\u201d by the makers");
    assertThat(call("credits", project, "--vtt").out())
        .startsWith("WEBVTT")
        .contains(" --> 00:01:36");
    JsonNode json = call("credits", project, "--json").json();
    assertThat(json.get("credits").get(0).get("line").asText())
        .startsWith("\u201cHarbour Tune\u201d by");
    assertThat(call("credits", project, "--vtt", "--json").code()).isEqualTo(2);
    Path saved = folder.resolve("film.hushrise");
    assertThat(call(make("film.wav", "--save", saved.toString())).code()).isZero();
    assertThat(call("credits", saved.toString()).code()).isZero();
  }

  @Test
  void aProjectAndItsFilesAreCollectedAndOpenElsewhere() throws IOException {
    String project = DEMO.resolve("first-ferry.hushrise").toString();
    Path there = folder.resolve("collected");
    JsonNode made = call("collect", project, "--to", there.toString(), "--json").json();
    assertThat(made.get("files").asInt()).isEqualTo(7);
    Project opened = ProjectFile.load(there.resolve("first-ferry.hushrise"));
    assertThat(opened.shelf())
        .allSatisfy(m -> assertThat(m.file()).startsWith(there.toRealPath()).exists());
    assertThat(opened.tracks()).isEqualTo(ProjectFile.load(Path.of(project)).tracks());
    assertThat(call("collect", project, "--to", there.toString()).err()).contains("is not empty");

    Path zip = folder.resolve("film.zip");
    assertThat(call("collect", project, "--to", zip.toString()).code()).isZero();
    Path unpacked = folder.resolve("unpacked");
    Path copy = unpacked.resolve("first-ferry.hushrise");
    assertThat(
            call("collect", zip.toString(), "--to", unpacked.toString(), "--json")
                .json()
                .get("project")
                .asText())
        .isEqualTo(copy.toString());
    assertThat(call("collect", zip.toString(), "--to", unpacked.toString()).err())
        .contains("is not empty");
    Path out = folder.resolve("out.wav");
    assertThat(call("render", copy.toString(), "--to", out.toString()).code()).isZero();
    assertThat(call("collect", project, "--to", folder.resolve("no/where.zip").toString()).code())
        .isEqualTo(1);
  }

  @Test
  void aProjectGoesToOtherFormsAndBack() throws IOException {
    Path demo = DEMO.resolve("first-ferry.hushrise");
    Path otio = folder.resolve("film.otio");
    Path back = folder.resolve("back.hushrise");
    assertThat(call("exchange", demo.toString(), "--to", otio.toString()).code()).isZero();
    assertThat(call("exchange", otio.toString(), "--to", back.toString()).code()).isZero();
    assertThat(ProjectFile.load(back).tracks()).isEqualTo(ProjectFile.load(demo).tracks());
    assertThat(ProjectFile.load(back).shelf()).isEqualTo(ProjectFile.load(demo).shelf());
    Path csv = folder.resolve("lines.csv");
    assertThat(call("exchange", demo.toString(), "--to", csv.toString(), "--loudness").code())
        .isZero();
    assertThat(Files.readAllLines(csv)).hasSize(961);
    Path vtt = folder.resolve("speech.vtt");
    assertThat(call("exchange", demo.toString(), "--to", vtt.toString()).code()).isZero();
    assertThat(Files.readString(vtt)).startsWith("WEBVTT").contains("passage 4");
    assertThat(call("exchange", demo.toString(), "--to", folder.resolve("x.doc").toString()).err())
        .contains("end its name in");
  }

  @Test
  void eachFilmOfAFolderIsMadeAndAFailureIsToldWithoutEndingTheOthers() throws IOException {
    Path films = Files.createDirectory(folder.resolve("films"));
    for (String name : new String[] {"one", "one-more"}) {
      Files.copy(DEMO.resolve("first-ferry.mp4"), films.resolve(name + ".mp4"));
    }
    Files.writeString(films.resolve("broken.mp4"), "no film");
    Files.copy(DEMO.resolve("narration-1.flac"), films.resolve("one.flac"));
    Files.copy(DEMO.resolve("narration-2.flac"), films.resolve("one-more a.flac"));
    Files.copy(DEMO.resolve("narration-3.flac"), films.resolve("one-more b.flac"));
    Path out = folder.resolve("made");
    Answer answer =
        call(
            "make",
            "--each",
            films.toString(),
            "--music",
            DEMO.resolve("harbour-tune.mp3").toString(),
            "--to",
            out.toString(),
            "--json");
    assertThat(answer.code()).isEqualTo(1);
    List<String> lines = answer.out().strip().lines().toList();
    assertThat(lines).hasSize(3);
    assertThat(lines.getFirst()).contains("broken.mp4", "\"error\"");
    assertThat(JSON.readTree(lines.get(1)).get("passages")).hasSizeGreaterThanOrEqualTo(2);
    assertThat(JSON.readTree(lines.get(2)).get("passages")).isNotEmpty();
    assertThat(out.resolve("one.mp4")).exists();
    assertThat(out.resolve("one-more.mp4")).exists();
    assertThat(out.resolve("broken.mp4")).doesNotExist();
    assertThat(call("make", "--each", films.toString(), "--music", "x", "--to", "a", "b").code())
        .isEqualTo(2);
  }

  @Test
  void oneThatFailsDoesNotKeepTheOthersFromBeingWritten() throws IOException {
    Path saved = folder.resolve("film.hushrise");
    assertThat(call(make("film.wav", "--save", saved.toString())).code()).isZero();
    Answer answer =
        call(
            "render",
            saved.toString(),
            "--to",
            folder.resolve("c.wav").toString(),
            folder.resolve("missing").resolve("d.wav").toString());
    assertThat(answer.code()).isEqualTo(1);
    assertThat(answer.err().strip().lines()).singleElement().asString().contains("does not exist");
    assertThat(Files.exists(folder.resolve("c.wav"))).isTrue();
  }

  @Test
  void whatCannotBeAskedForIsSaid() {
    String out = folder.resolve("x.mp4").toString();
    Answer tooLoud = call(make("x.flac", "--loudness", "-5", "--most-limiting", "1"));
    assertThat(tooLoud.code()).isEqualTo(1);
    assertThat(tooLoud.err()).contains("dB of limiting, and 1.0 dB are allowed");
    assertThat(call("render", "x", "--to", out, "--loudness", "3").code()).isEqualTo(2);
    assertThat(call("render", "x", "--to", out, "--ceiling", "-1").code()).isEqualTo(2);
    assertThat(call("render", "x", "--to", out, "--range", "9-3").code()).isEqualTo(2);
    assertThat(call("render", "x", "--to", out, "--bitrate", "9").code()).isEqualTo(2);
    assertThat(call("render", "x", "--to", out, "--sound", "mp3").err())
        .contains("aac or opus or flac");
    assertThat(call("render", "x", "--to", out, "--preset", "radio").err())
        .contains("choose one of");
    assertThat(call("render", "x", "--to", out, "--report", "r.pdf").code()).isEqualTo(1);
  }
}
