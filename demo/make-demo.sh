#!/bin/sh
# Makes the files of the demo anew: speaks the takes with flite, then draws and composes the rest.
set -eu
root=$(CDPATH='' cd -- "$(dirname -- "$0")/.." && pwd)
command -v flite >/dev/null 2>&1 || {
  echo "The takes are spoken by flite: install it (on Debian: apt-get install flite)." >&2
  exit 1
}
spoken=$(mktemp -d)
trap 'rm -rf "$spoken"' EXIT

say() { flite -voice slt --setf duration_stretch=1.08 -o "$spoken/spoken-$1.wav" -t "$2"; }
say 1 "Every morning, at ten to six, the first ferry leaves the old quay. There are never many on board. The baker's daughter, two fishermen, and the post."
say 2 "The crossing to Orrin Skerry takes forty minutes. On a clear day you can see the light from here. On other days, you listen for the bell. Everybody on this boat knows that sound."
say 3 "Nobody talks much before the halfway mark. Then somebody opens a flask, and the stories begin."
say 4 "By the time the sun is over the rail, the island has a colour again. The ropes go out, the engine slows, and the day can start."

cd "$root"
mvn -q -B -DskipTests -Dspotless.check.skip -pl demo -am package dependency:build-classpath -Dmdep.outputFile=target/classpath -Dmdep.includeScope=runtime
HUSHRISE_CACHE="$spoken/cache" "${JAVA_HOME:+$JAVA_HOME/bin/}java" --enable-native-access=ALL-UNNAMED \
  -cp "demo/target/classes:$(cat demo/target/classpath)" hushrise.demo.MakeDemo "$spoken" demo/data
ls -l demo/data
