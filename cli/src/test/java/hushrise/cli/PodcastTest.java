package hushrise.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Track;
import hushrise.core.store.ProjectFile;
import hushrise.media.Probe;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;

/** Narration and music without a picture that moves. */
class PodcastTest extends CommandLineTestCase {

  @Test
  void withoutAPictureMakeMakesAPodcast() throws IOException {
    Path saved = folder.resolve("episode.hushrise");
    JsonNode podcast =
        call(podcast("episode.mp3", "--preset", "podcast", "--json", "--save", saved.toString()))
            .json();
    assertThat(podcast.get("loudness").get("afterLufs").asDouble()).isCloseTo(-16, within(0.2));
    assertThat(podcast.get("passages")).isNotEmpty();
    podcast
        .get("passages")
        .forEach(p -> assertThat(p.get("separationLu").asDouble()).isGreaterThan(9.7));
    assertThat(ProjectFile.load(saved).tracks().stream().map(Track::kind))
        .containsExactly(TrackKind.VOICE, TrackKind.MUSIC);
    JsonNode longer = call(podcast("longer.wav", "--length", "60", "--json")).json();
    assertThat(longer.get("durationSeconds").asDouble()).isEqualTo(60);
  }

  @Test
  void aPodcastIsRefusedAsAFilmBeforeAnythingIsRead() {
    Answer film = call(podcast("episode.mp4"));
    assertThat(film.code()).isEqualTo(2);
    assertThat(film.err()).contains("episode.mp4 would be a film: give its --picture");
    Answer shorter = call(podcast("short.wav", "--length", "9"));
    assertThat(shorter.code()).isEqualTo(1);
    assertThat(shorter.err()).contains("The narration goes on to ");
    assertThat(folder.resolve("short.wav")).doesNotExist();
    assertThat(call(make("film.mp4", "--length", "60")).err())
        .contains("a film is as long as its picture");
    assertThat(folder.resolve("film.mp4")).doesNotExist();
  }

  @Test
  void aStillPictureIsShownAsLongAsThePodcastLasts() throws IOException {
    Path cover = folder.resolve("cover.png");
    BufferedImage image = new BufferedImage(64, 36, BufferedImage.TYPE_INT_RGB);
    image.setRGB(10, 10, 0x8090A0);
    assertThat(ImageIO.write(image, "png", cover.toFile())).isTrue();
    Path saved = folder.resolve("episode.hushrise");
    JsonNode film =
        call(podcast(
                "episode.mp4",
                "--picture",
                cover.toString(),
                "--length",
                "20",
                "--save",
                saved.toString(),
                "--json"))
            .json();
    assertThat(film.get("durationSeconds").asDouble()).isEqualTo(20);
    assertThat(film.get("pictureCopied").asBoolean()).isFalse();
    assertThat(film.get("notes").get(0).asText()).contains("still");
    Probe.Picture seen = Probe.of(folder.resolve("episode.mp4")).picture().orElseThrow();
    assertThat(seen.seconds()).isCloseTo(20, within(0.05));
    assertThat(ProjectFile.load(saved).lengthFrames()).isEqualTo(20L * 48_000);
    assertThat(
            call("make", "--picture", cover.toString(), "--music", tune(), "--to", "x.mp4").err())
        .contains("has no sound and no narration was given");
  }

  private static String tune() {
    return DEMO.resolve("harbour-tune.mp3").toString();
  }

  private String[] podcast(String output, String... more) {
    List<String> command =
        new ArrayList<>(
            List.of(
                "make",
                "--voice",
                DEMO.resolve("narration-1.flac") + "@8",
                "--music",
                tune(),
                "--to",
                folder.resolve(output).toString()));
    command.addAll(List.of(more));
    return command.toArray(String[]::new);
  }
}
