package hushrise.core.exchange;

import static hushrise.core.exchange.Timelines.clip;
import static hushrise.core.exchange.Timelines.file;
import static hushrise.core.exchange.Timelines.gap;
import static hushrise.core.exchange.Timelines.marker;
import static hushrise.core.exchange.Timelines.node;
import static hushrise.core.exchange.Timelines.range;
import static hushrise.core.exchange.Timelines.stack;
import static hushrise.core.exchange.Timelines.timeline;
import static hushrise.core.exchange.Timelines.track;
import static hushrise.core.exchange.Timelines.turn;
import static hushrise.core.exchange.Timelines.with;
import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.node.MissingNode;
import hushrise.core.Problem;
import hushrise.core.mix.Projects;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.Progress;
import hushrise.core.store.ProjectFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.lifecycle.AfterTry;
import net.jqwik.api.lifecycle.BeforeTry;

/** What holds for any timeline, however it is composed. */
class OtioProperties {

  private static final List<String> FILES =
      List.of("film.mov", "film-b.mov", "still.png", "voice.wav", "my song.ogg", "horn.wav");

  private Path folder;

  @BeforeTry
  void files() throws IOException {
    folder = Files.createTempDirectory("timelines");
    for (String name : FILES) {
      Files.writeString(folder.resolve(name), "as good as any");
    }
  }

  @AfterTry
  void clear() throws IOException {
    try (var all = Files.list(folder)) {
      for (Path file : all.toList()) {
        Files.delete(file);
      }
    }
    Files.delete(folder);
  }

  /** Anything that a track can hold. */
  private static Map<String, Object> item(Random random, int depth) {
    Map<String, Object> item =
        switch (random.nextInt(depth > 2 ? 6 : 9)) {
          case 0 -> gap(random.nextInt(200));
          case 1 -> turn(random.nextInt(30), random.nextInt(30));
          case 2, 3, 4, 5 -> someClip(random);
          case 6 ->
              track(random.nextBoolean() ? "Video" : "Audio", "within", items(random, depth + 1));
          default -> stack(items(random, depth + 1));
        };
    Map<String, Object> off =
        random.nextInt(8) == 0 ? with(item, "enabled", random.nextBoolean()) : item;
    Map<String, Object> marked =
        random.nextInt(5) == 0
            ? with(off, "markers", List.of(marker("here", random.nextInt(400) - 50)))
            : off;
    return depth > 0 && random.nextInt(4) == 0 && item.containsKey("children")
        ? with(marked, "source_range", range(random.nextInt(100), random.nextInt(300)))
        : marked;
  }

  private static Map<String, Object> someClip(Random random) {
    String name = random.nextInt(9) == 0 ? "gone.wav" : FILES.get(random.nextInt(FILES.size()));
    double begin = random.nextInt(3) == 0 ? random.nextInt(90_000) : 0;
    Map<String, Object> available =
        random.nextInt(4) == 0 ? null : range(begin, 1000 + random.nextInt(600));
    Map<String, Object> used =
        random.nextInt(4) == 0
            ? null
            : range(begin + random.nextInt(1700) - 20, random.nextInt(300));
    return random.nextInt(12) == 0
        ? clip(used, node("MissingReference.1"))
        : clip(used, file(name, available));
  }

  @SuppressWarnings("unchecked")
  private static Map<String, Object>[] items(Random random, int depth) {
    List<Map<String, Object>> items = new ArrayList<>();
    for (int i = random.nextInt(5); i >= 0; i--) {
      items.add(item(random, depth));
    }
    return items.toArray(Map[]::new);
  }

  @Property(tries = 300)
  void whatIsTakenOfAnyTimelineIsAProjectThatCanBeSaved(@ForAll Random random) throws IOException {
    List<Map<String, Object>> tracks = new ArrayList<>();
    for (int t = random.nextInt(5); t >= 0; t--) {
      tracks.add(track(random.nextBoolean() ? "Video" : "Audio", "T" + t, items(random, 1)));
    }
    @SuppressWarnings("unchecked")
    Map<String, Object> root = timeline(tracks.toArray(Map[]::new));
    Path file = Files.writeString(folder.resolve("any.otio"), Timelines.json(root));
    try {
      requireSound(OtioReader.read(file, Timelines.byName(), Progress.NONE).project());
    } catch (Problem e) {
      assertThat(e).hasMessageStartingWith(file.toString());
    }
  }

  private void requireSound(Project project) {
    Path saved = folder.resolve("any.hushrise");
    ProjectFile.save(project, saved);
    assertThat(ProjectFile.load(saved).tracks()).isEqualTo(project.tracks());
    for (Track track : project.tracks()) {
      long last = 0;
      for (Clip clip : track.clips()) {
        Media media = project.media(clip.mediaId()).orElseThrow();
        assertThat(clip.startFrame()).isNotNegative();
        assertThat(clip.mediaStartFrame()).isNotNegative();
        if (media.kind() != MediaKind.STILL) {
          assertThat(clip.mediaStartFrame() + clip.lengthFrames())
              .as("%s on %s", media.title(), track.name())
              .isLessThanOrEqualTo(media.lengthFrames() + 1);
        }
        assertThat(media.hasSound() || track.kind() == TrackKind.PICTURE).isTrue();
        if (track.kind() == TrackKind.PICTURE) {
          assertThat(media.kind().isSeen()).isTrue();
          assertThat(clip.startFrame()).isGreaterThanOrEqualTo(last);
        }
        last = clip.endFrame();
      }
    }
    assertThat(project.tracksOf(TrackKind.PICTURE).count()).isLessThanOrEqualTo(1);
  }

  @Property
  void whatIsSeenIsTheUppermostAtAnyTime(@ForAll Random random) {
    List<List<OtioPiece>> layers = new ArrayList<>();
    for (int l = random.nextInt(4); l >= 0; l--) {
      List<OtioPiece> layer = new ArrayList<>();
      for (int i = random.nextInt(6); i >= 0; i--) {
        double length = 2.0 + random.nextInt(60);
        Media media = Projects.media("m" + layers.size() + i, MediaKind.PICTURE, 1_000);
        double mediaStart = random.nextInt(500);
        layer.add(
            new OtioPiece(
                MissingNode.getInstance(), media, random.nextInt(100), length, mediaStart, 0, 0));
      }
      layers.add(layer);
    }
    List<OtioPiece> seen = OtioPiece.seenFromAbove(layers);
    for (double t = 0.5; t < 170; t++) {
      assertThat(at(seen, t)).as("%s of %s", t, layers).isEqualTo(uppermost(layers, t));
    }
  }

  private static String uppermost(List<List<OtioPiece>> layers, double t) {
    List<OtioPiece> all = layers.stream().flatMap(List::stream).toList();
    return at(
        all.reversed().stream().filter(p -> p.start() <= t && t < p.end()).limit(1).toList(), t);
  }

  /** What plays at a time, and where in its media; of no more than one. */
  private static String at(List<OtioPiece> pieces, double t) {
    return pieces.stream()
        .filter(p -> p.start() <= t && t < p.end())
        .map(p -> p.media().id() + " " + (p.mediaStart() + t - p.start()))
        .toList()
        .toString();
  }
}
