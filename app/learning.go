package app

import (
	"mabbin/core/learn"

	lru "github.com/hashicorp/golang-lru/v2"
)

// surfacesKept is how many bakes keep what they come to in other ovens.
const surfacesKept = 4096

// NewSurfaces keeps the surfaces of bakes: a new bake is run, those of the log are not run again.
func NewSurfaces() learn.Keeper {
	kept, _ := lru.New[[32]byte, *learn.Surface](surfacesKept) // it fails for sizes below one
	return kept
}
