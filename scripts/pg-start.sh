#!/usr/bin/env bash
# Starts the project's own PostgreSQL on loopback; safe to run again, or twice at once. Prints its connection string.
# MABBIN_PGPORT asks for a port; without it the first free one from 54329 is taken.
set -euo pipefail
. "$(dirname "$0")/pg-env.sh"
mkdir -p "$VAR"
exec 9>"$VAR/.lock"; flock -w 120 9 # a second caller waits; 9>&- below: children must not keep the lock
[ "$(id -u)" != 0 ] || { chown "$OSUSER": "$VAR"; chmod 711 "$VAR"; }
as test -w "$VAR" || fail "user $OSUSER can't write to $VAR: give every folder above it o+x, or set MABBIN_PGDIR."
if [ ! -f "$DATA/PG_VERSION" ]; then
  as rm -rf "$DATA.new"
  secret=$(head -c 64 /dev/urandom | base64 | tr -dc A-Za-z0-9 | head -c 32)
  as sh -c 'umask 077; cat >"$1"' - "$PASSFILE" <<<"127.0.0.1:*:*:mabbin:$secret"
  as sh -c 'umask 077; cat >"$1"' - "$VAR/secret" <<<"$secret"
  as "$PGBIN/initdb" -D "$DATA.new" -U mabbin -A scram-sha-256 --pwfile="$VAR/secret" -E UTF8 --locale=C.UTF-8 --no-sync >"$VAR/initdb.log" 2>&1 9>&- \
    || { tail -n 5 "$VAR/initdb.log" >&2; fail "the database could not be made; see $VAR/initdb.log."; }
  as rm -f "$VAR/secret"
  as mv "$DATA.new" "$DATA" # a half-made cluster never gets the real name
fi
taken() { (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }
free_port() {
  if [ -n "${MABBIN_PGPORT:-}" ]; then
    ! taken "$MABBIN_PGPORT" || fail "port $MABBIN_PGPORT is taken by another program: choose another with MABBIN_PGPORT."
    echo "$MABBIN_PGPORT"; return
  fi
  for p in $(seq 54329 54399); do taken "$p" || { echo "$p"; return; }; done
  fail "no free port for the database from 54329 to 54399: choose one with MABBIN_PGPORT."
}
port() { as sed -n 4p "$DATA/postmaster.pid" 2>/dev/null || true; }
ready() { as "$PGBIN/pg_isready" -q -h 127.0.0.1 -p "$(port)" -U mabbin -d postgres; }
for _ in $(seq 60); do
  if running; then
    ! ready || break # else starting up, or a killed server not yet reaped
    sleep 0.5
  else
    new=$(free_port)
    as "$PGBIN/pg_ctl" -D "$DATA" -l "$LOG" -w -t 60 -s start </dev/null >/dev/null 2>&1 9>&- \
      -o "-p $new -c listen_addresses=127.0.0.1 -c unix_socket_directories=''" \
      || { as tail -n 5 "$LOG" >&2; fail "the database could not be started; its last words are above, the rest is in $LOG."; }
  fi
done
ready || fail "the database does not answer; see $LOG."
psql() { as env PGPASSFILE="$PASSFILE" "$PGBIN/psql" -h 127.0.0.1 -p "$(port)" -U mabbin -d postgres -v ON_ERROR_STOP=1 -Atqc "$1"; }
[ "$(psql "select 1 from pg_database where datname = 'mabbin'")" = 1 ] || psql "create database mabbin"
echo "postgres://mabbin@127.0.0.1:$(port)/mabbin?sslmode=disable&passfile=$PASSFILE"
