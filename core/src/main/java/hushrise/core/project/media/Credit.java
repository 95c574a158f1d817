package hushrise.core.project.media;

import hushrise.core.OneLine;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.ArrayList;
import java.util.List;

/**
 * Who made something, and on what terms. Each text is one line, or empty.
 *
 * @param title what it is called
 * @param author who made it
 * @param source where it is from, such as an address
 * @param licence on what terms it may be used
 * @param note anything else that is to be said
 */
@RecordBuilder
public record Credit(String title, String author, String source, Licence licence, String note)
    implements CreditBuilder.With {

  /** Nothing is known. */
  public static final Credit NONE = new Credit("", "", "", Licence.NOT_KNOWN, "");

  public Credit {
    title = oneLine(title);
    author = oneLine(author);
    source = oneLine(source);
    licence = licence == null ? Licence.NOT_KNOWN : licence;
    note = oneLine(note);
  }

  private static String oneLine(String text) {
    return text == null ? "" : OneLine.of(text);
  }

  /** A credit in a person's own words. */
  public static Credit ofNote(String note) {
    return NONE.withNote(note);
  }

  public boolean isEmpty() {
    return equals(NONE);
  }

  /** Whether it is no more than a note in a person's own words. */
  public boolean isOnlyNote() {
    return equals(ofNote(note));
  }

  /** What its licence asks for and is not there yet: the maker, or where it is from. */
  public boolean isMissingWhatItOwes() {
    return licence.owesCredit() && author.isEmpty() && note.isEmpty();
  }

  /**
   * All of it as a line.
   *
   * @param otherwise stands for the title where there is none; empty: nothing does
   */
  public String line(String otherwise) {
    List<String> parts = new ArrayList<>();
    String name = title.isEmpty() ? OneLine.of(otherwise) : title;
    String work = name.isEmpty() ? "" : "\u201c" + name + "\u201d";
    if (isOnlyNote()) {
      return note;
    }
    if (!author.isEmpty()) {
      work = work.isEmpty() ? author : work + " by " + author;
    }
    for (String part : new String[] {work, licence.words(), source, note}) {
      if (!part.isEmpty()) {
        parts.add(part);
      }
    }
    return String.join(", ", parts);
  }
}
