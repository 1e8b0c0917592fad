#!/usr/bin/env bash
# Runs a command with MELTO_TEST_DATABASE_URL pointing to a private, empty MariaDB that is stopped afterwards.
set -uo pipefail
root="$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)"
folder="$(mktemp -d /tmp/melto-test.XXXXXX)"
port="${MELTO_TEST_DATABASE_PORT:-3398}"
chmod 755 "$folder"
# Nothing of it outlives the run, so nothing has to be safe from a loss of power.
bash "$root/scripts/database.sh" "$folder" "$port" --innodb-flush-method=nosync --innodb-flush-log-at-trx-commit=0 --skip-innodb-doublewrite --sync-frm=0 &
pid="$!"
trap 'kill "$pid" 2>/dev/null; wait "$pid" 2>/dev/null; rm -rf "$folder"' EXIT
MELTO_TEST_DATABASE_URL="$(bash "$root/scripts/databaseReady.sh" "$folder" "$port")" || exit 1
export MELTO_TEST_DATABASE_URL
"$@"
