package hushrise.app.session;

import hushrise.core.Problem;
import hushrise.core.edit.SongFollow;
import hushrise.core.fit.FitFollow;
import hushrise.core.fit.Songs;
import hushrise.core.hush.HushFollow;
import hushrise.core.project.Project;
import java.util.NoSuchElementException;
import java.util.Optional;
import java.util.function.UnaryOperator;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * What follows an edit: hushes the speech, a song's end the start of the next one, fitted music the
 * film. Where a song has to be searched for that, it is done elsewhere, and what is known comes
 * first.
 */
final class Following {

  private static final Logger LOG = LoggerFactory.getLogger(Following.class);

  private final Songs songs;
  private final Session.Elsewhere elsewhere;

  /** A drag tries many edits of one project. */
  private HushFollow hushes = HushFollow.from(Project.empty(""));

  private boolean searching;

  /** The project before the first edit whose music waits for its song to be listened to. */
  private Optional<Project> unheard = Optional.empty();

  Following(Songs songs, Session.Elsewhere elsewhere) {
    this.songs = songs;
    this.elsewhere = elsewhere;
  }

  Songs songs() {
    return songs;
  }

  /** Forgets what waits: another project is opened. */
  void startOver() {
    unheard = Optional.empty();
    hushes = HushFollow.from(Project.empty(""));
  }

  /** An edit with all that follows what it moved, but for fits. */
  Project edited(Project base, UnaryOperator<Project> edit) {
    if (hushes.before() != base) {
      hushes = HushFollow.from(base);
    }
    return hushes.follow(SongFollow.followed(base, edit.apply(base)));
  }

  /** What follows an edit, as far as it is known; what waits for its song is noted. */
  FitFollow.Followed asKnown(Project before, Project edited) {
    FitFollow.Followed followed = FitFollow.followedAsKnown(before, edited, songs);
    if (followed.awaitsListening() && unheard.isEmpty()) {
      unheard = Optional.of(before);
    }
    return followed;
  }

  /** What an edit began from whose music waited for its song; it waits no longer. */
  Optional<Project> takeUnheard() {
    Optional<Project> taken = unheard;
    unheard = Optional.empty();
    return taken;
  }

  /**
   * What is to be shown of an edit, as far as it is known.
   *
   * @param more is run once more is known
   */
  Project shown(Project base, UnaryOperator<Project> edit, Runnable more) {
    Project edited = edited(base, edit);
    FitFollow.Followed followed = FitFollow.followedAsKnown(base, edited, songs);
    if (!followed.isComplete() && !searching) {
      searching = true;
      search(
          base,
          edited,
          () -> {
            searching = false;
            more.run();
          });
    }
    return followed.project();
  }

  /** Searches what follows an edit, so that it is known then. */
  void search(Project before, Project edited, Runnable then) {
    elsewhere.run(() -> FitFollow.followed(before, edited, songs), then);
  }

  /** As {@link #search}, for an edit that itself searches a song. */
  void searchAhead(Project base, UnaryOperator<Project> edit, Runnable then) {
    elsewhere.run(
        () -> {
          try {
            FitFollow.followed(base, edit.apply(base), songs);
          } catch (Problem | NoSuchElementException e) {
            LOG.debug("Said when the edit is made", e);
          }
        },
        then);
  }
}
