#!/usr/bin/env bash
# Stops the project's own PostgreSQL; does nothing when it is not running.
set -euo pipefail
. "$(dirname "$0")/pg-env.sh"
running || exit 0
as "$PGBIN/pg_ctl" -D "$DATA" -m fast -w -t 60 -s stop
