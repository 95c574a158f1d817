package hushrise.app.look;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import javafx.scene.paint.Color;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Contrast after WCAG 2.2, success criteria 1.4.3 and 1.4.11. */
class PaletteTest {

  private static double luminance(Color c) {
    return 0.2126 * linear(c.getRed())
        + 0.7152 * linear(c.getGreen())
        + 0.0722 * linear(c.getBlue());
  }

  private static double linear(double v) {
    return v <= 0.04045 ? v / 12.92 : Math.pow((v + 0.055) / 1.055, 2.4);
  }

  private static double contrast(Color a, Color b) {
    double la = luminance(a);
    double lb = luminance(b);
    return (Math.max(la, lb) + 0.05) / (Math.min(la, lb) + 0.05);
  }

  @ParameterizedTest
  @EnumSource(Theme.class)
  void textIsReadableOnEveryGround(Theme theme) {
    Palette p = theme.palette();
    for (Color ground : List.of(p.background(), p.surface(), p.sunken())) {
      assertThat(contrast(p.ink(), ground)).isGreaterThanOrEqualTo(4.5);
      assertThat(contrast(p.faintInk(), ground)).isGreaterThanOrEqualTo(4.5);
      assertThat(contrast(p.buried(), ground)).isGreaterThanOrEqualTo(4.5);
    }
    assertThat(contrast(p.onAccent(), p.accent())).isGreaterThanOrEqualTo(4.5);
    assertThat(contrast(p.hush(), p.sunken())).isGreaterThanOrEqualTo(4.5);
  }

  @ParameterizedTest
  @EnumSource(Theme.class)
  void everyRoleStandsOutFromItsLane(Theme theme) {
    Palette p = theme.palette();
    for (Color role :
        List.of(
            p.voice(),
            p.music(),
            p.effects(),
            p.camera(),
            p.picture(),
            p.hush(),
            p.rise(),
            p.accent(),
            p.clear(),
            p.tight())) {
      assertThat(contrast(role, p.sunken())).isGreaterThanOrEqualTo(3);
    }
  }
}
