#!/usr/bin/env bash
# Makes and prints the folder of the database that ./start runs. MariaDB runs as a user of its own who must reach it: below var/ where that can be, else below /var/lib.
set -euo pipefail
root="$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)"
folder="$root/var/database"
mkdir -p "$folder"
if [ "$(id -u)" = 0 ] && ! su -s /bin/sh nobody -c "test -x '$folder'" 2>/dev/null; then
  folder="/var/lib/melto-$(printf %s "$root" | sha256sum | cut -c1-12)"
  mkdir -p "$folder"
fi
echo "$folder"
