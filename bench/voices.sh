#!/bin/sh
# Looks for speech in real recordings of acted and of read voices; see docs/measuring.md.
# Usage: bench/voices.sh [FOLDER]
# It needs apt-get and dpkg, and keeps the recordings in FOLDER.
set -eu
root=$(CDPATH='' cd -- "$(dirname -- "$0")/.." && pwd)
folder=${1:-$root/bench/target/voices}
mkdir -p "$folder/packages" "$folder/unpacked"
for package in fillets-ng-data-cs fillets-ng-data-nl asterisk-core-sounds-fr-wav \
  asterisk-core-sounds-it-wav asterisk-core-sounds-ru-wav asterisk-core-sounds-es-wav; do
  if ! ls "$folder/packages/${package}"_*.deb >/dev/null 2>&1; then
    (cd "$folder/packages" && apt-get download -q "$package" >/dev/null)
    dpkg -x "$folder/packages/${package}"_*.deb "$folder/unpacked"
  fi
done

cd "$root"
mvn -q -B -DskipTests -Pbench -pl bench,cli -am package
echo "| voices | recordings | speech | not found | over 0.3 s of it | nearly all of it |"
echo "|---|---|---|---|---|---|"
# A name, and the folders of its recordings; what holds no more than a head is left out.
report() {
  name=$1
  shift
  find "$@" -maxdepth 1 -type f -size +2k -name '[e-z]*' | sort | tr '\n' '\0' |
    xargs -0 "${JAVA_HOME:+$JAVA_HOME/bin/}java" -Xmx1500m --enable-native-access=ALL-UNNAMED \
      --sun-misc-unsafe-memory-access=allow \
      -cp "bench/target/hushrise-bench-0.1.0-SNAPSHOT.jar:bench/target/lib/*" \
      hushrise.bench.VoicesReport "$name" "$folder/cache" 2>/dev/null
}
share="$folder/unpacked/usr/share"
fillets="$share/games/fillets-ng/sound"
prompts="$share/asterisk/sounds"
report "acted, Czech" "$fillets"/*/cs "$fillets"/share/*/cs
report "acted, Dutch" "$fillets"/*/nl "$fillets"/share/*/nl
report "read, French" "$prompts/fr_CA_f_June"
report "read, Italian" "$prompts/it_IT_m_Carlo"
report "read, Russian" "$prompts/ru_RU_f_IvrvoiceRU"
report "read, Spanish" "$prompts/es_MX_f_Allison"
