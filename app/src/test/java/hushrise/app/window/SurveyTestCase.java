package hushrise.app.window;

import hushrise.app.command.CommandId;
import hushrise.app.session.Selection;
import hushrise.core.edit.LevelEdits;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.stream.Stream;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.ToggleButton;
import org.junit.jupiter.api.BeforeEach;

/** Goes through all that the window shows, for tests of what holds everywhere. */
abstract class SurveyTestCase extends WindowTestCase {

  /** The panes and sheets, and a message in the status line. */
  private static final List<CommandId> VIEWS =
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
          CommandId.KEYS);

  @BeforeEach
  void open() {
    untilOpen();
  }

  /** A node and all that can be seen within it. */
  static Stream<Node> within(Node node) {
    Stream<Node> inner =
        node instanceof Parent parent
            ? parent.getChildrenUnmodifiable().stream().flatMap(SurveyTestCase::within)
            : Stream.empty();
    return node.isVisible() ? Stream.concat(Stream.of(node), inner) : Stream.empty();
  }

  /** Gives the window's content another size. */
  void resize(double width, double height) {
    robot.interact(
        () -> {
          var stage = window.root().getScene().getWindow();
          double frameWidth = stage.getWidth() - window.root().getScene().getWidth();
          double frameHeight = stage.getHeight() - window.root().getScene().getHeight();
          stage.setWidth(width + frameWidth);
          stage.setHeight(height + frameHeight);
        });
    until("the window has its size", () -> window.root().getWidth() <= width);
    untilQuiet();
  }

  /** Opens one pane or sheet after another, and looks at each. */
  void eachView(Consumer<String> look) {
    for (CommandId command : VIEWS) {
      robot.interact(window::closeSheet);
      robot.interact(() -> window.run(command));
      untilQuiet();
      look.accept(command.name());
    }
    robot.interact(window::closeSheet);
    robot.interact(() -> this.<ToggleButton>find("tab-passages").fire());
    look.accept("PASSAGES");
    robot.interact(() -> this.<ToggleButton>find("tab-findings").fire());
  }

  /** Chooses one of each kind of thing, and looks at what is told of it. */
  void eachSelection(Consumer<String> look) {
    String music = music().id();
    robot.interact(
        () -> window.session().commit("key", p -> LevelEdits.addKeyframe(p, music, 50L * RATE)));
    for (Selection selection : selections()) {
      robot.interact(() -> window.session().select(selection));
      untilQuiet();
      look.accept(selection.getClass().getSimpleName());
    }
  }

  private List<Selection> selections() {
    List<Selection> all = new ArrayList<>();
    all.add(Selection.nothing());
    for (Track track : project().tracks()) {
      all.add(new Selection.OfTrack(track.id()));
      all.add(new Selection.OfClip(track.id(), track.clips().getFirst().id()));
    }
    Track voice = project().firstTrack(TrackKind.VOICE).orElseThrow();
    all.add(new Selection.OfClip(voice.id(), voice.clips().stream().map(Clip::id).toList()));
    Clip take = voice.clips().getFirst();
    all.add(new Selection.OfPassage(voice.id(), take.id(), take.mediaId(), 0));
    Track music = music();
    all.add(new Selection.OfSpan(music.id(), new Span(5L * RATE, 9L * RATE)));
    all.add(new Selection.OfSeam(music.id(), music.clips().getFirst().id(), 0));
    all.add(new Selection.OfKeyframe(music.id(), music.line().keyframes().getFirst().frame()));
    all.add(new Selection.OfHush(music.id(), music.hushes().getFirst().id()));
    all.add(new Selection.OfRise(music.id(), music.rises().getFirst().id()));
    return all;
  }

  /** Takes the music's hushes away, so that there is something to draft. */
  void bare() {
    String music = music().id();
    robot.interact(
        () ->
            window.session().commit("bare", p -> p.withTrack(music, t -> t.withHushes(List.of()))));
  }

  /** Looks at panes, sheets, what is told of each kind of thing, and a draft. */
  void everywhere(Consumer<String> look) {
    eachView(look);
    eachSelection(look);
    draft();
    look.accept("DRAFT");
  }

  /** Makes a draft of hushes. */
  void draft() {
    bare();
    robot.interact(() -> window.run(CommandId.HUSH_ALL));
    until("the draft is shown", () -> window.session().draft().isPresent());
    untilQuiet();
  }
}
