#!/usr/bin/env bash
# Runs a private MariaDB on loopback in the foreground: `database.sh <folder> <port> [options of mariadbd]`. Its password is made on the first
# run and kept in <folder>/password; who waits for it asks `databaseReady.sh <folder>`. `exec` gives the server's own pid.
set -euo pipefail
folder="$1" port="$2"
shift 2
mariadbd="$(command -v mariadbd || echo /usr/sbin/mariadbd)"
mkdir -p "$folder/data" "$folder/tmp"
# Socket paths must be short, whatever the project's folder is called.
run="/tmp/melto-db-$(printf %s "$folder" | sha256sum | cut -c1-12)"
mkdir -p "$run"
user="$(id -un)"
if [ "$(id -u)" = 0 ]; then
  # MariaDB does not run as root; its user must reach the folder without opening the project to it.
  user=nobody
  chown nobody "$run" "$folder"
  chown -R nobody "$folder/data" "$folder/tmp"
fi
if [ ! -d "$folder/data/mysql" ]; then
  # A temporary folder of its own: each server clears away what it finds of others in the one that they would share.
  mariadb-install-db --no-defaults --user="$user" --datadir="$folder/data" --tmpdir="$folder/tmp" --auth-root-authentication-method=normal --skip-test-db >"$folder/install.log" 2>&1 ||
    { cat "$folder/install.log" >&2; exit 1; }
fi
if [ ! -s "$folder/password" ]; then
  (umask 077; head -c 24 /dev/urandom | base64 | tr -d '/+=\n' >"$folder/password")
fi
# At each start the password is set again, before the server listens: nobody else on this machine gets in over TCP.
init="$folder/tmp/init.sql"
(umask 077; cat >"$init" <<SQL
ALTER USER IF EXISTS 'root'@'localhost' IDENTIFIED BY '$(cat "$folder/password")';
DROP USER IF EXISTS 'root'@'127.0.0.1', 'root'@'::1', ''@'localhost';
CREATE USER IF NOT EXISTS 'melto'@'127.0.0.1' IDENTIFIED BY '$(cat "$folder/password")';
ALTER USER 'melto'@'127.0.0.1' IDENTIFIED BY '$(cat "$folder/password")';
GRANT ALL ON *.* TO 'melto'@'127.0.0.1';
CREATE DATABASE IF NOT EXISTS melto;
SQL
)
[ "$user" = nobody ] && chown nobody "$init"
exec "$mariadbd" --no-defaults --user="$user" --datadir="$folder/data" --tmpdir="$folder/tmp" --socket="$run/db.sock" \
  --pid-file="$run/db.pid" --port="$port" --bind-address=127.0.0.1 --skip-name-resolve --log-error="$folder/data/error.log" \
  --character-set-server=utf8mb4 --collation-server=utf8mb4_unicode_ci --max-allowed-packet=256M \
  --innodb-buffer-pool-size=256M --init-file="$init" "$@" >/dev/null 2>&1
