package balance

import (
	"mabbin/core/larder"
	"mabbin/core/message"
)

// LedgerLine is one line of the juice ledger as a baker reads it.
type LedgerLine struct {
	Code     string          `json:"code"`
	Name     message.Message `json:"name"`
	G        float64         `json:"g"`         // negative: it left
	RunningG float64         `json:"running_g"` // what is there after this line
	Source   message.Message `json:"source"`
	Basis    larder.Basis    `json:"basis"`
}

// ledgerLines writes the ledger out in the order in which it happens. Lines that are nothing here are left out, but
// for those that every dessert has.
func (p *plan) ledgerLines(s candidate) []LedgerLine {
	l := s.Ledger
	all := []struct {
		code   string
		name   message.Message
		g      float64
		always bool
		why    message.Message
		basis  larder.Basis
	}{
		{
			"released",
			message.New("Juice from the fruit"),
			l.ReleasedG,
			true,
			message.New("The fruit's water by composition, times the share that it releases at this cut."),
			larder.Working,
		},
		{
			"precook_off",
			message.New("Boiled off on the hob"),
			-l.PrecookOffG,
			false,
			message.New("By the minutes of pre-cooking, open or covered."),
			larder.Working,
		},
		{
			"wash_water",
			message.New("Water from washing"),
			l.WashWaterG,
			false,
			message.New("Wet berries carry 3 % of their weight."),
			larder.Working,
		},
		{
			"added_water",
			message.New("Water in liquids and butter"),
			l.AddedWaterG,
			false,
			message.New("By composition of what is poured over or stirred in."),
			larder.Composition,
		},
		{
			"dissolved",
			message.New("Dissolved sugar"),
			l.DissolvedSugarG,
			true,
			message.New("All added sugar and the sugar that the fruit releases: dissolved sugar is part of the juice."),
			larder.Composition,
		},
		{
			"drained_water",
			message.New("Drawn juice, removed"),
			-l.DrainedWaterG,
			false,
			message.New("Juice that the sugar drew out while the fruit stood, and that was left behind or boiled away."),
			larder.Working,
		},
		{"steamed_off", message.New("Lost as steam"), -l.SteamedOffG, true, p.whySteam(), larder.Working},
		{
			"soaked_up",
			message.New("Absorbed"),
			-l.SoakedUpG,
			true,
			message.New("By topping, base, crumbs and dried fruit; at most 60 % of the juice."),
			larder.Working,
		},
	}
	lines := make([]LedgerLine, 0, len(all))
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
	fruit := map[string]message.Message{
		byFill:      p.fillSource(),
		byHeadspace: p.book.New("As much as leaves {rim} below the rim when it boils. Swelling by steam is a working figure.", message.Millimetres(p.style.KeepMM)),
		byWeight:    message.New("Your own weight."),
	}[a.Fit.LimitedBy]
	sugar := message.New("Sugar target from the fruit's acid; the fruit's own sugar by composition.")
	if p.req.SugarG != nil {
		sugar = message.New("Your own weight.")
	}
	thick := message.New("Strength of the thickener, weakened by acid; the fruit's pectin is included.")
	if p.givenG != nil {
		thick = message.New("Your own weight; the thickness of the juice is calculated from it.")
	}
	out := map[string]Sourced{
		"fruit_g":     {larder.Working, fruit},
		"sugar_g":     {larder.Composition, sugar},
		"thickener_g": {p.thickener.Basis, thick},
		"topping_g": {
			p.wanted.Topping.Basis,
			message.New("Rim area x thickness x coverage x raw density of this topping."),
		},
		"portions":  {larder.Handbook, message.New("Finished weight over the usual portion of this style.")},
		"volume_ml": volumeSource(p.req.Dish.MeasuredML),
	}
	if p.under.G > 0 {
		out["base_g"] = Sourced{p.base.Basis, message.New("Floor (for a shell also the walls) x thickness x raw density.")}
	}
	return out
}

func (p *plan) fillSource() message.Message {
	packed := message.New("Hand-packed weight from the fruit's bulk density and a working factor.")
	switch p.style.FillRule {
	case larder.FillFloor:
		return p.book.New("{much} of fruit per square centimetre of floor.", message.Grams(p.style.Fill))
	case larder.FillShell:
		return p.book.Sentences(
			p.book.New(
				"Fruit heaped to {share} % of the lined dish: it sinks, and the topping sinks with it.",
				message.Number(100*p.style.Fill, 0),
			),
			packed,
		)
	}
	return p.book.Sentences(
		p.book.New("Raw layers at {share} % of the dish.", message.Number(100*p.style.Fill, 0)),
		packed,
	)
}

func volumeSource(measured float64) Sourced {
	if measured > 0 {
		return Sourced{larder.Definition, message.New("Measured with water.")}
	}
	return Sourced{
		larder.Definition,
		message.New("Computed from the sizes. Weighing the dish full of water is more exact."),
	}
}

// whySteam says where the figure for steam comes from.
func (p *plan) whySteam() message.Message {
	if p.req.SteamedOffG != nil {
		return message.New(
			"From the bake model of this dessert (oven, stages, gaps), plus half of the simple rule for steam lost below boiling.",
		)
	}
	return p.book.New(
		"From the rim area: {steam} g per square centimetre for a {style}.",
		message.Number(p.style.SteamGCM2, 3),
		message.Word(p.req.Style),
	)
}
