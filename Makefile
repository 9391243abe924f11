# make demo    the page with the demo kitchen, on http://127.0.0.1:8080
# make test    every test; make lint the linters, make check what needs no database and no browser
.PHONY: demo demo-reset dev stop build test check lint lint-go lint-web lint-words drift bench mutants shots generate attack
SHELL := /bin/bash
.SHELLFLAGS := -eu -o pipefail -c

WEB := $(shell find web/src web/public web/index.html web/vite.config.ts docs/bake.md docs/glossary.md -type f 2>/dev/null)

demo: build
	@scripts/need.sh database
	@scripts/demo.sh

demo-reset: build
	@scripts/need.sh database
	@scripts/demo.sh reset

dev: web/node_modules/.ready
	@scripts/need.sh database
	@scripts/dev.sh

stop:
	@scripts/pg-stop.sh

build: web/dist/index.html
	@go build -o bin/mabbin ./cmd/mabbin

web/node_modules/.ready: web/package-lock.json web/.npmrc
	cd web && npm ci --no-fund --no-audit --loglevel=error
	@touch $@

web/dist/index.html: web/node_modules/.ready $(WEB)
	cd web && npm run --silent build
	@touch $@

# What calculates, reads and writes runs as it is, and shorter with the race detector, where cgo allows it. So do the
# hostile caller and the poisoned archives. The browser drives the server as it is built.
RACE := $(shell command -v gcc >/dev/null && [ "$$(go env CGO_ENABLED)" = 1 ] && echo -race)
test: web/dist/index.html
	@scripts/need.sh database browser
	@export MABBIN_TEST_DB="$$(scripts/pg-start.sh test)"; status=0; \
	go test -timeout 25m ./core/... ./server/formats || status=1; \
	go test -timeout 25m -run 'TestNoRequestIsAFault|TestEveryColumnMayBe' ./server/httpapi ./server/store || status=1; \
	go test $(RACE) -short -timeout 25m $$(go list ./... | grep -v /e2e) || status=1; \
	go test -timeout 25m -parallel 3 ./e2e || status=1; \
	(cd tools && go test ./words) || status=1; exit $$status

check: web/node_modules/.ready
	cd web && npm run --silent types
	go vet ./core/... ./app
	go test -short ./core/... ./app

lint: lint-web lint-go lint-words drift

lint-words:
	@cd tools && go run ./words -root ..

lint-web: web/node_modules/.ready
	cd web && npm run --silent types && npm run --silent lint

# The tools have a module of their own; what is built once is kept in bin.
bin/oapi-codegen bin/gofumpt bin/golangci-lint &: tools/go.mod tools/go.sum
	cd tools && GOFLAGS=-buildvcs=false go build -o ../bin/ github.com/oapi-codegen/oapi-codegen/v2/cmd/oapi-codegen mvdan.cc/gofumpt github.com/golangci/golangci-lint/v2/cmd/golangci-lint
	@touch bin/oapi-codegen bin/gofumpt bin/golangci-lint

lint-go: bin/golangci-lint bin/gofumpt
	@bad=$$(bin/gofumpt -l api app attack cmd core server e2e web/*.go); [ -z "$$bad" ] || { echo "not formatted (gofumpt): $$bad" >&2; exit 1; }
	bin/golangci-lint run --allow-parallel-runners ./...

drift: bin/oapi-codegen web/node_modules/.ready
	@scripts/drift.sh

generate: bin/oapi-codegen web/node_modules/.ready
	cd api && go run ./rules openapi.yaml
	cd api && ../bin/oapi-codegen -config oapi-codegen.yaml -o api.gen.go openapi.yaml
	cd web && npm run --silent generate

bench: web/dist/index.html
	go test -run '^$$' -bench . -benchmem ./core/... ./server/...
	@scripts/need.sh database browser
	MABBIN_TEST_DB="$$(scripts/pg-start.sh test)" go test -run '^$$' -bench . -benchtime 1x ./e2e

# Attacks a copy with a database of its own for MINUTES, and then one that looks for races for RACED_MINUTES.
MINUTES ?= 10
RACED_MINUTES ?= 3
attack: build
	@scripts/need.sh database
	@go build -o bin/attack ./attack
	bin/attack -minutes $(MINUTES)
	@[ -z "$(RACE)" ] || { go build -race -o bin/mabbin-race ./cmd/mabbin && \
	bin/attack -race -binary bin/mabbin-race -seed 2 -minutes $(RACED_MINUTES); }

shots: build
	@scripts/need.sh database browser
	MABBIN_TEST_DB="$$(scripts/pg-start.sh test)" MABBIN_SHOTS="$(CURDIR)/docs/screenshots" go test -count=1 -run '^TestShots$$' ./e2e

# Changes constants and comparisons of one package at a time and prints those that no test notices.
PACKAGE ?= ./core/units
mutants:
	@cd tools && go build -o ../bin/mutants ./mutants
	@bin/mutants -n 60 $(PACKAGE)
