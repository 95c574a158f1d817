package hushrise.core.report;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.edit.ShelfEdits;
import hushrise.core.mix.Projects;
import hushrise.core.project.Project;
import hushrise.core.project.media.Credit;
import hushrise.core.project.media.Licence;
import hushrise.core.store.ProjectFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Credits: their lines, the sheets, and how a project keeps them. */
class CreditsSheetTest {

  private final Project rich = Projects.rich(new Projects.Sounds());
  private final Credit tune =
      new Credit("Quay at Six", "M. Larsen", "https://tunes.example/quay", Licence.ATTRIBUTION, "");

  private Project credited() {
    return ShelfEdits.setCredit(
        ShelfEdits.setCredit(rich, "music", tune), "horn", "Horn by the harbour office");
  }

  @Test
  void aLineSaysWhatTheLicenceAsksFor() {
    assertThat(tune.line("file"))
        .isEqualTo("\u201cQuay at Six\u201d by M. Larsen, CC BY, https://tunes.example/quay");
    assertThat(tune.withTitle("").line("file")).startsWith("\u201cfile\u201d by M. Larsen");
    assertThat(Credit.ofNote(" as told ").line("file")).isEqualTo("as told");
    assertThat(tune.withAuthor("").isMissingWhatItOwes()).isTrue();
    assertThat(tune.withAuthor("").withLicence(Licence.BOUGHT).isMissingWhatItOwes()).isFalse();
    assertThat(Credit.NONE.isEmpty()).isTrue();
  }

  @Test
  void theSheetNamesMusicAndEffectsAndNobodysOwnWork() {
    CreditsSheet sheet = CreditsSheet.of(credited());
    assertThat(sheet.owed()).extracting(m -> m.id()).containsExactly("music", "horn");
    assertThat(sheet.text())
        .isEqualTo("Music\n" + tune.line("") + "\n\nSound effects\nHorn by the harbour office\n");
    assertThat(sheet.markdown()).contains("## Music\n\n- \u201cQuay").contains("## Sound effects");
    String end = "00:00:%06.3f".formatted(rich.seconds(rich.lengthFrames()));
    assertThat(sheet.webVtt()).startsWith("WEBVTT\n\n00:00:0").contains(" --> " + end + "\n");
    Project own = ShelfEdits.setCredit(credited(), "music", tune.withLicence(Licence.OWN));
    assertThat(CreditsSheet.of(own).lines()).containsExactly("Horn by the harbour office");
    assertThat(CreditsSheet.of(Project.empty("p")).webVtt()).isEqualTo("WEBVTT\n");
  }

  @Test
  void whatATagHoldsIsOneLineAndNoMarkOfTheSheetsThatItIsPutInto() {
    Credit odd =
        new Credit(
            "A\n\n2 --> *B*", "C & [D]\t<e>", "x.org/a_b_", Licence.NOT_KNOWN, "two\r\nlines");
    CreditsSheet sheet = CreditsSheet.of(ShelfEdits.setCredit(rich, "music", odd));
    assertThat(sheet.lines())
        .containsExactly("\u201cA 2 --> *B*\u201d by C & [D] <e>, x.org/a_b_, two lines");
    assertThat(sheet.markdown())
        .endsWith(
            "\n- \u201cA 2 --> \\*B\\*\u201d by C & \\[D\\] \\<e>, x.org/a_b\\_, two lines\n");
    assertThat(sheet.webVtt())
        .endsWith("\n\u201cA 2 --&gt; *B*\u201d by C &amp; [D] &lt;e&gt;, x.org/a_b_, two lines\n");
    assertThat(tune.withTitle("").line("two\nlines")).startsWith("\u201ctwo lines\u201d");
  }

  @Test
  void aProjectKeepsThemAndReadsThoseOfOlderFiles(@TempDir Path folder) throws IOException {
    Path file = folder.resolve("p.hushrise");
    ProjectFile.save(credited(), file);
    Project loaded = ProjectFile.load(file);
    assertThat(loaded.media("music").orElseThrow().credit()).isEqualTo(tune);
    String json = Files.readString(file);
    int from = json.indexOf("\"credit\"");
    int to = json.indexOf('}', from) + 1;
    Files.writeString(
        file, json.substring(0, from) + "\"credit\" : \"in one line\"" + json.substring(to));
    assertThat(ProjectFile.load(file).shelf())
        .anyMatch(m -> m.credit().equals(Credit.ofNote("in one line")));
  }
}
