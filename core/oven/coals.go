package oven

import (
	"math"

	"mabbin/core/fault"
	"mabbin/core/message"
)

// Fire is a camp oven and the weather round it.
type Fire struct {
	DiameterCM float64 `json:"diameter_cm"`
	Wind       string  `json:"wind,omitempty"` // calm, breeze or windy; left out: calm
	Cold       bool    `json:"cold,omitempty"` // near freezing
	Wet        bool    `json:"wet,omitempty"`  // wet ground or rain
	// Fuel is what burns: briquettes are counted, lumps of wood judged by eye and hand; left out: briquettes.
	Fuel    string `json:"fuel,omitempty"`
	Stacked bool   `json:"stacked,omitempty"` // two pots, one on the other
}

// Coals are briquettes for one temperature.
type Coals struct {
	Above int `json:"above"` // on the lid
	Below int `json:"below"` // in a ring under the rim, none under the middle
	// Between are those between two pots: they heat the lid of the lower and the floor of the upper.
	Between int `json:"between,omitempty"`
}

// Tending is what a camp oven wants while it bakes.
type Tending struct {
	Coals    []Coals           `json:"coals"`  // for each stage
	ByEye    bool              `json:"by_eye"` // they are lumps: the counts are of briquettes, to go by
	Hand     message.Message   `json:"hand"`   // the test with a hand over the lid
	Ready    []message.Message `json:"ready"`  // before it is filled
	TurnAt   []float64         `json:"turn_at_min"`
	RenewAt  []float64         `json:"renew_at_min"`
	Cautions []message.Message `json:"cautions"`
}

// The rule of coals, with briquettes. Handbook practice; the weather's shares are working figures.
const (
	coalsPerInch  = 2.0 // for coalsForC
	coalsForC     = 175.0
	belowShare    = 1.0 / 3
	degreesACoal  = 15.0 // of one more above and one more below
	inch          = 2.54
	turnEveryMin  = 15.0
	handSeconds   = 7.0  // that a hand bears over the lid at coalsForC, a second either way
	handPerC      = 0.08 // less for each degree more
	leastSeconds  = 2.0
	renewEveryMin = 45.0
)

var (
	windMore = map[string]float64{"": 1, "calm": 1, "breeze": 1.1, "windy": 1.25}
	coldMore = 1.1
	wetMore  = 1.1
)

// Check notes every wrong field.
func (r Fire) Check(at string, f *fault.Faults) {
	f.In(at, "/diameter_cm", r.DiameterCM, DiameterBounds)
	f.AmongOrNone(at, "/wind", r.Wind, Winds)
	f.AmongOrNone(at, "/fuel", r.Fuel, Fuels)
}

// Coals counts the briquettes for a temperature.
func (r Fire) Coals(ovenC float64) Coals {
	all := coalsPerInch * r.DiameterCM / inch
	more := (ovenC - coalsForC) / degreesACoal
	k := windMore[r.Wind]
	if r.Cold {
		k *= coldMore
	}
	if r.Wet {
		k *= wetMore
	}
	below := max(2, k*(belowShare*all+more))
	above := max(3, k*((1-belowShare)*all+more))
	c := Coals{Above: int(math.Round(above)), Below: int(math.Round(below))}
	if r.Stacked { // the lower lid wants more than the upper floor, and gives it both
		c.Between = c.Above
	}
	return c
}

// The fuels.
const (
	Briquettes = "briquettes"
	Lumps      = "lumps"
)

// hand is the test with a hand over the lid: a school, and no measure.
func hand(ovenC float64) message.Message {
	s := max(leastSeconds, handSeconds-handPerC*(ovenC-coalsForC))
	return message.New(
		"For {heat}, a hand held 20 cm above the lid can bear it for {from} to {to} seconds. People differ: use a thermometer.",
		message.OvenHeat(ovenC),
		message.Number(s-1, 0),
		message.Number(s+1, 0),
	)
}

// ready is what is done before the pot is filled.
var ready = []message.Message{
	message.New(
		"Set the empty tin into the pot first, on three pebbles or a trivet, and fill it there: it bakes with less moisture.",
	),
	message.New(
		"Put the coals below in a ring under the rim, none under the middle, and those above around the edge of the lid.",
	),
}

var stackedReady = append(append([]message.Message{}, ready...), message.New(
	"Two pots: stack the faster dessert on top, so that it can be lifted off first. The coals in between heat both.",
))

// Tend says what the fire wants over stages of some minutes at some temperatures.
func (r Fire) Tend(minutes, ovenC []float64) Tending {
	t := Tending{
		Coals: []Coals{}, ByEye: r.Fuel == Lumps, Ready: ready, TurnAt: []float64{}, RenewAt: []float64{}, Cautions: cautions,
	}
	if r.Stacked {
		t.Ready = stackedReady
	}
	if len(ovenC) > 0 {
		t.Hand = hand(ovenC[0])
	}
	all := 0.0
	for i, c := range ovenC {
		t.Coals = append(t.Coals, r.Coals(c))
		all += minutes[i]
	}
	for m := turnEveryMin; m < all-5; m += turnEveryMin {
		t.TurnAt = append(t.TurnAt, m)
	}
	for m := renewEveryMin; m < all-5; m += renewEveryMin {
		t.RenewAt = append(t.RenewAt, m)
	}
	return t
}

// cautions are those of every fire of coals.
var cautions = []message.Message{
	message.New("Outdoors only, never in a tent, a van or a house: coals give off carbon monoxide."),
	message.New("Use bare mineral soil or a metal tray, away from anything that burns. Respect fire bans."),
	message.New("Lift the lid level and away from you: steam comes out at once, and ash falls in."),
	message.New("Knock the ash off now and then: it insulates."),
	message.New(
		"Turn the pot one way and the lid the other, a third of a turn each time. When you are done, put the coals out until they are cold.",
	),
}
