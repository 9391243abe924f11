#!/usr/bin/env bash
# Installs the Debian packages that are missing: need.sh database|browser ...
set -euo pipefail
declare -A package=([database]=postgresql [browser]=chromium)
declare -A why=([database]="the database that keeps cards and bakes" [browser]="the browser that the tests drive")
has() {
  case $1 in
    database) compgen -G '/usr/lib/postgresql/*/bin/postgres' >/dev/null ;;
    browser) [ -x /usr/bin/chromium ] ;;
  esac
}
missing=()
for what in "$@"; do has "$what" || missing+=("$what"); done
[ ${#missing[@]} -gt 0 ] || exit 0
names=()
for what in "${missing[@]}"; do echo "Installing ${package[$what]}: ${why[$what]}."; names+=("${package[$what]}"); done
if [ "$(id -u)" = 0 ]; then root=()
elif command -v sudo >/dev/null && { sudo -n true 2>/dev/null || [ -t 0 ]; }; then root=(sudo)
else echo "mabbin: ${names[*]} must be installed and there is no root here: ask an administrator for 'apt-get install ${names[*]}', then run this again." >&2; exit 1; fi
command -v apt-get >/dev/null || { echo "mabbin: ${names[*]} must be installed and this is no Debian: install it, then run this again." >&2; exit 1; }
log=$(mktemp)
trap 'rm -f "$log"' EXIT
if ! { "${root[@]}" apt-get update -qq && "${root[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -y --no-install-recommends "${names[@]}"; } >"$log" 2>&1; then
  tail -n 5 "$log" >&2
  echo "mabbin: apt-get could not install ${names[*]}; its last words are above." >&2
  exit 1
fi
