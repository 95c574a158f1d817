#!/bin/sh
# Feeds the readers changed files for some minutes: bench/fuzz.sh [--guided] [--minutes N] [--seed S]
# Guided: Jazzer changes projects, captions and timelines so that they reach code that none has reached before.
set -eu
root=$(CDPATH='' cd -- "$(dirname -- "$0")/.." && pwd)
cd "$root"
minutes=1 seed=1 guided=''
while [ $# -gt 0 ]; do
  case $1 in
    --guided) guided=yes; shift; continue ;;
    --minutes) minutes=$2 ;;
    --seed) seed=$2 ;;
    *) echo "Usage: ./hushrise fuzz [--guided] [--minutes N] [--seed S]" >&2; exit 2 ;;
  esac
  shift 2
done
mvn -q -B -DskipTests -Dspotless.check.skip -Pbench -pl bench -am package
mkdir -p bench/target/fuzz
if [ -n "$guided" ]; then
  mkdir -p bench/target/fuzz/corpus bench/target/fuzz/seeds
  jars="bench/target/hushrise-bench-0.1.0-SNAPSHOT.jar:bench/target/lib/*"
  "$JAVA_HOME/bin/java" -cp "$jars" hushrise.bench.GuidedFuzz demo/data bench/target/fuzz/seeds
  exec "$JAVA_HOME/bin/java" -Xmx1g -cp "$jars" com.code_intelligence.jazzer.Jazzer --target_class=hushrise.bench.GuidedFuzz \
    --instrumentation_includes='hushrise.core.**' --reproducer_path=bench/target/fuzz bench/target/fuzz/corpus bench/target/fuzz/seeds \
    -artifact_prefix=bench/target/fuzz/found- -max_total_time="$(awk -v m="$minutes" 'BEGIN { printf "%d", 60 * m }')" -seed="$seed" -max_len=65536
fi
exec "$JAVA_HOME/bin/java" -Xmx1g --enable-native-access=ALL-UNNAMED --sun-misc-unsafe-memory-access=allow \
  -cp "bench/target/hushrise-bench-0.1.0-SNAPSHOT.jar:bench/target/lib/*" hushrise.bench.Fuzz demo/data bench/target/fuzz "$minutes" "$seed"
