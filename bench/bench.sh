#!/bin/sh
# Prints the speed figures: mixing in memory (JMH), then whole processes against the FFmpeg program
# doing the same work in the same run. Ratios over 1 mean that Hush Rise is faster.
set -eu
root=$(CDPATH='' cd -- "$(dirname -- "$0")/.." && pwd)
cd "$root"
mvn -q -B -DskipTests -Dspotless.check.skip -Pbench -pl bench,cli -am package
java=$JAVA_HOME/bin/java
# As the launcher has it: what works unseen stands back behind drawing and sound.
on_linux="-XX:ThreadPriorityPolicy=1 -XX:CompilerThreadPriority=10 -XX:+UseTransparentHugePages -XX:-PrintWarnings"
jars="bench/target/hushrise-bench-0.1.0-SNAPSHOT.jar:bench/target/lib/*"

echo "== mixing three stereo tracks in memory, one core (60 s / score = real-time factor)"
"$java" --sun-misc-unsafe-memory-access=allow -cp "$jars" org.openjdk.jmh.Main -rf csv -rff bench/target/mix.csv ".*${1:-MixBenchmark}.*" >bench/target/jmh.log 2>&1 || { tail -20 bench/target/jmh.log; exit 1; }
awk -F, 'NR > 1 { gsub(/"/, ""); printf "keyframes %5s: %7.2f ms a minute = %6.0f x real time\n", $NF, $5, 60000 / $5 }' bench/target/mix.csv

echo "== listening to a 4-minute song, one core"
taskset -c 0 "$java" --sun-misc-unsafe-memory-access=allow -cp "$jars" hushrise.bench.ListenBenchmark 2>/dev/null ||
  "$java" --sun-misc-unsafe-memory-access=allow -cp "$jars" hushrise.bench.ListenBenchmark

echo "== finding speech, drafting hushes, the separation after an edit"
voice=$(mktemp -d)
"$java" --enable-native-access=ALL-UNNAMED --sun-misc-unsafe-memory-access=allow -cp "$jars" hushrise.bench.VoiceBenchmark demo/data "$voice" 2>bench/target/voice.log ||
  { tail -20 bench/target/voice.log; exit 1; }
rm -rf "$voice"

echo "== edits of long projects: in proportion, or by the square"
"$java" -Xmx1g -cp "$jars" hushrise.bench.GrowthBenchmark 500

echo "== scroll, zoom and drag: 2 hours, 12 tracks, 5 000 keyframes, 1280x800, software drawing"
rm -f app/target/.built # so that Java's cache is of what has just been built
./hushrise demo --shot bench/target/demo.png >/dev/null
app="$root/app/target/hushrise-app-0.1.0-SNAPSHOT.jar"
for jar in "$root"/app/target/lib/*.jar; do app="$app:$jar"; done
"$java" -XX:AOTCache=app/target/classes.aot $on_linux -Xms160m -Xmx256m -XX:+UseSerialGC -XX:+AlwaysPreTouch -XX:MetaspaceSize=128m -Dglass.platform=Headless -Dprism.order=sw \
  --enable-native-access=ALL-UNNAMED,javafx.graphics --sun-misc-unsafe-memory-access=allow --module-path "$root/app/target/javafx" --add-modules javafx.controls \
  -Djava.util.prefs.userRoot=bench/target/prefs -cp "$app:bench/target/hushrise-bench-0.1.0-SNAPSHOT.jar" hushrise.bench.WindowBenchmark 2>bench/target/window.log ||
  { tail -20 bench/target/window.log; exit 1; }

echo "== playing two hours on twelve tracks at the real pace for two minutes, with seeks and edits"
"$java" $on_linux -Xms160m -Xmx256m -XX:+UseSerialGC -XX:+AlwaysPreTouch -XX:MetaspaceSize=128m --enable-native-access=ALL-UNNAMED --sun-misc-unsafe-memory-access=allow -cp "$jars" hushrise.bench.PlayBenchmark 2>/dev/null

echo "== the loudness of the film of two hours on twelve tracks, and after edits of it"
"$java" --enable-native-access=ALL-UNNAMED --sun-misc-unsafe-memory-access=allow -cp "$jars" hushrise.bench.FilmBenchmark 2>/dev/null

echo "== noting every step of the film of two hours in the journal, and giving it back"
"$java" $on_linux -Xmx512m --enable-native-access=ALL-UNNAMED --sun-misc-unsafe-memory-access=allow -cp "$jars" hushrise.bench.JournalBenchmark 2>/dev/null

echo "== adding a file that was never decoded here"
"$java" $on_linux -Xmx512m --enable-native-access=ALL-UNNAMED --sun-misc-unsafe-memory-access=allow -cp "$jars" hushrise.bench.AddBenchmark demo/data 2>/dev/null

command -v ffmpeg >/dev/null 2>&1 || {
  echo "The yardstick is the FFmpeg program: install it (on Debian: apt-get install ffmpeg) for the ratios."
  exit 0
}
dir=$(mktemp -d)
trap 'rm -rf "$dir"' EXIT
export HUSHRISE_CACHE="$dir/cache"
ff() { ffmpeg -v error -y "$@"; }
ff -f lavfi -i "anoisesrc=d=600:c=pink:r=48000:a=0.4" -af "aformat=channel_layouts=stereo,volume='0.6+0.4*sin(t)':eval=frame" -c:a pcm_s16le "$dir/music.wav"
ff -f lavfi -i "anoisesrc=d=60:c=brown:r=48000:a=0.5" -ac 1 -c:a pcm_s16le "$dir/voice.wav"
ff -f lavfi -i "testsrc2=s=640x360:r=25:d=600" -c:v libx264 -preset ultrafast -b:v 1M "$dir/film.mp4"
# The project that both render: narration at 60 s and 300 s, the music dipping by 12 dB under it.
./hushrise make --picture "$dir/film.mp4" --voice "$dir/voice.wav@60" --voice "$dir/voice.wav@300" --music "$dir/music.wav" --to "$dir/first.wav" --save "$dir/p.hushrise" >/dev/null

graph="[1:a]volume='if(between(t,59.6,120.9)+between(t,299.6,360.9),0.25,1)':eval=frame,afade=t=in:d=2,afade=t=out:st=596:d=4[m];[2:a]adelay=60000:all=1[a];[3:a]adelay=300000:all=1[b];[m][a][b]amix=inputs=3:duration=first:normalize=0[out]"

# Times two commands in turn, five times after one warm-up, and prints medians and their ratio.
versus() { # name ours theirs
  : >"$dir/ours"; : >"$dir/theirs"
  for run in 0 1 2 3 4 5; do
    for who in ours theirs; do
      [ $who = ours ] && command=$2 || command=$3
      start=$(date +%s%N)
      sh -c "$command" >/dev/null 2>&1
      end=$(date +%s%N)
      [ $run = 0 ] || echo $(((end - start) / 1000000)) >>"$dir/$who"
    done
  done
  a=$(sort -n "$dir/ours" | sed -n 3p)
  b=$(sort -n "$dir/theirs" | sed -n 3p)
  awk -v n="$1" -v a="$a" -v b="$b" 'BEGIN { printf "%-44s %6d ms against %6d ms: ratio %.2f\n", n, a, b, b / a }'
}

echo "== whole processes against FFmpeg ($(ffmpeg -version | head -n 1 | cut -d' ' -f3)), medians of 5"
versus "10 minutes, WAV in, WAV out" \
  "./hushrise render $dir/p.hushrise --to $dir/ours.wav" \
  "ffmpeg -v error -y -i $dir/film.mp4 -i $dir/music.wav -i $dir/voice.wav -i $dir/voice.wav -filter_complex \"$graph\" -map '[out]' -c:a pcm_s24le $dir/theirs.wav"
versus "10-minute film, picture copied, AAC 256 kbit/s" \
  "./hushrise render $dir/p.hushrise --to $dir/ours.mp4" \
  "ffmpeg -v error -y -i $dir/film.mp4 -i $dir/music.wav -i $dir/voice.wav -i $dir/voice.wav -filter_complex \"$graph\" -map 0:v -c:v copy -map '[out]' -c:a aac -b:a 256k $dir/theirs.mp4"
versus "make of that, from raw files, nothing read before" \
  "rm -rf $dir/cold; HUSHRISE_CACHE=$dir/cold ./hushrise make --picture $dir/film.mp4 --voice demo/data/narration-1.flac@20 --voice demo/data/narration-2.flac@200 --voice demo/data/narration-3.flac@400 --music demo/data/harbour-tune.mp3 --to $dir/raw.mp4" \
  "ffmpeg -v error -y -i $dir/film.mp4 -i $dir/music.wav -i $dir/voice.wav -i $dir/voice.wav -filter_complex \"$graph\" -map 0:v -c:v copy -map '[out]' -c:a aac -b:a 256k $dir/theirs.mp4"
versus "loudness with range and true peak, 10 minutes" \
  "./hushrise measure $dir/music.wav" \
  "ffmpeg -nostats -i $dir/music.wav -filter_complex ebur128=peak=true -f null -"
