#!/bin/sh
# A long day in the window in some minutes: bench/soak.sh [--rounds N] [--actions N] [--seed S]
set -eu
root=$(CDPATH='' cd -- "$(dirname -- "$0")/.." && pwd)
cd "$root"
rounds=48 actions=120 seed=1
while [ $# -gt 0 ]; do
  case $1 in
    --rounds) rounds=$2 ;;
    --actions) actions=$2 ;;
    --seed) seed=$2 ;;
    *) echo "Usage: ./hushrise soak [--rounds N] [--actions N] [--seed S]" >&2; exit 2 ;;
  esac
  shift 2
done
mvn -q -B -DskipTests -Dspotless.check.skip -Pbench -pl bench -am package
rm -rf bench/target/soak
mkdir -p bench/target/soak
# What JavaFX holds only softly (its pool of pictures for effects) does not count as held.
exec "$JAVA_HOME/bin/java" -XX:SoftRefLRUPolicyMSPerMB=0 -Xms160m -Xmx512m -XX:+UseSerialGC -XX:MetaspaceSize=128m -Dglass.platform=Headless -Dprism.order=sw \
  --enable-native-access=ALL-UNNAMED --sun-misc-unsafe-memory-access=allow -Djava.util.prefs.userRoot=bench/target/prefs \
  -cp "bench/target/hushrise-bench-0.1.0-SNAPSHOT.jar:bench/target/lib/*" hushrise.bench.Soak demo/data bench/target/soak "$rounds" "$actions" "$seed" \
  2>bench/target/soak.log
