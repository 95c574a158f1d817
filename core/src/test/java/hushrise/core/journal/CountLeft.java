package hushrise.core.journal;

import java.nio.file.Path;

/** A second program that looks for what others have left, and prints how much that is. */
final class CountLeft {

  private CountLeft() {}

  /**
   * @param args the folder of journals
   */
  public static void main(String[] args) {
    System.out.println(new Journals(Path.of(args[0])).left().size());
  }
}
