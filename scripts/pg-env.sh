# Sourced by the pg-*.sh scripts: where the project's own PostgreSQL lives, and how to act as its owner.
ROOT=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)
PGBIN=$(compgen -G '/usr/lib/postgresql/*/bin' | sort -V | tail -n 1)
fail() { echo "mabbin: $*" >&2; exit 1; }
[ -n "$PGBIN" ] || fail "PostgreSQL is not installed: run scripts/need.sh database."
# postgres refuses to run as root, so as root everything is done as the OS user "postgres".
if [ "$(id -u)" = 0 ]; then OSUSER=postgres; as() { runuser -u "$OSUSER" -- env -u PGDATA HOME=/tmp "$@"; }
else OSUSER=$(id -un); as() { env -u PGDATA "$@"; }; fi
VAR=${MABBIN_PGDIR:-$ROOT/var/pg}
if [ -z "${MABBIN_PGDIR:-}" ] && ! as test -x "$ROOT"; then # a checkout below a closed home: the owner can't get in
  VAR=/var/lib/mabbin-$(printf %s "$ROOT" | cksum | cut -d' ' -f1)
fi
DATA=$VAR/data; LOG=$VAR/server.log; PASSFILE=$VAR/password
cd / # the caller's folder may be closed to the owner
running() { [ -f "$DATA/PG_VERSION" ] && as "$PGBIN/pg_ctl" -D "$DATA" status >/dev/null 2>&1; }
