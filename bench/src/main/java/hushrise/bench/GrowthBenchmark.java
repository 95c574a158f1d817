package hushrise.bench;

import hushrise.core.edit.ClipEdits;
import hushrise.core.edit.ClipRemoval;
import hushrise.core.edit.EvenVoices;
import hushrise.core.edit.KeyframeEdits;
import hushrise.core.edit.SafeLevel;
import hushrise.core.edit.Snap;
import hushrise.core.hush.HushDrafter;
import hushrise.core.hush.HushFollow;
import hushrise.core.loudness.LoudnessLibrary;
import hushrise.core.loudness.LoudnessSteps;
import hushrise.core.mix.Mixer;
import hushrise.core.project.Marker;
import hushrise.core.project.Project;
import hushrise.core.project.level.Hush;
import hushrise.core.project.level.Keyframe;
import hushrise.core.project.level.LevelLine;
import hushrise.core.project.level.Rise;
import hushrise.core.project.level.SegmentShape;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Track;
import hushrise.core.separation.Energies;
import hushrise.core.separation.Separation;
import hushrise.core.sound.SampleSource;
import hushrise.core.sound.SoundLibrary;
import hushrise.core.speech.Passages;
import hushrise.core.time.Span;
import java.nio.FloatBuffer;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.LongStream;

/**
 * How long edits take in a project of so many narrations, effects, keyframes, hushes, rises and
 * markers each, and in one of four times as many: four times as long is in proportion, sixteen
 * times is by the square.
 */
final class GrowthBenchmark {

  private static final int RATE = 48_000;
  private static final long EACH = 2L * RATE;

  private GrowthBenchmark() {}

  public static void main(String[] args) {
    int count = args.length > 0 ? Integer.parseInt(args[0]) : 500;
    new Edits(project(count)).times(); // for Java's compiler
    Map<String, Double> few = new Edits(project(count)).times();
    Map<String, Double> many = new Edits(project(4 * count)).times();
    System.out.printf("%-36s %8d %8d%n", "ms, best of three, of each", count, 4 * count);
    many.forEach(
        (name, ms) ->
            System.out.printf(
                "%-36s %8.2f %8.2f  %5.1f times%n", name, few.get(name), ms, ms / few.get(name)));
  }

  private static Project project(int count) {
    List<Media> shelf = new ArrayList<>();
    List<Clip> voices = new ArrayList<>();
    List<Clip> effects = new ArrayList<>();
    List<Keyframe> line = new ArrayList<>();
    List<Hush> hushes = new ArrayList<>();
    List<Rise> rises = new ArrayList<>();
    List<Marker> markers = new ArrayList<>();
    Media song = media("song", MediaKind.MUSIC, count * EACH);
    Media effect = media("effect", MediaKind.EFFECT, RATE / 2);
    shelf.add(song);
    shelf.add(effect);
    for (int i = 0; i < count; i++) {
      long at = i * EACH;
      Span spoken = new Span(RATE / 10, RATE * 9 / 10);
      Media voice =
          media("voice " + i, MediaKind.VOICE, RATE).withSpeech(Optional.of(List.of(spoken)));
      shelf.add(voice);
      voices.add(Clip.whole(voice, at));
      effects.add(Clip.whole(effect, at));
      line.add(new Keyframe(at + 7, -(i % 5), SegmentShape.SMOOTH));
      hushes.add(Hush.over(new Span(at + RATE / 2, at + RATE), -5 - i % 3));
      rises.add(Rise.over(new Span(at + RATE, at + RATE * 3 / 2), 3));
      markers.add(new Marker("marker-" + i, "Marker " + i, at));
    }
    Track music =
        Track.of(TrackKind.MUSIC, "Music", List.of(Clip.whole(song, 0)))
            .withLine(LevelLine.of(line))
            .withHushes(hushes)
            .withRises(rises);
    return Project.empty("bench")
        .withShelf(shelf)
        .withMarkers(markers)
        .withTracks(
            List.of(
                Track.of(TrackKind.VOICE, "Voice", voices),
                music,
                Track.of(TrackKind.EFFECTS, "Effects", effects)));
  }

  private static Media media(String name, MediaKind kind, long lengthFrames) {
    return new Media(name, Path.of(name + ".wav"), kind, lengthFrames, true, Optional.empty(), "");
  }

  private static final class Edits {

    private final Project project;
    private final Track voice;
    private final Track music;
    private final Map<String, Double> times = new LinkedHashMap<>();
    private final Map<Long, LoudnessSteps> known = new LinkedHashMap<>();
    private final LoudnessLibrary loudness =
        m -> known.computeIfAbsent(m.lengthFrames(), Edits::steady);
    private final SoundLibrary sounds = (media, rate) -> silence(media.lengthFrames());

    Edits(Project project) {
      this.project = project;
      voice = project.firstTrack(TrackKind.VOICE).orElseThrow();
      music = project.firstTrack(TrackKind.MUSIC).orElseThrow();
    }

    private static LoudnessSteps steady(long frames) {
      float[] values = new float[LoudnessSteps.stepsIn(frames, RATE) * LoudnessSteps.VALUES];
      Arrays.fill(values, 0.01f);
      return new LoudnessSteps(FloatBuffer.wrap(values));
    }

    private static SampleSource silence(long frames) {
      return new SampleSource() {
        @Override
        public int channels() {
          return 1;
        }

        @Override
        public long lengthFrames() {
          return frames;
        }

        @Override
        public void read(long start, int count, float[] left, float[] right, int offset) {
          Arrays.fill(left, offset, offset + count, 0);
        }
      };
    }

    private void time(String name, Runnable edit) {
      double best = Double.MAX_VALUE;
      for (int i = 0; i < 3; i++) {
        long before = System.nanoTime();
        edit.run();
        best = Math.min(best, (System.nanoTime() - before) / 1e6);
      }
      times.put(name, best);
    }

    private static Set<String> idsOf(Track track) {
      return track.clips().stream().map(Clip::id).collect(Collectors.toSet());
    }

    Map<String, Double> times() {
      Set<String> voices = idsOf(voice);
      Set<String> effects = idsOf(project.firstTrack(TrackKind.EFFECTS).orElseThrow());
      Set<String> all =
          project.tracks().stream().flatMap(t -> idsOf(t).stream()).collect(Collectors.toSet());
      Set<String> one = Set.of(voice.clips().get(voice.clips().size() / 2).id());
      Set<Long> frames =
          music.line().keyframes().stream().map(Keyframe::frame).collect(Collectors.toSet());
      Project oneMoved = ClipEdits.move(project, one, RATE / 10, true);
      Project allMoved = ClipEdits.move(project, voices, RATE / 10, true);
      time(
          "move the song with its keyframes", () -> ClipEdits.move(project, idsOf(music), 9, true));
      time("hushes follow one narration", () -> HushFollow.followed(project, oneMoved));
      time("hushes follow all narrations", () -> HushFollow.followed(project, allMoved));
      time("passages", () -> Passages.of(project));
      time("delete all keyframes", () -> KeyframeEdits.remove(project, music.id(), frames));
      time("delete effects, close gaps", () -> ClipRemoval.delete(project, effects, true, true));
      time("duplicate narrations", () -> ClipEdits.duplicate(project, voices, true));
      long[] places = voice.clips().stream().mapToLong(Clip::startFrame).toArray();
      time(
          "snap",
          () -> Snap.of(project, Set.of(), 0, List.of()).landing(LongStream.of(places), 5, 100));
      Energies energies = Energies.of(project, loudness);
      time("energies", () -> Energies.of(project, loudness));
      time("separation", () -> Separation.of(energies, 10));
      time("draft", () -> HushDrafter.draft(project, loudness, energies));
      time("even voices", () -> EvenVoices.even(project, voices, energies, loudness));
      time(
          "a safe level",
          () -> SafeLevel.of(project, all, energies, loudness, SafeLevel.Rule.DEFAULT));
      Mixer sounding = Mixer.of(project, sounds);
      Mixer next = Mixer.of(oneMoved, sounds);
      time("an edit while playing", () -> next.follow(sounding));
      return times;
    }
  }
}
