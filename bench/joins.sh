#!/bin/sh
# Fits real, openly licensed music to six lengths and judges the seams; see docs/measuring.md.
# Usage: bench/joins.sh tried|aside|fresh|later|last|orchestra|newest|further|arena|karts [FOLDER]
# It needs apt-get, dpkg and unzip, and keeps the songs in FOLDER.
set -eu
root=$(CDPATH='' cd -- "$(dirname -- "$0")/.." && pwd)
set_name=${1:?tried, aside, fresh, later, last, orchestra, newest, further, arena or karts}
folder=${2:-$root/bench/target/songs}
mkdir -p "$folder/packages" "$folder/unpacked"

packages='neverball-common extremetuxracer-data lincity-ng-data frozen-bubble-data
  supertux-data hyperrogue-music drascula-music planetblupi-music-ogg asc-music'
[ "$set_name" = fresh ] && packages='fillets-ng-data trackballs-data warzone2100-music'
[ "$set_name" = later ] && packages='hedgewars-data supertux-data'
[ "$set_name" = last ] && packages='singularity-music'
[ "$set_name" = orchestra ] && packages='wesnoth-1.16-music'
[ "$set_name" = newest ] && packages='widelands-data unknown-horizons colobot-common-sounds'
[ "$set_name" = further ] && packages='megaglest-data xmoto-data btanks-data'
[ "$set_name" = arena ] && packages='nexuiz-music flare-game redeclipse-data fretsonfire-songs-sectoid'
[ "$set_name" = karts ] && packages='freedroidrpg-data supertuxkart-data berusky2-data'
for package in $packages; do
  if ! ls "$folder/packages/${package}"_*.deb >/dev/null 2>&1; then
    (cd "$folder/packages" && apt-get download -q "$package" >/dev/null)
    dpkg -x "$folder/packages/${package}"_*.deb "$folder/unpacked"
  fi
done

share="$folder/unpacked/usr/share"
case "$set_name" in
  tried) set -- \
    "$share/games/lincity-ng/music/default/02 - Robert van Herk - City Blues.ogg" \
    "$share/games/supertux2/music/antarctic/arctic_breeze.ogg" \
    "$share/scummvm/drascula/audio/track2.ogg" \
    "$share/games/frozen-bubble/snd/frozen-mainzik-1p.ogg" \
    "$share/hyperrogue/music/hr3-caves.ogg" \
    "$share/games/etr/music/race1-jt.ogg" "$share/games/etr/music/spunkyrace-ks.ogg" \
    "$share/games/neverball/bgm/track1.ogg" "$share/games/neverball/bgm/track2.ogg" \
    "$share/games/neverball/bgm/track3.ogg" ;;
  aside) set -- \
    "$share/games/lincity-ng/music/default/01 - pronobozo - lincity.ogg" \
    "$share/games/lincity-ng/music/default/03 - Robert van Herk - Architectural Contemplations.ogg" \
    "$share/games/supertux2/music/misc/battle_theme.ogg" \
    "$share/games/supertux2/music/misc/halloween_1.ogg" \
    "$share/games/supertux2/music/castle/darkforestkeep.ogg" \
    "$share/games/etr/music/calmrace-ks.ogg" "$share/games/etr/music/freezingpoint.ogg" \
    "$share/games/asc/music/frontiers.mp3" \
    "$share/games/frozen-bubble/snd/frozen-mainzik-2p.ogg" \
    "$share/games/frozen-bubble/snd/introzik.ogg" \
    "$share/hyperrogue/music/hr-savino-palace.ogg" "$share/hyperrogue/music/hr3-desert.ogg" \
    "$share/planetblupi/music/music000.ogg" "$share/planetblupi/music/music005.ogg" \
    "$share/scummvm/drascula/audio/track30.ogg" \
    "$share/games/neverball/bgm/track4.ogg" "$share/games/neverball/bgm/track5.ogg" \
    "$share/games/neverball/bgm/track6.ogg" ;;
  fresh)
    balls="$share/games/trackballs/music"
    albums="$share/games/warzone2100/music/albums"
    set -- "$share"/games/fillets-ng/music/rybky02.ogg "$share"/games/fillets-ng/music/rybky06.ogg \
      "$share"/games/fillets-ng/music/rybky07.ogg "$share"/games/fillets-ng/music/rybky15.ogg \
      "$balls/c64revival.ogg" "$balls/crazy.ogg" "$balls/eurovision.ogg" "$balls/tb_design.ogg" \
      "$balls/tb_genesis.ogg" "$balls/tb_hrluebke.ogg" "$balls/tb_plinkeplanke.ogg" \
      "$balls/tb_schizophrenia.ogg" "$balls/tb_sorrow.ogg" \
      "$albums/aftermath_soundtrack/menu_enhanced.opus" "$albums/aftermath_soundtrack/track19.opus" \
      "$albums/aftermath_soundtrack/track22.opus" "$albums/aftermath_soundtrack/track25.opus" \
      "$albums/aftermath_soundtrack/track3_enhanced.opus" "$albums/legacy_soundtrack/track12.opus" \
      "$albums/legacy_soundtrack/track15.opus" "$albums/legacy_soundtrack/track5.opus" \
      "$albums/legacy_soundtrack/track8.opus" "$albums/original_soundtrack/track2.opus" ;;
  later)
    hogs="$share/games/hedgewars/Data/Music"
    woods="$share/games/supertux2/music/forest"
    set -- "$hogs/Art.ogg" "$hogs/Brick.ogg" "$hogs/City.ogg" "$hogs/Desert.ogg" \
      "$hogs/Freeway.ogg" "$hogs/Golf.ogg" "$hogs/Jungle.ogg" "$hogs/Olympics.ogg" \
      "$hogs/Sheep.ogg" "$hogs/hell.ogg" "$hogs/oriental.ogg" "$hogs/snow.ogg" \
      "$woods/beneath_the_rabbit_hole.ogg" "$woods/call_of_the_winding_path.ogg" \
      "$woods/forest-cave.ogg" "$woods/forest.ogg" "$woods/forest3.ogg" "$woods/forestmap.ogg" \
      "$woods/ghostforest2.ogg" "$woods/greatgigantic.ogg" "$woods/shallow-green.ogg" \
      "$woods/wisphunt.ogg" ;;
  last)
    set -- "$share"/games/singularity/music/*.ogg "$share"/games/singularity/music/*/*.ogg ;;
  orchestra) # every second of the longer ones
    pieces="$share/games/wesnoth/1.16/data/core/music"
    set -- "$pieces/battle-epic.ogg" "$pieces/breaking_the_chains.ogg" "$pieces/elvish-theme.ogg" \
      "$pieces/frantic.ogg" "$pieces/into_the_shadows.ogg" "$pieces/knolls.ogg" \
      "$pieces/love_theme.ogg" "$pieces/northern_mountains.ogg" "$pieces/nunc_dimittis.ogg" \
      "$pieces/siege_of_laurelmor.ogg" "$pieces/suspense.ogg" "$pieces/the_dangerous_symphony.ogg" \
      "$pieces/the_king_is_dead.ogg" "$pieces/underground.ogg" "$pieces/weight_of_revenge.ogg" ;;
  newest) # some of the longer ones
    realms="$share/games/widelands/data/music"
    isles="$share/unknown-horizons/content/audio/music"
    robots="$share/games/colobot/music"
    set -- "$realms/ingame_01.ogg" "$realms/ingame_08.ogg" "$realms/ingame_13.ogg" "$realms/ingame_17.ogg" \
      "$realms/ingame_22.ogg" "$realms/ingame_23.ogg" "$realms/ingame_24.ogg" "$realms/ingame_26.ogg" \
      "$isles/irelands_coast.ogg" "$isles/uh_gameplay3.ogg" "$isles/goldenvalley.ogg" \
      "$isles/Peer Gynt Suite No. 1, Op. 46 - I. Morning.ogg" \
      "$robots/Infinite.ogg" "$robots/Humanitarian.ogg" "$robots/Quite.ogg" "$robots/music012.ogg" ;;
  further)
    peoples="$share/games/megaglest/techs/megapack/factions"
    bikes="$share/games/xmoto/Textures/Musics"
    tanks="$share/games/btanks/data/tunes"
    set -- "$peoples/romans/music/romans.ogg" "$peoples/tech/music/music_tech.ogg" \
      "$peoples/persian/music/aminos-together_together.ogg" "$peoples/indian/music/music_indian.ogg" \
      "$peoples/magic/music/music_magic.ogg" "$peoples/norsemen/music/manolo_camp-medieval.ogg" \
      "$peoples/egypt/music/asak-jadeflange.ogg" "$bikes/batcave.ogg" "$bikes/menu.ogg" \
      "$bikes/legolodio.ogg" "$bikes/foxrun.ogg" "$bikes/ridealong.ogg" "$bikes/MadeiraStew.ogg" \
      "$bikes/speeditup.ogg" "$tanks/gameboy.ogg" "$tanks/batterie.ogg" "$tanks/utrennik.ogg" \
      "$tanks/nostalgy.ogg" "$tanks/karbofos.ogg" ;;
  arena)
    tracks="$folder/unpacked/tracks"
    unzip -qn -d "$tracks" "$share/games/nexuiz/data/music.pk3"
    tracks="$tracks/sound/cdtracks"
    lands="$share/games/flare/mods/fantasycore/music"
    beats="$share/games/redeclipse/data/sounds"
    frets="$share/games/fretsonfire/data/songs/sectoid"
    set -- "$tracks/beast-of-insanity.ogg" "$tracks/stairs.ogg" "$tracks/brokenlight.ogg" \
      "$tracks/desert3.ogg" "$tracks/digital-pursuit.ogg" "$tracks/ninesix.ogg" \
      "$tracks/calling-bogus.ogg" "$tracks/northern-lights.ogg" "$tracks/chaos-fog.ogg" \
      "$lands/boss_theme.ogg" "$lands/battle_theme.ogg" "$lands/town_theme.ogg" \
      "$lands/forest_theme.ogg" "$lands/overworld_theme.ogg" "$lands/dungeon_theme.ogg" \
      "$beats/music/track_02.ogg" "$beats/music/track_03.ogg" "$beats/music/track_06.ogg" \
      "$beats/music/track_09.ogg" "$beats/theme.ogg" \
      "$frets/Metal madness/song.ogg" "$frets/Feelings/song.ogg" ;;
  karts) # some of the longer ones
    robots="$share/freedroidrpg/data/sound/music"
    races="$share/games/supertuxkart/data/music"
    beetles="$share/games/berusky2/music"
    set -- "$robots/temple.ogg" "$robots/AmbientBattle.ogg" "$robots/Suspicion.ogg" \
      "$robots/HellFortressEntrance.ogg" "$robots/Ambience.ogg" "$robots/Hyperbattle.ogg" \
      "$robots/town.ogg" "$robots/menu.ogg" "$races/overworld.ogg" "$races/subsea.ogg" \
      "$races/Penguin_Party.ogg" "$races/kart_grand_prix.ogg" "$races/bay.ogg" \
      "$races/SkyVibe-HighFrequency.ogg" "$races/garden.ogg" "$races/xeon6.ogg" \
      "$races/alien_signal.ogg" "$races/Lava.ogg" "$beetles/Relax6.ogg" "$beetles/Cool12.ogg" \
      "$beetles/Piano.ogg" "$beetles/Trip12.ogg" "$beetles/Relax5.ogg" "$beetles/Space.ogg" \
      "$beetles/Emotion.ogg" "$beetles/Freemind.ogg" ;;
  *) echo "Say tried, aside, fresh, later, last, orchestra, newest, further, arena or karts." >&2; exit 2 ;;
esac

cd "$root"
mvn -q -B -DskipTests -Pbench -pl bench,cli -am package
"${JAVA_HOME:+$JAVA_HOME/bin/}java" -Xmx1500m --enable-native-access=ALL-UNNAMED \
  --sun-misc-unsafe-memory-access=allow \
  -cp "bench/target/hushrise-bench-0.1.0-SNAPSHOT.jar:bench/target/lib/*" \
  hushrise.bench.JoinsReport "$@"
