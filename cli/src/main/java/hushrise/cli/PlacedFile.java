package hushrise.cli;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.OptionalDouble;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import picocli.CommandLine.ITypeConverter;
import picocli.CommandLine.TypeConversionException;

/**
 * A file with an optional place on the timeline: {@code FILE} or {@code FILE@SECONDS}.
 *
 * @param file the file
 * @param atSeconds where it goes
 */
record PlacedFile(Path file, OptionalDouble atSeconds) {

  private static final Pattern PLACED = Pattern.compile("(?s)(.+)@(\\d{1,7}(?:\\.\\d{1,9})?)");

  /** Reads the text; a file whose very name ends like a place is taken as a file. */
  static PlacedFile parse(String text) {
    Matcher placed = PLACED.matcher(text);
    if (placed.matches() && !Files.exists(Path.of(text))) {
      return new PlacedFile(
          Path.of(placed.group(1)), OptionalDouble.of(Double.parseDouble(placed.group(2))));
    }
    return new PlacedFile(Path.of(text), OptionalDouble.empty());
  }

  static final class Converter implements ITypeConverter<PlacedFile> {
    @Override
    public PlacedFile convert(String text) {
      return parse(text);
    }
  }

  /** For options where the place is needed. */
  static final class NeedsPlace implements ITypeConverter<PlacedFile> {
    @Override
    public PlacedFile convert(String text) {
      PlacedFile placed = parse(text);
      if (placed.atSeconds().isEmpty()) {
        throw new TypeConversionException(
            "'%s' does not say when: write it as FILE@SECONDS".formatted(text));
      }
      return placed;
    }
  }
}
