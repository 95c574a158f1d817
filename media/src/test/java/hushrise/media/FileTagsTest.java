package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.bytedeco.ffmpeg.global.avformat.avformat_close_input;

import hushrise.core.project.Project;
import hushrise.core.project.media.Credit;
import hushrise.core.project.media.Licence;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.sound.Progress;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.bytedeco.ffmpeg.avformat.AVFormatContext;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

class FileTagsTest extends MediaTestCase {

  @ParameterizedTest
  @CsvSource({
    "CC0 1.0 Universal, PUBLIC_DOMAIN",
    "https://creativecommons.org/publicdomain/zero/1.0/, PUBLIC_DOMAIN",
    "CC-BY 4.0, ATTRIBUTION",
    "http://creativecommons.org/licenses/by-sa/3.0/, ATTRIBUTION_SHARE_ALIKE",
    "Creative Commons Attribution-ShareAlike, ATTRIBUTION_SHARE_ALIKE",
    "cc by-nc-sa, ATTRIBUTION_NON_COMMERCIAL",
    "CC BY-ND 4.0, ATTRIBUTION_NO_DERIVATIVES",
    "All rights reserved, NOT_KNOWN",
    "byzantine, NOT_KNOWN",
    "Creative Commons: By Attribution 4.0, ATTRIBUTION",
    "CreativeCommons BY-SA, ATTRIBUTION_SHARE_ALIKE",
    "Attribution 4.0 International (CC BY 4.0), ATTRIBUTION",
    "Attribution-NonCommercial 3.0, ATTRIBUTION_NON_COMMERCIAL",
    "CCBY, ATTRIBUTION",
    "Creative Commons Zero, PUBLIC_DOMAIN",
    "CC-Zero, PUBLIC_DOMAIN",
    "Attribution is not needed, NOT_KNOWN",
    "Zero Seven Records, NOT_KNOWN",
    "A Creative Commons work by Ada, NOT_KNOWN",
    "'Music by Åda\n\nLicensed under CC\nBY 4.0', ATTRIBUTION"
  })
  void theKindOfALicenceIsToldFromItsName(String text, Licence licence) {
    assertThat(FileTags.licenceOf(text)).isEqualTo(licence);
  }

  /** The title comes from the project, the credits when asked for; of films as of sound. */
  @ParameterizedTest
  @EnumSource
  void whatIsExportedSaysWhatItIsAndWhomItOwesThanksTo(OutputFormat format) {
    Media music =
        store
            .take(tone(1), MediaKind.MUSIC, Progress.NONE)
            .withCredit(new Credit("Harbour Tune", "\u00c5da", "", Licence.ATTRIBUTION, ""));
    List<Track> tracks = new ArrayList<>();
    tracks.add(Track.of(TrackKind.MUSIC, "Music", List.of(Clip.whole(music, 0))));
    Project project = Project.empty("Fl\u00f8te og fj\u00f8rd").withMedia(music);
    if (format.isFilm()) {
      Media film =
          store.take(
              film("plain.mkv", OutputFormat.MKV, 25, true), MediaKind.PICTURE, Progress.NONE);
      project = project.withMedia(film);
      tracks.addFirst(Track.of(TrackKind.PICTURE, "Picture", List.of(Clip.whole(film, 0))));
    }
    Path out = folder.resolve("out." + format.ending());
    Order order = Order.of(project.withTracks(tracks), out, format);
    Exporter.export(order, store, Progress.NONE);
    assertThat(tag(out, "title")).isEqualTo("Fl\u00f8te og fj\u00f8rd");
    assertThat(tag(out, "comment")).isEmpty();
    Exporter.export(order.withCreditsInTags(true), store, Progress.NONE);
    assertThat(tag(out, "comment")).contains("Harbour Tune", "\u00c5da");
    assertThat(store.take(out, MediaKind.MUSIC, Progress.NONE).lengthFrames())
        .isBetween(RATE - 10L, RATE + 3_000L);
  }

  private static String tag(Path file, String key) {
    AVFormatContext input = Ffmpeg.openInput(file);
    try {
      return FileTags.value(input, key);
    } finally {
      avformat_close_input(input);
    }
  }

  @Test
  void aFileWithoutTagsGivesNoCredit() {
    Path file =
        new SoundFileMaker("flac", 44_100, "stereo", 1)
            .write(folder.resolve("plain.flac"), t -> 0.3 * Math.sin(2 * Math.PI * 440 * t));
    assertThat(FileTags.creditOf(file)).isEqualTo(Credit.NONE);
  }
}
