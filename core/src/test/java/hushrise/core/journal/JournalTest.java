package hushrise.core.journal;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.Mockito.mock;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import hushrise.core.edit.History;
import hushrise.core.mix.Projects;
import hushrise.core.project.Marker;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.store.ProjectFile;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class JournalTest {

  @TempDir private Path folder;
  private final List<String> complaints = new ArrayList<>();
  private Journals journals;
  private Project project;

  @BeforeEach
  void makeProject() {
    project = Projects.rich(new Projects.Sounds());
    journals = new Journals(folder.resolve("journals"));
  }

  private Journal journal() {
    return new Journal(journals.folder(), complaints::add);
  }

  private static History followed(Project base, Journal journal) {
    History history = new History(base);
    journal.opened(base, Optional.empty());
    history.setListener(journal::happened);
    return history;
  }

  /** What a journal has when its process dies: a copy, as nothing holds that one. */
  private Recovered afterCrash(Journal journal) throws IOException {
    assertThat(journal.flush(10_000)).isTrue();
    Path copies = Files.createDirectories(folder.resolve("crash-" + System.nanoTime()));
    try (Stream<Path> all = Files.list(journals.folder())) {
      for (Path file : all.toList()) {
        Files.copy(file, copies.resolve(file.getFileName()));
      }
    }
    return new Journals(copies).left().getFirst();
  }

  private void assertSame(History given, History meant) {
    Path anywhere = folder.resolve("any.hushrise");
    assertThat(ProjectFile.bytes(given.present(), anywhere))
        .isEqualTo(ProjectFile.bytes(meant.present(), anywhere));
    assertThat(given.undoName()).isEqualTo(meant.undoName());
    assertThat(given.redoName()).isEqualTo(meant.redoName());
    assertThat(given.hasUnsavedChanges()).isEqualTo(meant.hasUnsavedChanges());
  }

  /** One random step, as a person makes it. */
  private static void step(History history, Random random) {
    Project now = history.present();
    switch (random.nextInt(10)) {
      case 0 -> history.undo();
      case 1 -> history.redo();
      case 2 -> history.amend(now.withName("Film " + random.nextInt()));
      case 3 -> history.commit("Rename", now.withName("Film " + random.nextInt()));
      case 4 ->
          history.commit(
              "Marker",
              now.withMarkers(
                  Stream.concat(
                          now.markers().stream(),
                          Stream.of(
                              new Marker(
                                  "m" + random.nextInt(), "here", random.nextInt(1_000_000))))
                      .toList()));
      case 5 ->
          history.commit(
              "Fewer tracks",
              now.tracks().size() > 2
                  ? now.withTracks(now.tracks().subList(1, now.tracks().size()))
                  : now);
      default -> {
        String track = now.tracks().get(random.nextInt(now.tracks().size())).id();
        history.commit(
            "Level", now.withTrack(track, t -> t.withLevelDb(-random.nextInt(400) / 10.0)));
      }
    }
  }

  /** A clock that was set by hand, or whose battery is flat, stamps the steps. */
  @Test
  void givesBackEveryStepHoweverTheClockJumps() throws IOException {
    long[] jumps = {0, -1_000_000_000_000L, 4_102_444_800_000L, Long.MAX_VALUE, Long.MIN_VALUE, 17};
    try (Journal journal = journal()) {
      History history = followed(project, journal);
      Random random = new Random(5);
      for (int i = 0; i < 30; i++) {
        step(history, random);
      }
      Recovered crashed = afterCrash(journal);
      JournalLines lines = new JournalLines(Files.readAllBytes(crashed.journal()));
      ByteArrayOutputStream jumped = new ByteArrayOutputStream();
      for (Optional<JsonNode> line = lines.next(); line.isPresent(); line = lines.next()) {
        int number = lines.number() - 1;
        ObjectNode record = (ObjectNode) line.get();
        record.put("at", jumps[number % jumps.length]);
        jumped.write(JournalLines.line(number, record));
      }
      Path elsewhere = Files.createDirectories(folder.resolve("jumped"));
      Files.write(elsewhere.resolve(crashed.journal().getFileName()), jumped.toByteArray());
      Recovered recovered = new Journals(elsewhere).left().getFirst();
      assertThat(recovered.steps()).isEqualTo(crashed.steps());
      assertSame(recovered.history(), history);
    }
  }

  @Test
  void givesBackEveryStepTheUndoneOnesAndTheirNames() throws IOException {
    for (int seed = 0; seed < 40; seed++) {
      try (Journal journal = journal()) {
        History history = followed(project, journal);
        history.commit("First", project.withMasterDb(-1));
        Random random = new Random(seed);
        for (int i = 0; i < 60; i++) {
          step(history, random);
        }
        if (!history.hasUnsavedChanges()) {
          history.commit("Last", history.present().withMasterDb(-seed - 2));
        }
        Recovered recovered = afterCrash(journal);
        assertSame(recovered.history(), history);
        while (history.undo()) {
          assertThat(recovered.history().undo()).isTrue();
          assertSame(recovered.history(), history);
        }
        assertThat(recovered.history().undo()).isFalse();
      }
    }
  }

  @Test
  void cutAtAnyByteItGivesBackWhatWasWholeBefore() throws IOException {
    try (Journal journal = journal()) {
      History history = followed(project, journal);
      List<byte[]> states = new ArrayList<>();
      Path anywhere = folder.resolve("any.hushrise");
      states.add(ProjectFile.bytes(project, anywhere));
      Random random = new Random(7);
      while (states.size() <= 500) {
        Project before = history.present();
        step(history, random);
        if (!history.present().equals(before)) {
          states.add(ProjectFile.bytes(history.present(), anywhere));
        }
      }
      Recovered whole = afterCrash(journal);
      byte[] bytes = Files.readAllBytes(whole.journal());
      assertThat(whole.lines()).isEqualTo(501);
      JournalLines lines = new JournalLines(bytes);
      int line = 0;
      for (int cut = 0; cut < bytes.length; cut++) {
        if (bytes[cut] == '\n') {
          // whole up to here: replayed now and then, as each replay takes all lines
          assertThat(lines.next()).isPresent();
          if (line % 50 == 0 || line == 500) {
            Recovered upTo = JournalFile.read(Arrays.copyOf(bytes, cut + 1), whole.journal());
            assertThat(ProjectFile.bytes(upTo.history().present(), anywhere))
                .isEqualTo(states.get(line));
          }
          line++;
        } else {
          // in the middle of a line: the line does not count, those before it do
          JournalLines rest = new JournalLines(Arrays.copyOfRange(bytes, lines.end(), cut + 1));
          assertThat(rest.next()).isEmpty();
        }
      }
      assertThat(line).isEqualTo(501);
    }
  }

  @Test
  void aByteThatIsWrongEndsWhatCounts() throws IOException {
    try (Journal journal = journal()) {
      History history = followed(project, journal);
      for (int i = 1; i <= 20; i++) {
        history.commit("Level", history.present().withMasterDb(-i));
      }
      Recovered whole = afterCrash(journal);
      byte[] bytes = Files.readAllBytes(whole.journal());
      Random random = new Random(3);
      JournalLines first = new JournalLines(bytes);
      first.next();
      for (int i = 0; i < 200; i++) {
        byte[] damaged = bytes.clone();
        int at = first.end() + random.nextInt(bytes.length - first.end());
        damaged[at] ^= (byte) (1 << random.nextInt(8));
        Recovered recovered = JournalFile.read(damaged, whole.journal());
        assertThat(recovered.end()).isLessThanOrEqualTo(at);
        double meant = recovered.lines() == 1 ? project.masterDb() : -(recovered.lines() - 1.0);
        assertThat(recovered.history().present().masterDb()).isEqualTo(meant);
      }
    }
  }

  @Test
  void nothingIsOfferedForWhatWasSavedOrIsStillOpen() throws IOException {
    Path saved = folder.resolve("film.hushrise");
    try (Journal journal = journal()) {
      History history = followed(project, journal);
      history.commit("Level", project.withMasterDb(-3));
      assertThat(journal.flush(10_000)).isTrue();
      assertThat(journals.left()).as("this process still writes it").isEmpty();
      assertThat(afterCrash(journal).steps()).isEqualTo(1);
      history.markSaved(history.snapshot());
      journal.saved(saved, true);
      assertThat(journal.flush(10_000)).isTrue();
      Path copies = Files.createDirectories(folder.resolve("copy"));
      try (Stream<Path> all = Files.list(journals.folder())) {
        for (Path file : all.toList()) {
          Files.copy(file, copies.resolve(file.getFileName()));
        }
      }
      assertThat(new Journals(copies).left()).isEmpty();
      assertThat(copies).isEmptyDirectory();
      history.commit("Level", history.present().withMasterDb(-4));
      Recovered recovered = afterCrash(journal);
      assertThat(recovered.steps()).isEqualTo(1);
      assertThat(recovered.project()).contains(saved);
      assertThat(recovered.history().present().masterDb()).isEqualTo(-4);
    }
    assertThat(journals.folder()).isEmptyDirectory();
  }

  @Test
  void whatWasDoneWhileItWasSavedIsOfferedWithItsFile() throws IOException {
    Path saved = folder.resolve("film.hushrise");
    try (Journal journal = journal()) {
      History history = followed(project, journal);
      history.commit("Level", project.withMasterDb(-3));
      History.Snapshot written = history.snapshot();
      history.commit("Level", history.present().withMasterDb(-4));
      journal.saved(saved, history.markSaved(written));
      Recovered recovered = afterCrash(journal);
      assertThat(recovered.hasWork()).isTrue();
      assertThat(recovered.steps()).isEqualTo(2);
      assertThat(recovered.project()).contains(saved);
      assertThat(recovered.history().present().masterDb()).isEqualTo(-4);
    }
  }

  @Test
  void whatWasGivenBackGoesOnInTheSameJournal() throws IOException {
    Recovered recovered;
    Journal first = journal();
    History history = followed(project, first);
    history.commit("One", project.withMasterDb(-1));
    history.commit("Two", project.withMasterDb(-2));
    recovered = afterCrash(first);
    Files.write(recovered.journal(), new byte[] {'x', 'y'}, StandardOpenOption.APPEND);
    first.close();
    journals = new Journals(recovered.journal().getParent());
    Recovered again = journals.left().getFirst();
    try (Journal second = journal()) {
      second.goOn(again);
      again.history().setListener(second::happened);
      again.history().undo();
      again.history().commit("Three", again.history().present().withMasterDb(-3));
      Recovered third = afterCrash(second);
      assertSame(third.history(), again.history());
      assertThat(third.history().undoName()).contains("Three");
      third.history().undo();
      assertThat(third.history().undoName()).contains("One");
    }
  }

  @Test
  void aJournalOverItsBoundBeginsAnewWithThePresentProject() throws IOException {
    try (Journal journal = new Journal(journals.folder(), 20_000, complaints::add)) {
      History history = followed(project, journal);
      for (int i = 1; i <= 300; i++) {
        history.commit("Level", history.present().withMasterDb(-i / 10.0));
      }
      Recovered recovered = afterCrash(journal);
      assertThat(recovered.history().present().masterDb()).isEqualTo(-30.0);
      assertThat(recovered.hasWork()).isTrue();
      assertThat(Files.size(recovered.journal())).isLessThan(40_000);
      try (Stream<Path> all = Files.list(journals.folder())) {
        assertThat(all).hasSize(1);
      }
    }
  }

  @Test
  void aFileThatCouldNotBeWrittenIsFollowedByAnotherAndNotOfferedLater() throws IOException {
    try (Journal journal = journal()) {
      History history = followed(project, journal);
      history.commit("Level", project.withMasterDb(-1));
      assertThat(journal.flush(10_000)).isTrue();
      history.commit("Broken", project.withMedia(unwritable()));
      history.commit("Level", project.withMasterDb(-2));
      history.commit("Level", project.withMasterDb(-3));
      assertThat(afterCrash(journal).history().present().masterDb()).isEqualTo(-3);
      assertThat(complaints).hasSize(1);
      try (Stream<Path> all = Files.list(journals.folder())) {
        assertThat(all).hasSize(1);
      }
    }
    assertThat(journals.folder()).isEmptyDirectory();
  }

  /**
   * A media item whose file says nothing of itself. A project is not to be mocked instead: Mockito
   * would weave itself into {@code Object.equals}, and the rendering thread, which other tests
   * watch, would allocate with each block.
   */
  private static Media unwritable() {
    return new Media("broken", mock(Path.class), MediaKind.MUSIC, 1, true, Optional.empty(), "");
  }

  @Test
  void aFolderThatCannotBeWrittenIsSaidOnceAndTriedAgain() throws IOException {
    Path inTheWay = Files.createFile(journals.folder());
    try (Journal journal = journal()) {
      History history = followed(project, journal);
      history.commit("Level", project.withMasterDb(-1));
      history.commit("Level", project.withMasterDb(-2));
      assertThat(journal.flush(10_000)).isTrue();
      assertThat(complaints).hasSize(1);
      Files.delete(inTheWay);
      history.commit("Level", project.withMasterDb(-3));
      assertThat(afterCrash(journal).history().present().masterDb()).isEqualTo(-3);
    }
  }
}
