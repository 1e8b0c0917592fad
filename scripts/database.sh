#!/usr/bin/env bash
# Starts a private MariaDB on loopback: `database.sh <folder> <port>`. Prints the server's process id once it answers.
set -euo pipefail
folder="$1" port="$2"
mariadbd="$(command -v mariadbd || echo /usr/sbin/mariadbd)"
mkdir -p "$folder"
# Socket paths must be short, whatever the project's folder is called.
run="$(mktemp -d /tmp/melto-db.XXXXXX)"
user=root
if [ "$(id -u)" = 0 ]; then
  user=nobody
  # The server's user must reach the folder without opening the project to it.
  chown nobody "$run"
fi
mkdir -p "$folder/data" "$folder/tmp"
[ "$user" = nobody ] && chown -R nobody "$folder"
if [ ! -d "$folder/data/mysql" ]; then
  mariadb-install-db --no-defaults --user="$user" --datadir="$folder/data" --auth-root-authentication-method=normal --skip-test-db >"$folder/install.log" 2>&1
fi
"$mariadbd" --no-defaults --user="$user" --datadir="$folder/data" --tmpdir="$folder/tmp" --socket="$run/db.sock" \
  --pid-file="$run/db.pid" --port="$port" --bind-address=127.0.0.1 --skip-name-resolve --log-error="$run/err.log" \
  --character-set-server=utf8mb4 --collation-server=utf8mb4_unicode_ci --max-allowed-packet=256M \
  --innodb-buffer-pool-size=256M >/dev/null 2>&1 &
pid=$!
for _ in $(seq 1 150); do
  if mariadb --no-defaults --socket="$run/db.sock" --user=root -e 'SELECT 1' >/dev/null 2>&1; then
    mariadb --no-defaults --socket="$run/db.sock" --user=root -e 'CREATE DATABASE IF NOT EXISTS melto'
    echo "$pid"
    exit 0
  fi
  kill -0 "$pid" 2>/dev/null || { cat "$run/err.log" >&2; exit 1; }
  sleep 0.2
done
echo "MariaDB did not answer within 30 s" >&2
cat "$run/err.log" >&2
exit 1
