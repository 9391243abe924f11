// Package api is the contract: openapi.yaml describes every request and answer with bounds, units and examples, and
// both sides are generated from it.
package api

//go:generate go tool -modfile=../tools/go.mod oapi-codegen -config oapi-codegen.yaml -o api.gen.go openapi.yaml
