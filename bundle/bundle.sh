#!/bin/sh
# Makes the program with its own Java runtime in bundle/target/bundle, and a .deb where Debian's tools are.
set -eu
root=$(CDPATH='' cd -- "$(dirname -- "$0")/.." && pwd)
cd "$root"
echo "Building (the first time takes a few minutes) ..." >&2
mvn -q -B -Dmaven.test.skip -Dspotless.check.skip -Pbundle -pl bundle -am package dependency:build-classpath -Dmdep.outputFile=target/classpath -Dmdep.includeScope=runtime
"${JAVA_HOME:+$JAVA_HOME/bin/}java" -cp "bundle/target/classes:$(cat bundle/target/classpath)" hushrise.bundle.MakeBundle "$root"
