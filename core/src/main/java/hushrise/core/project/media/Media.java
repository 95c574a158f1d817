package hushrise.core.project.media;

import com.fasterxml.jackson.annotation.JsonInclude;
import hushrise.core.time.FrameRate;
import hushrise.core.time.Span;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * A file on the Shelf, with the facts that are needed while the file itself is away.
 *
 * @param id unique in the project
 * @param file where it is, absolute
 * @param kind what it is for
 * @param lengthFrames how long it is, in sample frames at the project's rate
 * @param hasSound whether it carries sound
 * @param pictureRate the frame rate of its picture; empty without one
 * @param credit who made it, and on what terms
 * @param useful the part that is worth placing, in frames of the media; empty: all of it
 * @param speech where somebody speaks in it, in frames of the media, in order and apart; empty
 *     while nobody has looked
 * @param content what tells its content from any other, by which it is found again when it was
 *     moved; empty while that is not known
 * @param cutShort whether the file seems to end before its end
 */
@RecordBuilder
public record Media(
    String id,
    Path file,
    MediaKind kind,
    long lengthFrames,
    boolean hasSound,
    Optional<FrameRate> pictureRate,
    Credit credit,
    Optional<Span> useful,
    Optional<List<Span>> speech,
    @JsonInclude(JsonInclude.Include.NON_ABSENT) Optional<String> content,
    Boolean cutShort)
    implements MediaBuilder.With {

  private static final Pattern UNSEEN = Pattern.compile("\\p{Cntrl}");

  public Media {
    pictureRate = pictureRate == null ? Optional.empty() : pictureRate;
    credit = credit == null ? Credit.NONE : credit;
    useful = useful == null ? Optional.empty() : useful;
    speech = speech == null ? Optional.empty() : speech.map(List::copyOf);
    content = content == null ? Optional.empty() : content;
    cutShort = cutShort != null && cutShort; // older files do not say
  }

  /**
   * A media item that is useful as a whole.
   *
   * @param credit in a person's own words; possibly empty
   */
  public Media(
      String id,
      Path file,
      MediaKind kind,
      long lengthFrames,
      boolean hasSound,
      Optional<FrameRate> pictureRate,
      String credit) {
    this(
        id,
        file,
        kind,
        lengthFrames,
        hasSound,
        pictureRate,
        Credit.ofNote(credit),
        Optional.empty(),
        Optional.empty(),
        Optional.empty(),
        false);
  }

  /** The part to place. */
  public Span usefulPart() {
    return useful.orElse(new Span(0, lengthFrames));
  }

  /** The file's name without its folder, on one line. */
  public String title() {
    Path name = file.getFileName();
    return UNSEEN.matcher((name == null ? file : name).toString()).replaceAll(" ");
  }
}
