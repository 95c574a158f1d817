package hushrise.app;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.library.Architectures;
import com.tngtech.archunit.library.dependencies.SlicesRuleDefinition;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;

/** The layers of the design: core at the bottom, media on it, app and cli on both. */
class LayersTest {

  private static final JavaClasses ALL =
      new ClassFileImporter()
          .importPaths(
              Path.of("../core/target/classes"),
              Path.of("../media/target/classes"),
              Path.of("../cli/target/classes"),
              Path.of("target/classes"));

  @Test
  void everyLayerWasFound() {
    for (String layer : new String[] {"core", "media", "cli", "app"}) {
      assertThat(ALL.stream().filter(c -> c.getPackageName().startsWith("hushrise." + layer)))
          .hasSizeGreaterThan(3);
    }
  }

  @Test
  void coreKnowsNothingAboveItAndNothingOutside() {
    noClasses()
        .that()
        .resideInAPackage("hushrise.core..")
        .should()
        .dependOnClassesThat()
        .resideInAnyPackage(
            "hushrise.media..",
            "hushrise.app..",
            "hushrise.cli..",
            "javafx..",
            "java.awt..",
            "javax.sound..",
            "java.net..",
            "org.bytedeco..",
            "ai.onnxruntime..",
            "picocli..")
        .check(ALL);
  }

  @Test
  void onlyMediaKnowsCodecsModelsAndSoundDevices() {
    noClasses()
        .that()
        .resideOutsideOfPackage("hushrise.media..")
        .should()
        .dependOnClassesThat()
        .resideInAnyPackage("org.bytedeco..", "ai.onnxruntime..", "javax.sound..")
        .check(ALL);
    noClasses()
        .that()
        .resideInAPackage("hushrise.media..")
        .should()
        .dependOnClassesThat()
        .resideInAnyPackage("hushrise.app..", "hushrise.cli..", "javafx..", "picocli..")
        .check(ALL);
  }

  @Test
  void windowAndCommandLineDoNotKnowEachOther() {
    noClasses()
        .that()
        .resideInAPackage("hushrise.app..")
        .should()
        .dependOnClassesThat()
        .resideInAnyPackage("hushrise.cli..", "picocli..")
        .check(ALL);
    noClasses()
        .that()
        .resideInAPackage("hushrise.cli..")
        .should()
        .dependOnClassesThat()
        .resideInAnyPackage("hushrise.app..", "javafx..")
        .check(ALL);
  }

  @Test
  void noPackagesOfAnyModuleImportOneAnotherInARing() {
    SlicesRuleDefinition.slices().matching("hushrise.(**)").should().beFreeOfCycles().check(ALL);
  }

  @Test
  void insideTheWindowArrowsGoDownOnly() {
    Architectures.layeredArchitecture()
        .consideringOnlyDependenciesInLayers()
        .layer("window")
        .definedBy("hushrise.app.window..")
        .layer("timeline and panels")
        .definedBy("hushrise.app.timeline..", "hushrise.app.panel..")
        .layer("widgets and looks")
        .definedBy("hushrise.app.widget..", "hushrise.app.look..")
        .layer("commands")
        .definedBy("hushrise.app.command..")
        .layer("files")
        .definedBy("hushrise.app.file..")
        .layer("what is heard")
        .definedBy("hushrise.app.listen..", "hushrise.app.play..", "hushrise.app.record..")
        .layer("session and jobs")
        .definedBy("hushrise.app.session..", "hushrise.app.job..")
        .layer("words")
        .definedBy("hushrise.app.words..")
        .whereLayer("window")
        .mayNotBeAccessedByAnyLayer()
        .whereLayer("timeline and panels")
        .mayOnlyBeAccessedByLayers("window")
        .whereLayer("widgets and looks")
        .mayOnlyBeAccessedByLayers("window", "timeline and panels")
        .whereLayer("commands")
        .mayOnlyBeAccessedByLayers("window", "timeline and panels", "widgets and looks")
        .whereLayer("files")
        .mayOnlyBeAccessedByLayers("window", "timeline and panels", "commands")
        .whereLayer("what is heard")
        .mayOnlyBeAccessedByLayers(
            "window", "timeline and panels", "widgets and looks", "commands", "files")
        .whereLayer("session and jobs")
        .mayOnlyBeAccessedByLayers(
            "window",
            "timeline and panels",
            "widgets and looks",
            "commands",
            "files",
            "what is heard")
        .check(ALL);
  }

  @Test
  void noPartOfTheWindowKnowsTheWindow() {
    noClasses()
        .that()
        .resideOutsideOfPackage("hushrise.app.window..")
        .should()
        .dependOnClassesThat()
        .resideInAPackage("hushrise.app.window..")
        .check(ALL);
  }
}
