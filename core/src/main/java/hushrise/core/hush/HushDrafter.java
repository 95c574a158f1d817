package hushrise.core.hush;

import hushrise.core.edit.HushEdits;
import hushrise.core.hush.HushDraft.Change;
import hushrise.core.hush.HushDraft.Line;
import hushrise.core.hush.HushDraft.Note;
import hushrise.core.hush.HushDraft.Why;
import hushrise.core.loudness.LoudnessLibrary;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.HushRule;
import hushrise.core.project.level.Rise;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Track;
import hushrise.core.separation.Energies;
import hushrise.core.separation.EnergySteps;
import hushrise.core.speech.Passages;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;

/**
 * Drafts the hushes that keep the voice a wanted separation above everything under it, by each
 * track's rule. Numbers that a person set are left alone.
 *
 * <p>Passages closer than the rule's gap share the floor. Where their needs differ by more than
 * {@link HushPlan#APART_DB} each gets its own, unless the rule wants even depths, so that none goes
 * much deeper than it needs; but not one that lies higher than both its neighbours for less than
 * {@link HushPlan#SHORTEST_FLOOR_SECONDS}, as the music would pump. What was reckoned per passage
 * is then measured with the hushes' shapes in place and what is missing taken off again.
 */
public final class HushDrafter {

  private static final double CLOSE_ENOUGH_LU = 0.02;
  private static final double LEAST_UNCOVERED_SECONDS = 0.5;
  private static final int MOST_ROUNDS = 5;

  private final Project project;
  private final LoudnessLibrary library;
  private final Energies bare;
  private final List<Track> ruled;

  private HushDrafter(Project project, LoudnessLibrary library, Energies known) {
    this.project = project;
    this.library = library;
    this.ruled =
        project.tracks().stream()
            .filter(project.heardTracks().and(Track::isBackground))
            .filter(t -> !t.clips().isEmpty() && ruleOf(t).isPresent())
            .toList();
    Set<String> ids = new HashSet<>(ruled.stream().map(Track::id).toList());
    this.bare =
        known.following(project.withEachTrack(t -> ids.contains(t.id()) ? bared(t) : t), library);
  }

  private static Track bared(Track track) {
    return track
        .withHushes(List.of())
        .withRises(track.rises().stream().filter(r -> !r.drafted()).toList());
  }

  /** The rule that a track goes by: its own, or the usual one for its kind. */
  public static Optional<HushRule> ruleOf(Track track) {
    return track.rule().or(() -> HushRule.usualFor(track.kind()));
  }

  /** Drafts hushes for all tracks that have a rule. */
  public static HushDraft draft(Project project, LoudnessLibrary library) {
    return draft(project, library, Energies.of(project, library));
  }

  /**
   * As {@link #draft(Project, LoudnessLibrary)}.
   *
   * @param known energies of the project or one like it, to be quicker
   */
  public static HushDraft draft(Project project, LoudnessLibrary library, Energies known) {
    List<Note> notes = obstacles(project);
    return notes.isEmpty()
        ? new HushDrafter(project, library, known).draft()
        : new HushDraft(project, project, List.of(), 0, notes);
  }

  private static List<Note> obstacles(Project project) {
    if (project.voiceTracks().allMatch(t -> t.clips().isEmpty())) {
      return List.of(Note.NO_VOICE_TRACK);
    }
    if (Passages.of(project).isEmpty()) {
      return List.of(Note.NO_SPEECH);
    }
    List<Track> background =
        project.tracks().stream()
            .filter(project.heardTracks().and(Track::isBackground))
            .filter(t -> !t.clips().isEmpty())
            .toList();
    if (background.isEmpty()) {
      return List.of(Note.NOTHING_UNDER_IT);
    }
    return background.stream().allMatch(t -> ruleOf(t).isEmpty())
        ? List.of(Note.NO_RULE)
        : List.of();
  }

  private HushDraft draft() {
    Map<String, List<Line>> lines = new HashMap<>();
    Map<String, List<Hush>> hushes = new HashMap<>();
    List<Note> notes = new ArrayList<>();
    for (List<String> voices : ruled.stream().map(t -> rule(t).voices()).distinct().toList()) {
      List<Track> tracks = ruled.stream().filter(t -> rule(t).voices().equals(voices)).toList();
      Map<String, List<HushPlan.Asked>> asked = ask(voices, tracks);
      for (Track track : tracks) {
        List<HushPlan.Asked> own = asked.get(track.id());
        if (own.size() == 1 && coversAll(own.getFirst().span(), track)) {
          notes.add(Note.SPEECH_EVERYWHERE);
        }
        if (track.kind() == TrackKind.MUSIC && own.stream().anyMatch(a -> endsIn(a, track))) {
          notes.add(Note.MUSIC_ENDS_IN_PASSAGE);
        }
        List<Line> ofTrack =
            new DraftMatch(project, track, rule(track))
                .lines(new HushPlan(project, rule(track)).hushes(own));
        lines.put(track.id(), ofTrack);
        hushes.put(track.id(), hushesOf(ofTrack));
      }
    }
    correct(hushes, lines);
    Project after = project;
    int rises = 0;
    List<Line> all = new ArrayList<>();
    for (Track track : ruled) {
      List<Hush> own = hushes.get(track.id());
      Project now = after.withTrack(track.id(), t -> bared(t).withHushes(own));
      after = now;
      List<Rise> drafted =
          rule(track)
              .rises()
              .map(r -> new RiseDrafter(now, bare, r).rises(track, voices(rule(track).voices())))
              .orElse(List.of());
      rises += (int) drafted.stream().filter(r -> !track.rises().contains(r)).count();
      for (Rise rise : drafted) {
        after = HushEdits.addRise(after, track.id(), rise);
      }
      all.addAll(lines.get(track.id()));
    }
    return new HushDraft(project, after, all, rises, notes);
  }

  private static HushRule rule(Track track) {
    return ruleOf(track).orElseThrow();
  }

  private static boolean coversAll(Span passage, Track track) {
    long start = track.clips().stream().mapToLong(c -> c.startFrame()).min().orElse(0);
    return passage.startFrame() <= start && passage.endFrame() >= track.endFrame();
  }

  /** Whether a track falls silent for good while somebody speaks. */
  private boolean endsIn(HushPlan.Asked asked, Track track) {
    long end = track.endFrame();
    return asked.span().contains(end)
        && asked.span().endFrame() - end > project.frames(LEAST_UNCOVERED_SECONDS);
  }

  private static List<Hush> hushesOf(List<Line> lines) {
    return lines.stream()
        .filter(l -> l.change() != Change.GONE)
        .map(Line::hush)
        .sorted(Comparator.comparingLong(Hush::startFrame))
        .toList();
  }

  private Predicate<Track> voices(List<String> ids) {
    return voices(project, ids);
  }

  /** The voice tracks that are heard and that a rule listens to, by the ids that it names. */
  static Predicate<Track> voices(Project project, List<String> ids) {
    return project
        .heardTracks()
        .and(Track::isVoice)
        .and(t -> ids.isEmpty() || ids.contains(t.id()));
  }

  /** What each passage of some voices asks of each of the tracks that listen to them. */
  private Map<String, List<HushPlan.Asked>> ask(List<String> voiceIds, List<Track> tracks) {
    Predicate<Track> voices = voices(voiceIds);
    EnergySteps voice = bare.sum(voices);
    Set<String> own = new HashSet<>(tracks.stream().map(Track::id).toList());
    EnergySteps others =
        bare.sum(project.heardTracks().and(Track::isBackground).and(t -> !own.contains(t.id())));
    List<EnergySteps> energies = tracks.stream().map(t -> bare.track(t.id())).toList();
    List<HushRule> rules = tracks.stream().map(HushDrafter::rule).toList();
    Map<String, List<HushPlan.Asked>> asked = new HashMap<>();
    tracks.forEach(t -> asked.put(t.id(), new ArrayList<>()));
    for (Span span : Passages.of(project, voices)) {
      int from = bare.stepAt(span.startFrame());
      int to = Math.max(bare.stepAt(span.endFrame()), Math.min(bare.count(), from + 1));
      Need need = Need.of(from, to, voice, others, energies, rules);
      for (int t = 0; t < tracks.size(); t++) {
        asked.get(tracks.get(t).id()).add(new HushPlan.Asked(span, need.depthsDb().get(t), need));
      }
    }
    return asked;
  }

  /** How long two spans overlap, in frames; negative when they lie apart. */
  static long overlap(Span a, Span b) {
    return Math.min(a.endFrame(), b.endFrame()) - Math.max(a.startFrame(), b.startFrame());
  }

  /** Measures with the hushes in place, and takes off what is missing where that helps. */
  private void correct(Map<String, List<Hush>> hushes, Map<String, List<Line>> lines) {
    boolean deepened = true;
    for (int round = 0; round < MOST_ROUNDS && deepened; round++) {
      deepened = false;
      Energies placed = bare;
      for (Track track : ruled) {
        placed = placed.with(bared(track).withHushes(hushes.get(track.id())), library);
      }
      EnergySteps total = placed.sum(project.heardTracks().and(Track::isBackground));
      for (Track track : ruled) {
        EnergySteps voice = placed.sum(voices(rule(track).voices()));
        List<Span> passages = Passages.of(project, voices(rule(track).voices()));
        for (int i = 0; i < lines.get(track.id()).size(); i++) {
          deepened |= deepen(track, i, passages, voice, total, placed, lines);
        }
        hushes.put(track.id(), hushesOf(lines.get(track.id())));
      }
    }
  }

  private boolean deepen(
      Track track,
      int index,
      List<Span> passages,
      EnergySteps voice,
      EnergySteps total,
      Energies placed,
      Map<String, List<Line>> lines) {
    Line line = lines.get(track.id()).get(index);
    if (line.why() != Why.NEEDED || line.change() == Change.GONE) {
      return false;
    }
    double wanted =
        ruled.stream()
            .map(HushDrafter::rule)
            .filter(r -> r.fixedDepthDb().isEmpty())
            .mapToDouble(HushRule::separationLu)
            .min()
            .orElse(0);
    if (rule(track).separationLu() > wanted) {
      return false;
    }
    double missing = 0;
    for (Span span : passages) {
      if (overlap(span, line.hush().passage()) * 2 > span.lengthFrames()) {
        double lu = placed.lufs(voice, span) - placed.lufs(total, span) - wanted;
        missing = Double.isFinite(lu) ? Math.min(missing, lu) : missing;
      }
    }
    if (missing > -CLOSE_ENOUGH_LU) {
      return false;
    }
    double depth = Math.max(rule(track).deepestDb(), line.hush().depthDb() + missing);
    Change change = line.change() == Change.KEPT ? Change.CHANGED : line.change();
    lines
        .get(track.id())
        .set(
            index,
            new Line(
                line.trackId(),
                change,
                line.why(),
                line.hush().withDepthDb(depth),
                line.voiceLufs(),
                line.backgroundLufs()));
    return depth < line.hush().depthDb();
  }
}
