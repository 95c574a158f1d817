package hushrise.cli;

import hushrise.core.loudness.Measurement;
import hushrise.core.report.Report;
import hushrise.media.CacheFolder;
import hushrise.media.FileLoudness;
import hushrise.media.MediaStore;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Tells how loud a file is. */
@Command(
    name = "measure",
    mixinStandardHelpOptions = true,
    description =
        "Measures loudness and peaks of a sound or film (ITU-R BS.1770-5, EBU Tech 3341 and 3342).")
final class MeasureCommand implements Callable<Integer> {

  @Spec private CommandSpec spec;

  @Parameters(paramLabel = "FILE", description = "A sound or film.")
  private Path file;

  @Option(names = "--json", description = "Prints one JSON object instead of text.")
  private boolean json;

  @Override
  public Integer call() {
    ProgressLine progress = new ProgressLine(json);
    MediaStore store = new MediaStore(CacheFolder.ofUser());
    Measurement m = FileLoudness.of(file, store, progress.of("Measuring"));
    progress.end();
    if (store.seemsCutShort(file)) {
      spec.commandLine()
          .getErr()
          .printf("%s seems cut short: this is measured on what is there.%n", file.getFileName());
    }
    spec.commandLine().getOut().println(json ? jsonOf(m) : textOf(m));
    return 0;
  }

  private static String jsonOf(Measurement m) {
    return new Report()
        .put("durationSeconds", m.durationSeconds())
        .put("integratedLufs", m.integratedLufs())
        .put("loudnessRangeLu", m.loudnessRangeLu())
        .put("maxMomentaryLufs", m.maxMomentaryLufs())
        .put("maxShortTermLufs", m.maxShortTermLufs())
        .put("truePeakDbtp", m.truePeakDbtp())
        .put("samplePeakDbfs", m.samplePeakDbfs())
        .json();
  }

  private static String textOf(Measurement m) {
    return """
        Length            %9.2f s
        Integrated        %9.1f LUFS
        Loudness range    %9.1f LU
        Loudest 400 ms    %9.1f LUFS
        Loudest 3 s       %9.1f LUFS
        True peak         %9.1f dBTP
        Sample peak       %9.1f dBFS"""
        .formatted(
            m.durationSeconds(),
            m.integratedLufs(),
            m.loudnessRangeLu(),
            m.maxMomentaryLufs(),
            m.maxShortTermLufs(),
            m.truePeakDbtp(),
            m.samplePeakDbfs());
  }
}
