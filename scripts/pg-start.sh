#!/usr/bin/env bash
# Starts the project's own PostgreSQL on loopback; safe to run again, or twice at once. Prints the connection string of
# the server's role, which owns its database and nothing else; with "test" that of the tests' role, which may make databases.
# MABBIN_PGPORT asks for a port; without it the first free one from 54329 is taken.
set -euo pipefail
. "$(dirname "$0")/pg-env.sh"
mkdir -p "$VAR"
exec 9>"$VAR/.lock"; flock -w 120 9 # a second caller waits; 9>&- below: children must not keep the lock
[ "$(id -u)" != 0 ] || { chown "$OSUSER": "$VAR"; chmod 711 "$VAR"; }
as test -w "$VAR" || fail "user $OSUSER can't write to $VAR: give every folder above it o+x, or set MABBIN_PGDIR."
new_secret() { head -c 64 /dev/urandom | base64 | tr -dc A-Za-z0-9 | head -c 32; }
if [ ! -f "$DATA/PG_VERSION" ]; then
  as rm -rf "$DATA.new"
  secret=$(new_secret)
  as sh -c 'umask 077; cat >"$1"' - "$PASSFILE" <<<"127.0.0.1:*:*:mabbin:$secret"
  as sh -c 'umask 077; cat >"$1"' - "$VAR/secret" <<<"$secret"
  as "$PGBIN/initdb" -D "$DATA.new" -U mabbin -A scram-sha-256 --pwfile="$VAR/secret" --data-checksums -E UTF8 --locale=C.UTF-8 --no-sync >"$VAR/initdb.log" 2>&1 9>&- \
    || { tail -n 5 "$VAR/initdb.log" >&2; fail "the database could not be made; see $VAR/initdb.log."; }
  as rm -f "$VAR/secret"
  as mv "$DATA.new" "$DATA" # a half-made cluster never gets the real name
fi
taken() { (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }
first=54329
free_port() {
  if [ -n "${MABBIN_PGPORT:-}" ]; then
    ! taken "$MABBIN_PGPORT" || fail "port $MABBIN_PGPORT is taken by another program: choose another with MABBIN_PGPORT."
    echo "$MABBIN_PGPORT"; return
  fi
  for p in $(seq "$first" 54399); do taken "$p" || { echo "$p"; return; }; done
  fail "no free port for the database from 54329 to 54399: choose one with MABBIN_PGPORT."
}
port() { as sed -n 4p "$DATA/postmaster.pid" 2>/dev/null || true; }
ready() { as "$PGBIN/pg_isready" -q -h 127.0.0.1 -p "$(port)" -U mabbin -d postgres; }
# A file a weekday, each begun anew after a week; neither statements nor what was in them, for somebody searched by it.
LOGGING="-c logging_collector=on -c log_directory=log -c log_filename=postgresql-%a.log -c log_truncate_on_rotation=on"
LOGGING="$LOGGING -c log_rotation_age=1d -c log_rotation_size=0 -c log_min_error_statement=panic -c log_error_verbosity=terse"
for _ in $(seq 60); do
  if running; then
    ! ready || break # else starting up, or a killed server not yet reaped
    sleep 0.5
  else
    new=$(free_port)
    if as "$PGBIN/pg_controldata" -D "$DATA" | grep -q 'checksum version: *0$'; then # made before they were asked for
      as "$PGBIN/pg_checksums" --enable -D "$DATA" >/dev/null 2>&1 9>&- || true # after a crash: at the next start
    fi
    if ! as "$PGBIN/pg_ctl" -D "$DATA" -l "$LOG" -w -t 60 -s start </dev/null >/dev/null 2>&1 9>&- \
      -o "-p $new -c listen_addresses=127.0.0.1 -c unix_socket_directories='' $LOGGING"; then
      # a port that nobody listens at may still be one end of a connection: the next one is tried
      if [ -z "${MABBIN_PGPORT:-}" ] && [ "$new" -lt 54399 ] \
        && as sh -c 'grep -hq "Address already in use" "$1"/log/*' - "$DATA"; then
        first=$((new + 1)); continue
      fi
      as tail -n 5 "$LOG" >&2
      fail "the database could not be started; its last words are above, the rest is in $LOG and $DATA/log."
    fi
  fi
done
ready || fail "the database does not answer; see $LOG."
psql() { as env PGPASSFILE="$PASSFILE" "$PGBIN/psql" -h 127.0.0.1 -p "$(port)" -U mabbin -d "${2:-postgres}" -v ON_ERROR_STOP=1 -Atqc "$1"; }
# role NAME RIGHTS: a role with a password of its own, kept beside the first one's.
role() {
  [ "$(psql "select 1 from pg_roles where rolname = '$1'")" != 1 ] || return 0
  secret=$(new_secret)
  as sh -c 'umask 077; sed -i "/:$2:/d" "$1"; cat >>"$1"' - "$PASSFILE" "$1" <<<"127.0.0.1:*:*:$1:$secret"
  psql "create role $1 login nosuperuser nocreaterole $2 password '$secret'" # last: a role that is there has its password kept
}
role mabbin_server nocreatedb
role mabbin_test createdb
[ "$(psql "select 1 from pg_database where datname = 'mabbin'")" = 1 ] || psql "create database mabbin owner mabbin_server"
if [ "$(psql "select pg_get_userbyid(datdba) from pg_database where datname = 'mabbin'")" != mabbin_server ]; then
  psql "do \$\$ declare x record; begin
    for x in select format('alter %s %s owner to mabbin_server', case relkind when 'S' then 'sequence' else 'table' end, oid::regclass) as sql
      from pg_class where relnamespace = 'public'::regnamespace and relkind in ('r', 'S') and not exists
      (select from pg_depend where objid = pg_class.oid and deptype in ('a', 'i', 'e')) loop execute x.sql; end loop;
    for x in select format('alter function %s owner to mabbin_server', p.oid::regprocedure) as sql from pg_proc p
      where pronamespace = 'public'::regnamespace and not exists (select from pg_depend where objid = p.oid and deptype = 'e')
      loop execute x.sql; end loop; end \$\$" mabbin
  psql "alter database mabbin owner to mabbin_server"
fi
case ${1:-} in
  test) echo "postgres://mabbin_test@127.0.0.1:$(port)/postgres?sslmode=disable&passfile=$PASSFILE" ;;
  *) echo "postgres://mabbin_server@127.0.0.1:$(port)/mabbin?sslmode=disable&passfile=$PASSFILE" ;;
esac
