#!/usr/bin/env bash
# Waits until the MariaDB of <folder> on <port> answers and prints its address: `databaseReady.sh <folder> <port> [seconds]`.
set -uo pipefail
folder="$1" port="$2"
for _ in $(seq 1 $((${3:-30} * 5))); do
  if [ -s "$folder/password" ] && mariadb --no-defaults -h 127.0.0.1 -P "$port" -u melto "-p$(cat "$folder/password")" -e 'SELECT 1' melto >/dev/null 2>&1; then
    echo "mysql://melto:$(cat "$folder/password")@127.0.0.1:$port/melto"
    exit 0
  fi
  sleep 0.2
done
echo "MariaDB did not answer within ${3:-30} s" >&2
tail -5 "$folder/data/error.log" >&2 2>/dev/null
exit 1
