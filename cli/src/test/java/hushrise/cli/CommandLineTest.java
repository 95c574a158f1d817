package hushrise.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Track;
import hushrise.core.store.ProjectFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledOnOs;
import org.junit.jupiter.api.condition.OS;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The command line on the demo's own files. */
class CommandLineTest extends CommandLineTestCase {
  @Test
  void makeTurnsRawFilesIntoAClearFilm() throws IOException {
    Path saved = folder.resolve("film.hushrise");
    JsonNode film = call(make("film.mp4", "--json", "--save", saved.toString())).json();
    assertThat(film.get("output").asText()).isEqualTo(folder.resolve("film.mp4").toString());
    assertThat(film.get("durationSeconds").asDouble()).isEqualTo(96);
    assertThat(film.get("pictureCopied").asBoolean()).isTrue();
    assertThat(film.get("passages")).hasSize(3);
    for (JsonNode passage : film.get("passages")) {
      assertThat(passage.get("separationLu").asDouble()).isCloseTo(10, within(0.1));
      assertThat(passage.get("voiceLufs").asDouble() - passage.get("backgroundLufs").asDouble())
          .isCloseTo(passage.get("separationLu").asDouble(), within(1e-5));
    }
    assertThat(film.get("hushes")).hasSize(3);
    JsonNode hush = film.get("hushes").get(1);
    double firstWord = film.get("passages").get(1).get("startSeconds").asDouble();
    assertThat(firstWord).isBetween(25.6, 25.8);
    assertThat(hush.get("floorStartSeconds").asDouble()).isCloseTo(firstWord - 0.05, within(1e-3));
    assertThat(hush.get("startSeconds").asDouble()).isCloseTo(firstWord - 0.40, within(1e-3));
    assertThat(hush.get("endSeconds").asDouble() - hush.get("floorEndSeconds").asDouble())
        .isCloseTo(0.9, within(1e-3));
    assertThat(hush.get("depthDb").asDouble()).isNegative();
    assertThat(film.get("seams")).isNotEmpty();
    film.get("seams").forEach(s -> assertThat(s.get("score").asDouble()).isBetween(0.3, 1.0));
    assertThat(film.get("truePeakDbtp").asDouble()).isLessThanOrEqualTo(-0.9);

    JsonNode measured = call("measure", folder.resolve("film.mp4").toString(), "--json").json();
    assertThat(measured.get("integratedLufs").asDouble())
        .isCloseTo(film.get("integratedLufs").asDouble(), within(0.2));
    assertThat(measured.get("durationSeconds").asDouble()).isCloseTo(96, within(0.1));
    List<String> keys = new ArrayList<>();
    measured.fieldNames().forEachRemaining(keys::add);
    assertThat(keys)
        .containsExactlyInAnyOrder(
            "durationSeconds",
            "integratedLufs",
            "loudnessRangeLu",
            "maxMomentaryLufs",
            "maxShortTermLufs",
            "truePeakDbtp",
            "samplePeakDbfs");
    assertThat(ProjectFile.load(saved).lengthFrames()).isEqualTo(96L * 48_000);
  }

  @Test
  void whereAnotherSoundIsTooLoudMakeSaysWhichPassageAndWhy() throws IOException {
    Answer answer =
        call(make("horn.wav", "--json", "--effects", DEMO.resolve("ferry-horn.flac") + "@49"));
    JsonNode film = answer.json();
    assertThat(film.get("passages").get(2).get("separationLu").asDouble()).isLessThan(9.7);
    assertThat(answer.err().lines())
        .singleElement()
        .asString()
        .startsWith("The passage at 47.")
        .contains("Effects (", "lies over it");
  }

  @Test
  void narrationThatSpeaksOverAnotherOrPastTheEndIsTold() {
    String take = DEMO.resolve("narration-4.flac").toString();
    Answer answer = call(make("misplaced.wav", "--voice", take + "@50", "--voice", take + "@92"));
    assertThat(answer.code()).as(answer.err()).isZero();
    assertThat(answer.out().lines())
        .anyMatch(
            l -> l.matches("narration-3.flac and narration-4.flac both speak at 5\\d[.]\\d s: .*"))
        .anyMatch(l -> l.matches("narration-4.flac goes on for \\d[.]\\d s after the picture .*"))
        .filteredOn(l -> l.contains("both speak"))
        .hasSize(1);
  }

  @Test
  void renderGivesASavedProjectAndItsStems() throws IOException {
    Path saved = folder.resolve("ferry.hushrise");
    JsonNode made = call(make("film.wav", "--json", "--save", saved.toString())).json();
    assertThat(ProjectFile.load(saved).name()).isEqualTo("ferry");
    Path stems = folder.resolve("stems");
    JsonNode rendered =
        call(
                "render",
                saved.toString(),
                "--to",
                folder.resolve("again.wav").toString(),
                "--stems",
                stems.toString(),
                "--json")
            .json();
    assertThat(rendered.get("integratedLufs")).isEqualTo(made.get("integratedLufs"));
    assertThat(rendered.get("hushes")).isEqualTo(made.get("hushes"));
    assertThat(rendered.get("pictureCopied").asBoolean()).isFalse();
    assertThat(Files.readAllBytes(folder.resolve("again.wav")))
        .isEqualTo(Files.readAllBytes(folder.resolve("film.wav")));
    try (Stream<Path> files = Files.list(stems)) {
      assertThat(files.map(p -> p.getFileName().toString()).sorted())
          .containsExactly("camera.wav", "effects.wav", "music.wav", "voice.wav");
    }
  }

  @Test
  void textForPeopleTellsTheSeparationBeforeAndAfter() {
    Answer answer = call(make("film.flac"));
    assertThat(answer.code()).as(answer.err()).isZero();
    assertThat(answer.out()).contains("separation").contains("10.0 LU (was ").contains("LUFS");
  }

  @Test
  void withoutAVoiceThePicturesOwnSoundIsTheVoice() throws IOException {
    JsonNode film =
        call(
                "make",
                "--picture",
                DEMO.resolve("first-ferry.mp4").toString(),
                "--music",
                DEMO.resolve("harbour-tune.mp3").toString(),
                "--under",
                "15",
                "--to",
                folder.resolve("film.mkv").toString(),
                "--json")
            .json();
    assertThat(film.get("passages")).hasSize(1);
    assertThat(film.get("passages").get(0).get("separationLu").asDouble())
        .isCloseTo(15, within(0.1));
  }

  @Test
  void allThatTheTrialRunTriesWorks() {
    for (List<String> command : TrialRun.commands(DEMO, folder)) {
      Answer answer = call(command.toArray(String[]::new));
      assertThat(answer.code()).as("%s: %s", command, answer.err()).isZero();
    }
  }

  @Test
  void everyCommandTellsTheVersionAndHelpListsThemAll() {
    String version = call("--version").out();
    assertThat(version).startsWith("Hush Rise ");
    String help = call("--help").out();
    for (String command :
        List.of(
            "make",
            "render",
            "fit",
            "measure",
            "speech",
            "credits",
            "collect",
            "exchange",
            "recover")) {
      assertThat(call(command, "--version").out()).isEqualTo(version);
      assertThat(help).containsPattern("(?m)^ +" + command + " ");
    }
    Answer unknown = call("mesure", "x.wav");
    assertThat(unknown.code()).isEqualTo(2);
    assertThat(unknown.err()).contains("measure");
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "make",
        "frob",
        "",
        "make --picture a.mp4 --music b.mp3 --to c.mp4 --under much",
        "make --picture a.mp4 --music b.mp3 --to c.mp4 --under -3",
        "make --picture a.mp4 --music b.mp3 --to c.mp4 --rise loud",
        "make --picture a.mp4 --music b.mp3 --to c.mp4 --rise 13",
        "make --picture a.mp4 --music b.mp3 --effects c.wav --to d.mp4",
        "measure",
        "render p.hushrise"
      })
  void wrongUsageExitsWithTwo(String line) {
    Answer answer = call(line.isEmpty() ? new String[0] : line.split(" "));
    assertThat(answer.code()).isEqualTo(2);
    assertThat(answer.out()).isEmpty();
    assertThat(answer.err().lines().findFirst().orElseThrow()).isNotBlank().doesNotContain("Usage");
    assertThat(answer.err()).containsPattern("'hushrise.* --help' tells more");
    assertThat(answer.err().lines().count()).isLessThanOrEqualTo(12);
  }

  @Test
  void wrongUsageIsSaidInWords() {
    assertThat(call("maek").err())
        .startsWith("There is no command 'maek'.")
        .contains("make, render, fit");
    assertThat(call("fit", "a.mp3", "--length", "long", "--to", "b.wav").err())
        .startsWith("Invalid value for option '--length': 'long' is not a number");
    assertThat(call("speech", "a.wav", "--vttt").err())
        .startsWith("There is no option --vttt.")
        .contains("--vtt\n");
    assertThat(
            call("make", "--film", "a b.mov", "--music", "c.mp3", "--loud", "-3", "--to", "d.mp4")
                .err())
        .startsWith("There is no option --film, --loud.\n");
    assertThat(call("make", "--picture", "a.mov", "--musik", "c.mp3", "--to", "d.mp4").err())
        .startsWith("There is no option --musik.")
        .contains("--music");
    assertThat(call("fit", "my", "song.mp3", "--length", "9", "--to", "b.wav").err())
        .startsWith("It is not clear what 'song.mp3' is for: an option before it says so");
  }

  @Test
  void whatFailsIsOneLineThatNamesTheFileAndExitsWithOne() throws IOException {
    Path words = Files.writeString(folder.resolve("words.mp3"), "no music at all\n".repeat(100));
    assertFails("There is no file", "measure", folder.resolve("gone.wav").toString());
    assertFails("words.mp3", "measure", words.toString());
    assertFails(
        "There is no project",
        "render",
        folder.resolve("gone.hushrise").toString(),
        "--to",
        folder.resolve("x.wav").toString());
    assertFails("does not say what to write", make("film.txt"));
    assertFails("does not exist", make("nowhere/film.mp4"));
    assertFails(
        "would be lost",
        "make",
        "--picture",
        DEMO.resolve("first-ferry.mp4").toString(),
        "--music",
        DEMO.resolve("harbour-tune.mp3").toString(),
        "--to",
        DEMO.resolve("first-ferry.mp4").toString());
    try (Stream<Path> left = Files.list(folder)) {
      assertThat(left).containsExactly(words);
    }
  }

  private static void assertFails(String words, String... args) {
    Answer answer = call(args);
    assertThat(answer.code()).isEqualTo(1);
    assertThat(answer.out()).isEmpty();
    assertThat(answer.err().strip().lines()).hasSize(1);
    assertThat(answer.err()).contains(words).doesNotContain("Exception");
  }

  @Test
  void helpIsCompleteAndExitsWithZero() {
    for (String command : List.of("make", "render", "measure")) {
      Answer answer = call(command, "--help");
      assertThat(answer.code()).isZero();
      assertThat(answer.out()).contains("Usage: hushrise " + command);
    }
  }

  @Test
  void aPlaceIsReadFromTheEndOfAFileName() throws IOException {
    assertThat(PlacedFile.parse("take.wav@6.5").atSeconds()).hasValue(6.5);
    assertThat(PlacedFile.parse("take.wav@6.5").file()).isEqualTo(Path.of("take.wav"));
    assertThat(PlacedFile.parse("two\nlines.wav@6.5").atSeconds()).hasValue(6.5);
    assertThat(PlacedFile.parse("me@home.wav").atSeconds()).isEmpty();
    Path odd = Files.createFile(folder.resolve("take@2"));
    assertThat(PlacedFile.parse(odd.toString()).file()).isEqualTo(odd);
  }

  @Test
  void fitBringsMusicToALengthInEveryMode() throws IOException {
    String tune = DEMO.resolve("harbour-tune.mp3").toString();
    for (String[] wanted :
        new String[][] {{"trim", "20"}, {"loop", "90.5"}, {"tailor", "61.25"}, {"tailor", "25"}}) {
      Path out = folder.resolve("fitted.wav");
      JsonNode fit =
          call(
                  "fit",
                  tune,
                  "--length",
                  wanted[1],
                  "--to",
                  out.toString(),
                  "--mode",
                  wanted[0],
                  "--json")
              .json();
      double seconds = Double.parseDouble(wanted[1]);
      assertThat(fit.get("mode").asText()).isEqualTo(wanted[0]);
      assertThat(fit.get("durationSeconds").asDouble()).isCloseTo(seconds, within(1e-4));
      JsonNode measured = call("measure", out.toString(), "--json").json();
      assertThat(measured.get("durationSeconds").asDouble()).isCloseTo(seconds, within(1e-3));
      if (wanted[0].equals("trim")) {
        assertThat(fit.get("seams")).isEmpty();
      } else {
        assertThat(fit.get("seams")).isNotEmpty();
        JsonNode seam = fit.get("seams").get(0);
        assertThat(seam.get("score").asDouble()).isBetween(0.0, 1.0);
        assertThat(seam.get("fromSeconds").asDouble())
            .isNotEqualTo(seam.get("toSeconds").asDouble());
      }
    }
    assertThat(call("fit", tune, "--length", "20", "--to", tune).err()).contains("choose another");
    Answer impossible =
        call(
            "fit",
            tune,
            "--length",
            "2",
            "--to",
            folder.resolve("x.wav").toString(),
            "--mode",
            "tailor");
    assertThat(impossible.code()).isEqualTo(1);
    assertThat(impossible.err()).contains("cannot be tailored").contains("choose trim or loop");
    assertThat(folder.resolve("x.wav")).doesNotExist();
    assertThat(call("fit", tune, "--length", "20", "--to", "x.wav", "--mode", "squeeze").code())
        .isEqualTo(2);
    assertThat(call("fit", tune, "--length", "-1", "--to", "x.wav").code()).isEqualTo(2);
    String near = folder.resolve("near.wav").toString();
    Answer missing =
        call(
            "fit",
            tune,
            "--length",
            "20",
            "--to",
            near,
            "--mode",
            "tailor",
            "--may-miss",
            "4",
            "--json");
    assertThat(missing.json().get("durationSeconds").asDouble()).isBetween(16.0, 20.0);
    assertThat(call("fit", tune, "--length", "20", "--to", near, "--may-miss", "4").code())
        .isEqualTo(2);
  }

  @Test
  void speechTellsWhereSomebodySpeaks() throws IOException {
    String take = DEMO.resolve("narration-2.flac").toString();
    JsonNode found = call("speech", take, "--json").json();
    assertThat(found.get("passages")).isNotEmpty();
    double end = 0;
    for (JsonNode passage : found.get("passages")) {
      assertThat(passage.get("startSeconds").asDouble()).isGreaterThanOrEqualTo(end);
      end = passage.get("endSeconds").asDouble();
      assertThat(passage.get("loudnessLufs").asDouble()).isBetween(-35.0, -10.0);
    }
    assertThat(end).isBetween(9.0, 11.0);
    String vtt = call("speech", take, "--vtt").out();
    assertThat(hushrise.core.speech.WebVtt.read(vtt, "out", 48_000))
        .hasSize(found.get("passages").size());
    assertThat(call("speech", DEMO.resolve("harbour-tune.mp3").toString()).out())
        .contains("Nobody speaks");
    assertThat(call("speech", take, "--vtt", "--json").code()).isEqualTo(2);
  }

  @Test
  void stemsDoNotFallOnTheMix() throws IOException {
    Path saved = folder.resolve("film.hushrise");
    assertThat(call(make("film.wav", "--save", saved.toString())).code()).isZero();
    Answer answer =
        call(
            "render",
            saved.toString(),
            "--to",
            folder.resolve("music.wav").toString(),
            "--stems",
            folder.toString());
    assertThat(answer.code()).isEqualTo(1);
    assertThat(answer.err()).contains("music.wav");
    assertThat(answer.err().strip().lines()).hasSize(1);
    assertThat(names()).containsExactly("film.hushrise", "film.wav");
  }

  private List<String> names() throws IOException {
    try (Stream<Path> files = Files.list(folder)) {
      return files.map(f -> f.getFileName().toString()).sorted().toList();
    }
  }

  @Test
  void aVoiceThatIsReachedThroughALinkIsNotDestroyedBySaving() throws IOException {
    Path real = folder.resolve("real.wav");
    Files.copy(DEMO.resolve("narration-1.flac"), real);
    byte[] before = Files.readAllBytes(real);
    Path link = Files.createSymbolicLink(folder.resolve("link.wav"), real);
    for (String option : List.of("--save", "--to")) {
      String other = "--save".equals(option) ? "--to" : "--save";
      Answer answer =
          call(
              "make",
              "--picture",
              DEMO.resolve("first-ferry.mp4").toString(),
              "--voice",
              link + "@6",
              "--music",
              DEMO.resolve("harbour-tune.mp3").toString(),
              option,
              real.toString(),
              other,
              folder.resolve("--to".equals(other) ? "new.wav" : "new.hushrise").toString());
      assertThat(answer.code()).as(option).isNotZero();
      assertThat(answer.err()).as(option).contains("real.wav");
      assertThat(Files.readAllBytes(real)).as(option).isEqualTo(before);
    }
    assertThat(names()).containsExactly("link.wav", "real.wav");
  }

  /** What lies under the voice reaches what was asked for, camera sound too. */
  @Test
  void everythingUnderTheVoiceReachesASeparationOfTwenty() throws IOException {
    JsonNode film = call(make("clear.wav", "--json", "--under", "20")).json();
    assertThat(film.get("passages")).hasSize(3);
    for (JsonNode passage : film.get("passages")) {
      assertThat(passage.get("separationLu").asDouble()).isGreaterThan(19.9);
    }
  }

  /** Where nobody speaks the music swells by what was asked for, or as far as the voice. */
  @Test
  void musicSwellsWhereNobodySpeaks() throws IOException {
    Path saved = folder.resolve("swell.hushrise");
    for (String rise : List.of("--rise=3", "--rise=voice", "--rise")) {
      assertThat(call(make("swell.wav", "--save", saved.toString(), rise)).code()).isZero();
      Track music = ProjectFile.load(saved).firstTrack(TrackKind.MUSIC).orElseThrow();
      assertThat(music.rises()).as(rise).isNotEmpty();
      assertThat(music.rises())
          .as(rise)
          .allMatch(r -> rise.equals("--rise=3") ? r.heightDb() == 3 : r.heightDb() <= 6);
    }
  }

  @Test
  void aNarrationThatRunsPastThePictureIsSaidAndOnlyWhatIsHeardCounts() throws IOException {
    Answer answer =
        call(
            "make",
            "--picture",
            DEMO.resolve("first-ferry.mp4").toString(),
            "--voice",
            DEMO.resolve("narration-1.flac") + "@6",
            "--voice",
            DEMO.resolve("narration-2.flac") + "@92",
            "--music",
            DEMO.resolve("harbour-tune.mp3").toString(),
            "--to",
            folder.resolve("long.wav").toString(),
            "--json");
    JsonNode film = answer.json();
    assertThat(answer.err()).contains("narration-2.flac");
    assertThat(film.get("durationSeconds").asDouble()).isEqualTo(96);
    for (JsonNode passage : film.get("passages")) {
      assertThat(passage.get("separationLu").isNumber()).isTrue();
      assertThat(passage.get("endSeconds").asDouble()).isLessThanOrEqualTo(96);
    }
  }

  /** A real process that is told to end while it writes leaves the older file and nothing else. */
  @Test
  void aSignalWhileExportingLeavesTheOlderFileAndNoPart() throws Exception {
    Path saved = folder.resolve("film.hushrise");
    assertThat(call(make("film.wav", "--save", saved.toString())).code()).isZero();
    Path film = Files.writeString(folder.resolve("film.webm"), "the older film");
    Process process = start("render", saved.toString(), "--to", film.toString());
    while (process.isAlive() && names().size() < 5) {
      Thread.sleep(10);
    }
    assertThat(names()).as("it writes beside the older file").hasSizeGreaterThan(4);
    process.destroy(); // sends TERM
    assertThat(process.waitFor(30, java.util.concurrent.TimeUnit.SECONDS)).isTrue();
    assertThat(names()).containsExactly("cache", "film.hushrise", "film.wav", "film.webm");
    assertThat(film).hasContent("the older film");
  }

  /** WAV files in, a WAV file out: no codec has to be loaded. */
  @Test
  @EnabledOnOs({OS.LINUX, OS.MAC})
  void plainSoundIsRenderedWithoutCodecs() throws Exception {
    Path voice = folder.resolve("voice.wav");
    Path music = folder.resolve("music.wav");
    Path project = folder.resolve("sound.hushrise");
    Path classes = folder.resolve("classes.log");
    assertThat(call(make("voice.wav")).code()).isZero();
    Files.copy(voice, music);
    Process made =
        start(
            "make",
            "--picture=" + DEMO.resolve("first-ferry.mp4"),
            "--voice=" + voice,
            "--music=" + music,
            "--to=" + folder.resolve("first.wav"),
            "--save=" + project);
    assertThat(made.waitFor()).isZero();
    Process rendered =
        startAfter(
            List.of("env", "JAVA_TOOL_OPTIONS=-Xlog:class+load:file=" + classes),
            "render",
            project.toString(),
            "--to",
            folder.resolve("second.wav").toString());
    assertThat(rendered.waitFor()).isZero();
    assertThat(folder.resolve("second.wav")).exists();
    assertThat(Files.readAllLines(classes))
        .anyMatch(l -> l.contains("hushrise.media.WavWriter"))
        .noneMatch(l -> l.contains("org.bytedeco.ffmpeg"));
  }
}
