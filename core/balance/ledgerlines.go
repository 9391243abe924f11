package balance

import (
	"mabbin/core/larder"
	"mabbin/core/say"
)

// LedgerLine is one line of the juice ledger as a baker reads it.
type LedgerLine struct {
	Code     string       `json:"code"`
	Name     say.Line     `json:"name"`
	G        float64      `json:"g"`         // negative: it left
	RunningG float64      `json:"running_g"` // what is there after this line
	Why      say.Line     `json:"why"`
	Basis    larder.Basis `json:"basis"`
}

// ledgerLines writes the ledger out in the order in which it happens. Lines that are nothing here are left out, but
// for those that every dessert has.
func (p *plan) ledgerLines(s stand) []LedgerLine {
	l := s.Ledger
	all := []struct {
		code   string
		name   say.Line
		g      float64
		always bool
		why    say.Line
		basis  larder.Basis
	}{
		{"released", "Juice out of the fruit", l.ReleasedG, true, "The fruit's water, by composition, times the share that it gives up at this cut.", larder.Working},
		{"precook_off", "Driven off on the hob", -l.PrecookOffG, false, "By the minutes of pre-cooking, open or covered.", larder.Working},
		{"wash_water", "Water from washing", l.WashWaterG, false, "Berries that go in wet carry 3 % of their weight.", larder.Working},
		{"added_water", "Water of liquids and butter", l.AddedWaterG, false, "By composition of what is poured over or stirred in.", larder.Composition},
		{"dissolved", "Sugar, dissolved", l.DissolvedSugarG, true, "All added sugar and what the fruit gives up of its own: it is part of the juice.", larder.Composition},
		{"drained_water", "Drawn juice, gone", -l.DrainedWaterG, false, "What sugar drew out while it stood, and was left behind or boiled away.", larder.Working},
		{"steamed_off", "Steamed off", -l.SteamedOffG, true, p.whySteam(), larder.Working},
		{"soaked_up", "Soaked up", -l.SoakedUpG, true, "By topping, base, crumbs and dried fruit, at most 60 % of the juice there is.", larder.Working},
	}
	var lines []LedgerLine
	running := 0.0
	for _, x := range all {
		running += x.g
		if x.g != 0 || x.always {
			lines = append(lines, LedgerLine{x.code, x.name, x.g, running, x.why, x.basis})
		}
	}
	return lines
}

// sources says of the figures of an answer where they are from.
func (p *plan) sources(a *Answer) map[string]Sourced {
	fruit := map[string]say.Line{
		byFill:      p.fillSource(),
		byHeadspace: say.F("As much as leaves {rim} of free rim when it boils. Swelling by steam is a working figure.", say.MM(p.style.keepMM)),
		byWeight:    "Your own weight, from the bowl.",
	}[a.Fit.LimitedBy]
	sugar := say.Line("Sugar target by the fruit's acid; the fruit's own sugar by composition.")
	if p.req.SugarG != nil {
		sugar = "Your own weight."
	}
	thick := say.Line("Strength of the thickener, weakened by acid; the fruit's pectin counts.")
	if p.givenG != nil {
		thick = "Your own weight: the set follows."
	}
	out := map[string]Sourced{
		"fruit_g":     {larder.Working, fruit},
		"sugar_g":     {larder.Composition, sugar},
		"thickener_g": {p.thickener.Basis, thick},
		"topping_g":   {p.wanted.Topping.Basis, "Rim area x thickness x coverage x raw density of this topping."},
		"portions":    {larder.Handbook, "Finished weight over the usual portion of this style."},
		"volume_ml":   volumeSource(p.req.Dish.MeasuredML),
	}
	if p.under.G > 0 {
		out["base_g"] = Sourced{p.base.Basis, "Floor, and for a shell the walls, x thickness x raw density."}
	}
	return out
}

func (p *plan) fillSource() say.Line {
	const packed say.Line = "Hand-packed weight by the fruit's bulk density and a working factor."
	switch p.style.rule {
	case byFloor:
		return say.F("{much} of fruit to each square centimetre of the floor.", say.G(p.style.fill))
	case byShell:
		return say.Sentences(say.F("Fruit heaped to {share} % of the lined dish: it sinks, and the topping rides on it.", say.N(100*p.style.fill, 0)), packed)
	}
	return say.Sentences(say.F("Raw stack at {share} % of the dish.", say.N(100*p.style.fill, 0)), packed)
}

func volumeSource(measured float64) Sourced {
	if measured > 0 {
		return Sourced{larder.Definition, "Measured with water."}
	}
	return Sourced{larder.Definition, "Computed from the sizes. Filling the dish with water on the scale is better."}
}

// whySteam says where the figure for steam comes from.
func (p *plan) whySteam() say.Line {
	if p.req.SteamedOffG != nil {
		return "By the bake of this very dessert, on the model: its oven, its stages and its gaps."
	}
	return say.F("By the area of the rim: {steam} g from each square centimetre of a {style}.", say.N(p.style.steamGCM2, 3), say.L(say.Line(p.req.Style)))
}
