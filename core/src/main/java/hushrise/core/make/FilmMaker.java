package hushrise.core.make;

import hushrise.core.Decibels;
import hushrise.core.Problem;
import hushrise.core.edit.EvenSongs;
import hushrise.core.edit.EvenVoices;
import hushrise.core.edit.LoudMusic;
import hushrise.core.edit.SongChange;
import hushrise.core.fit.Fits;
import hushrise.core.fit.Repeat;
import hushrise.core.fit.Songs;
import hushrise.core.hush.HushDrafter;
import hushrise.core.loudness.LoudnessLibrary;
import hushrise.core.loudness.Measurement;
import hushrise.core.project.Project;
import hushrise.core.project.level.HushRule;
import hushrise.core.project.media.Media;
import hushrise.core.project.media.MediaKind;
import hushrise.core.project.media.TrackKind;
import hushrise.core.project.timeline.Clip;
import hushrise.core.project.timeline.Fade;
import hushrise.core.project.timeline.Fit;
import hushrise.core.project.timeline.FitMode;
import hushrise.core.project.timeline.Track;
import hushrise.core.separation.Energies;
import hushrise.core.separation.EnergySteps;
import hushrise.core.sound.Progress;
import hushrise.core.sound.SampleSource;
import hushrise.core.sound.SoundLibrary;
import hushrise.core.speech.Passages;
import hushrise.core.time.Span;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;

/**
 * Makes a project from a plan: everything in its place, voices and songs even, a quiet voice
 * raised, the music cut or repeated to the film's length and faded, not much louder than the voice,
 * the camera sound held under the voice, and hushes by the rule.
 */
public final class FilmMaker {

  private static final double SHORTEST_MUSIC_SECONDS = 1;

  private final FilmPlan plan;
  private final SoundLibrary library;
  private final LoudnessLibrary loudness;
  private final Songs songs;
  private final int sampleRate = Project.DEFAULT_SAMPLE_RATE;

  /**
   * @param songs the plan's music, analysed; music that it lacks is repeated plainly
   */
  public FilmMaker(FilmPlan plan, SoundLibrary library, LoudnessLibrary loudness, Songs songs) {
    this.plan = plan;
    this.library = library;
    this.loudness = loudness;
    this.songs = songs;
  }

  /**
   * Makes the project; reads and measures the sound of the plan's files.
   *
   * @throws Problem when a file does not serve, such as a silent narration
   */
  public Project make(String name) {
    Project placed = placed(name);
    requireAudibleVoices(placed);
    Project evenSongs = EvenSongs.even(placed, loudness);
    Project even = plan.evensVoices() ? evened(evenSongs) : evenSongs;
    Project mended = LoudMusic.mended(even, loudness);
    return HushDrafter.draft(cameraUnderVoice(mended), loudness).after();
  }

  private Project evened(Project project) {
    Energies energies = Energies.of(project, loudness);
    Map<String, Double> voices = EvenVoices.loudness(energies);
    return EvenVoices.apart(voices) > EvenVoices.MOST_LU
        ? EvenVoices.even(project, voices.keySet(), energies, loudness)
        : project;
  }

  /** Everything in its place, before anything is measured. */
  public Project placed(String name) {
    List<Clip> narration = voiceClips();
    long end = endFrame(narration);
    Project project = withRateOfPicture(Project.empty(name));
    List<Track> tracks = new ArrayList<>();
    plan.picture()
        .map(seen -> ofPicture(TrackKind.PICTURE, "Picture", seen, end))
        .ifPresent(tracks::add);
    tracks.add(Track.of(TrackKind.VOICE, "Narration", narration));
    Optional<HushRule> rule =
        plan.separationLu() == HushRule.MUSIC_LU && plan.rises().isEmpty()
            ? Optional.empty()
            : Optional.of(HushRule.of(plan.separationLu()).withRises(plan.rises()));
    tracks.add(Track.of(TrackKind.MUSIC, "Music", musicClips(end)).withRule(rule));
    if (!plan.effects().isEmpty()) {
      tracks.add(Track.of(TrackKind.EFFECTS, "Effects", clipsOf(plan.effects())));
    }
    Optional<HushRule> further =
        plan.separationLu() > HushRule.AMBIENCE_LU
            ? Optional.of(HushRule.of(plan.separationLu()))
            : Optional.empty();
    plan.picture()
        .filter(film -> !plan.voices().isEmpty() && film.hasSound())
        .map(film -> ofPicture(TrackKind.CAMERA, "Camera sound", film, end).withRule(further))
        .ifPresent(tracks::add);
    for (Media media : allMedia()) {
      project = project.media(media.id()).isPresent() ? project : project.withMedia(media);
    }
    return project.withTracks(tracks);
  }

  private Project withRateOfPicture(Project project) {
    if (film().isEmpty()) {
      return project;
    }
    Media film = film().get();
    return project.withPictureRate(
        film.pictureRate()
            .orElseThrow(
                () -> new Problem("%s has no picture: choose a film.".formatted(film.file()))));
  }

  /** The picture where it moves: a still one has no length of its own. */
  private Optional<Media> film() {
    return plan.picture().filter(seen -> seen.kind() != MediaKind.STILL);
  }

  private static Track ofPicture(TrackKind kind, String name, Media seen, long end) {
    boolean still = seen.kind() == MediaKind.STILL;
    return Track.of(kind, name, List.of(still ? Clip.ofStill(seen, 0, end) : Clip.whole(seen, 0)));
  }

  private List<Clip> voiceClips() {
    if (!plan.voices().isEmpty()) {
      return clipsOf(plan.voices());
    }
    Media film =
        plan.picture()
            .orElseThrow(() -> new Problem("There is no narration: add one with --voice."));
    if (!film.hasSound()) {
      throw new Problem(
          "%s has no sound and no narration was given: add one with --voice."
              .formatted(film.file()));
    }
    return List.of(Clip.whole(film, 0));
  }

  /** Where all of it ends: with the picture, or where the plan says, or after the last take. */
  private long endFrame(List<Clip> narration) {
    if (film().isPresent()) {
      return film().get().lengthFrames();
    }
    long spoken = narration.stream().mapToLong(Clip::endFrame).max().orElse(0);
    long end = plan.endFrame().orElse(spoken + Math.round(Fits.FADE_OUT_SECONDS * sampleRate));
    if (end < spoken) {
      throw new Problem(
          "The narration goes on to %.1f s: choose a --length of that or more, not %.1f."
              .formatted(spoken / (double) sampleRate, end / (double) sampleRate));
    }
    return end;
  }

  private List<Media> allMedia() {
    List<Media> all = new ArrayList<>(plan.picture().stream().toList());
    plan.voices().forEach(p -> all.add(p.media()));
    plan.music().forEach(p -> all.add(p.media()));
    plan.effects().forEach(p -> all.add(p.media()));
    return all;
  }

  private static List<Clip> clipsOf(List<FilmPlan.Placed> items) {
    List<Clip> clips = new ArrayList<>();
    Optional<Long> end = Optional.empty();
    for (FilmPlan.Placed item : items) {
      Clip clip = Clip.whole(item.media(), item.startAfter(end));
      clips.add(clip);
      end = Optional.of(clip.endFrame());
    }
    return clips;
  }

  /** Each song gives way to the next one, the last plays to the end. */
  private List<Clip> musicClips(long filmEnd) {
    List<Clip> clips = new ArrayList<>();
    List<Clip> whole = clipsOf(plan.music());
    for (int i = 0; i < whole.size(); i++) {
      Clip clip = whole.get(i);
      Media media = plan.music().get(i).media();
      if (media.lengthFrames() < SHORTEST_MUSIC_SECONDS * sampleRate) {
        throw new Problem(
            "The music %s is shorter than a second: choose a longer piece."
                .formatted(media.file()));
      }
      boolean last = i + 1 == whole.size();
      long turn = last ? filmEnd : whole.get(i + 1).startFrame();
      long end =
          last
              ? filmEnd
              : Math.min(SongChange.endFrame(clip.endFrame(), turn, sampleRate), filmEnd);
      if (Math.min(turn, filmEnd) <= clip.startFrame()) {
        throw new Problem(
            "The music %s would start at %.1f s, when the end (%.1f s) or the next song leaves no room for it: place it earlier."
                .formatted(
                    media.file(),
                    clip.startFrame() / (double) sampleRate,
                    filmEnd / (double) sampleRate));
      }
      clips.add(reaching(clip, media, end, end == filmEnd && plan.endFrame().isEmpty()));
    }
    return faded(clips);
  }

  private Clip reaching(Clip clip, Media media, long end, boolean withFilm) {
    long length = end - clip.startFrame();
    boolean longEnough = songs.lastsUntil(media) >= length;
    Fit fit =
        Fit.of(longEnough ? FitMode.TRIM : FitMode.LOOP, clip.startFrame())
            .withUntilFrame(withFilm ? Optional.empty() : Optional.of(end));
    return !longEnough && songs.song(media).isEmpty()
        ? Repeat.toLength(clip, media.lengthFrames(), length, sampleRate)
        : Fits.fitted(clip.withFit(Optional.of(fit)), media, songs, end, sampleRate);
  }

  private List<Clip> faded(List<Clip> clips) {
    if (clips.isEmpty()) {
      return clips;
    }
    Clip first = clips.getFirst();
    clips.set(0, first.withFadeIn(fade(plan.fadeInSeconds(), Fits.FADE_IN_SECONDS, first)));
    Clip last = clips.getLast();
    clips.set(
        clips.size() - 1,
        last.withFadeOut(fade(plan.fadeOutSeconds(), Fits.FADE_OUT_SECONDS, last)));
    for (Clip clip : List.of(clips.getFirst(), clips.getLast())) {
      if (clip.fadeIn().lengthFrames() + clip.fadeOut().lengthFrames() > clip.lengthFrames()) {
        throw new Problem(
            "The fades of the music are longer than the music itself (%.1f s): shorten them with --fade-in and --fade-out."
                .formatted(clip.lengthFrames() / (double) sampleRate));
      }
    }
    return clips;
  }

  private Fade fade(OptionalDouble askedSeconds, double usualSeconds, Clip clip) {
    long usual = Math.min(Math.round(usualSeconds * sampleRate), clip.lengthFrames() / 3);
    return Fade.ofLength(
        askedSeconds.isPresent() ? Math.round(askedSeconds.getAsDouble() * sampleRate) : usual);
  }

  private void requireAudibleVoices(Project project) {
    for (Clip clip : project.firstTrack(TrackKind.VOICE).orElseThrow().clips()) {
      Media media = project.media(clip.mediaId()).orElseThrow();
      if (!(loudness(library.samples(media, sampleRate)) > -70)) {
        throw new Problem(
            "The narration %s is silent: choose another take.".formatted(media.file()));
      }
    }
    for (FilmPlan.Placed placed : plan.music()) {
      if (!(loudness(library.samples(placed.media(), sampleRate)) > -70)) {
        throw new Problem(
            "The music %s is silent: choose another piece.".formatted(placed.media().file()));
      }
    }
  }

  private double loudness(SampleSource source) {
    return Measurement.of(source, sampleRate, Progress.NONE).integratedLufs();
  }

  /** Lowers the camera sound where it would stand less than 15 LU under a passage's voice. */
  private Project cameraUnderVoice(Project project) {
    Optional<Track> camera = project.firstTrack(TrackKind.CAMERA);
    if (camera.isEmpty()) {
      return project;
    }
    Energies energies = Energies.of(project, loudness);
    EnergySteps voice = energies.sum(Track::isVoice);
    EnergySteps noise = energies.track(camera.get().id());
    double wanted = Math.max(HushRule.AMBIENCE_LU, plan.separationLu() + 5);
    double level = 0;
    for (Span passage : Passages.of(project)) {
      double lu = energies.lufs(voice, passage) - energies.lufs(noise, passage) - wanted;
      level = Double.isFinite(lu) ? Math.min(level, lu) : level;
    }
    double held = Math.max(level, Decibels.OFF_DB + 1);
    return project.withTrack(camera.get().id(), t -> t.withLevelDb(held));
  }

  /**
   * Lowers the whole mix where its true peak would pass -1 dBTP, and says by how much in the level.
   */
  public static Project withinPeak(Project project, double truePeakDbtp) {
    return truePeakDbtp > -1
        ? project.withMasterDb(project.masterDb() - 1 - truePeakDbtp)
        : project;
  }
}
