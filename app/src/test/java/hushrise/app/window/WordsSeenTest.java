package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.command.CommandId;
import hushrise.app.session.Selection;
import hushrise.core.edit.LevelEdits;
import hushrise.core.project.Project;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.Labeled;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** At the usual size of the window all of its own words are there to be read. */
class WordsSeenTest extends WindowTestCase {

  private final Set<String> cut = new LinkedHashSet<>();

  @BeforeEach
  void open() {
    untilOpen();
  }

  private static Stream<Node> within(Node node) {
    Stream<Node> inner =
        node instanceof Parent parent
            ? parent.getChildrenUnmodifiable().stream().flatMap(WordsSeenTest::within)
            : Stream.empty();
    return node.isVisible() ? Stream.concat(Stream.of(node), inner) : Stream.empty();
  }

  private void look(String where) {
    untilQuiet();
    robot.interact(
        () ->
            within(window.root())
                .filter(n -> n instanceof Labeled l && l.isTextTruncated())
                .forEach(n -> cut.add(where + ": " + n.getId() + " " + ((Labeled) n).getText())));
  }

  private static List<Selection> selections(Project project) {
    List<Selection> all = new ArrayList<>();
    for (Track track : project.tracks()) {
      all.add(new Selection.OfTrack(track.id()));
      all.add(new Selection.OfClip(track.id(), track.clips().getFirst().id()));
    }
    Track voice = project.firstTrack(TrackKind.VOICE).orElseThrow();
    all.add(new Selection.OfClip(voice.id(), voice.clips().stream().map(Clip::id).toList()));
    Clip take = voice.clips().getFirst();
    all.add(new Selection.OfPassage(voice.id(), take.id(), take.mediaId(), 0));
    Track music = project.firstTrack(TrackKind.MUSIC).orElseThrow();
    all.add(new Selection.OfSpan(music.id(), new Span(5L * RATE, 9L * RATE)));
    all.add(new Selection.OfSeam(music.id(), music.clips().getFirst().id(), 0));
    all.add(new Selection.OfKeyframe(music.id(), music.line().keyframes().getFirst().frame()));
    all.add(new Selection.OfHush(music.id(), music.hushes().getFirst().id()));
    all.add(new Selection.OfRise(music.id(), music.rises().getFirst().id()));
    return all;
  }

  @Test
  void noWordsAreCutShort() {
    for (CommandId command :
        List.of(
            CommandId.SAVE,
            CommandId.SHELF,
            CommandId.RECORDER,
            CommandId.EXPORT,
            CommandId.CREDITS,
            CommandId.VERSIONS,
            CommandId.SAFE_NUMBERS,
            CommandId.OUTPUT_CHOOSE,
            CommandId.SURFACE,
            CommandId.KEYS)) {
      robot.interact(window::closeSheet);
      robot.interact(() -> window.run(command));
      look(command.name());
    }
    robot.interact(window::closeSheet);
    String music = music().id();
    robot.interact(
        () -> window.session().commit("key", p -> LevelEdits.addKeyframe(p, music, 50L * RATE)));
    for (Selection selection : selections(project())) {
      robot.interact(() -> window.session().select(selection));
      look(selection.getClass().getSimpleName());
    }
    robot.interact(
        () ->
            window.session().commit("bare", p -> p.withTrack(music, t -> t.withHushes(List.of()))));
    robot.interact(() -> window.run(CommandId.HUSH_ALL));
    look("DRAFT");
    assertThat(cut).isEmpty();
  }
}
