#!/bin/sh
# Fits real, openly licensed music to six lengths and judges the seams; see docs/measuring.md.
# Usage: bench/joins.sh tried|aside [FOLDER]     (needs apt-get and dpkg; keeps songs in FOLDER)
set -eu
root=$(CDPATH='' cd -- "$(dirname -- "$0")/.." && pwd)
set_name=${1:?tried or aside}
folder=${2:-$root/bench/target/songs}
mkdir -p "$folder/packages" "$folder/unpacked"

for package in neverball-common extremetuxracer-data lincity-ng-data frozen-bubble-data \
  supertux-data hyperrogue-music drascula-music planetblupi-music-ogg asc-music; do
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
  *) echo "Say tried or aside." >&2; exit 2 ;;
esac

cd "$root"
mvn -q -B -DskipTests -Pbench -pl bench,cli -am package
"${JAVA_HOME:+$JAVA_HOME/bin/}java" -Xmx1500m --enable-native-access=ALL-UNNAMED \
  --sun-misc-unsafe-memory-access=allow \
  -cp "bench/target/hushrise-bench-0.1.0-SNAPSHOT.jar:bench/target/lib/*" \
  hushrise.bench.JoinsReport "$@"
