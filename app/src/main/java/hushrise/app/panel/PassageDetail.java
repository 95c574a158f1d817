package hushrise.app.panel;

import static hushrise.app.words.Texts.figure;
import static hushrise.app.words.Texts.text;

import hushrise.app.command.CommandId;
import hushrise.app.listen.Hearing;
import hushrise.app.session.Selection;
import hushrise.app.session.Session;
import hushrise.app.widget.Form;
import hushrise.core.edit.SpeechEdits;
import hushrise.core.project.Project;
import hushrise.core.project.media.Media;
import hushrise.core.project.timeline.Clip;
import hushrise.core.time.Span;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;

/** The numbers of a stretch of speech. */
final class PassageDetail {

  private final Session session;
  private final Hearing hearing;
  private final Form form;

  PassageDetail(Session session, Hearing hearing, Form form) {
    this.session = session;
    this.hearing = hearing;
    this.form = form;
  }

  /** Fills the form and gives the title to show. */
  String passage(Project project, Selection.OfPassage selected) {
    Optional<Clip> clip = project.clip(selected.clipId());
    List<Span> speech = project.media(selected.mediaId()).flatMap(Media::speech).orElse(List.of());
    if (clip.isEmpty() || selected.index() >= speech.size()) {
      return "";
    }
    Span inMedia = speech.get(selected.index());
    long shift = clip.get().startFrame() - clip.get().mediaStartFrame();
    form.time(
        "detail-start",
        text("detail.from"),
        inMedia.startFrame() + shift,
        to ->
            change(selected, s -> new Span(Math.min(to - shift, s.endFrame() - 1), s.endFrame())));
    form.time(
        "detail-end",
        text("detail.to"),
        inMedia.endFrame() + shift,
        to ->
            change(
                selected, s -> new Span(s.startFrame(), Math.max(to - shift, s.startFrame() + 1))));
    hearing.now().flatMap(n -> heard(n, inMedia.startFrame() + shift + 1)).ifPresent(this::facts);
    form.buttons(
        form.command(CommandId.HUSH_HERE, text("button.hush.here")),
        form.command(CommandId.PASSAGE_SPLIT, text("button.passage.split")),
        form.command(CommandId.PASSAGE_JOIN, text("button.passage.join")),
        form.command(CommandId.DELETE, text("button.delete")));
    form.buttons(
        form.command(CommandId.SPEECH_READ, text("button.speech.read")),
        form.command(CommandId.SPEECH_WRITE, text("button.speech.write")),
        form.command(CommandId.SPEECH_AGAIN, text("button.speech.again")));
    return text("detail.passageTitle", selected.index() + 1, speech.size());
  }

  private static Optional<hushrise.core.separation.PassageLoudness> heard(
      Hearing.Now now, long frame) {
    return now.separation().passages().stream()
        .filter(p -> p.passage().contains(frame))
        .findFirst();
  }

  private void facts(hushrise.core.separation.PassageLoudness p) {
    form.fact(text("detail.voiceLufs"), lufs(p.voiceLufs()));
    form.fact(text("detail.restLufs"), lufs(p.backgroundLufs()));
    form.fact(
        text("detail.separation"),
        Double.isFinite(p.separationLu())
            ? figure("%.1f LU", p.separationLu())
            : text("passages.alone"));
  }

  private static String lufs(double value) {
    return Double.isFinite(value) ? figure("%.1f LUFS", value) : text("detail.silent");
  }

  private void change(Selection.OfPassage selected, UnaryOperator<Span> to) {
    session.commit(
        text("edit.movePassage"),
        p -> {
          Span now =
              p.media(selected.mediaId())
                  .flatMap(Media::speech)
                  .orElseThrow()
                  .get(selected.index());
          return SpeechEdits.change(p, selected.mediaId(), selected.index(), to.apply(now));
        });
  }
}
