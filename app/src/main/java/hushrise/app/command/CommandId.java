package hushrise.app.command;

import static hushrise.app.words.Texts.text;

import hushrise.app.words.Texts;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyCodeCombination;
import javafx.scene.input.KeyCombination;
import javafx.scene.input.KeyEvent;

/**
 * Everything that can be done, with the menu it stands in, what must be there for it, and its keys.
 * Keys, menus, buttons, the finder and F1 all come from here. A command that is none for menus has
 * an empty text.
 */
public enum CommandId {
  NEW("new", Menu.FILE, Needs.NOTHING, "Shortcut+N"),
  OPEN("open", Menu.FILE, Needs.NOTHING, "Shortcut+O"),
  OPEN_DEMO("openDemo", Menu.FILE, Needs.NOTHING),
  SAVE("save", Menu.FILE, Needs.NOTHING, "Shortcut+S"),
  SAVE_AS("saveAs", Menu.FILE, Needs.NOTHING, "Shortcut+Shift+S"),
  ADD("add", Menu.FILE, Needs.NOTHING, "Shortcut+I"),
  SHELF("shelf", Menu.FILE, Needs.NOTHING, "L"),
  EXPORT("export", Menu.FILE, Needs.FILM, "Shortcut+E"),
  CREDITS("credits", Menu.FILE, Needs.FILM, "Shortcut+K"),
  COLLECT("collect", Menu.FILE, Needs.FILM),
  TIMELINE("timeline", Menu.FILE, Needs.FILM),
  VERSIONS("versions", Menu.FILE, Needs.FILM),
  FIND_FILES("findFiles", Menu.FILE, Needs.FILM),
  QUIT("quit", Menu.FILE, Needs.NOTHING, "Shortcut+Q"),

  UNDO("undo", Menu.EDIT, Needs.UNDONE, "Shortcut+Z"),
  REDO("redo", Menu.EDIT, Needs.REDONE, "Shortcut+Shift+Z", "Shortcut+Y"),
  CUT("clip.cut", Menu.EDIT, Needs.CLIP_OR_KEYFRAMES, "Shortcut+X"),
  COPY("clip.copy", Menu.EDIT, Needs.CLIP_OR_KEYFRAMES, "Shortcut+C"),
  PASTE("clip.paste", Menu.EDIT, Needs.COPIED, "Shortcut+V"),
  DUPLICATE("clip.duplicate", Menu.EDIT, Needs.CLIP, "Shortcut+Shift+C"),
  DELETE("delete", Menu.EDIT, Needs.SOMETHING, "DELETE", "BACK_SPACE"),
  DELETE_CLOSING("clip.deleteClosing", Menu.EDIT, Needs.CLIP, "Shift+DELETE"),
  SELECT_ALL("clip.selectAll", Menu.EDIT, Needs.FILM, "Shortcut+A"),
  FIND_COMMAND("find", Menu.EDIT, Needs.NOTHING, "Shortcut+F"),
  TYPE_LEVEL("level.type", Menu.EDIT, Needs.SHOWN_LEVEL, "ENTER"),
  ESCAPE("escape", Menu.NONE, Needs.NOTHING, "ESCAPE"),

  STEP_BACK("step.back", Menu.VIEW, Needs.FILM, "LEFT"),
  STEP_ON("step.on", Menu.VIEW, Needs.FILM, "RIGHT"),
  SECOND_BACK("second.back", Menu.VIEW, Needs.FILM, "Shift+LEFT"),
  SECOND_ON("second.on", Menu.VIEW, Needs.FILM, "Shift+RIGHT"),
  TO_START("toStart", Menu.VIEW, Needs.FILM, "HOME"),
  TO_END("toEnd", Menu.VIEW, Needs.FILM, "END"),
  PLACE_NEXT("place.next", Menu.VIEW, Needs.FILM, "PERIOD"),
  PLACE_PREVIOUS("place.previous", Menu.VIEW, Needs.FILM, "COMMA"),
  MARKER_ADD("marker.add", Menu.VIEW, Needs.FILM, "M"),
  MARKER_NEXT("marker.next", Menu.VIEW, Needs.MARKERS, "Shift+PERIOD"),
  MARKER_PREVIOUS("marker.previous", Menu.VIEW, Needs.MARKERS, "Shift+COMMA"),
  ZOOM_IN("zoom.in", Menu.VIEW, Needs.FILM, "EQUALS", "PLUS", "ADD"),
  ZOOM_OUT("zoom.out", Menu.VIEW, Needs.FILM, "MINUS", "SUBTRACT"),
  ZOOM_ALL("zoom.all", Menu.VIEW, Needs.FILM, "DIGIT0"),
  ZOOM_SELECTION("zoom.selection", Menu.VIEW, Needs.SOMETHING, "Z", "DIGIT9"),
  ZOOM_PASSAGE("zoom.passage", Menu.VIEW, Needs.SPEECH, "DIGIT8"),
  SNAP("snap", Menu.VIEW, Needs.NOTHING, "N"),
  CARRY("carry", Menu.VIEW, Needs.NOTHING, "C"),
  FOLLOW("follow", Menu.VIEW, Needs.NOTHING, "G"),
  PICTURE_SIZE("picture.size", Menu.VIEW, Needs.NOTHING, "Shift+Z"),
  THEME("theme", Menu.VIEW, Needs.NOTHING),

  PLAY("play", Menu.LISTEN, Needs.FILM, "SPACE"),
  PLAY_SELECTION("play.selection", Menu.LISTEN, Needs.PLACE, "Shift+SPACE"),
  PLAY_AROUND("play.around", Menu.LISTEN, Needs.FILM, "B"),
  PLAY_LOOP("play.loop", Menu.LISTEN, Needs.PLACE, "O"),
  PASSAGE_NEXT("passage.next", Menu.LISTEN, Needs.SPEECH, "Shift+PAGE_DOWN"),
  PASSAGE_PREVIOUS("passage.previous", Menu.LISTEN, Needs.SPEECH, "Shift+PAGE_UP"),
  SLOWER("speed.slower", Menu.LISTEN, Needs.NOTHING, "Alt+COMMA"),
  FASTER("speed.faster", Menu.LISTEN, Needs.NOTHING, "Alt+PERIOD"),
  OWN_SPEED("speed.own", Menu.LISTEN, Needs.NOTHING, "Alt+SLASH"),
  HEAR_ALONE("hear.alone", Menu.LISTEN, Needs.FILM, "S"),
  EARS_MONO("ears.mono", Menu.LISTEN, Needs.NOTHING, "Shift+T"),
  EARS_SMALL("ears.small", Menu.LISTEN, Needs.NOTHING, "T"),
  EARS_LOUDER("ears.louder", Menu.LISTEN, Needs.NOTHING, "Alt+UP"),
  EARS_QUIETER("ears.quieter", Menu.LISTEN, Needs.NOTHING, "Alt+DOWN"),
  OVER_GO("over.go", Menu.LISTEN, Needs.NOTHING, "Shift+G"),
  OUTPUT_CHOOSE("output.choose", Menu.LISTEN, Needs.NOTHING),

  SPLIT("clip.split", Menu.CLIP, Needs.FILM, "SLASH"),
  TRIM_START("clip.trimStart", Menu.CLIP, Needs.FILM, "OPEN_BRACKET"),
  TRIM_END("clip.trimEnd", Menu.CLIP, Needs.FILM, "CLOSE_BRACKET"),
  OTHER_FILE("clip.otherFile", Menu.CLIP, Needs.CLIP, "Shortcut+Shift+I"),
  TO_PICTURE_END("clip.toPictureEnd", Menu.CLIP, Needs.CLIP, "Shift+CLOSE_BRACKET"),
  EARLIER("clip.earlier", Menu.CLIP, Needs.SOMETHING, "Alt+LEFT"),
  LATER("clip.later", Menu.CLIP, Needs.SOMETHING, "Alt+RIGHT"),
  EARLIER_TEN("clip.earlierTen", Menu.CLIP, Needs.SOMETHING, "Alt+Shift+LEFT"),
  LATER_TEN("clip.laterTen", Menu.CLIP, Needs.SOMETHING, "Alt+Shift+RIGHT"),
  FADE_WITH_PICTURE("clip.fadeWithPicture", Menu.CLIP, Needs.FILM, "Shift+F"),
  FADE_FROM_HERE("fade.fromHere", Menu.CLIP, Needs.CLIP, "F"),
  FADE_BOTH("fade.both", Menu.CLIP, Needs.CLIP),
  FADE_TO_CUT("fade.toCut", Menu.CLIP, Needs.CLIP),
  FIT_NONE("fit.none", Menu.CLIP, Needs.MUSIC, "Shift+DIGIT0"),
  FIT_TRIM("fit.trim", Menu.CLIP, Needs.MUSIC, "DIGIT1"),
  FIT_LOOP("fit.loop", Menu.CLIP, Needs.MUSIC, "DIGIT2"),
  FIT_TAILOR("fit.tailor", Menu.CLIP, Needs.MUSIC, "DIGIT3"),
  SEAM_AUDITION("seam.audition", Menu.CLIP, Needs.SEAM, "A"),
  SEAM_REJECT("seam.reject", Menu.CLIP, Needs.SEAM, "R"),
  SEAM_TO_CUT("seam.toCut", Menu.CLIP, Needs.SEAM),
  MUSIC_PEAK("music.peak", Menu.CLIP, Needs.MUSIC, "Shift+P"),
  MUSIC_SECTION("music.section", Menu.CLIP, Needs.MUSIC, "Shift+S"),
  FADE_WITH_MUSIC("fade.withMusic", Menu.CLIP, Needs.MUSIC, "Shift+O"),
  CAMERA_SILENCE("camera.silence", Menu.CLIP, Needs.FILM, "Q"),

  RIDE_ARM("ride.arm", Menu.LEVEL, Needs.FILM, "D"),
  RIDE_AFTER("ride.after", Menu.LEVEL, Needs.NOTHING, "Shift+U"),
  RIDE_HUSHES("ride.hushes", Menu.LEVEL, Needs.FILM, "Shift+D"),
  SAFE_LEVEL("safe.level", Menu.LEVEL, Needs.FILM, "Shift+L"),
  SAFE_KIND("safe.kind", Menu.LEVEL, Needs.FILM),
  SAFE_NUMBERS("safe.numbers", Menu.LEVEL, Needs.NOTHING),
  HEADS_NARROW("heads.narrow", Menu.VIEW, Needs.NOTHING, "Shift+W"),

  HUSH_HERE("hush.here", Menu.LEVEL, Needs.FILM, "H"),
  RISE_HERE("rise.here", Menu.LEVEL, Needs.FILM, "U"),
  RISE_TO_BEAT("rise.toBeat", Menu.LEVEL, Needs.SHAPE, "Shift+B"),
  RISE_TO_CUT("rise.toCut", Menu.LEVEL, Needs.SHAPE, "Shift+C"),
  HUSH_ALL("hush", Menu.LEVEL, Needs.FILM, "Shift+H"),
  DRAFT_TAKE("draft.take", Menu.LEVEL, Needs.DRAFT, "ENTER"),
  DRAFT_LEAVE("draft.leave", Menu.LEVEL, Needs.DRAFT),
  HUSH_TO_NEXT("hush.toNext", Menu.LEVEL, Needs.HUSH, "Shift+N"),
  HUSH_TO_TRACK("hush.toTrack", Menu.LEVEL, Needs.HUSH),
  HUSH_TO_PROJECT("hush.toProject", Menu.LEVEL, Needs.HUSH),
  HUSH_MERGE("hush.merge", Menu.LEVEL, Needs.HUSH),
  HUSH_EQUAL("hush.equal", Menu.LEVEL, Needs.SPAN),
  HUSH_TO_PASSAGE("hush.toPassage", Menu.LEVEL, Needs.HUSH, "P"),
  HUSH_FORGET("hush.forget", Menu.LEVEL, Needs.HUSH),
  MELT("melt", Menu.LEVEL, Needs.SHAPE, "Shift+M"),
  KEYFRAME_ADD("keyframe.add", Menu.LEVEL, Needs.FILM, "K"),
  KEYFRAME_NEXT("keyframe.next", Menu.LEVEL, Needs.FILM, "PAGE_DOWN"),
  KEYFRAME_PREVIOUS("keyframe.previous", Menu.LEVEL, Needs.FILM, "PAGE_UP"),
  KEYFRAME_CLEAR_TRACK("keyframe.clearTrack", Menu.LEVEL, Needs.FILM, "Shift+K"),
  KEYFRAME_CLEAR_CLIP("keyframe.clearClip", Menu.LEVEL, Needs.CLIP),
  LEVEL_UP("level.up", Menu.LEVEL, Needs.LEVEL, "UP"),
  LEVEL_DOWN("level.down", Menu.LEVEL, Needs.LEVEL, "DOWN"),
  LEVEL_UP_FINE("level.upFine", Menu.LEVEL, Needs.LEVEL, "Shift+UP"),
  LEVEL_DOWN_FINE("level.downFine", Menu.LEVEL, Needs.LEVEL, "Shift+DOWN"),
  SHAPING_SWAP("shaping.swap", Menu.LEVEL, Needs.FILM, "X"),
  SHAPING_KEEP("shaping.keep", Menu.LEVEL, Needs.FILM, "Shift+X"),
  COMPARE_SHAPES("compare.shapes", Menu.LEVEL, Needs.FILM, "W"),
  COMPARE_LINE("compare.line", Menu.LEVEL, Needs.FILM, "E"),

  PASSAGE_ADD("passage.add", Menu.SPEECH, Needs.SPAN, "I"),
  PASSAGE_SPLIT("passage.split", Menu.SPEECH, Needs.PASSAGE, "Shift+SLASH"),
  PASSAGE_JOIN("passage.join", Menu.SPEECH, Needs.PASSAGE, "Shift+I"),
  SPEECH_AGAIN("speech.again", Menu.SPEECH, Needs.CLIP_OR_PASSAGE),
  SPEECH_READ("speech.read", Menu.SPEECH, Needs.CLIP_OR_PASSAGE),
  SPEECH_WRITE("speech.write", Menu.SPEECH, Needs.CLIP_OR_PASSAGE),
  VOICES_EVEN("voices.even", Menu.SPEECH, Needs.SPEECH, "Shift+E"),
  VOICES_AS_OTHERS("voices.asOthers", Menu.SPEECH, Needs.CLIP),
  EAR_NEXT("ear.next", Menu.SPEECH, Needs.FILM, "J"),
  EAR_PREVIOUS("ear.previous", Menu.SPEECH, Needs.FILM, "Shift+J"),
  EAR_MEND("ear.mend", Menu.SPEECH, Needs.FILM, "V"),
  EAR_MEND_OTHER("ear.mendOther", Menu.SPEECH, Needs.FILM, "Shift+V"),
  EAR_ASIDE("ear.aside", Menu.SPEECH, Needs.FINDING, "Y"),

  RECORDER("recorder", Menu.RECORD, Needs.NOTHING, "Shift+R"),
  RECORD("record", Menu.RECORD, Needs.FILM, "Shortcut+R"),
  RECORD_REST("record.rest", Menu.RECORD, Needs.FILM, "Shortcut+Shift+R"),
  TAKE_NEXT("take.next", Menu.RECORD, Needs.CLIP, "Shift+A"),
  TAKE_PREVIOUS("take.previous", Menu.RECORD, Needs.CLIP, "Alt+A"),
  READ_NEXT("read.next", Menu.RECORD, Needs.NOTHING, "Alt+PAGE_DOWN"),
  READ_PREVIOUS("read.previous", Menu.RECORD, Needs.NOTHING, "Alt+PAGE_UP"),
  INPUT_CHECK("input.check", Menu.RECORD, Needs.NOTHING),
  INPUT_LATENCY("input.latency", Menu.RECORD, Needs.NOTHING),
  SURFACE("surface", Menu.RECORD, Needs.NOTHING),
  SURFACE_LEARN("surface.learn", Menu.RECORD, Needs.FILM),

  KEYS("keys", Menu.HELP, Needs.NOTHING, "F1"),
  REPORT("report", Menu.HELP, Needs.NOTHING);

  /** The menus of the menu bar, in their order. */
  public enum Menu {
    FILE,
    EDIT,
    VIEW,
    LISTEN,
    CLIP,
    LEVEL,
    SPEECH,
    RECORD,
    HELP,
    NONE;

    /** What the menu bar calls it. */
    public String words() {
      return text("menu." + name());
    }
  }

  /** What must be there for a command to do something. */
  public enum Needs {
    NOTHING,
    FILM,
    SOMETHING,
    PLACE,
    CLIP,
    CLIP_OR_KEYFRAMES,
    CLIP_OR_PASSAGE,
    MUSIC,
    SEAM,
    HUSH,
    SHAPE,
    SPAN,
    LEVEL,
    SHOWN_LEVEL,
    PASSAGE,
    SPEECH,
    MARKERS,
    DRAFT,
    FINDING,
    COPIED,
    UNDONE,
    REDONE;

    /** What is said when it is not there. */
    public String words() {
      return text("needs." + name());
    }
  }

  /** What keys write that are not everywhere, as the keyboards of this table's names have them. */
  private static final Map<KeyCode, String> SIGNS = signs();

  private static Map<KeyCode, String> signs() {
    Map<KeyCode, String> signs = new EnumMap<>(KeyCode.class);
    for (int digit = 0; digit <= 9; digit++) {
      signs.put(KeyCode.valueOf("DIGIT" + digit), String.valueOf(digit));
    }
    signs.put(KeyCode.SLASH, "/");
    signs.put(KeyCode.PLUS, "+");
    signs.put(KeyCode.MINUS, "-");
    signs.put(KeyCode.COMMA, ",");
    signs.put(KeyCode.PERIOD, ".");
    signs.put(KeyCode.OPEN_BRACKET, "[");
    signs.put(KeyCode.CLOSE_BRACKET, "]");
    return signs;
  }

  /** What goes on step by step while its key is held; all else happens once for each press. */
  private static final Set<CommandId> STEPS =
      EnumSet.of(
          UNDO,
          REDO,
          STEP_BACK,
          STEP_ON,
          SECOND_BACK,
          SECOND_ON,
          PLACE_NEXT,
          PLACE_PREVIOUS,
          MARKER_NEXT,
          MARKER_PREVIOUS,
          ZOOM_IN,
          ZOOM_OUT,
          PASSAGE_NEXT,
          PASSAGE_PREVIOUS,
          SLOWER,
          FASTER,
          EARS_LOUDER,
          EARS_QUIETER,
          EARLIER,
          LATER,
          EARLIER_TEN,
          LATER_TEN,
          KEYFRAME_NEXT,
          KEYFRAME_PREVIOUS,
          LEVEL_UP,
          LEVEL_DOWN,
          LEVEL_UP_FINE,
          LEVEL_DOWN_FINE,
          EAR_NEXT,
          EAR_PREVIOUS,
          READ_NEXT,
          READ_PREVIOUS);

  private final String key;
  private final Menu menu;
  private final Needs needs;
  private final List<KeyCombination> keys;

  CommandId(String key, Menu menu, Needs needs, String... keys) {
    this.key = key;
    this.menu = menu;
    this.needs = needs;
    this.keys = Arrays.stream(keys).map(CommandId::combination).toList();
  }

  private static KeyCombination combination(String keys) {
    List<String> parts = List.of(keys.split("\\+", -1));
    KeyCombination.Modifier[] modifiers =
        parts.subList(0, parts.size() - 1).stream()
            .map(
                part ->
                    switch (part) {
                      case "Shortcut" -> KeyCombination.SHORTCUT_DOWN;
                      case "Shift" -> KeyCombination.SHIFT_DOWN;
                      case "Alt" -> KeyCombination.ALT_DOWN;
                      default -> throw new IllegalArgumentException(keys);
                    })
            .toArray(KeyCombination.Modifier[]::new);
    return new KeyCodeCombination(KeyCode.valueOf(parts.getLast()), modifiers);
  }

  /** Its name in the texts and in the ids of nodes, such as {@code clip.split}. */
  public String key() {
    return key;
  }

  public Menu menu() {
    return menu;
  }

  public Needs needs() {
    return needs;
  }

  /** Its keys, the one to show first; possibly none. */
  public List<KeyCombination> keys() {
    return keys;
  }

  /** Whether a pressed key is one of its own. */
  public boolean matches(KeyEvent e) {
    return keys.stream().anyMatch(k -> k.match(e));
  }

  /**
   * Whether a pressed key writes the digit or sign that one of its own is named after. Keyboards of
   * other countries have these elsewhere: / over the 7, digits with Shift, brackets with AltGr
   * (which some systems tell as Ctrl and Alt together).
   */
  public boolean isWrittenBy(KeyEvent e) {
    return e.isControlDown() == e.isAltDown()
        && !e.isMetaDown()
        && keys.stream()
            .filter(KeyCodeCombination.class::isInstance)
            .map(KeyCodeCombination.class::cast)
            .filter(k -> k.equals(new KeyCodeCombination(k.getCode())))
            .anyMatch(k -> e.getText().equals(SIGNS.get(k.getCode())));
  }

  /** Whether it goes on step by step while its key is held. */
  public boolean isStep() {
    return STEPS.contains(this);
  }

  /** What it does, in words. */
  public String words() {
    return text("cmd." + key);
  }

  /** What else the trade calls it, so that it is found by that too; empty for most. */
  String otherNames() {
    String names = "also." + key;
    return Texts.has(names) ? text(names) : "";
  }

  /** Its key as a person reads it; empty without one. */
  public String keyWords() {
    return keys.isEmpty() ? "" : keys.getFirst().getDisplayText();
  }

  /** What it does with its key, for tooltips. */
  public String tip() {
    return keys.isEmpty() ? words() : words() + " (" + keyWords() + ")";
  }
}
