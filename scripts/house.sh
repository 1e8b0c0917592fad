#!/usr/bin/env bash
# `./melto house save|check|restore <file>`, `leave <folder>`, `passphrase <name>`, `verify`: on the database of MELTO_DATABASE_URL, else on the one that ./start runs, which is started for it where it is not there.
set -euo pipefail
cd "$MELTO_ROOT"
file="${2:-}"
[ "${1:-}" = passphrase ] || case "$file" in "" | /*) ;; *) file="$MELTO_CALLED_IN/$file" ;; esac
bundle=var/cache/server/houseCommand.mjs
[ "${1:-}" != verify ] || bundle=var/cache/server/houseVerify.mjs
[ "${1:-}" != leave ] || bundle=var/cache/server/houseLeave.mjs
if [ ! -f "$bundle" ] || [ -n "$(find {core,services,store,jobs}/src store/migrations package-lock.json -newer "$bundle" -print -quit)" ]; then
  node scripts/bundle.mjs server >&2
fi
if [ -z "${MELTO_DATABASE_URL:-}" ] && [ "${1:-}" != check ]; then
  port="${MELTO_DATABASE_PORT:-3399}"
  folder="$(bash scripts/databaseFolder.sh)"
  if ! MELTO_DATABASE_URL="$(bash scripts/databaseReady.sh "$folder" "$port" 1 2>/dev/null)"; then
    bash scripts/database.sh "$folder" "$port" &
    pid="$!"
    trap 'kill "$pid" 2>/dev/null; wait "$pid" 2>/dev/null || true' EXIT
    MELTO_DATABASE_URL="$(bash scripts/databaseReady.sh "$folder" "$port" 60)"
  fi
  export MELTO_DATABASE_URL
fi
status=0
node "$bundle" "${1:-}" ${file:+"$file"} "${@:3}" || status=$?
exit "$status"
