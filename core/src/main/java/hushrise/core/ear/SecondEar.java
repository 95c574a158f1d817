package hushrise.core.ear;

import hushrise.core.project.Aside;
import hushrise.core.project.Project;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/** Listens to a project by all rules. */
public final class SecondEar {

  /** All rules that need no rendering. */
  public static final List<EarRule> RULES =
      List.of(
          new BuriedPassage(),
          new LateHush(),
          new EarlyReturn(),
          new MusicStopsEarly(),
          new MusicRunsPast(),
          new NoFadeOut(),
          new AbruptStart(),
          new HeardSeam(),
          new LonelyHush(),
          new IdleDip(),
          new UnevenVoices(),
          new UnevenSongs(),
          new StrayKeyframe(),
          new Pumping(),
          new LeftMuted(),
          new LeftSoloed(),
          new ClippedSound(),
          new OneSided(),
          new NoCredit(),
          new CutShortFile(),
          new VoicesAtOnce(),
          new VoiceRunsPast(),
          new RiseUnderSpeech(),
          new UnheardTalk(),
          new MusicOverVoice());

  private SecondEar() {}

  /** What all rules find, in order of time; what was put aside is among it. */
  public static List<Finding> hear(Heard heard) {
    List<Finding> all = new ArrayList<>();
    if (heard.project().lengthFrames() > 0) {
      RULES.forEach(r -> all.addAll(r.hear(heard)));
    }
    all.sort(Comparator.comparingLong(f -> f.place().startFrame()));
    return List.copyOf(all);
  }

  /** The findings that nobody has put aside. */
  public static List<Finding> open(List<Finding> all, Project project) {
    return all.stream().filter(f -> !isAside(f, project)).toList();
  }

  /** Whether a finding has been put aside. */
  public static boolean isAside(Finding finding, Project project) {
    return project.asides().stream().anyMatch(a -> a.finding().equals(finding.key()));
  }

  /** Puts a finding aside. */
  public static Project putAside(Project project, Finding finding, String reason) {
    List<Aside> asides = new ArrayList<>(takenBack(project, finding).asides());
    asides.add(new Aside(finding.key(), reason.strip()));
    return project.withAsides(asides);
  }

  /** Takes a finding up again. */
  public static Project takenBack(Project project, Finding finding) {
    return project.withAsides(
        project.asides().stream().filter(a -> !a.finding().equals(finding.key())).toList());
  }
}
