package hushrise.app.job;

/** Tells the person something. On the window's thread. */
public interface Messages {

  /** Says what was done or what to do next. */
  void say(String sentence);

  /** Says what went wrong and what to do about it. */
  void complain(String sentence);

  /** Says nothing any more, if a sentence that no longer holds still stands. */
  void takeBack(String sentence);
}
