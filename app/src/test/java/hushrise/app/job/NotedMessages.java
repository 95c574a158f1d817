package hushrise.app.job;

import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;

/**
 * What a person would have been told, one after another; for any thread to look at.
 *
 * @param said all of it
 * @param complaints what went wrong alone
 */
public record NotedMessages(List<String> said, List<String> complaints) implements Messages {

  public NotedMessages() {
    this(new CopyOnWriteArrayList<>(), new CopyOnWriteArrayList<>());
  }

  @Override
  public void say(String sentence) {
    said.add(sentence);
  }

  @Override
  public void complain(String sentence) {
    said.add(sentence);
    complaints.add(sentence);
  }

  @Override
  public void takeBack(String sentence) {
    said.add("not any more: " + sentence);
  }
}
