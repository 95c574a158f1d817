package hushrise.media;

import static org.bytedeco.ffmpeg.global.avcodec.AV_CODEC_ID_AAC;
import static org.bytedeco.ffmpeg.global.avcodec.AV_CODEC_ID_ALAC;
import static org.bytedeco.ffmpeg.global.avcodec.AV_CODEC_ID_FLAC;
import static org.bytedeco.ffmpeg.global.avcodec.AV_CODEC_ID_MP3;
import static org.bytedeco.ffmpeg.global.avcodec.AV_CODEC_ID_OPUS;
import static org.bytedeco.ffmpeg.global.avcodec.AV_CODEC_ID_PCM_F32LE;
import static org.bytedeco.ffmpeg.global.avcodec.AV_CODEC_ID_PCM_S16BE;
import static org.bytedeco.ffmpeg.global.avcodec.AV_CODEC_ID_PCM_S16LE;
import static org.bytedeco.ffmpeg.global.avcodec.AV_CODEC_ID_PCM_S24BE;
import static org.bytedeco.ffmpeg.global.avcodec.AV_CODEC_ID_PCM_S24LE;

import hushrise.core.Problem;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;

/**
 * The kinds of files that can be exported: each container with each coding of sound that it is
 * commonly played with. The first of an ending is the one that the ending alone asks for.
 */
public enum OutputFormat {
  MP4("mp4", "mp4", true, SoundCoding.AAC),
  MP4_OPUS("mp4", "mp4", true, SoundCoding.OPUS),
  MP4_FLAC("mp4", "mp4", true, SoundCoding.FLAC),
  MOV("mov", "mov", true, SoundCoding.AAC),
  MOV_PCM("mov", "mov", true, SoundCoding.PCM_24),
  MOV_ALAC("mov", "mov", true, SoundCoding.ALAC),
  MKV("mkv", "matroska", true, SoundCoding.AAC),
  MKV_OPUS("mkv", "matroska", true, SoundCoding.OPUS),
  MKV_FLAC("mkv", "matroska", true, SoundCoding.FLAC),
  MKV_PCM("mkv", "matroska", true, SoundCoding.PCM_24),
  WEBM("webm", "webm", true, SoundCoding.OPUS),
  WAV_24("wav", "wav", false, SoundCoding.PCM_24),
  WAV_16("wav", "wav", false, SoundCoding.PCM_16),
  WAV_32_FLOAT("wav", "wav", false, SoundCoding.PCM_32_FLOAT),
  AIFF_24("aiff", "aiff", false, SoundCoding.PCM_24),
  AIFF_16("aiff", "aiff", false, SoundCoding.PCM_16),
  FLAC("flac", "flac", false, SoundCoding.FLAC),
  MP3("mp3", "mp3", false, SoundCoding.MP3),
  AAC("m4a", "ipod", false, SoundCoding.AAC),
  ALAC("m4a", "ipod", false, SoundCoding.ALAC),
  OPUS("opus", "opus", false, SoundCoding.OPUS),
  OGG("ogg", "ogg", false, SoundCoding.OPUS);

  private final String ending;
  private final String muxer;
  private final boolean film;
  private final SoundCoding coding;

  OutputFormat(String ending, String muxer, boolean film, SoundCoding coding) {
    this.ending = ending;
    this.muxer = muxer;
    this.film = film;
    this.coding = coding;
  }

  /**
   * The format that a file's ending asks for; WAV means 24 bits.
   *
   * @throws Problem when the ending is unknown
   */
  public static OutputFormat of(Path file) {
    return of(file, Optional.empty());
  }

  /**
   * The format that a file's ending asks for, with a coding.
   *
   * @throws Problem when the ending is unknown, or the coding does not go into such a file
   */
  public static OutputFormat of(Path file, Optional<SoundCoding> wanted) {
    String name = String.valueOf(file.getFileName()).toLowerCase(Locale.ROOT);
    String ending =
        name.substring(name.lastIndexOf('.') + 1).replace("aif", "aiff").replace("aifff", "aiff");
    List<OutputFormat> all = Arrays.stream(values()).filter(f -> f.ending.equals(ending)).toList();
    if (all.isEmpty()) {
      throw new Problem(
          "%s does not say what to write: end its name in .mp4, .mov, .mkv or .webm for a film, or .wav, .aiff, .flac, .mp3, .m4a, .opus or .ogg for sound."
              .formatted(file));
    }
    return all.stream()
        .filter(f -> wanted.isEmpty() || f.coding == wanted.get())
        .findFirst()
        .orElseThrow(
            () ->
                new Problem(
                    "A .%s file does not take %s: choose %s."
                        .formatted(
                            ending,
                            wanted.get().word(),
                            all.stream()
                                .map(f -> f.coding.word())
                                .collect(Collectors.joining(" or ")))));
  }

  /** Whether the picture goes along. */
  public boolean isFilm() {
    return film;
  }

  /** What its files' names end in, without the dot. */
  public String ending() {
    return ending;
  }

  public SoundCoding coding() {
    return coding;
  }

  String muxer() {
    return muxer;
  }

  /** Whether it has places for chapters, or for cue points in their stead. */
  public boolean takesChapters() {
    return !ending.equals("flac") && !ending.equals("aiff");
  }

  /** Whether its samples are written here, without any codec library. */
  public boolean isPlainWav() {
    return ending.equals("wav");
  }

  int soundCodec() {
    boolean bigEndian = ending.equals("aiff");
    return switch (coding) {
      case PCM_16 -> bigEndian ? AV_CODEC_ID_PCM_S16BE : AV_CODEC_ID_PCM_S16LE;
      case PCM_24 -> bigEndian ? AV_CODEC_ID_PCM_S24BE : AV_CODEC_ID_PCM_S24LE;
      case PCM_32_FLOAT -> AV_CODEC_ID_PCM_F32LE;
      case FLAC -> AV_CODEC_ID_FLAC;
      case ALAC -> AV_CODEC_ID_ALAC;
      case AAC -> AV_CODEC_ID_AAC;
      case MP3 -> AV_CODEC_ID_MP3;
      case OPUS -> AV_CODEC_ID_OPUS;
    };
  }
}
