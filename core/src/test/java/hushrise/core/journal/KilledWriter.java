package hushrise.core.journal;

import hushrise.core.edit.History;
import hushrise.core.mix.Projects;
import hushrise.core.project.Project;
import hushrise.core.store.ProjectFile;
import hushrise.core.store.Versions;
import java.nio.file.Path;
import java.util.Optional;

/** A program that edits and saves without end, to be killed at any moment. */
final class KilledWriter {

  private KilledWriter() {}

  /**
   * Edits, one step after another; each lowers the mix a little. Prints the number of each step
   * that lies on the disk.
   *
   * @param args the folder to work in
   */
  public static void main(String[] args) {
    Path folder = Path.of(args[0]);
    Path file = folder.resolve("film.hushrise");
    Versions versions = new Versions(folder.resolve("versions"));
    Project base = Projects.rich(new Projects.Sounds()).withMasterDb(0);
    Journal journal = new Journal(folder.resolve("journals"), System.err::println);
    History history = new History(base);
    journal.opened(base, Optional.of(file));
    history.setListener(journal::happened);
    for (int step = 1; ; step++) {
      history.commit("Lower", history.present().withMasterDb(-step / 100_000.0));
      if (step % 7 == 0) {
        versions.keep(file, 5);
        ProjectFile.save(history.present(), file);
        history.markSaved(history.snapshot());
        journal.saved(file, true);
      }
      if (step % 3 == 0 && journal.flush(10_000)) {
        System.out.println(step);
        System.out.flush();
      }
    }
  }
}
