package hushrise.media;

import static org.bytedeco.ffmpeg.global.avcodec.AV_CODEC_ID_AAC;
import static org.bytedeco.ffmpeg.global.avcodec.AV_CODEC_ID_FLAC;
import static org.bytedeco.ffmpeg.global.avcodec.AV_CODEC_ID_MP3;
import static org.bytedeco.ffmpeg.global.avcodec.AV_CODEC_ID_OPUS;
import static org.bytedeco.ffmpeg.global.avcodec.AV_CODEC_ID_PCM_F32LE;
import static org.bytedeco.ffmpeg.global.avcodec.AV_CODEC_ID_PCM_S16LE;
import static org.bytedeco.ffmpeg.global.avcodec.AV_CODEC_ID_PCM_S24LE;

import hushrise.core.Problem;
import java.nio.file.Path;
import java.util.Locale;

/** The kinds of files that can be exported. */
public enum OutputFormat {
  MP4("mp4", "mp4", true, AV_CODEC_ID_AAC, 256_000),
  MOV("mov", "mov", true, AV_CODEC_ID_AAC, 256_000),
  MKV("mkv", "matroska", true, AV_CODEC_ID_AAC, 256_000),
  WEBM("webm", "webm", true, AV_CODEC_ID_OPUS, 192_000),
  WAV_16("wav", "wav", false, AV_CODEC_ID_PCM_S16LE, 0),
  WAV_24("wav", "wav", false, AV_CODEC_ID_PCM_S24LE, 0),
  WAV_32_FLOAT("wav", "wav", false, AV_CODEC_ID_PCM_F32LE, 0),
  FLAC("flac", "flac", false, AV_CODEC_ID_FLAC, 0),
  MP3("mp3", "mp3", false, AV_CODEC_ID_MP3, 256_000),
  AAC("m4a", "ipod", false, AV_CODEC_ID_AAC, 256_000),
  OPUS("opus", "opus", false, AV_CODEC_ID_OPUS, 192_000);

  private final String ending;
  private final String muxer;
  private final boolean film;
  private final int soundCodec;
  private final int bitRate;

  OutputFormat(String ending, String muxer, boolean film, int soundCodec, int bitRate) {
    this.ending = ending;
    this.muxer = muxer;
    this.film = film;
    this.soundCodec = soundCodec;
    this.bitRate = bitRate;
  }

  /**
   * The format that a file's ending asks for; WAV means 24 bits.
   *
   * @throws Problem when the ending is unknown
   */
  public static OutputFormat of(Path file) {
    String name = String.valueOf(file.getFileName()).toLowerCase(Locale.ROOT);
    String ending = name.substring(name.lastIndexOf('.') + 1);
    if (ending.equals("wav")) {
      return WAV_24;
    }
    for (OutputFormat format : values()) {
      if (format.ending.equals(ending)) {
        return format;
      }
    }
    throw new Problem(
        "%s does not say what to write: end its name in .mp4, .mov, .mkv or .webm for a film, or .wav, .flac, .mp3, .m4a or .opus for sound."
            .formatted(file));
  }

  /** Whether the picture goes along. */
  public boolean isFilm() {
    return film;
  }

  /** What its files' names end in, without the dot. */
  public String ending() {
    return ending;
  }

  String muxer() {
    return muxer;
  }

  int soundCodec() {
    return soundCodec;
  }

  /** Bits per second of its sound; 0 where there is nothing to choose. */
  int bitRate() {
    return bitRate;
  }
}
