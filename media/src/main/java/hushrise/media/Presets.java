package hushrise.media;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.datatype.jdk8.Jdk8Module;
import hushrise.core.Problem;
import hushrise.core.store.AtomicFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** The presets that ship and those a person has kept, which lie in one JSON file. */
public final class Presets {

  private static final Logger LOG = LoggerFactory.getLogger(Presets.class);

  private static final ObjectMapper MAPPER = new ObjectMapper().registerModule(new Jdk8Module());

  private final Path file;

  /**
   * @param folder that holds the file
   */
  public Presets(Path folder) {
    file = folder.resolve("presets.json");
  }

  /** Those of the person, in the folder for settings or the one that HUSHRISE_SETTINGS names. */
  public static Presets ofUser() {
    return new Presets(UserFolders.settings());
  }

  /** All of them; kept ones first, and in the place of a shipped one of their name. */
  public List<Preset> all() {
    List<Preset> all = new ArrayList<>(kept());
    Preset.SHIPPED.stream()
        .filter(s -> all.stream().noneMatch(k -> k.word().equals(s.word())))
        .forEach(all::add);
    return List.copyOf(all);
  }

  /** What a person has kept; nothing when it cannot be read, as the shipped ones still serve. */
  public List<Preset> kept() {
    if (!Files.isRegularFile(file)) {
      return List.of();
    }
    try {
      return MAPPER.readValue(file.toFile(), new TypeReference<List<Preset>>() {});
    } catch (IOException e) {
      LOG.warn("The presets in {} cannot be read", file, e);
      return List.of();
    }
  }

  /** Keeps a preset, in the place of one of its name. */
  public void keep(Preset preset) {
    List<Preset> rest = new ArrayList<>(kept());
    rest.removeIf(p -> p.word().equals(preset.word()));
    rest.add(preset);
    save(rest);
  }

  /** Lets go of a preset that was kept. */
  public void forget(String name) {
    List<Preset> rest = new ArrayList<>(kept());
    rest.removeIf(p -> p.word().equals(Preset.wordOf(name)));
    save(rest);
  }

  private void save(List<Preset> presets) {
    try {
      Files.createDirectories(file.toAbsolutePath().getParent());
      AtomicFile.write(file, MAPPER.writerWithDefaultPrettyPrinter().writeValueAsBytes(presets));
    } catch (JsonProcessingException e) {
      throw new IllegalStateException("A preset that is no JSON", e);
    } catch (IOException e) {
      throw new Problem(
          "The folder %s cannot be made, so no preset can be kept: check that you may write there."
              .formatted(file.getParent()),
          e);
    }
  }

  /**
   * The preset of a name.
   *
   * @throws Problem listing those that there are
   */
  public Preset of(String name) {
    List<Preset> all = all();
    return all.stream()
        .filter(p -> p.word().equals(Preset.wordOf(name)))
        .findFirst()
        .orElseThrow(
            () ->
                new Problem(
                    "There is no preset %s: choose one of %s."
                        .formatted(
                            name, String.join(", ", all.stream().map(Preset::word).toList()))));
  }
}
