#!/usr/bin/env bash
# Refreshes docs/screenshots from a running Melto with a freshly loaded sample house.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
shot() { node scripts/screenshot.mjs "$@"; }
out=docs/screenshots
shot / "$out/floor.png"
shot /read/WRN-0005-1 "$out/reading-desk.png"
shot '/readings/1?patch=200' "$out/reading.png"
shot /conditions/1/profile "$out/profile.png"
shot /conditions/7/conformity "$out/conformity.png"
shot /conditions/6/watch "$out/watch.png"
shot /runs/8 "$out/run.png"
shot /runs/7/analysis "$out/run-analysis.png"
shot /conditions/6/evenness "$out/evenness.png"
shot /conditions/6/study "$out/study.png" wait 'role=combobox[name="Light"]' 'role=option[name="Gallery track"]' 'role=button[name="Field 9"]' 'role=button[name="Field 9"]'
shot /conditions/6/profile "$out/press-profile.png"
shot /conditions/6/curves "$out/curves.png"
shot /conditions/6/balance "$out/balance.png"
shot /conditions/10/profile/build "$out/build-profile.png" wait
shot '/gamut?more=aims-2' "$out/gamut.png" wait
shot /proof "$out/soft-proof.png" wait
shot /library/profiles "$out/profiles.png" wait
# A colour list on every condition.
lists="$(mktemp -d)"
node -e 'const rows = ["name,L,a,b"]; for (let i = 0; i < 60; i++) { const h = (i * 137.5 * Math.PI) / 180, c = 12 + (i % 6) * 14; rows.push(`Saltmarsh ${i + 1},${30 + (i % 5) * 13},${(c * Math.cos(h)).toFixed(1)},${(c * Math.sin(h)).toFixed(1)}`); } console.log(rows.join("\n"));' >"$lists/seed-catalogue.csv"
shot /where "$out/where.png" wait "file:$lists/seed-catalogue.csv" key:Shift key:Shift key:Shift
# A file of measurements that does not tell its mode, before it is taken.
folder="$(mktemp -d)"
trap 'rm -rf "$folder" "$lists"' EXIT
url="${MELTO_URL:-http://127.0.0.1:3400}"
chart="$(curl -s "$url/conditions/5/profile" | grep -o '/api/charts/[0-9]*/file?format=txt' | head -1)"
curl -s "$url$chart" >"$folder/chart.txt"
./melto simulate read --device wren --stock quay-proof-200 --chart "$folder/chart.txt" --out "$folder/read.txt" >/dev/null
grep -v MEASUREMENT_MODE "$folder/read.txt" >"$folder/quay-proof.txt"
shot /read/WRN-0006-1 "$out/import.png" "file:$folder/quay-proof.txt" key:Shift
