package hushrise.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.File;
import java.io.IOException;
import java.nio.file.AccessDeniedException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class FolderFilesTest {

  @TempDir private Path folder;

  private Path file(String name) throws IOException {
    Path file = folder.resolve(name);
    Files.createDirectories(file.getParent());
    return Files.write(file, new byte[1]);
  }

  @Test
  void whatLiesInItAndInFoldersWithinIsFoundButForWhatIsHidden() throws IOException {
    Path song = file("song.ogg");
    Path take = file("takes/monday/take.wav");
    file(".song.ogg.part");
    file(".Trash/thrown away.wav");
    file("a/b/c/d/deep.wav");
    assertThat(FolderFiles.in(folder, 4, 100)).containsExactlyInAnyOrder(song, take);
    assertThat(FolderFiles.in(folder, 4, 1)).hasSize(1);
    assertThat(FolderFiles.in(folder.resolve(".Trash"), 4, 100)).hasSize(1);
  }

  @Test
  void aFolderWithinThatMayNotBeOpenedIsPassedOver() throws IOException {
    Path song = file("song.ogg");
    Path locked = file("lost+found/thing.wav").getParent();
    File asFile = locked.toFile();
    assertThat(asFile.setReadable(false, false) && asFile.setExecutable(false, false)).isTrue();
    try {
      assertThat(FolderFiles.in(folder, 4, 100)).contains(song);
    } finally {
      assertThat(asFile.setReadable(true) && asFile.setExecutable(true)).isTrue();
    }
    // whoever may open everything, as an administrator, sees no refusal above
    FolderFiles visitor = new FolderFiles(folder, 100);
    AccessDeniedException refused = new AccessDeniedException("no");
    assertThat(visitor.visitFileFailed(locked, refused)).isEqualTo(FileVisitResult.CONTINUE);
    assertThat(visitor.postVisitDirectory(locked, refused)).isEqualTo(FileVisitResult.CONTINUE);
    assertThatThrownBy(() -> visitor.visitFileFailed(folder, refused)).isSameAs(refused);
  }

  @Test
  void aFolderThatIsNotThereIsSaid() {
    assertThatThrownBy(() -> FolderFiles.in(folder.resolve("gone"), 4, 100))
        .isInstanceOf(IOException.class);
  }
}
