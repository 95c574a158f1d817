package hushrise.core.ear;

import hushrise.core.ear.Finding.Remedy;
import hushrise.core.edit.EvenVoices;
import hushrise.core.project.Project;
import hushrise.core.project.timeline.Track;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** Voice clips more than two LU apart. */
final class UnevenVoices implements EarRule {

  @Override
  public String id() {
    return "voices.uneven";
  }

  @Override
  public List<Finding> hear(Heard heard) {
    Project project = heard.project();
    Map<String, Double> loudness = EvenVoices.loudness(heard.energies());
    double apart = EvenVoices.apart(loudness);
    if (apart <= EvenVoices.MOST_LU) {
      return List.of();
    }
    String odd = oddOneOut(loudness);
    Set<String> all = loudness.keySet();
    List<Remedy> remedies = new ArrayList<>();
    remedies.add(
        new Remedy(
            "remedy.evenVoices",
            now -> EvenVoices.even(now, all, heard.energies(), heard.loudness())));
    Map<String, Double> others = new HashMap<>(loudness);
    others.remove(odd);
    if (EvenVoices.apart(others) <= EvenVoices.MOST_LU) {
      remedies.add(
          new Remedy(
              "remedy.asOthers",
              now -> EvenVoices.asOthers(now, odd, heard.energies(), heard.loudness())));
    }
    return List.of(
        new Finding(
            id(),
            "voices",
            project.clip(odd).orElseThrow().span(),
            project.trackOfClip(odd).map(Track::id).orElse(""),
            List.of(apart),
            remedies));
  }

  /** The clip that lies farthest from the middle one. */
  private static String oddOneOut(Map<String, Double> loudness) {
    List<Double> sorted = loudness.values().stream().sorted().toList();
    int half = sorted.size() / 2;
    double middle = (sorted.get(half) + sorted.get((sorted.size() - 1) / 2)) / 2;
    return loudness.entrySet().stream()
        .max(Comparator.comparingDouble(e -> Math.abs(e.getValue() - middle)))
        .orElseThrow()
        .getKey();
  }
}
