package hushrise.media;

import static org.bytedeco.ffmpeg.global.avfilter.av_buffersink_get_frame;
import static org.bytedeco.ffmpeg.global.avfilter.av_buffersrc_write_frame;
import static org.bytedeco.ffmpeg.global.avfilter.avfilter_get_by_name;
import static org.bytedeco.ffmpeg.global.avfilter.avfilter_graph_alloc;
import static org.bytedeco.ffmpeg.global.avfilter.avfilter_graph_config;
import static org.bytedeco.ffmpeg.global.avfilter.avfilter_graph_create_filter;
import static org.bytedeco.ffmpeg.global.avfilter.avfilter_graph_free;
import static org.bytedeco.ffmpeg.global.avfilter.avfilter_link;
import static org.bytedeco.ffmpeg.global.avutil.AV_SAMPLE_FMT_FLT;
import static org.bytedeco.ffmpeg.global.avutil.av_channel_layout_default;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_alloc;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_free;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_get_buffer;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_make_writable;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_unref;

import hushrise.core.Problem;
import hushrise.core.sound.TimeStretch;
import java.util.Locale;
import org.bytedeco.ffmpeg.avfilter.AVFilterContext;
import org.bytedeco.ffmpeg.avfilter.AVFilterGraph;
import org.bytedeco.ffmpeg.avutil.AVFrame;
import org.bytedeco.ffmpeg.global.avfilter;
import org.bytedeco.javacpp.FloatPointer;
import org.bytedeco.javacpp.Loader;

/** FFmpeg's {@code atempo}: overlapping pieces, set where their waveforms agree. */
public final class FfmpegStretch implements TimeStretch {

  static {
    Ffmpeg.load();
    Loader.load(avfilter.class);
  }

  private static final int BLOCK = 512;

  private final int sampleRate;
  private final double speed;
  private AVFilterGraph graph;
  private AVFilterContext source;
  private AVFilterContext sink;
  private final AVFrame in;
  private final AVFrame out = Ffmpeg.allocated(av_frame_alloc());
  private final float[] pairs = new float[2 * BLOCK];
  private int ready;
  private int given;

  /** As {@link TimeStretch.Maker} makes one. */
  public FfmpegStretch(int sampleRate, double speed) {
    this.sampleRate = sampleRate;
    this.speed = speed;
    in = Ffmpeg.allocated(av_frame_alloc());
    in.format(AV_SAMPLE_FMT_FLT);
    in.sample_rate(sampleRate);
    av_channel_layout_default(in.ch_layout(), 2);
    in.nb_samples(BLOCK);
    check(av_frame_get_buffer(in, 0));
    build();
  }

  private void build() {
    graph = Ffmpeg.allocated(avfilter_graph_alloc());
    graph.nb_threads(1);
    source = new AVFilterContext(null);
    sink = new AVFilterContext(null);
    AVFilterContext tempo = new AVFilterContext(null);
    String of =
        "time_base=1/%d:sample_rate=%d:sample_fmt=flt:channel_layout=stereo"
            .formatted(sampleRate, sampleRate);
    check(
        avfilter_graph_create_filter(
            source, avfilter_get_by_name("abuffer"), "in", of, null, graph));
    check(
        avfilter_graph_create_filter(
            tempo,
            avfilter_get_by_name("atempo"),
            "tempo",
            String.format(Locale.ROOT, "%.4f", speed),
            null,
            graph));
    check(
        avfilter_graph_create_filter(
            sink, avfilter_get_by_name("abuffersink"), "out", (String) null, null, graph));
    check(avfilter_link(source, 0, tempo, 0));
    check(avfilter_link(tempo, 0, sink, 0));
    check(avfilter_graph_config(graph, null));
    ready = 0;
    given = 0;
  }

  private static void check(int result) {
    if (result < 0) {
      throw new Problem(
          "The film cannot be played at another speed (%s): play it at its own."
              .formatted(Ffmpeg.textOf(result)));
    }
  }

  @Override
  public double speed() {
    return speed;
  }

  @Override
  public void put(float[] left, float[] right, int frames) {
    for (int done = 0; done < frames; done += BLOCK) {
      int n = Math.min(BLOCK, frames - done);
      in.nb_samples(BLOCK); // a buffer that has to be made anew holds a whole block again
      check(av_frame_make_writable(in));
      in.nb_samples(n);
      for (int i = 0; i < n; i++) {
        pairs[2 * i] = left[done + i];
        pairs[2 * i + 1] = right[done + i];
      }
      new FloatPointer(in.data(0)).put(pairs, 0, 2 * n);
      check(av_buffersrc_write_frame(source, in));
    }
  }

  @Override
  public int take(float[] left, float[] right) {
    if (given == ready) {
      av_frame_unref(out);
      ready = 0;
      given = 0;
      if (av_buffersink_get_frame(sink, out) < 0) {
        return 0;
      }
      ready = out.nb_samples();
    }
    int n = Math.min(Math.min(left.length, BLOCK), ready - given);
    new FloatPointer(out.data(0)).position(2L * given).get(pairs, 0, 2 * n);
    for (int i = 0; i < n; i++) {
      left[i] = pairs[2 * i];
      right[i] = pairs[2 * i + 1];
    }
    given += n;
    return n;
  }

  @Override
  public void reset() {
    avfilter_graph_free(graph);
    av_frame_unref(out);
    build();
  }

  @Override
  public void close() {
    avfilter_graph_free(graph);
    av_frame_free(in);
    av_frame_free(out);
  }
}
