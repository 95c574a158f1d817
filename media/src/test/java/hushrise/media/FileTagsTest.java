package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.project.media.Credit;
import hushrise.core.project.media.Licence;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

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
    "byzantine, NOT_KNOWN"
  })
  void theKindOfALicenceIsToldFromItsName(String text, Licence licence) {
    assertThat(FileTags.licenceOf(text)).isEqualTo(licence);
  }

  @Test
  void aFileWithoutTagsGivesNoCredit() {
    Path file =
        new SoundFileMaker("flac", 44_100, "stereo", 1)
            .write(folder.resolve("plain.flac"), t -> 0.3 * Math.sin(2 * Math.PI * 440 * t));
    assertThat(FileTags.creditOf(file)).isEqualTo(Credit.NONE);
  }
}
