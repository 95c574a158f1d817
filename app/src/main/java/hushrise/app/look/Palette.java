package hushrise.app.look;

import hushrise.core.project.media.TrackKind;
import javafx.scene.paint.Color;

/**
 * The colours of a theme by what they stand for: the one place where a colour is written. Controls
 * get them as CSS variables through {@link #asCss}, drawings as {@link Color}.
 *
 * @param background behind everything
 * @param surface panels
 * @param sunken lanes and fields
 * @param edge lines between things
 * @param ink text, at least 4.5:1 on all three grounds
 * @param faintInk second-rank text, at least 4.5:1 on all three grounds
 * @param accent what acts, and the playhead
 * @param onAccent text on the accent
 * @param voice narration
 * @param music background music
 * @param effects effects
 * @param camera camera sound
 * @param picture the picture
 * @param hush a dip
 * @param rise a swell
 * @param clear a voice that stands clear
 * @param tight a voice that is nearly too close
 * @param buried a voice that drowns
 */
public record Palette(
    Color background,
    Color surface,
    Color sunken,
    Color edge,
    Color ink,
    Color faintInk,
    Color accent,
    Color onAccent,
    Color voice,
    Color music,
    Color effects,
    Color camera,
    Color picture,
    Color hush,
    Color rise,
    Color clear,
    Color tight,
    Color buried) {

  static final Palette QUAY =
      new Palette(
          Color.web("#E9E6DF"),
          Color.web("#F6F4EF"),
          Color.web("#FDFCFA"),
          Color.web("#CBC5B9"),
          Color.web("#1C2A33"),
          Color.web("#55626B"),
          Color.web("#9A3412"),
          Color.web("#FFFFFF"),
          Color.web("#B0661A"),
          Color.web("#2E7D86"),
          Color.web("#7A5195"),
          Color.web("#7B8794"),
          Color.web("#4A5A68"),
          Color.web("#2B4CA8"),
          Color.web("#B23A66"),
          Color.web("#2C6E3F"),
          Color.web("#8A5A00"),
          Color.web("#B3261E"));

  static final Palette LANTERN =
      new Palette(
          Color.web("#10171E"),
          Color.web("#18222B"),
          Color.web("#0B1117"),
          Color.web("#33424F"),
          Color.web("#E8E4D8"),
          Color.web("#A9B4BC"),
          Color.web("#F0B35A"),
          Color.web("#1A1206"),
          Color.web("#E39A4B"),
          Color.web("#4BA6AE"),
          Color.web("#B08CCB"),
          Color.web("#7F8D9A"),
          Color.web("#93A4B3"),
          Color.web("#8FA8FF"),
          Color.web("#F08BAE"),
          Color.web("#7CC98F"),
          Color.web("#E3B341"),
          Color.web("#FF8A80"));

  /** CSS variables for a root node's style: the base theme's own and ours. */
  public String asCss() {
    return """
        -color-bg-default: %1$s; -color-bg-subtle: %2$s; -color-bg-inset: %3$s; -color-bg-overlay: %2$s;
        -color-border-default: %4$s; -color-border-muted: %4$s; -color-border-subtle: %4$s;
        -color-fg-default: %5$s; -color-fg-muted: %6$s; -color-fg-subtle: %6$s;
        -color-accent-fg: %7$s; -color-accent-emphasis: %7$s; -color-accent-muted: %7$s;
        -color-fg-emphasis: %8$s;
        -hr-background: %1$s; -hr-surface: %2$s; -hr-sunken: %3$s; -hr-edge: %4$s; -hr-ink: %5$s;
        -hr-faint-ink: %6$s; -hr-accent: %7$s; -hr-on-accent: %8$s; -hr-voice: %9$s; -hr-music: %10$s;
        -hr-effects: %11$s; -hr-camera: %12$s; -hr-picture: %13$s; -hr-hush: %14$s; -hr-buried: %15$s;
        -hr-rise: %16$s; -hr-clear: %17$s; -hr-tight: %18$s;"""
        .formatted(
            web(background),
            web(surface),
            web(sunken),
            web(edge),
            web(ink),
            web(faintInk),
            web(accent),
            web(onAccent),
            web(voice),
            web(music),
            web(effects),
            web(camera),
            web(picture),
            web(hush),
            web(buried),
            web(rise),
            web(clear),
            web(tight));
  }

  /** The colour of what lies on a kind of track. */
  public Color of(TrackKind kind) {
    return switch (kind) {
      case PICTURE -> picture;
      case VOICE -> voice;
      case CAMERA -> camera;
      case MUSIC -> music;
      case EFFECTS -> effects;
    };
  }

  private static String web(Color c) {
    return "#%02X%02X%02X"
        .formatted(
            Math.round(c.getRed() * 255),
            Math.round(c.getGreen() * 255),
            Math.round(c.getBlue() * 255));
  }
}
