package learn

import (
	"strings"

	"mabbin/core/larder"
	"mabbin/core/message"
)

// What is a thing that can be learnt.
type What string

// What can be learnt. A key is that of an oven, a fruit, a fruit with its lot after a bar, a thickener or a topping.
const (
	OvenOffset What = "oven_offset" // C
	HeatFactor What = "heat_factor"
	Release    What = "release" // its key * is all fruit
	Softness   What = "softness"
	Thickener  What = "thickener"
	Steam      What = "steam"
	Colour     What = "colour"
	Hands      What = "hands" // minutes by the kind of a task, which is its key
)

var whats = message.Words(OvenOffset, HeatFactor, Release, Softness, Thickener, Steam, Colour, Hands)

// Name is one thing that can be learnt.
type Name struct {
	What What   `json:"what"`
	Key  string `json:"key"`
}

// parameter is one unknown of the estimate: a normal prior, its mean 0 but for an oven whose offset was measured.
type parameter struct {
	Name
	mean, sd float64
}

// parameters are the unknowns of a log, each once, in the order in which its bakes bring them.
type parameters struct {
	all []parameter
	at  map[Name]int
}

func (p *parameters) index(what What, key string, sd float64) int {
	n := Name{what, key}
	if i, ok := p.at[n]; ok {
		return i
	}
	p.at[n] = len(p.all)
	p.all = append(p.all, parameter{n, 0, sd})
	return len(p.all) - 1
}

// fruitOf is the fruit of a key of release, without its lot; isLot says that it has one.
func fruitOf(key string) (fruit string, isLot bool) {
	fruit, _, isLot = strings.Cut(key, "|")
	return fruit, isLot
}

// group are the parameters that are one correction: offset and heat of an oven can't be told apart.
func (p *parameters) group(i int) []int {
	n := p.all[i].Name
	switch n.What {
	case OvenOffset:
		return []int{i, p.at[Name{HeatFactor, n.Key}]}
	case HeatFactor:
		return []int{p.at[Name{OvenOffset, n.Key}], i}
	}
	return []int{i}
}

// parts are the parameters that a reported figure is the sum of: a fruit's release is that of all fruit and its own.
func (p *parameters) parts(i int) []int {
	n := p.all[i].Name
	if _, lot := fruitOf(n.Key); n.What == Release && n.Key != larder.AllFruit && !lot {
		return []int{p.at[Name{Release, larder.AllFruit}], i}
	}
	return []int{i}
}
