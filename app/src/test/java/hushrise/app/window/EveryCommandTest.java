package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;

import ch.qos.logback.classic.Level;
import ch.qos.logback.classic.Logger;
import ch.qos.logback.classic.spi.ILoggingEvent;
import ch.qos.logback.core.read.ListAppender;
import hushrise.app.command.CommandId;
import hushrise.app.session.Selection;
import hushrise.core.edit.LevelEdits;
import hushrise.core.edit.MarkerEdits;
import hushrise.core.project.Project;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.slf4j.LoggerFactory;

/** Every command with everything selected that can be, one straight after the other. */
@Tag(WindowTestCase.ANY_PLATFORM)
class EveryCommandTest extends WindowTestCase {

  /** They lead out of the project. */
  private static final Set<CommandId> LEADING_AWAY =
      EnumSet.of(CommandId.NEW, CommandId.OPEN, CommandId.OPEN_DEMO, CommandId.QUIT);

  private final ListAppender<ILoggingEvent> log = new ListAppender<>();

  private static Logger root() {
    return (Logger) LoggerFactory.getLogger(org.slf4j.Logger.ROOT_LOGGER_NAME);
  }

  @BeforeEach
  void listen() {
    log.start();
    root().addAppender(log);
  }

  @AfterEach
  void listenNoMore() {
    root().detachAppender(log);
  }

  /** One of each kind of selection; of tracks and clips one of each kind of track. */
  private static List<Selection> selections(Project project) {
    List<Selection> all = new ArrayList<>();
    all.add(Selection.nothing());
    for (Track track : project.tracks()) {
      all.add(new Selection.OfTrack(track.id()));
      all.add(new Selection.OfClip(track.id(), track.clips().getFirst().id()));
      all.add(new Selection.OfSpan(track.id(), new Span(5L * RATE, 9L * RATE)));
    }
    Track voice = project.firstTrack(TrackKind.VOICE).orElseThrow();
    all.add(new Selection.OfClip(voice.id(), voice.clips().stream().map(Clip::id).toList()));
    Clip take = voice.clips().getFirst();
    all.add(new Selection.OfPassage(voice.id(), take.id(), take.mediaId(), 0));
    Track music = project.firstTrack(TrackKind.MUSIC).orElseThrow();
    all.add(new Selection.OfSeam(music.id(), music.clips().getFirst().id(), 0));
    all.add(new Selection.OfKeyframe(music.id(), music.line().keyframes().getFirst().frame()));
    all.add(new Selection.OfHush(music.id(), music.hushes().getFirst().id()));
    all.add(new Selection.OfRise(music.id(), music.rises().getFirst().id()));
    all.add(new Selection.OfMarker(project.markers().getFirst().id()));
    return all;
  }

  @Test
  void noCommandFailsWhateverIsSelected() {
    untilOpen();
    String music = music().id();
    robot.interact(
        () ->
            window
                .session()
                .commit(
                    "more",
                    p ->
                        MarkerEdits.add(
                            LevelEdits.addKeyframe(p, music, 50L * RATE), "here", 10L * RATE)));
    Project whole = project();
    List<Selection> selections = selections(whole);
    assertThat(selections).hasSizeGreaterThan(20);
    for (Selection selection : selections) {
      robot.interact(() -> runAll(selection, whole));
      untilQuiet();
      assertThat(failures()).as("with %s", selection).isEmpty();
    }
  }

  /** All in one go: what they have asked for comes when the others have run. */
  private void runAll(Selection selection, Project whole) {
    for (CommandId command : CommandId.values()) {
      if (!LEADING_AWAY.contains(command)) {
        window.session().commit("whole", p -> whole);
        window.session().seek(7L * RATE);
        window.session().select(selection);
        assertThatCode(() -> window.run(command))
            .as("%s with %s", command, selection)
            .doesNotThrowAnyException();
        window.closeSheet();
      }
    }
  }

  private List<String> failures() {
    return List.copyOf(log.list).stream()
        .filter(e -> e.getLevel().isGreaterOrEqual(Level.ERROR))
        .map(e -> e.getFormattedMessage() + " " + e.getThrowableProxy())
        .toList();
  }
}
