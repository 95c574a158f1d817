package hushrise.core.edit;

import hushrise.core.Decibels;
import hushrise.core.loudness.GatedLoudness;
import hushrise.core.loudness.LoudnessLibrary;
import hushrise.core.project.Project;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.separation.Energies;
import hushrise.core.separation.EnergySteps;
import hushrise.core.speech.Passages;
import hushrise.core.time.Span;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * Music that is much louder than the voice where nobody speaks. Whoever listens sets the volume by
 * the voice, and reaches for it there. Compared are gated loudness (ITU-R BS.1770) of the voice
 * where it speaks and of the music in the gaps, before its hushes and rises, which are there to
 * differ.
 */
public final class LoudMusic {

  /** Music that is louder than the voice by more is remarked on, in LU. */
  public static final double MOST_LU = 6;

  /** In a shorter gap music hardly comes up, in seconds. */
  private static final double GAP_SECONDS = 3;

  /** A voice further under what is usual for voices is quiet, in LU. */
  private static final double QUIET_LU = 6;

  private static final double USUAL_LUFS = SafeLevel.Rule.DEFAULT.usualLufs().get(TrackKind.VOICE);

  private LoudMusic() {}

  /**
   * How the music stands to the voice.
   *
   * @param voiceLufs the voice where it speaks, in LUFS
   * @param louderLu by how much the music of all gaps is louder than that; may be negative, and is
   *     minus infinity where no gap has any
   * @param loudest the gap in which it is loudest; the whole film where there is no gap
   */
  public record Standing(double voiceLufs, double louderLu, Span loudest) {

    /** Whether it is remarked on. */
    public boolean isTooLoud() {
      return louderLu > MOST_LU;
    }
  }

  /** How the music stands to the voice; empty where nobody is heard to speak. */
  public static Optional<Standing> of(Energies energies, LoudnessLibrary library) {
    Project project = energies.project();
    List<Span> passages = Passages.of(project);
    List<Span> gaps =
        Span.between(passages, project.lengthFrames()).stream()
            .filter(gap -> gap.lengthFrames() >= project.frames(GAP_SECONDS))
            .toList();
    double voice =
        lufs(energies, energies.sum(project.heardTracks().and(Track::isVoice)), passages);
    Energies bare = bare(energies, library);
    EnergySteps music = bare.sum(music(project));
    Span loudest =
        gaps.stream()
            .max(Comparator.comparingDouble(gap -> bare.lufs(music, gap)))
            .orElse(new Span(0, project.lengthFrames()));
    return Double.isFinite(voice)
        ? Optional.of(new Standing(voice, lufs(bare, music, gaps) - voice, loudest))
        : Optional.empty();
  }

  private static Predicate<Track> music(Project project) {
    return project.heardTracks().and(t -> t.kind() == TrackKind.MUSIC);
  }

  private static Energies bare(Energies energies, LoudnessLibrary library) {
    Energies bare = energies;
    for (Track track : energies.project().tracks()) {
      if (music(energies.project()).test(track)
          && !(track.hushes().isEmpty() && track.rises().isEmpty())) {
        bare = bare.with(track.withHushes(List.of()).withRises(List.of()), library);
      }
    }
    return bare;
  }

  /** The gated loudness of energies over several spans together, in LUFS. */
  private static double lufs(Energies energies, EnergySteps energy, List<Span> spans) {
    int[] steps =
        spans.stream()
            .flatMapToInt(
                s ->
                    IntStream.range(energies.stepAt(s.startFrame()), energies.stepAt(s.endFrame())))
            .toArray();
    return GatedLoudness.lufs(i -> energy.at(steps[i]), 0, steps.length);
  }

  /**
   * By how much a quiet voice may be raised towards what is usual for voices, in dB: 0 where it is
   * not quiet, and no further than a sample of one of its clips allows.
   */
  public static double raiseDb(Project project, Standing standing, LoudnessLibrary library) {
    double wanted = USUAL_LUFS - standing.voiceLufs();
    if (wanted <= QUIET_LU) {
      return 0;
    }
    Headroom peaks = Headroom.of(project, library);
    double room =
        voices(project)
            .mapToDouble(c -> Math.min(Clip.MOST_GAIN_DB - c.gainDb(), peaks.db(c.id())))
            .min()
            .orElse(0);
    return Math.max(0, Math.min(wanted, room));
  }

  /** The clips that speak on the heard tracks. */
  private static Stream<Clip> voices(Project project) {
    Set<String> speaking =
        Passages.each(project, project.heardTracks()).stream()
            .map(Passages.Passage::clipId)
            .collect(Collectors.toSet());
    return project
        .voiceTracks()
        .flatMap(t -> t.clips().stream())
        .filter(c -> speaking.contains(c.id()));
  }

  /**
   * Lowers the music where nobody speaks. Under the voice it sounds as before, as its hushes are
   * less deep by as much; where one is not that deep, it is removed, and the music softer there
   * too.
   */
  public static Project lower(Project project, double byDb) {
    return turn(project, byDb, byDb);
  }

  /**
   * Raises the voice and lowers the music where nobody speaks. Under the voice it stands to it as
   * before, with the exception of {@link #lower}.
   */
  public static Project raise(Project project, double voiceDb, double musicDb) {
    Map<String, Double> byDb = voices(project).collect(Collectors.toMap(Clip::id, c -> voiceDb));
    return turn(ClipEdits.raise(project, byDb), musicDb, voiceDb + musicDb);
  }

  private static Project turn(Project project, double downDb, double shallowerDb) {
    Predicate<Track> music = music(project);
    return project.withEachTrack(
        t ->
            music.test(t)
                ? t.withLevelDb(Math.max(Decibels.OFF_DB, t.levelDb() - downDb))
                    .withHushes(
                        t.hushes().stream()
                            .map(h -> h.withDepthDb(h.depthDb() + shallowerDb))
                            .filter(h -> h.depthDb() < 0)
                            .toList())
                : t);
  }

  /**
   * Raises a quiet voice to what is usual for voices, and lowers music that is too loud to the
   * loudness of the voice.
   */
  public static Project mended(Project project, LoudnessLibrary library) {
    Optional<Standing> standing = of(Energies.of(project, library), library);
    if (standing.isEmpty()) {
      return project;
    }
    double raise = raiseDb(project, standing.get(), library);
    double louder = standing.get().louderLu() - raise;
    return raise(project, raise, louder > MOST_LU ? louder : 0);
  }
}
