package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.command.CommandId;
import hushrise.app.session.Selection;
import hushrise.core.project.Project;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import javafx.event.ActionEvent;
import javafx.scene.Node;
import javafx.scene.control.TextField;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** Whatever is typed into a number: what is shown is what counts, and is undone. */
@Tag(WindowTestCase.ANY_PLATFORM)
class OddNumbersTest extends SurveyTestCase {

  private static final List<String> ODD = List.of("", "x", "by 1000", "99:99:99:99");

  private final List<String> bad = new ArrayList<>();

  private Set<String> fields() {
    return within(find("detail"))
        .filter(n -> n instanceof TextField f && f.isEditable() && !f.isDisabled())
        .map(Node::getId)
        .collect(Collectors.toSet());
  }

  private void typeOdd(String where) {
    Selection chosen = window.session().selection();
    if (!Set.of("", music().id()).contains(chosen.trackId()) && !where.equals("OfPassage")) {
      return; // other tracks have the same fields
    }
    Project before = project();
    for (String id : fields()) {
      for (String odd : ODD) {
        String what = "%s %s '%s'".formatted(where, id, odd);
        TextField field = find(id);
        robot.interact(
            () -> {
              field.requestFocus();
              field.setText(odd);
              field.fireEvent(new ActionEvent());
            });
        untilQuiet();
        robot.interact(
            () -> {
              Optional<String> shown = shownIn(id);
              Selection now = window.session().selection();
              window.session().select(Selection.nothing());
              window.session().select(now);
              if (!shownIn(id).equals(shown)) {
                bad.add("%s shows %s, then %s".formatted(what, shown, shownIn(id)));
              }
              if (!project().equals(before)) {
                window.run(CommandId.UNDO);
              }
              window.session().select(chosen);
            });
        assertThat(project()).as(what).isEqualTo(before);
      }
    }
  }

  private Optional<String> shownIn(String id) {
    return robot.lookup("#" + id).tryQueryAs(TextField.class).map(TextField::getText);
  }

  @Test
  void whatIsShownIsWhatCounts() {
    eachSelection(this::typeOdd);
    assertThat(bad).isEmpty();
  }
}
