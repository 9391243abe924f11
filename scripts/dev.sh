#!/usr/bin/env bash
# The page hot-reloaded by vite, the server rebuilt and restarted when a Go file or a table changes.
set -euo pipefail
here=$(cd "$(dirname "$0")/.." && pwd)
cd "$here"
MABBIN_DB=$(scripts/pg-start.sh)
export MABBIN_DB
server=
stop() { [ -z "$server" ] || kill "$server" 2>/dev/null || true; }
trap 'stop; kill 0' EXIT
(cd web && npx --no-install vite --host 127.0.0.1 --port 5173 --strictPort) &
state() { find api app cmd core server \( -name '*.go' -o -name '*.csv' -o -name '*.sql' -o -name '*.yaml' \) -printf '%p %T@\n' | sort | cksum; }
was=
while true; do
  now=$(state)
  if [ "$now" != "$was" ]; then
    was=$now
    if go build -o bin/mabbin ./cmd/mabbin; then
      stop
      bin/mabbin demo
      bin/mabbin serve -addr 127.0.0.1:8080 &
      server=$!
    fi
  fi
  sleep 1
done
