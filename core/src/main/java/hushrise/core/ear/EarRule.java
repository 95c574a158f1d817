package hushrise.core.ear;

import java.util.List;

/** One thing the Second Ear listens for. */
public interface EarRule {

  /** Its name, for its sentence and for what is put aside. */
  String id();

  /** What it finds. */
  List<Finding> hear(Heard heard);
}
