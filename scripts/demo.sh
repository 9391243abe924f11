#!/usr/bin/env bash
# Starts everything with the demo kitchen. MABBIN_PORT chooses the port of the page; "reset" as an argument loads the kitchen afresh.
set -euo pipefail
here=$(cd "$(dirname "$0")" && pwd)
MABBIN_DB=$("$here/pg-start.sh")
export MABBIN_DB
if [ "${1:-}" = reset ]; then exec "$here/../bin/mabbin" demo -reset; fi
"$here/../bin/mabbin" demo
exec "$here/../bin/mabbin" serve -addr "127.0.0.1:${MABBIN_PORT:-8080}" -log "$here/../var/server.log"
