package balance

import (
	"math"

	"mabbin/core/message"
)

// Level is how much a remark matters.
type Level string

// The levels. A caution is about people, not about the dessert.
const (
	Note    Level = "note"
	Advice  Level = "advice"
	Warning Level = "warning"
	Caution Level = "caution"
)

// Station is the part of the work where something belongs.
type Station string

// The stations, in the order of the work.
const (
	AtDish    Station = "dish"
	AtFruit   Station = "fruit"
	AtJuice   Station = "juice"
	AtTopping Station = "topping"
	AtBake    Station = "bake"
)

// Remark says what, why and what to do, at the station where it belongs.
type Remark struct {
	Code    string          `json:"code"`
	About   string          `json:"about,omitempty"` // key of the fruit that it is about, where it is about one
	Level   Level           `json:"level"`
	Station Station         `json:"station"`
	Text    message.Message `json:"text"`
	Reason  message.Message `json:"reason"`
	Action  message.Message `json:"action"`
}

// usualRemarks is how many remarks there usually are.
const usualRemarks = 8

// remarks is everything worth saying about a balanced dessert, the weightiest first within each station.
func (p *plan) remarks(s candidate, a *Answer) []Remark {
	out := make([]Remark, 0, usualRemarks)
	for _, about := range []func(*plan, candidate, *Answer, *[]Remark){
		aboutHeadspace, aboutShares, aboutEachFruit, aboutPrecook, aboutMixture, aboutAir, aboutSet, aboutSlips,
		aboutSweetness, aboutThickener, aboutTopping, aboutBetty, aboutBiscuit, aboutBase,
		aboutCustard, aboutGluten, aboutSafety,
	} {
		about(p, s, a, &out)
	}
	return out
}

// remark adds a remark, which its caller may say more of.
func remark(out *[]Remark, code string, l Level, station Station, what, why, do message.Message) *Remark {
	*out = append(*out, Remark{Code: code, Level: l, Station: station, Text: what, Reason: why, Action: do})
	return &(*out)[len(*out)-1]
}

func aboutHeadspace(p *plan, s candidate, a *Answer, out *[]Remark) {
	mm := s.headspaceMM
	less := s.FruitG - a.Fit.MostFruitG
	bigger := p.geo.VolumeML + (p.style.KeepMM-mm)/10*p.geo.RimAreaCM2
	mend := p.book.New(
		"Take out {fruit} of fruit, or use a dish of {dish}. Put a tray under it.",
		message.Grams(less),
		message.Millilitres(bigger),
	)
	if less < ticketG { // it is not the fruit
		mend = p.book.New("Use a dish of {dish}. Put a tray under it.", message.Millilitres(bigger))
	}
	if a.Fit.MostFruitG < leastFruitG {
		mend = p.book.New(
			"The topping alone is too much for this dish. Make it thinner, or use a dish of {dish}. Put a tray under it.",
			message.Millilitres(bigger),
		)
	}
	switch {
	case mm < boilOverMM:
		remark(
			out,
			"boils_over",
			Warning,
			AtDish,
			message.New("It will boil over."),
			p.book.New(
				"When it boils, filling and topping rise {mm} above the rim.",
				message.Millimetres(math.Round(-mm)),
			),
			mend,
		)
	case mm < min(boilOverWarnMM, p.style.KeepMM-nearMM): // a pie keeps less, and is planned with what it keeps
		remark(
			out,
			"may_boil_over",
			Warning,
			AtDish,
			message.New("It may boil over."),
			p.book.New("When it boils, only {mm} stay free below the rim.", message.Millimetres(math.Round(mm))),
			mend,
		)
	case a.Fit.LimitedBy == byHeadspace:
		remark(
			out,
			"headspace_limits",
			Note,
			AtDish,
			message.New("The space below the rim limits the fruit."),
			p.book.New(
				"The usual amount would leave less than {mm} below the rim when it boils.",
				message.Millimetres(p.style.KeepMM),
			),
			message.New("There is a little less fruit than usual, to keep it from boiling over. Put a tray under it."),
		)
	}
	if s.headspaceMM > 25 && a.Fit.LimitedBy == byWeight {
		remark(
			out,
			"dish_half_empty",
			Advice,
			AtDish,
			message.New("The dish is large for this fruit."),
			p.book.New(
				"{mm} stay free below the rim: the sides do not brown, and a thin filling dries out.",
				message.Millimetres(mm),
			),
			p.book.New("Use a smaller dish, or up to {fruit} of fruit.", message.Grams(a.Fit.MostFruitG)),
		)
	}
}
