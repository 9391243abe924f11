#!/usr/bin/env bash
# Fails where a generated file is not what its source makes now.
set -euo pipefail
cd "$(dirname "$0")/.."
fresh=$(mktemp -d)
trap 'rm -rf "$fresh"' EXIT
(cd api && ../bin/oapi-codegen -config oapi-codegen.yaml -o "$fresh/api.gen.go" openapi.yaml)
(cd web && npx --no-install openapi-typescript ../api/openapi.yaml -o "$fresh/schema.d.ts" >/dev/null)
same=true
cmp -s "$fresh/api.gen.go" api/api.gen.go || { echo "api/api.gen.go is not what api/openapi.yaml makes: run make generate" >&2; same=false; }
cmp -s "$fresh/schema.d.ts" web/src/api/schema.d.ts || { echo "web/src/api/schema.d.ts is not what api/openapi.yaml makes: run make generate" >&2; same=false; }
$same
