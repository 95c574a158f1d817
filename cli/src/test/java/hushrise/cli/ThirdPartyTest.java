package hushrise.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import javax.xml.parsers.DocumentBuilderFactory;
import org.junit.jupiter.api.Test;
import org.w3c.dom.Element;
import org.w3c.dom.NodeList;

/** What ships is named in THIRD-PARTY.md, in the version that ships and with a licence. */
class ThirdPartyTest {

  private static final Path ROOT = Path.of("..");

  /** Where the name in the list is another one than the first word of the artifact's. */
  private static final Map<String, String> NAMES =
      Map.of("javafx", "openjfx", "onnxruntime", "onnx runtime", "directories", "directories-jvm");

  private record Shipped(String artifact, String version) {}

  @Test
  void everyLibraryThatShipsIsListedWithItsVersionAndItsLicence() throws Exception {
    List<String> rows = rows();
    List<Shipped> shipped = new ArrayList<>();
    for (String module : List.of(".", "core", "media", "app", "cli")) {
      shipped.addAll(shippedBy(module));
    }
    assertThat(shipped).as("what the modules ask for").hasSizeGreaterThan(15);
    for (Shipped library : shipped) {
      String first = library.artifact().toLowerCase(Locale.ROOT).split("-")[0];
      String name = NAMES.getOrDefault(first, first);
      assertThat(rows)
          .as("%s %s", library.artifact(), library.version())
          .anySatisfy(
              row -> {
                String[] cells = row.split("\\|");
                assertThat(cells[1].toLowerCase(Locale.ROOT)).contains(name);
                assertThat(cells[2]).contains(library.version());
                assertThat(cells[3].strip()).isNotEmpty();
              });
    }
  }

  private static List<String> rows() throws IOException {
    return Files.readAllLines(ROOT.resolve("THIRD-PARTY.md")).stream()
        .filter(line -> line.startsWith("| ") && line.split("\\|").length >= 5)
        .toList();
  }

  private static List<Shipped> shippedBy(String module) throws Exception {
    Map<String, String> versions = versions();
    List<Shipped> shipped = new ArrayList<>();
    for (Element dependency : elements(ROOT.resolve(module + "/pom.xml"), "dependency")) {
      String version = textOf(dependency, "version");
      boolean own = textOf(dependency, "groupId").equals("hushrise") || version.isEmpty();
      boolean forBuilding =
          List.of("test", "provided").contains(textOf(dependency, "scope"))
              || textOf(dependency, "artifactId").startsWith("junit");
      if (!own && !forBuilding && !version.contains("project.version")) {
        String resolved = version.startsWith("${") ? versions.get(version) : version;
        shipped.add(new Shipped(textOf(dependency, "artifactId"), resolved.split("-")[0]));
      }
    }
    return shipped;
  }

  /** The versions that the root's properties give, by how they are asked for. */
  private static Map<String, String> versions() throws Exception {
    Element properties = elements(ROOT.resolve("pom.xml"), "properties").getFirst();
    NodeList all = properties.getElementsByTagName("*");
    return IntStream.range(0, all.getLength())
        .mapToObj(i -> (Element) all.item(i))
        .collect(
            Collectors.toMap(e -> "${" + e.getTagName() + "}", e -> e.getTextContent().strip()));
  }

  private static List<Element> elements(Path pom, String name) throws Exception {
    DocumentBuilderFactory factory = DocumentBuilderFactory.newInstance();
    factory.setFeature("http://apache.org/xml/features/disallow-doctype-decl", true);
    NodeList found = factory.newDocumentBuilder().parse(pom.toFile()).getElementsByTagName(name);
    List<Element> elements = new ArrayList<>();
    for (int i = 0; i < found.getLength(); i++) {
      elements.add((Element) found.item(i));
    }
    return elements;
  }

  private static String textOf(Element parent, String name) {
    NodeList found = parent.getElementsByTagName(name);
    return found.getLength() == 0 ? "" : found.item(0).getTextContent().strip();
  }
}
