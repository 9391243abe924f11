package recipe

import (
	"mabbin/core/balance"
	"mabbin/core/dish"
	"mabbin/core/message"
	"mabbin/core/units"
)

// Format is one of the open forms that a recipe is read and written in.
type Format string

// The forms.
const (
	FormatText   Format = "text"
	FormatCSV    Format = "csv"
	FormatJSONLD Format = "jsonld"
	FormatHTML   Format = "html"
)

// Document is a recipe as it was found in a file: lines to be understood, and Mabbin's own card where it wrote the
// file.
type Document struct {
	Format  Format         `json:"format"`
	Name    string         `json:"name"`
	Yield   string         `json:"yield,omitempty"`
	Lines   []DocumentLine `json:"lines"`
	Method  []string       `json:"method"`
	Style   string         `json:"style,omitempty"` // by the name
	OvenC   float64        `json:"oven_c,omitempty"`
	Minutes float64        `json:"minutes,omitempty"`
	// Dish is the one that it names; nil: none.
	Dish      *dish.Dish      `json:"dish,omitempty"`
	DishSizes message.Message `json:"dish_sizes,omitzero"` // of it, in words
	// Cup is whose cup it measures with, where something tells, and CupWhy what.
	Cup    units.Cup       `json:"cup,omitempty"`
	CupWhy message.Message `json:"cup_why,omitzero"`
	Card   *Card           `json:"card,omitempty"`
}

// DocumentLine is one line of the ingredients, with its bowl where the file names it.
type DocumentLine struct {
	Text string `json:"text"`
	Bowl Bowl   `json:"bowl,omitempty"`
}

// Card is a card whole, as Mabbin writes and reads it without loss.
type Card struct {
	Name    string          `json:"name"`
	Request balance.Request `json:"request"`
	OvenC   float64         `json:"oven_c,omitempty"`
	Minutes float64         `json:"minutes,omitempty"`
	Note    string          `json:"note,omitempty"`
	// Original is nil for a card that did not come in from elsewhere.
	Original *Original `json:"original,omitempty"`
}

// Original is how a recipe that came in was made and how far it went, in its writer's own words.
type Original struct {
	Serves string   `json:"serves,omitempty"`
	Method []string `json:"method"`
}
