package hushrise.core.hush;

import hushrise.core.edit.HushEdits;
import hushrise.core.hush.HushDraft.Change;
import hushrise.core.hush.HushDraft.Line;
import hushrise.core.hush.HushDraft.Note;
import hushrise.core.hush.HushDraft.Why;
import hushrise.core.loudness.LoudnessLibrary;
import hushrise.core.project.Hush;
import hushrise.core.project.HushNumber;
import hushrise.core.project.HushRule;
import hushrise.core.project.Project;
import hushrise.core.project.Rise;
import hushrise.core.project.Track;
import hushrise.core.project.TrackKind;
import hushrise.core.project.Turn;
import hushrise.core.separation.Energies;
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
 * {@link #APART_DB} each gets its own, unless the rule wants even depths, so that none goes much
 * deeper than it needs. What was reckoned per passage is then measured with the hushes' shapes in
 * place and what is missing taken off again.
 */
public final class HushDrafter {

  /** Needs of neighbours that differ by more get floors of their own, in dB. */
  static final double APART_DB = 2;

  /** With even depths, hushes nearer than this get one depth. */
  private static final double EVEN_WITHIN_SECONDS = 10;

  private static final double CLOSE_ENOUGH_LU = 0.02;
  private static final double SAME_DB = 0.05;
  private static final double SAME_SECONDS = 0.002;
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

  /** A passage and what it asks of a track. */
  private record Asked(Span span, double depthDb, Need need) {}

  /** A hush in the making. */
  private record Planned(Span span, double depthDb, Why why, Need need) {}

  private HushDraft draft() {
    Map<String, List<Line>> lines = new HashMap<>();
    Map<String, List<Hush>> hushes = new HashMap<>();
    List<Note> notes = new ArrayList<>();
    for (List<String> voices : ruled.stream().map(t -> rule(t).voices()).distinct().toList()) {
      List<Track> tracks = ruled.stream().filter(t -> rule(t).voices().equals(voices)).toList();
      Map<String, List<Asked>> asked = ask(voices, tracks);
      for (Track track : tracks) {
        List<Asked> own = asked.get(track.id());
        if (own.size() == 1 && coversAll(own.getFirst().span(), track)) {
          notes.add(Note.SPEECH_EVERYWHERE);
        }
        if (track.kind() == TrackKind.MUSIC && own.stream().anyMatch(a -> endsIn(a, track))) {
          notes.add(Note.MUSIC_ENDS_IN_PASSAGE);
        }
        List<Line> ofTrack = matched(track, planned(own, rule(track)));
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
  private boolean endsIn(Asked asked, Track track) {
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
    return project
        .heardTracks()
        .and(Track::isVoice)
        .and(t -> ids.isEmpty() || ids.contains(t.id()));
  }

  /** What each passage of some voices asks of each of the tracks that listen to them. */
  private Map<String, List<Asked>> ask(List<String> voiceIds, List<Track> tracks) {
    Predicate<Track> voices = voices(voiceIds);
    float[] voice = bare.sum(voices);
    Set<String> own = new HashSet<>(tracks.stream().map(Track::id).toList());
    float[] others =
        bare.sum(project.heardTracks().and(Track::isBackground).and(t -> !own.contains(t.id())));
    List<float[]> energies = tracks.stream().map(t -> bare.track(t.id())).toList();
    List<HushRule> rules = tracks.stream().map(HushDrafter::rule).toList();
    Map<String, List<Asked>> asked = new HashMap<>();
    tracks.forEach(t -> asked.put(t.id(), new ArrayList<>()));
    for (Span span : Passages.of(project, voices)) {
      int from = bare.stepAt(span.startFrame());
      int to = Math.max(bare.stepAt(span.endFrame()), Math.min(bare.count(), from + 1));
      Need need = Need.of(from, to, voice, others, energies, rules);
      for (int t = 0; t < tracks.size(); t++) {
        asked.get(tracks.get(t).id()).add(new Asked(span, need.depthsDb().get(t), need));
      }
    }
    return asked;
  }

  /** The hushes that a rule makes of what passages ask. */
  private List<Planned> planned(List<Asked> asked, HushRule rule) {
    long gap = project.frames(rule.shortestGapSeconds()) - 1;
    List<Planned> all = new ArrayList<>();
    List<Asked> group = new ArrayList<>();
    for (Asked one : asked) {
      boolean far =
          !group.isEmpty() && one.span().startFrame() - group.getLast().span().endFrame() > gap;
      if (far) {
        all.addAll(ofGroup(group, rule));
        group.clear();
      }
      group.add(one);
    }
    all.addAll(ofGroup(group, rule));
    return rule.even() ? evened(all) : all;
  }

  private List<Planned> ofGroup(List<Asked> group, HushRule rule) {
    List<Planned> result = new ArrayList<>();
    int first = 0;
    for (int i = 1; i <= group.size(); i++) {
      if (i == group.size() || (!rule.even() && spread(group.subList(first, i + 1)) > APART_DB)) {
        result.add(ofSegment(group.subList(first, i), rule));
        first = i;
      }
    }
    for (int i = 1; i < result.size(); i++) {
      Planned left = result.get(i - 1);
      Planned right = result.get(i);
      if (left.depthDb() < 0 && left.depthDb() >= right.depthDb()) {
        Span span = new Span(left.span().startFrame(), right.span().startFrame());
        result.set(i - 1, new Planned(span, left.depthDb(), left.why(), left.need()));
      } else if (right.depthDb() < 0) {
        Span span = new Span(left.span().endFrame(), right.span().endFrame());
        result.set(i, new Planned(span, right.depthDb(), right.why(), right.need()));
      }
    }
    return result;
  }

  private static double spread(List<Asked> some) {
    double deepest = some.stream().mapToDouble(Asked::depthDb).min().orElse(0);
    return some.stream().mapToDouble(Asked::depthDb).max().orElse(0) - deepest;
  }

  private static Planned ofSegment(List<Asked> segment, HushRule rule) {
    Asked neediest = segment.stream().min(Comparator.comparingDouble(Asked::depthDb)).orElseThrow();
    Span span =
        new Span(
            segment.getFirst().span().startFrame(),
            segment.stream().mapToLong(a -> a.span().endFrame()).max().orElseThrow());
    double depth = neediest.depthDb();
    double held = depth <= -SAME_DB ? Math.min(depth, rule.shallowestDb()) : 0;
    Why why;
    if (rule.fixedDepthDb().isPresent()) {
      why = Why.FIXED;
    } else if (neediest.need().othersTooLoud()) {
      why = Why.OTHERS_TOO_LOUD;
    } else {
      why = held <= rule.deepestDb() ? Why.DEEPEST : Why.NEEDED;
    }
    return new Planned(span, held, why, neediest.need());
  }

  /** Gives hushes near one another the depth of the deepest. */
  private List<Planned> evened(List<Planned> all) {
    List<Planned> needed = all.stream().filter(p -> p.depthDb() < 0).toList();
    long near = project.frames(EVEN_WITHIN_SECONDS);
    List<Planned> result = new ArrayList<>();
    for (int first = 0, i = 1; i <= needed.size(); i++) {
      boolean ends =
          i == needed.size()
              || needed.get(i).span().startFrame() - needed.get(i - 1).span().endFrame() > near;
      if (ends) {
        List<Planned> run = needed.subList(first, i);
        double deepest = run.stream().mapToDouble(Planned::depthDb).min().orElse(0);
        run.forEach(
            p ->
                result.add(
                    new Planned(
                        p.span(), deepest, p.depthDb() == deepest ? p.why() : Why.EVEN, p.need())));
        first = i;
      }
    }
    return result;
  }

  /** Lays what is planned over the hushes that there are. */
  private List<Line> matched(Track track, List<Planned> planned) {
    HushRule rule = rule(track);
    List<Hush> left = new ArrayList<>(track.hushes());
    List<Line> lines = new ArrayList<>();
    for (Planned plan : planned) {
      Optional<Hush> found =
          left.stream()
              .filter(h -> overlap(h.passage(), plan.span()) > 0)
              .max(Comparator.comparingLong(h -> overlap(h.passage(), plan.span())));
      boolean covered =
          lines.stream()
              .filter(l -> l.hush().isByHand(HushNumber.PLACE) && l.change() != Change.GONE)
              .anyMatch(
                  l -> overlap(l.hush().passage(), plan.span()) > 0.9 * plan.span().lengthFrames());
      if (found.isEmpty() && covered) {
        continue;
      }
      found.ifPresent(left::remove);
      if (plan.depthDb() < 0 || found.filter(h -> h.isByHand(HushNumber.DEPTH)).isPresent()) {
        lines.add(line(track, found, plan, rule));
      } else {
        found.ifPresent(h -> lines.add(gone(track, h, Why.NOT_NEEDED, plan.need())));
      }
    }
    for (Hush hush : left) {
      boolean mine = hush.isByHand(HushNumber.PLACE) || hush.isByHand(HushNumber.DEPTH);
      lines.add(
          mine
              ? new Line(track.id(), Change.KEPT, Why.BY_HAND, hush, Double.NaN, Double.NaN)
              : new Line(track.id(), Change.GONE, Why.NO_PASSAGE, hush, Double.NaN, Double.NaN));
    }
    lines.sort(Comparator.comparingLong(l -> l.hush().startFrame()));
    return lines;
  }

  private static long overlap(Span a, Span b) {
    return Math.min(a.endFrame(), b.endFrame()) - Math.max(a.startFrame(), b.startFrame());
  }

  private static Line gone(Track track, Hush hush, Why why, Need need) {
    return new Line(track.id(), Change.GONE, why, hush, need.voiceLufs(), need.backgroundLufs());
  }

  private Line line(Track track, Optional<Hush> found, Planned plan, HushRule rule) {
    Hush fresh = Hush.over(plan.span(), plan.depthDb()).withTurn(rule.turn());
    Hush hush = found.map(h -> keepingByHand(h, fresh)).orElse(fresh);
    boolean byHand = hush.isByHand(HushNumber.DEPTH);
    Change change = found.isEmpty() ? Change.NEW : Change.CHANGED;
    if (found.isPresent() && isSame(found.get(), hush)) {
      hush = found.get();
      change = Change.KEPT;
    }
    return new Line(
        track.id(),
        change,
        byHand ? Why.BY_HAND : plan.why(),
        hush,
        plan.need().voiceLufs(),
        plan.need().backgroundLufs());
  }

  /** A fresh hush with the numbers that a person set on an older one. */
  static Hush keepingByHand(Hush old, Hush fresh) {
    Turn was = old.turn();
    Turn turn = fresh.turn();
    turn = old.isByHand(HushNumber.LEAD) ? turn.withLead(was.leadSeconds()) : turn;
    turn = old.isByHand(HushNumber.FALL) ? turn.withFall(was.fallSeconds()) : turn;
    turn = old.isByHand(HushNumber.TAIL) ? turn.withTail(was.tailSeconds()) : turn;
    turn = old.isByHand(HushNumber.RECOVERY) ? turn.withRecovery(was.recoverySeconds()) : turn;
    Hush hush =
        new Hush(
            old.id(), fresh.startFrame(), fresh.endFrame(), fresh.depthDb(), turn, old.byHand());
    hush = old.isByHand(HushNumber.PLACE) ? hush.withPassage(old.passage()) : hush;
    return old.isByHand(HushNumber.DEPTH) ? hush.withDepthDb(old.depthDb()) : hush;
  }

  private boolean isSame(Hush a, Hush b) {
    long near = project.frames(SAME_SECONDS);
    return a.turn().equals(b.turn())
        && Math.abs(a.depthDb() - b.depthDb()) < SAME_DB
        && Math.abs(a.startFrame() - b.startFrame()) <= near
        && Math.abs(a.endFrame() - b.endFrame()) <= near;
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
      float[] total = placed.sum(project.heardTracks().and(Track::isBackground));
      for (Track track : ruled) {
        float[] voice = placed.sum(voices(rule(track).voices()));
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
      float[] voice,
      float[] total,
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
