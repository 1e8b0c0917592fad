#!/usr/bin/env bash
# Installs Debian's packages and the npm packages that are missing. Needs Node.js and apt.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
mkdir -p var
missing=()
command -v mariadbd >/dev/null || [ -x /usr/sbin/mariadbd ] || missing+=(mariadb-server)
[ -x /usr/bin/chromium-headless-shell ] || missing+=(chromium-headless-shell)
command -v transicc >/dev/null || missing+=(liblcms2-utils)
[ -d /usr/share/doc/icc-profiles-free ] || missing+=(icc-profiles-free)
command -v pdftoppm >/dev/null || missing+=(poppler-utils)
debian=
if [ "${#missing[@]}" -gt 0 ]; then
  # Beside the npm packages: one waits for disks while the other waits for the network.
  echo "Installing ${missing[*]}"
  {
    apt-get update -qq &&
      DEBIAN_FRONTEND=noninteractive apt-get -o DPkg::Lock::Timeout=400 install -y -qq --no-install-recommends "${missing[@]}"
  } >var/apt.log 2>&1 &
  debian=$!
fi
stamp="var/npm.stamp"
hash="$(sha256sum package-lock.json | cut -d' ' -f1)"
if [ ! -d node_modules ] || [ "$(cat "$stamp" 2>/dev/null)" != "$hash" ]; then
  echo "Installing the npm packages"
  npm ci --include=dev --no-audit --no-fund --loglevel=error
  echo "$hash" >"$stamp"
fi
[ -z "$debian" ] || wait "$debian" || { tail -5 var/apt.log >&2; exit 1; }
