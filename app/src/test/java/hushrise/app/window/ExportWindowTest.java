package hushrise.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.app.command.CommandId;
import hushrise.app.widget.Focus;
import hushrise.core.edit.ShelfEdits;
import hushrise.core.loudness.Measurement;
import hushrise.core.project.media.Credit;
import hushrise.core.project.media.Licence;
import hushrise.core.project.media.TrackKind;
import hushrise.core.sound.Progress;
import hushrise.media.FileLoudness;
import hushrise.media.OutputFormat;
import hushrise.media.Preset;
import hushrise.media.Probe;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;

/** Exporting from the window: what is asked for, while work goes on. */
class ExportWindowTest extends WindowTestCase {

  private Measurement measured(Path file) {
    return FileLoudness.of(file, store, Progress.NONE);
  }

  private String told() {
    Label told = find("export-told");
    return told.getText();
  }

  private void goTo(Path file) {
    chosen.next(file);
    robot.clickOn("#export-choose");
  }

  @Test
  void aFilmAtALoudnessAndAPodcastMixWithStemsAreWrittenWhileEditingGoesOn() throws IOException {
    Path film = folder.resolve("web.mp4");
    Path mix = folder.resolve("podcast.mp3");
    until("the film is measured", () -> !window.isBusy());
    robot.clickOn("#export");
    robot.clickOn("#export-loudness");
    TextField lufs = find("export-lufs");
    robot.clickOn(lufs).push(KeyCode.CONTROL, KeyCode.A).write("-16");
    assertThat(told()).contains("held down by");
    goTo(film);
    robot.clickOn("#export-start");
    assertThat(robot.lookup(".sheet-title").tryQuery()).isEmpty();

    robot.clickOn("#export");
    ComboBox<Optional<Preset>> presets = find("export-preset");
    Optional<Preset> podcast =
        presets.getItems().stream()
            .filter(p -> p.filter(x -> x.name().equals("Podcast")).isPresent())
            .findFirst()
            .orElseThrow();
    robot.interact(() -> presets.setValue(podcast));
    ComboBox<OutputFormat> formats = find("export-format");
    assertThat(formats.getValue()).isEqualTo(OutputFormat.MP3);
    robot.clickOn("#export-stems");
    goTo(mix);
    robot.clickOn("#export-start");

    int before = project().tracks().size();
    robot.interact(() -> window.run(CommandId.HUSH_HERE));
    assertThat(project().tracks()).hasSize(before);
    assertThat(window.isBusy()).isTrue();
    until("the film is written", () -> Files.exists(film));
    until("the mix is written", () -> Files.exists(mix));
    untilQuiet();
    assertThat(measured(film).integratedLufs()).isBetween(-16.2, -15.8);
    assertThat(measured(mix).integratedLufs()).isBetween(-16.2, -15.8);
    assertThat(measured(mix).truePeakDbtp()).isLessThanOrEqualTo(-1);
    assertThat(Probe.of(film).picture()).isPresent();
    assertThat(folder.resolve("podcast stems").resolve("music.wav")).exists();
  }

  @Test
  void whatIsTypedWrongIsMarkedAndWhatIsOutOfReachIsToldBeforehand() {
    until("the film is measured", () -> !window.isBusy());
    robot.clickOn("#export");
    robot.clickOn("#export-loudness");
    TextField lufs = find("export-lufs");
    robot.clickOn(lufs).push(KeyCode.CONTROL, KeyCode.A).write("loud");
    assertThat(lufs.getStyleClass()).contains("wrong");
    robot.push(KeyCode.CONTROL, KeyCode.A).write("-6");
    assertThat(lufs.getStyleClass()).doesNotContain("wrong");
    assertThat(told()).contains("allow more, or ask for less");
    robot.push(KeyCode.CONTROL, KeyCode.A).write("-30");
    assertThat(told()).contains("no peak has to be held down");
    robot.push(KeyCode.UP);
    assertThat(lufs.getText()).isEqualTo("\u221229.5");
    robot.clickOn("#export-ceiling");
    assertThat(lufs.getText()).isEqualTo("\u221229.5");
    robot.push(KeyCode.CONTROL, KeyCode.A).write("-3");
    press(KeyCode.ESCAPE);
    assertThat(this.<TextField>find("export-ceiling").getText()).isEqualTo("\u22121.0");
    press(KeyCode.ESCAPE);
    assertThat(robot.lookup(".sheet-title").tryQuery()).isEmpty();
  }

  @Test
  void markersGoAlongAsChaptersOrCuePointsWhereTheFileTakesThem() throws IOException {
    Path mix = folder.resolve("marked.wav");
    untilOpen();
    robot.clickOn("#export");
    CheckBox chapters = find("export-chapters");
    assertThat(chapters.isVisible()).isFalse();
    press(KeyCode.ESCAPE);
    robot.interact(() -> window.run(CommandId.MARKER_ADD));
    press(KeyCode.ESCAPE);
    robot.clickOn("#export");
    ComboBox<OutputFormat> formats = find("export-format");
    assertThat(chapters.isVisible()).isTrue();
    assertThat(chapters.getText()).contains("chapter");
    robot.clickOn(chapters);
    robot.interact(() -> formats.setValue(OutputFormat.FLAC));
    assertThat(chapters.isDisabled()).isTrue();
    assertThat(chapters.isSelected()).isFalse();
    robot.interact(() -> formats.setValue(OutputFormat.WAV_16));
    assertThat(chapters.getText()).contains("cue point");
    robot.clickOn(chapters);
    goTo(mix);
    robot.clickOn("#export-start");
    until("the mix is written", () -> Files.exists(mix));
    untilQuiet();
    String bytes = Files.readString(mix, StandardCharsets.ISO_8859_1);
    assertThat(bytes.substring(bytes.length() - 200)).contains("cue ", "adtl", "labl");
  }

  @Test
  void aListOpensByItsKeysAndClosesByEsc() {
    robot.clickOn("#export");
    ComboBox<OutputFormat> formats = find("export-format");
    OutputFormat before = formats.getValue();
    robot.interact(() -> Focus.ask(formats));
    press(KeyCode.ENTER);
    assertThat(formats.isShowing()).isTrue();
    press(KeyCode.ESCAPE);
    assertThat(formats.isShowing()).isFalse();
    assertThat(find("sheet").isVisible()).isTrue();
    press(KeyCode.SPACE);
    press(KeyCode.DOWN);
    press(KeyCode.ENTER);
    assertThat(formats.isShowing()).isFalse();
    assertThat(formats.getValue()).isNotEqualTo(before);
    assertThat(find("sheet").isVisible()).as("nothing is exported").isTrue();
  }

  @Test
  void choicesAreKeptAsAPresetAndForgotten() {
    robot.clickOn("#export");
    ComboBox<OutputFormat> formats = find("export-format");
    robot.interact(() -> formats.setValue(OutputFormat.OPUS));
    robot.clickOn("#export-loudness");
    robot.clickOn("#export-preset-name").write("Harbour radio");
    press(KeyCode.ENTER);
    assertThat(find("sheet").isVisible()).as("nothing is exported").isTrue();
    ComboBox<Optional<Preset>> presets = find("export-preset");
    assertThat(presets.getValue().orElseThrow().name()).isEqualTo("Harbour radio");
    press(KeyCode.ESCAPE);
    robot.clickOn("#export");
    Optional<Preset> kept =
        presets.getItems().stream()
            .filter(p -> p.filter(x -> x.name().equals("Harbour radio")).isPresent())
            .findFirst()
            .orElseThrow();
    robot.interact(() -> formats.setValue(OutputFormat.MP4));
    robot.interact(() -> presets.setValue(kept));
    assertThat(formats.getValue()).isEqualTo(OutputFormat.OPUS);
    CheckBox loudness = find("export-loudness");
    assertThat(loudness.isSelected()).isTrue();
    ButtonBase forget = find("export-forget");
    assertThat(forget.isDisabled()).isFalse();
    robot.clickOn(forget);
    assertThat(presets.getItems()).noneMatch(p -> p.equals(kept));
  }

  @Test
  void theSecondEarLeadsToTheCreditsAndTheyAreWrittenAsASheet() throws IOException {
    untilOpen();
    String music = project().firstTrack(TrackKind.MUSIC).orElseThrow().clips().getFirst().mediaId();
    robot.interact(
        () -> window.session().commit("test", p -> ShelfEdits.setCredit(p, music, Credit.NONE)));
    until("it is remarked", () -> robot.lookup("#ear-credits").tryQuery().isPresent());
    untilQuiet();
    // looked up and pressed in one go: what was heard last may put another list in its place
    robot.interact(() -> this.<ButtonBase>find("ear-credits").fire());
    until("the credits are open", () -> robot.lookup("#credit-title").tryQuery().isPresent());
    robot.clickOn("#credit-title").write("Quay at Six");
    robot.clickOn("#credit-author").write("M. Larsen");
    ComboBox<Licence> licence = find("credit-licence");
    robot.interact(licence::requestFocus);
    robot.interact(() -> licence.setValue(Licence.ATTRIBUTION));
    TextArea sheet = find("credits-text");
    assertThat(sheet.getText()).contains("\u201cQuay at Six\u201d by M. Larsen, CC BY");
    Path saved = folder.resolve("credits.md");
    chosen.next(saved);
    robot.clickOn("#credits-save");
    assertThat(Files.readString(saved)).contains("## Music", "M. Larsen");
    robot.clickOn("#credits-close");
    assertThat(project().media(music).orElseThrow().credit().author()).isEqualTo("M. Larsen");
    until("it is mended", () -> robot.lookup("#ear-credits").tryQuery().isEmpty());
    press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(project().media(music).orElseThrow().credit().licence())
        .isEqualTo(Licence.NOT_KNOWN);
  }
}
