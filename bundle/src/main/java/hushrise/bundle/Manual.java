package hushrise.bundle;

import hushrise.cli.HushRise;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;
import org.asciidoctor.Asciidoctor;
import org.asciidoctor.Options;
import org.asciidoctor.SafeMode;
import picocli.AutoComplete;
import picocli.CommandLine;
import picocli.codegen.docgen.manpage.ManPageGenerator;

/** Manual pages and the shell's completion, from the commands themselves. */
final class Manual {

  private Manual() {}

  static void writeInto(Path folder) throws IOException {
    CommandLine line = HushRise.whole();
    Files.writeString(folder.resolve("hushrise.bash"), AutoComplete.bash("hushrise", line));
    int code =
        ManPageGenerator.generateManPage(
            folder.toFile(), null, new boolean[0], false, line.getCommandSpec());
    if (code != 0) {
      throw new IllegalStateException("The manual's pages could not be written.");
    }
    try (Asciidoctor asciidoctor = Asciidoctor.Factory.create();
        Stream<Path> all = Files.list(folder)) {
      for (Path page : all.filter(p -> p.toString().endsWith(".adoc")).toList()) {
        asciidoctor.convertFile(
            page.toFile(), Options.builder().backend("manpage").safe(SafeMode.UNSAFE).build());
        Files.delete(page);
      }
    }
  }
}
