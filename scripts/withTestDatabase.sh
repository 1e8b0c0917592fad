#!/usr/bin/env bash
# Runs a command with MELTO_TEST_DATABASE_URL pointing to a private, empty MariaDB that is stopped afterwards.
set -uo pipefail
root="$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)"
folder="$(mktemp -d /tmp/melto-test.XXXXXX)"
port="${MELTO_TEST_DATABASE_PORT:-3398}"
chmod 755 "$folder"
pid="$(bash "$root/scripts/database.sh" "$folder" "$port")" || exit 1
trap 'kill "$pid" 2>/dev/null; while kill -0 "$pid" 2>/dev/null; do sleep 0.1; done; rm -rf "$folder"' EXIT
export MELTO_TEST_DATABASE_URL="mysql://root@127.0.0.1:$port/melto"
"$@"
