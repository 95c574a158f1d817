package hushrise.core.edit;

import static org.assertj.core.api.Assertions.assertThat;

import hushrise.core.Problem;
import hushrise.core.fit.FitFollow;
import hushrise.core.fit.Songs;
import hushrise.core.mix.Projects;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.store.ProjectFile;
import hushrise.core.time.Span;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;

/** Whatever is cut and moved, and whatever a file holds then: every clip plays what is there. */
class RenewalProperties {

  private static final int RATE = 48_000;

  private static Project project(Random random) {
    Media film = Projects.film("film", 20 + 60 * random.nextDouble(), random.nextBoolean(), 25);
    Project project = Placement.add(Project.empty("p"), film, 0, Songs.NONE);
    for (String name : List.of("song", "later", "line", "horn")) {
      MediaKind kind =
          switch (name) {
            case "line" -> MediaKind.VOICE;
            case "horn" -> MediaKind.EFFECT;
            default -> MediaKind.MUSIC;
          };
      Media media = Projects.media(name, kind, 1 + random.nextLong(100L * RATE));
      Media part =
          random.nextBoolean()
              ? media
              : media.withUseful(Optional.of(new Span(0, 1 + media.lengthFrames() / 2)));
      project = Placement.add(project, part, random.nextLong(50L * RATE), Songs.NONE);
    }
    return project;
  }

  private static Project edited(Project project, Random random) {
    List<Clip> clips = project.tracks().stream().flatMap(t -> t.clips().stream()).toList();
    if (clips.isEmpty()) {
      return project;
    }
    Clip clip = clips.get(random.nextInt(clips.size()));
    Set<String> id = Set.of(clip.id());
    long at = clip.startFrame() + random.nextLong(clip.lengthFrames());
    return switch (random.nextInt(6)) {
      case 0 -> ClipEdits.split(project, id, at);
      case 1 -> ClipEdits.trimStart(project, clip.id(), at);
      case 2 -> ClipEdits.trimEnd(project, clip.id(), at + 1);
      case 3 -> ClipEdits.move(project, id, random.nextLong(-9L * RATE, 9L * RATE), true);
      case 4 -> ClipRemoval.delete(project, id, random.nextBoolean(), true);
      default -> {
        Media media = project.media(clip.mediaId()).orElseThrow();
        Media fresh =
            media
                .withFile(Path.of("/other" + random.nextInt(3)))
                .withLengthFrames(1 + random.nextLong(90L * RATE))
                .withHasSound(media.kind() != MediaKind.PICTURE || random.nextBoolean());
        yield Renewal.of(project, media.id(), fresh, Songs.NONE);
      }
    };
  }

  @Property(tries = 300)
  void everyClipPlaysWhatIsThere(@ForAll long seed) {
    Random random = new Random(seed);
    Project project = project(random);
    for (int i = 0; i < 8; i++) {
      Project before = project;
      try {
        Project edited = SongFollow.followed(before, edited(before, random));
        project = FitFollow.followed(before, edited, Songs.NONE).project();
      } catch (Problem e) {
        continue; // such as a split within a crossfade
      }
      for (Track track : project.tracks()) {
        for (Clip clip : track.clips()) {
          Media media = project.media(clip.mediaId()).orElseThrow();
          assertThat(clip.startFrame()).isNotNegative();
          assertThat(clip.mediaStartFrame()).isNotNegative();
          assertThat(ClipShape.longest(clip, media))
              .as("%s of %s", clip, media)
              .isGreaterThanOrEqualTo(clip.lengthFrames());
          assertThat(clip.seams())
              .as("%s of %s", clip, media)
              .allMatch(s -> s.fromFrame() <= media.lengthFrames())
              .allMatch(s -> s.toFrame() < media.lengthFrames());
          assertThat(media.hasSound() || !track.kind().sounds()).isTrue();
        }
      }
    }
    Path file = Path.of("/p.hushrise");
    Project read = ProjectFile.read(ProjectFile.tree(project, file), file);
    assertThat(read.tracks()).isEqualTo(project.tracks());
  }
}
