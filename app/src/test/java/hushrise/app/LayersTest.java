package hushrise.app;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
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
}
