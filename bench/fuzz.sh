#!/bin/sh
# Feeds the readers changed files for some minutes: bench/fuzz.sh [--minutes N] [--seed S]
set -eu
root=$(CDPATH='' cd -- "$(dirname -- "$0")/.." && pwd)
cd "$root"
minutes=1 seed=1
while [ $# -gt 0 ]; do
  case $1 in
    --minutes) minutes=$2 ;;
    --seed) seed=$2 ;;
    *) echo "Usage: ./hushrise fuzz [--minutes N] [--seed S]" >&2; exit 2 ;;
  esac
  shift 2
done
mvn -q -B -DskipTests -Dspotless.check.skip -Pbench -pl bench -am package
mkdir -p bench/target/fuzz
exec "$JAVA_HOME/bin/java" -Xmx1g --enable-native-access=ALL-UNNAMED --sun-misc-unsafe-memory-access=allow \
  -cp "bench/target/hushrise-bench-0.1.0-SNAPSHOT.jar:bench/target/lib/*" hushrise.bench.Fuzz demo/data bench/target/fuzz "$minutes" "$seed"
