package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import org.junit.jupiter.api.Test;

/** A window that nobody touches stays as it is: nothing in it grows or moves on and on. */
class AtRestTest extends SurveyTestCase {

  /** How often a view is looked at until it has come to rest: some seconds. */
  private static final int LOOKS = 100;

  private Map<Node, Bounds> places() {
    Map<Node, Bounds> places = new HashMap<>();
    robot.interact(
        () ->
            within(window.root()).forEach(n -> places.put(n, n.localToScene(n.getLayoutBounds()))));
    return places;
  }

  @Test
  void everyViewComesToRest() {
    everywhere(
        where -> {
          Map<Node, Bounds> before = places();
          int still = 0;
          for (int i = 0; i < LOOKS && still < 3; i++) {
            Map<Node, Bounds> now = places();
            still = now.equals(before) ? still + 1 : 0;
            before = now;
          }
          assertThat(still)
              .as("looks at %s in which all stood still".formatted(where))
              .isEqualTo(3);
        });
  }

  /** More pieces than stills are kept: each that comes would push another one out. */
  @Test
  void filmsInThousandsOfPiecesComeToRest() throws IOException {
    untilOpen();
    int pieces = 1_500;
    Clip whole = picture().clips().getFirst();
    List<Media> reels = new ArrayList<>();
    for (int i = 0; i < 5; i++) {
      Media film = project().media(whole.mediaId()).orElseThrow();
      Path copy = Files.copy(film.file(), folder.resolve("reel-%d.mp4".formatted(i)));
      reels.add(film.withId("reel" + i).withFile(copy));
    }
    long length = whole.lengthFrames() / pieces;
    List<Clip> clips =
        IntStream.range(0, pieces)
            .mapToObj(
                i ->
                    Clip.whole(reels.get(i % reels.size()), i * length)
                        .withMediaStartFrame(i * length)
                        .withLengthFrames(length))
            .toList();
    robot.interact(() -> window.session().commit("cut up", p -> inPieces(p, reels, clips)));
    untilQuiet();
    assertThat(picture().clips()).hasSize(pieces);
  }

  private Project inPieces(Project project, List<Media> reels, List<Clip> clips) {
    List<Media> shelf = new ArrayList<>(project.shelf());
    shelf.addAll(reels);
    return project.withShelf(shelf).withTrack(picture().id(), t -> t.withClips(clips));
  }

  private Track picture() {
    return project().firstTrack(TrackKind.PICTURE).orElseThrow();
  }
}
