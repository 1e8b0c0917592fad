#!/usr/bin/env bash
# Builds the application where a source is newer than the build.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
mkdir -p var
stamp=var/build.stamp
sources="$(git ls-files -co --exclude-standard -- '*.ts' '*.tsx' '*.mjs' '*.json' '*.css' 2>/dev/null | grep -vE '\.test\.tsx?$|^e2e/|^bench/' | xargs -r ls -d 2>/dev/null | xargs sha256sum | sha256sum | cut -d' ' -f1)"
if [ ! -d web/.next ] || [ "$(cat "$stamp" 2>/dev/null)" != "$sources" ]; then
  echo "Building"
  npm run --silent build
  echo "$sources" >"$stamp"
fi
