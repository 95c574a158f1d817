package hushrise.app.command;

import static hushrise.app.words.Texts.text;

import hushrise.app.job.Messages;
import hushrise.app.listen.PictureCuts;
import hushrise.app.session.Session;
import hushrise.core.edit.FadeEdits;
import hushrise.core.project.Project;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.time.Span;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.stream.Collectors;

/** What keys and menus do to the fades of clips. */
public final class FadeCommands {

  private final Session session;
  private final PictureCuts cuts;
  private final Messages messages;

  public FadeCommands(Session session, PictureCuts cuts, Messages messages) {
    this.session = session;
    this.cuts = cuts;
    this.messages = messages;
  }

  /** Sets what its commands do. */
  public void addTo(Commands.Builder table) {
    table
        .set(CommandId.FADE_WITH_PICTURE, this::fadeWithPicture)
        .set(CommandId.FADE_FROM_HERE, this::fadeFromHere)
        .set(CommandId.FADE_BOTH, this::sameFades)
        .set(CommandId.FADE_TO_CUT, this::fadeToCut);
  }

  private Project project() {
    return session.present();
  }

  private Set<String> chosen() {
    return session.selection().clipIds();
  }

  private void fadeWithPicture() {
    Optional<Span> fade = cuts.fadeToBlack();
    if (fade.isEmpty()) {
      messages.say(text("clip.noPictureFade"));
      return;
    }
    Set<String> ids =
        chosen().isEmpty()
            ? project()
                .tracksOf(TrackKind.MUSIC)
                .flatMap(t -> t.clips().stream())
                .filter(c -> c.endFrame() > fade.get().startFrame())
                .map(Clip::id)
                .collect(Collectors.toSet())
            : chosen();
    session.commit(
        text("edit.fadeOut"),
        p -> {
          Project changed = p;
          for (String id : ids) {
            long length = p.clip(id).orElseThrow().endFrame() - fade.get().startFrame();
            changed = length > 0 ? FadeEdits.fitOut(changed, id, length) : changed;
          }
          return changed;
        });
  }

  private void fadeFromHere() {
    Set<String> ids = chosen();
    session.commit(text("edit.fadeOut"), p -> FadeEdits.outFrom(p, ids, session.playhead()));
  }

  private void sameFades() {
    Set<String> ids = chosen();
    session.commit(
        text("edit.fades"),
        p -> {
          Project changed = p;
          for (String id : ids) {
            changed = FadeEdits.sameOnBothEnds(changed, id);
          }
          return changed;
        });
  }

  /** Lets fade-ins reach to the first cut of the picture after their clips' starts. */
  private void fadeToCut() {
    Set<String> ids = chosen();
    if (ids.stream().allMatch(id -> cutWithin(project().clip(id).orElseThrow()).isEmpty())) {
      messages.say(text("fade.noCut"));
      return;
    }
    session.commit(
        text("edit.fadeIn"),
        p -> {
          Project changed = p;
          for (String id : ids) {
            Clip clip = p.clip(id).orElseThrow();
            OptionalLong cut = cutWithin(clip);
            if (cut.isPresent()) {
              changed = FadeEdits.setIn(changed, id, cut.getAsLong() - clip.startFrame());
            }
          }
          return changed;
        });
  }

  private OptionalLong cutWithin(Clip clip) {
    return cuts.frames().stream()
        .mapToLong(Long::longValue)
        .filter(f -> f > clip.startFrame() && f < clip.endFrame())
        .min();
  }
}
