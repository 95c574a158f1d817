package hushrise.cli;

import hushrise.core.loudness.LoudnessMeter;
import hushrise.core.project.Project;
import hushrise.core.report.Report;
import hushrise.core.sound.Blocks;
import hushrise.core.sound.SampleSource;
import hushrise.core.speech.WebVtt;
import hushrise.core.time.Span;
import hushrise.media.CacheFolder;
import hushrise.media.MediaStore;
import hushrise.media.SpeechStore;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Tells where somebody speaks. */
@Command(
    name = "speech",
    mixinStandardHelpOptions = true,
    description = {
      "Tells where somebody speaks in a file, and how loud.",
      "",
      "Pauses under half a second belong to the passage around them."
    })
final class SpeechCommand implements Callable<Integer> {

  @Spec private CommandSpec spec;

  @Parameters(paramLabel = "FILE", description = "A sound, or a film with sound.")
  private Path file;

  @ArgGroup private Form form = new Form();

  /** How the passages are written. */
  private static final class Form {
    @Option(names = "--json", description = "Prints one JSON object instead of text.")
    private boolean json;

    @Option(names = "--vtt", description = "Prints WebVTT, one cue for each passage.")
    private boolean vtt;
  }

  @Override
  public Integer call() {
    int rate = Project.DEFAULT_SAMPLE_RATE;
    ProgressLine progress = new ProgressLine(form.json || form.vtt);
    CacheFolder cache = CacheFolder.ofUser();
    MediaStore store = new MediaStore(cache);
    SampleSource sound = store.open(file, rate, progress.of("Reading " + file.getFileName()));
    List<Span> passages =
        new SpeechStore(store, cache)
            .listen(file, sound, progress.of("Listening to " + file.getFileName()));
    progress.end();
    spec.commandLine()
        .getOut()
        .println(
            form.vtt
                ? WebVtt.write(passages, rate).stripTrailing()
                : form.json ? json(sound, passages, rate) : text(sound, passages, rate));
    return 0;
  }

  private static String json(SampleSource sound, List<Span> passages, int rate) {
    return new Report()
        .put(
            "passages",
            passages,
            p ->
                new Report()
                    .put("startSeconds", p.startFrame() / (double) rate)
                    .put("endSeconds", p.endFrame() / (double) rate)
                    .put("loudnessLufs", loudness(sound, p, rate)))
        .json();
  }

  private String text(SampleSource sound, List<Span> passages, int rate) {
    if (passages.isEmpty()) {
      return "Nobody speaks in %s.".formatted(file);
    }
    StringBuilder text = new StringBuilder();
    for (Span p : passages) {
      text.append(
          "%8.2f - %8.2f s  %6.1f LUFS%n"
              .formatted(
                  p.startFrame() / (double) rate,
                  p.endFrame() / (double) rate,
                  loudness(sound, p, rate)));
    }
    return text.toString().stripTrailing();
  }

  /** Gated loudness as it sounds in a stereo mix: mono in both channels. */
  private static double loudness(SampleSource sound, Span span, int rate) {
    LoudnessMeter meter = LoudnessMeter.forChannels(rate, 2);
    boolean mono = sound.channels() == 1;
    Blocks.each(
        span,
        sound,
        (planar, n, at) -> meter.add(mono ? new float[][] {planar[0], planar[0]} : planar, 0, n));
    return meter.integratedLufs();
  }
}
