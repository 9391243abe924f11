package learn

import (
	"strings"

	"mabbin/core/larder"
	"mabbin/core/message"
)

// ParameterKind is a thing that can be learnt.
type ParameterKind string

// What can be learnt. A key is that of an oven, a fruit, a fruit with its lot after a bar, a thickener or a topping.
const (
	OvenOffset ParameterKind = "oven_offset" // C
	HeatFactor ParameterKind = "heat_factor"
	Release    ParameterKind = "release" // its key * is all fruit
	Softness   ParameterKind = "softness"
	Thickener  ParameterKind = "thickener"
	Steam      ParameterKind = "steam"
	Colour     ParameterKind = "colour"
	WorkTime   ParameterKind = "hands" // minutes by the kind of a task, which is its key
)

var parameterKinds = message.Words(OvenOffset, HeatFactor, Release, Softness, Thickener, Steam, Colour, WorkTime)

// ParameterName is one thing that can be learnt.
type ParameterName struct {
	Kind ParameterKind `json:"what"`
	Key  string        `json:"key"`
}

// parameter is one unknown of the estimate: a normal prior, its mean 0 but for an oven whose offset was measured.
type parameter struct {
	ParameterName
	mean, sd float64
}

// parameters are the unknowns of a log, each once, in the order in which its bakes bring them.
type parameters struct {
	all []parameter
	at  map[ParameterName]int
}

func (p *parameters) index(what ParameterKind, key string, sd float64) int {
	n := ParameterName{what, key}
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

// group are the parameters that are one correction: offset and heat of an oven can't be reported apart.
func (p *parameters) group(i int) []int {
	n := p.all[i].ParameterName
	switch n.Kind {
	case OvenOffset:
		return []int{i, p.at[ParameterName{HeatFactor, n.Key}]}
	case HeatFactor:
		return []int{p.at[ParameterName{OvenOffset, n.Key}], i}
	}
	return []int{i}
}

// parts are the parameters that a reported figure is the sum of: a fruit's release is that of all fruit and its own.
func (p *parameters) parts(i int) []int {
	n := p.all[i].ParameterName
	if _, lot := fruitOf(n.Key); n.Kind == Release && n.Key != larder.AllFruit && !lot {
		return []int{p.at[ParameterName{Release, larder.AllFruit}], i}
	}
	return []int{i}
}
