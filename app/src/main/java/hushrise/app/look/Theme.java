package hushrise.app.look;

import atlantafx.base.theme.PrimerDark;
import atlantafx.base.theme.PrimerLight;
import java.util.Objects;
import java.util.prefs.Preferences;
import javafx.application.Application;
import javafx.application.ColorScheme;
import javafx.application.Platform;
import javafx.scene.text.Font;

/** The two looks of the window. */
public enum Theme {
  QUAY(Palette.QUAY, new PrimerLight().getUserAgentStylesheet()),
  LANTERN(Palette.LANTERN, new PrimerDark().getUserAgentStylesheet());

  private static final String PREFERENCE = "theme";

  private final Palette palette;
  private final String base;

  Theme(Palette palette, String base) {
    this.palette = palette;
    this.base = base;
  }

  public Palette palette() {
    return palette;
  }

  public Theme other() {
    return this == QUAY ? LANTERN : QUAY;
  }

  /** What the person picked, else what the system prefers. */
  public static Theme chosen() {
    String picked = Preferences.userNodeForPackage(Theme.class).get(PREFERENCE, "");
    for (Theme theme : values()) {
      if (theme.name().equals(picked)) {
        return theme;
      }
    }
    return Platform.getPreferences().getColorScheme() == ColorScheme.DARK ? LANTERN : QUAY;
  }

  /** Keeps this theme as the person's choice. */
  public void remember() {
    Preferences.userNodeForPackage(Theme.class).put(PREFERENCE, name());
  }

  /** Makes this theme's base style the application's. */
  public void applyBase() {
    Application.setUserAgentStylesheet(base);
  }

  /** Loads the fonts that ship with the application. */
  public static void loadFonts() {
    for (String name :
        new String[] {
          "AtkinsonHyperlegibleNext-400.ttf",
          "AtkinsonHyperlegibleNext-600.ttf",
          "AtkinsonHyperlegibleMono-500.ttf"
        }) {
      Font font =
          Font.loadFont(
              Theme.class.getResource("/hushrise/app/fonts/" + name).toExternalForm(), 13);
      Objects.requireNonNull(font, name);
    }
  }
}
