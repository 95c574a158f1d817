package hushrise.media;

import static org.bytedeco.ffmpeg.global.avformat.avformat_close_input;
import static org.bytedeco.ffmpeg.global.avutil.av_dict_get;

import hushrise.core.OneLine;
import hushrise.core.project.media.Credit;
import hushrise.core.project.media.Licence;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Locale;
import org.bytedeco.ffmpeg.avformat.AVFormatContext;
import org.bytedeco.ffmpeg.avutil.AVDictionary;
import org.bytedeco.ffmpeg.avutil.AVDictionaryEntry;

/** What a file's own tags say of who made it. */
final class FileTags {

  /** More than a tag that is meant to be read has, in letters. */
  private static final int LONGEST = 1000;

  private FileTags() {}

  /** A credit from a file's tags; empty where there are none. */
  static Credit creditOf(Path file) {
    AVFormatContext input = Ffmpeg.openInput(file);
    try {
      Reader tags = key -> value(input, key);
      String terms = tags.any("license", "licence", "copyright");
      String source = tags.any("url", "website", "contact", "purl", "license_url");
      Licence licence = licenceOf(terms + " " + source);
      return new Credit(
          tags.any("title"),
          tags.any("artist", "album_artist", "composer", "author"),
          source,
          licence,
          licence == Licence.NOT_KNOWN ? terms : "");
    } finally {
      avformat_close_input(input);
    }
  }

  /** A tag of a file or of its sound, of which Ogg has them; blank where it is missing. */
  static String value(AVFormatContext input, String key) {
    int sound = Probe.soundStream(input);
    return first(input.metadata(), sound < 0 ? null : input.streams(sound).metadata(), key);
  }

  @FunctionalInterface
  private interface Reader {
    String of(String key);

    default String any(String... keys) {
      for (String key : keys) {
        String value = OneLine.of(of(key), LONGEST);
        if (!value.isEmpty()) {
          return value;
        }
      }
      return "";
    }
  }

  private static String first(AVDictionary file, AVDictionary stream, String key) {
    String value = value(file, key);
    return value.isBlank() ? value(stream, key) : value;
  }

  private static String value(AVDictionary tags, String key) {
    AVDictionaryEntry entry = tags == null ? null : av_dict_get(tags, key, null, 0);
    return entry == null || entry.isNull() ? "" : entry.value().getString(StandardCharsets.UTF_8);
  }

  /** The kind of licence that a text names. */
  static Licence licenceOf(String text) {
    String words = text.toLowerCase(Locale.ROOT).replaceAll("[-_/\\s]+", " ");
    if (words.matches(".*(\\bcc ?(0|zero)\\b|commons zero\\b|public ?domain|\\bzero 1\\.0).*")) {
      return Licence.PUBLIC_DOMAIN;
    }
    boolean by =
        words.matches(
            ".*((\\bcc|licenses|creative ?commons)[: ]*(by|attribution)\\b"
                + "|\\battribution (non ?commercial|share ?alike|no ?deriv|\\d\\.\\d international)).*");
    if (!by) {
      return Licence.NOT_KNOWN;
    }
    if (words.matches(".*(\\bnc\\b|non ?commercial).*")) {
      return Licence.ATTRIBUTION_NON_COMMERCIAL;
    }
    if (words.matches(".*(\\bnd\\b|no ?deriv).*")) {
      return Licence.ATTRIBUTION_NO_DERIVATIVES;
    }
    return words.matches(".*(\\bsa\\b|share ?alike).*")
        ? Licence.ATTRIBUTION_SHARE_ALIKE
        : Licence.ATTRIBUTION;
  }
}
