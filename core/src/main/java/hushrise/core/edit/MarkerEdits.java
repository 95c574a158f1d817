package hushrise.core.edit;

import hushrise.core.Ids;
import hushrise.core.project.Marker;
import hushrise.core.project.Project;
import java.util.ArrayList;
import java.util.List;

/** Edits of markers: each is a function from project to project. */
public final class MarkerEdits {

  private MarkerEdits() {}

  /** Adds a marker; where one lies already, nothing changes. */
  public static Project add(Project project, String name, long frame) {
    if (project.markers().stream().anyMatch(m -> m.frame() == frame)) {
      return project;
    }
    List<Marker> markers = new ArrayList<>(project.markers());
    markers.add(new Marker(Ids.fresh("marker"), name, frame));
    return project.withMarkers(markers);
  }

  public static Project rename(Project project, String markerId, String name) {
    return project.withMarkers(
        project.markers().stream()
            .map(m -> m.id().equals(markerId) ? m.withName(name.strip()) : m)
            .toList());
  }

  public static Project move(Project project, String markerId, long toFrame) {
    return project.withMarkers(
        project.markers().stream()
            .map(m -> m.id().equals(markerId) ? m.withFrame(Math.max(0, toFrame)) : m)
            .toList());
  }

  public static Project remove(Project project, String markerId) {
    return project.withMarkers(
        project.markers().stream().filter(m -> !m.id().equals(markerId)).toList());
  }
}
