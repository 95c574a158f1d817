package hushrise.app.timeline;

import javafx.scene.Cursor;

/** What the pointer looks like over each thing on a lane, so that it tells what a drag would do. */
final class Cursors {

  private Cursors() {}

  static Cursor of(Target target) {
    return switch (target) {
      case Target.Nothing n -> Cursor.DEFAULT;
      case Target.OnClip c -> Cursor.OPEN_HAND;
      case Target.OnKeyframe k -> Cursor.HAND;
      case Target.OnSeam s -> Cursor.HAND;
      case Target.OnStretch s -> Cursor.V_RESIZE;
      case Target.OnFloor f -> Cursor.V_RESIZE;
      case Target.OnFadeIn f -> Cursor.H_RESIZE;
      case Target.OnFadeOut f -> Cursor.H_RESIZE;
      case Target.OnShape s -> s.part() == Target.Part.RISE_TOP ? Cursor.V_RESIZE : Cursor.H_RESIZE;
      case Target.OnSpanEdge s -> Cursor.H_RESIZE;
      case Target.OnPassage p -> p.hold() == Target.Hold.BODY ? Cursor.HAND : Cursor.H_RESIZE;
      case Target.OnClipStart s -> Cursor.E_RESIZE;
      case Target.OnClipEnd s -> Cursor.W_RESIZE;
    };
  }
}
